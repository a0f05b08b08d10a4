-- What people did in filling-ins, kept to be done again on the next version, and what was accepted of the differences
-- between the last release and the form as it is. A run of the scenarios says until when they came out like that.
ALTER TABLE "past_run" ADD COLUMN "until" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
UPDATE "past_run" SET "until" = "at";--> statement-breakpoint
-- The number of the earlier release that it puts back.
ALTER TABLE "release" ADD COLUMN "again" integer;--> statement-breakpoint
-- What workers go over forms for: faults, or what changed for people since the last release, and what that came to.
ALTER TABLE "search_run" ADD COLUMN "what" text DEFAULT 'faults' NOT NULL;--> statement-breakpoint
CREATE TABLE "form_changed" (
  "form" text PRIMARY KEY,
  "of" text NOT NULL,
  "release" integer NOT NULL,
  "sessions" integer NOT NULL,
  "count" integer NOT NULL,
  "at" timestamp with time zone DEFAULT now() NOT NULL
);--> statement-breakpoint
CREATE TABLE "accepted_difference" (
  "form" text NOT NULL,
  "key" text NOT NULL,
  "content" jsonb NOT NULL,
  "by" text NOT NULL,
  "at" timestamp with time zone DEFAULT now() NOT NULL,
  PRIMARY KEY ("form", "key")
);--> statement-breakpoint
CREATE TABLE "kept_filling" (
  "id" serial PRIMARY KEY,
  "form" text NOT NULL,
  "record" text NOT NULL,
  "release" integer NOT NULL,
  "masked" boolean NOT NULL,
  "content" jsonb NOT NULL,
  "at" timestamp with time zone DEFAULT now() NOT NULL
);--> statement-breakpoint
CREATE INDEX "kept_filling_order" ON "kept_filling" ("form", "id");--> statement-breakpoint
CREATE INDEX "kept_filling_record" ON "kept_filling" ("form", "record");--> statement-breakpoint
CREATE INDEX "kept_filling_age" ON "kept_filling" ("at");--> statement-breakpoint
-- What somebody entered goes with the record that came of it, however that is removed.
CREATE FUNCTION tavro_forget_fillings() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  DELETE FROM "kept_filling" k WHERE k."form" = OLD."form" AND k."record" = OLD."id";
  RETURN NULL;
END
$$;--> statement-breakpoint
CREATE TRIGGER "record_gone" AFTER DELETE ON "record" FOR EACH ROW EXECUTE FUNCTION tavro_forget_fillings();
