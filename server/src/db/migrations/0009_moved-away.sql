CREATE TABLE "moved_away" (
	"at" timestamp with time zone PRIMARY KEY NOT NULL,
	"moved_to" text NOT NULL
);
