UPDATE "film" SET "body" = '{"stretchMaxPct": null}'::jsonb || "body" WHERE NOT "body" ? 'stretchMaxPct';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"head": "any", "besideId": null, "recesses": []}'::jsonb || "body" WHERE "body"->>'kind' = 'panel';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"breaks": []}'::jsonb || "body" WHERE "body"->>'kind' = 'wall';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"ends": {"foot": "floor", "head": "ceiling"}}'::jsonb || "body" WHERE "body"->>'kind' = 'column';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"besideId": null}'::jsonb || "body" WHERE "body"->>'kind' = 'counter';
