UPDATE "surface" SET "body" = jsonb_set("body", '{kind}', '"pane"') WHERE "body"->>'kind' = 'flat-pane';--> statement-breakpoint
UPDATE "change" SET "patches" = replace("patches"::text, '"kind": "flat-pane"', '"kind": "pane"')::jsonb WHERE "patches"::text LIKE '%"kind": "flat-pane"%';--> statement-breakpoint
UPDATE "change" SET "inverse" = replace("inverse"::text, '"kind": "flat-pane"', '"kind": "pane"')::jsonb WHERE "inverse"::text LIKE '%"kind": "flat-pane"%';--> statement-breakpoint
UPDATE "job" SET "body" = "body" || '{"dry": null}' WHERE NOT "body" ? 'dry';
