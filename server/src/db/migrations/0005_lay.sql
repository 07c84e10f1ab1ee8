CREATE TABLE "lay_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"surface_id" uuid GENERATED ALWAYS AS ((body->>'surfaceId')::uuid) STORED,
	"kind" text GENERATED ALWAYS AS ((body->>'kind')) STORED
);
--> statement-breakpoint
CREATE TABLE "step_set" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"firm_id" uuid GENERATED ALWAYS AS ((body->>'firmId')::uuid) STORED
);
--> statement-breakpoint
CREATE INDEX "lay_entry_job" ON "lay_entry" USING btree ("job_id");