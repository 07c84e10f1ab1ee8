UPDATE "firm" SET "body" = '{"forming":null,"blades":{"cleaningMm":[150,300,450],"pressingMm":[100,150,200],"thickMm":[100,150]}}'::jsonb || "body";
--> statement-breakpoint
UPDATE "surface" SET "body" = '{"curved":null,"workedFace":"unknown"}'::jsonb || "body";
--> statement-breakpoint
UPDATE "lay_entry" SET "body" = '{"found":null}'::jsonb || "body";
--> statement-breakpoint
UPDATE "step_set" SET "body" = jsonb_set("body", '{steps}', (SELECT coalesce(jsonb_agg(jsonb_set('{"returnAfterMinutes":null}'::jsonb || s, '{when}', '{"glass":[],"care":[]}'::jsonb || (s->'when')) ORDER BY n), '[]'::jsonb) FROM jsonb_array_elements("body"->'steps') WITH ORDINALITY AS e(s, n)));
--> statement-breakpoint
UPDATE "job" SET "body" = jsonb_set("body", '{prepare}', '{"typedOn":null,"madeUpWeather":false}'::jsonb || ("body"->'prepare')) WHERE jsonb_typeof("body"->'prepare') = 'object';
--> statement-breakpoint
UPDATE "job" SET "body" = jsonb_set("body", '{lay}', '{"forming":null,"lubrication":null}'::jsonb || ("body"->'lay')) WHERE jsonb_typeof("body"->'lay') = 'object';
--> statement-breakpoint
UPDATE "job" SET "body" = '{"prepare":null,"lay":null}'::jsonb || "body";
