ALTER TABLE "lay_entry" ADD COLUMN "lot" text GENERATED ALWAYS AS ((body->'roll'->>'lot')) STORED;--> statement-breakpoint
CREATE INDEX "lay_entry_lot" ON "lay_entry" USING btree ("lot") WHERE lot is not null;--> statement-breakpoint
CREATE INDEX "lay_entry_called" ON "lay_entry" USING btree ("job_id") WHERE kind = 'called';