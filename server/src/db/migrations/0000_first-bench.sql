CREATE TABLE "change" (
	"position" bigint PRIMARY KEY NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"device_id" uuid NOT NULL,
	"device_seq" integer NOT NULL,
	"base_revision" bigint NOT NULL,
	"label" text NOT NULL,
	"patches" jsonb NOT NULL,
	"inverse" jsonb NOT NULL,
	"undoable" boolean NOT NULL,
	"undoes_id" uuid,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "change_id_unique" UNIQUE("id")
);
--> statement-breakpoint
CREATE TABLE "film" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"name" text GENERATED ALWAYS AS ((body->>'name')) STORED
);
--> statement-breakpoint
CREATE TABLE "firm" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"name" text GENERATED ALWAYS AS ((body->>'name')) STORED
);
--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"firm_id" uuid GENERATED ALWAYS AS ((body->>'firmId')::uuid) STORED,
	"name" text GENERATED ALWAYS AS ((body->>'name')) STORED,
	"deleted_at" text GENERATED ALWAYS AS ((body->>'deletedAt')) STORED
);
--> statement-breakpoint
CREATE TABLE "log_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"at" text GENERATED ALWAYS AS ((body->>'at')) STORED
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"firm_id" uuid GENERATED ALWAYS AS ((body->>'firmId')::uuid) STORED,
	"name" text GENERATED ALWAYS AS ((body->>'name')) STORED
);
--> statement-breakpoint
CREATE TABLE "place" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"walk_order" double precision GENERATED ALWAYS AS ((body->>'order')::double precision) STORED
);
--> statement-breakpoint
CREATE TABLE "plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"film_id" uuid GENERATED ALWAYS AS ((body->>'filmId')::uuid) STORED
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"surface_id" uuid GENERATED ALWAYS AS ((body->>'surfaceId')::uuid) STORED,
	"measure" text GENERATED ALWAYS AS ((body->>'measure')) STORED,
	"length_mm" double precision GENERATED ALWAYS AS ((body->>'lengthMm')::double precision) STORED
);
--> statement-breakpoint
CREATE TABLE "roll" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"film_id" uuid GENERATED ALWAYS AS ((body->>'filmId')::uuid) STORED,
	"label" text GENERATED ALWAYS AS ((body->>'label')) STORED
);
--> statement-breakpoint
CREATE TABLE "surface" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"job_id" uuid GENERATED ALWAYS AS ((body->>'jobId')::uuid) STORED,
	"place_id" uuid GENERATED ALWAYS AS ((body->>'placeId')::uuid) STORED,
	"film_id" uuid GENERATED ALWAYS AS ((body->>'filmId')::uuid) STORED,
	"walk_order" double precision GENERATED ALWAYS AS ((body->>'order')::double precision) STORED
);
--> statement-breakpoint
CREATE UNIQUE INDEX "change_device_seq" ON "change" USING btree ("device_id","device_seq");--> statement-breakpoint
CREATE INDEX "change_job" ON "change" USING btree ("job_id","position");--> statement-breakpoint
CREATE INDEX "log_entry_job" ON "log_entry" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "place_job" ON "place" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "plan_job" ON "plan" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "reading_job" ON "reading" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "surface_job" ON "surface" USING btree ("job_id");