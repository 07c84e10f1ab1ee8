CREATE TABLE "quote" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"firm_id" uuid GENERATED ALWAYS AS ((body->>'firmId')::uuid) STORED,
	"customer" text GENERATED ALWAYS AS ((body->>'customer')) STORED
);
--> statement-breakpoint
CREATE TABLE "rates" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"firm_id" uuid GENERATED ALWAYS AS ((body->>'firmId')::uuid) STORED
);
--> statement-breakpoint
UPDATE "film" SET "body" = '{"replacesId":null,"construction":null,"mounting":"inside","optics":null,"hazeFrac":null,"emissivityFrac":null,"shrink":null,"patternRepeatMm":null,"temps":null,"drying":null,"offers":[],"note":"","retiredAt":null}'::jsonb || "body";
--> statement-breakpoint
UPDATE "surface" SET "body" = '{"glazing":null,"exposure":null,"choose":null}'::jsonb || "body";
--> statement-breakpoint
UPDATE "roll" SET "body" = '{"isToOrder":false}'::jsonb || "body";
--> statement-breakpoint
UPDATE "job" SET "body" = '{"choose":null}'::jsonb || "body";
