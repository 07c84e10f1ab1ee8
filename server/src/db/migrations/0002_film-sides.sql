UPDATE "film" SET "body" = '{"machineDirection":"along","linerSide":"adhesive"}'::jsonb || "body";
--> statement-breakpoint
UPDATE "rates" SET "body" = '{"filmTaxPct":null}'::jsonb || "body";
