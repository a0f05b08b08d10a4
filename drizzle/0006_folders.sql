-- What was taken into the workspace in one go, so that it can be undone in one go.
CREATE TABLE "taking" (
	"id" serial PRIMARY KEY NOT NULL,
	"what" text NOT NULL,
	"saved_by" text,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone,
	"changes" jsonb NOT NULL
);--> statement-breakpoint
-- What a live folder and the workspace had in common last, by unit: the digest of its canonical text.
CREATE TABLE "folder_base" (
	"unit" text PRIMARY KEY NOT NULL,
	"digest" text NOT NULL
);
