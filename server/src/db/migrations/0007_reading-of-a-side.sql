CREATE INDEX "reading_surface" ON "reading" USING btree ("surface_id","measure");
