-- What a release was made of, so that the page of forms can say what changed since without reading releases.
ALTER TABLE "release" ADD COLUMN "made_of" jsonb;--> statement-breakpoint
CREATE TABLE "form_check" (
	"form" text PRIMARY KEY NOT NULL,
	"errors" integer NOT NULL,
	"warnings" integer NOT NULL,
	"of" text NOT NULL
);
