-- How much of the statements the scenarios reached when that was last measured, in percent, and the last runs of each form.
ALTER TABLE "scenario_run" ADD COLUMN "coverage" integer;--> statement-breakpoint
CREATE TABLE "past_run" (
  "id" serial PRIMARY KEY,
  "form" text NOT NULL,
  "passed" integer NOT NULL,
  "failed" integer NOT NULL,
  "failing" json NOT NULL,
  "by" text,
  "at" timestamp with time zone DEFAULT now() NOT NULL
);--> statement-breakpoint
CREATE INDEX "past_run_order" ON "past_run" ("form", "id");
