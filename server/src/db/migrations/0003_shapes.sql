UPDATE "surface" SET "body" = '{"shape":null,"cutOuts":[]}'::jsonb || "body";
--> statement-breakpoint
UPDATE "plan" SET "body" = jsonb_set("body", '{pieces}', (SELECT coalesce(jsonb_agg('{"path":null,"holes":[],"parts":[]}'::jsonb || p), '[]'::jsonb) FROM jsonb_array_elements("body"->'pieces') p));
