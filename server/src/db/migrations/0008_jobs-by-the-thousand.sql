ALTER TABLE "job" ADD COLUMN "customer" text GENERATED ALWAYS AS ((body->>'customer')) STORED;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "address" text GENERATED ALWAYS AS ((body->>'address')) STORED;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "due_on" text GENERATED ALWAYS AS ((body->>'dueOn')) STORED;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "units" text GENERATED ALWAYS AS ((body->>'units')) STORED;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "created_at" text GENERATED ALWAYS AS ((body->>'createdAt')) STORED;--> statement-breakpoint
CREATE TABLE "job_count" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"counted_at" bigint NOT NULL,
	"surface_count" integer NOT NULL,
	"measured_count" integer NOT NULL,
	"cut_count" integer NOT NULL
);--> statement-breakpoint
CREATE INDEX "reservation_job" ON "reservation" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "roll_film" ON "roll" USING btree ("film_id");
