CREATE TABLE "plot_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"state" text GENERATED ALWAYS AS ((body->>'state')) STORED
);
--> statement-breakpoint
CREATE TABLE "reservation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"roll_id" uuid GENERATED ALWAYS AS ((body->>'rollId')::uuid) STORED,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED
);
--> statement-breakpoint
CREATE TABLE "stock_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"roll_id" uuid GENERATED ALWAYS AS ((body->>'rollId')::uuid) STORED,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"length_mm" double precision GENERATED ALWAYS AS ((body->>'lengthMm')::double precision) STORED
);
--> statement-breakpoint
CREATE INDEX "plot_run_job" ON "plot_run" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "reservation_roll" ON "reservation" USING btree ("roll_id");--> statement-breakpoint
CREATE INDEX "stock_entry_roll" ON "stock_entry" USING btree ("roll_id");--> statement-breakpoint
CREATE INDEX "stock_entry_job" ON "stock_entry" USING btree ("job_id");
--> statement-breakpoint
UPDATE "film" SET "body" = '{"patternMatch":"straight"}'::jsonb || "body";
--> statement-breakpoint
UPDATE "roll" SET "body" = '{"lengthSigmaM":0,"lengthFrom":{"how":"known"},"form":"roll","place":"","edges":"both","wound":null,"fromRollId":null,"fromPlanId":null,"fromDrop":null}'::jsonb || "body";
--> statement-breakpoint
UPDATE "firm" SET "body" = '{"leftovers":{"smallestSideMm":250,"smallestAreaM2":0.15,"worthFrac":0.4}}'::jsonb || "body";
--> statement-breakpoint
UPDATE "job" SET "body" = jsonb_set("body", '{cut}', '{"mixLots":false,"oneDirection":true}'::jsonb || ("body"->'cut'));
--> statement-breakpoint
UPDATE "surface" SET "body" = jsonb_set('{"seam":null,"design":null,"servedById":null}'::jsonb || "body", '{extraPieces}', (SELECT coalesce(jsonb_agg('{"part":null}'::jsonb || e), '[]'::jsonb) FROM jsonb_array_elements("body"->'extraPieces') e));
--> statement-breakpoint
UPDATE "plan" SET "body" = jsonb_set(jsonb_set('{"takenRollIds":[]}'::jsonb || "body", '{layout}', '{"shortMm":0,"shortWidthMm":null}'::jsonb || ("body"->'layout')), '{pieces}', (SELECT coalesce(jsonb_agg('{"meets":null,"repeat":null,"isPlotted":false}'::jsonb || p), '[]'::jsonb) FROM jsonb_array_elements("body"->'pieces') p));
