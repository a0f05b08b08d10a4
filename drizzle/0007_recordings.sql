-- Filling-ins that were kept to be looked into.
CREATE TABLE "recording" (
	"id" serial PRIMARY KEY NOT NULL,
	"form" text NOT NULL,
	-- Null for one that was brought in from a file.
	"filling" uuid,
	"because" text NOT NULL,
	"says" text NOT NULL,
	"release" integer,
	"kept_by" text NOT NULL,
	"kept_at" timestamp with time zone DEFAULT now() NOT NULL,
	"content" jsonb NOT NULL
);--> statement-breakpoint
CREATE INDEX "recording_order" ON "recording" ("form", "id");--> statement-breakpoint
CREATE INDEX "recording_filling" ON "recording" ("filling");--> statement-breakpoint
-- Which filling-in a record came of, for the recordings of a record.
CREATE INDEX "filling_saved_as" ON "filling" ("saved_as") WHERE "saved_as" IS NOT NULL;
