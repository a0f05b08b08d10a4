CREATE TABLE "behaviour" (
	"form" text NOT NULL,
	"name" text NOT NULL,
	"text" text NOT NULL,
	"revision" integer NOT NULL,
	CONSTRAINT "behaviour_form_name_pk" PRIMARY KEY("form","name")
);
--> statement-breakpoint
CREATE TABLE "behaviour_revision" (
	"form" text NOT NULL,
	"name" text NOT NULL,
	"revision" integer NOT NULL,
	"text" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "behaviour_revision_form_name_revision_pk" PRIMARY KEY("form","name","revision")
);
--> statement-breakpoint
CREATE TABLE "filling" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"release" integer NOT NULL,
	"opening" jsonb NOT NULL,
	"record_revision" integer,
	"saved_as" text,
	"clock" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "form" (
	"name" text PRIMARY KEY NOT NULL,
	"definition" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "record" (
	"form" text NOT NULL,
	"id" text NOT NULL,
	"values" jsonb NOT NULL,
	"revision" integer NOT NULL,
	"release" integer,
	"saved_by" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "record_form_id_pk" PRIMARY KEY("form","id")
);
--> statement-breakpoint
CREATE TABLE "record_number" (
	"form" text PRIMARY KEY NOT NULL,
	"next" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reference_table" (
	"name" text PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "release" (
	"id" serial PRIMARY KEY NOT NULL,
	"form" text NOT NULL,
	"number" integer NOT NULL,
	"content" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "scenario" (
	"form" text NOT NULL,
	"name" text NOT NULL,
	"content" jsonb NOT NULL,
	CONSTRAINT "scenario_form_name_pk" PRIMARY KEY("form","name")
);
--> statement-breakpoint
CREATE TABLE "workspace" (
	"id" serial PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "behaviour" ADD CONSTRAINT "behaviour_form_form_name_fk" FOREIGN KEY ("form") REFERENCES "form"("name") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filling" ADD CONSTRAINT "filling_release_release_id_fk" FOREIGN KEY ("release") REFERENCES "release"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_form_form_name_fk" FOREIGN KEY ("form") REFERENCES "form"("name") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "release" ADD CONSTRAINT "release_form_form_name_fk" FOREIGN KEY ("form") REFERENCES "form"("name") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scenario" ADD CONSTRAINT "scenario_form_form_name_fk" FOREIGN KEY ("form") REFERENCES "form"("name") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "release_number" ON "release" USING btree ("form","number");