UPDATE "film" SET "body" = '{"readAfterS": null}'::jsonb || "body" WHERE NOT "body" ? 'readAfterS';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"corners": null}'::jsonb || "body" WHERE "body"->>'kind' = 'panel';--> statement-breakpoint
UPDATE "surface" SET "body" = '{"hanging": "one-way", "lie": "upright"}'::jsonb || "body" WHERE "body"->>'kind' = 'wall';
