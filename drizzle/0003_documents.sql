-- Everything a workspace is made of has one home with revisions: what was removed stays, so that it can come back.
CREATE TABLE "document" (
	"id" serial PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"form" text DEFAULT '' NOT NULL,
	"name" text NOT NULL,
	"content" jsonb,
	"revision" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revision" (
	"document" integer NOT NULL REFERENCES "document"("id"),
	"number" integer NOT NULL,
	"content" jsonb,
	"saved_by" text,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revision_document_number_pk" PRIMARY KEY("document","number")
);
--> statement-breakpoint
INSERT INTO "document" ("kind", "name", "content", "revision") SELECT 'head', 'head', "content", "revision" FROM "workspace" ORDER BY "id" LIMIT 1;--> statement-breakpoint
INSERT INTO "document" ("kind", "name", "content", "revision") SELECT 'form', "name", "definition", "revision" FROM "form";--> statement-breakpoint
INSERT INTO "document" ("kind", "name", "content", "revision") SELECT 'table', "name", "content", "revision" FROM "reference_table";--> statement-breakpoint
INSERT INTO "document" ("kind", "name", "content", "revision") SELECT 'service', "name", "content", "revision" FROM "service";--> statement-breakpoint
INSERT INTO "document" ("kind", "form", "name", "content", "revision") SELECT 'scenario', "form", "name", "content", 1 FROM "scenario";--> statement-breakpoint
INSERT INTO "revision" ("document", "number", "content") SELECT "id", "revision", "content" FROM "document";--> statement-breakpoint
INSERT INTO "document" ("kind", "form", "name", "content", "revision") SELECT 'behaviour', "form", "name", to_jsonb("text"), "revision" FROM "behaviour";--> statement-breakpoint
INSERT INTO "document" ("kind", "form", "name", "content", "revision")
SELECT 'behaviour', "form", "name", NULL, max("revision") + 1 FROM "behaviour_revision" "r"
WHERE NOT EXISTS (SELECT 1 FROM "behaviour" "b" WHERE "b"."form" = "r"."form" AND "b"."name" = "r"."name") GROUP BY "form", "name";--> statement-breakpoint
INSERT INTO "revision" ("document", "number", "content", "saved_at")
SELECT "d"."id", "r"."revision", to_jsonb("r"."text"), "r"."created_at" FROM "behaviour_revision" "r"
JOIN "document" "d" ON "d"."kind" = 'behaviour' AND "d"."form" = "r"."form" AND "d"."name" = "r"."name";--> statement-breakpoint
INSERT INTO "revision" ("document", "number", "content") SELECT "id", "revision", "content" FROM "document" WHERE "kind" = 'behaviour' ON CONFLICT DO NOTHING;--> statement-breakpoint
CREATE UNIQUE INDEX "document_there" ON "document" ("kind", "form", "name") WHERE "content" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "document_names" ON "document" ("kind", "form", "name");--> statement-breakpoint
ALTER TABLE "release" DROP CONSTRAINT "release_form_form_name_fk";--> statement-breakpoint
ALTER TABLE "record" DROP CONSTRAINT "record_form_form_name_fk";--> statement-breakpoint
DROP TABLE "behaviour", "behaviour_revision", "scenario", "form", "reference_table", "service", "workspace";--> statement-breakpoint
CREATE TABLE "record_revision" (
	"form" text NOT NULL,
	"id" text NOT NULL,
	"number" integer NOT NULL,
	"values" jsonb,
	"release" integer,
	"saved_by" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "record_revision_pk" PRIMARY KEY("form","id","number")
);
--> statement-breakpoint
INSERT INTO "record_revision" SELECT "form", "id", "revision", "values", "release", "saved_by", "saved_at" FROM "record";--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS btree_gin;--> statement-breakpoint
-- What records are searched in: every text and number of the values, in small letters.
CREATE FUNCTION tavro_words("values" jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT coalesce(lower(string_agg("word" #>> '{}', ' ')), '') FROM jsonb_path_query("values", 'strict $.** ? (@.type() == "string" || @.type() == "number")') AS "word"
$$;--> statement-breakpoint
-- What records are sorted and filtered by. Empty comes first.
CREATE FUNCTION tavro_text("value" jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT CASE WHEN "value" IS NULL OR jsonb_typeof("value") = 'null' THEN '' ELSE left(lower("value" #>> '{}'), 120) END
$$;--> statement-breakpoint
CREATE FUNCTION tavro_number("value" jsonb) RETURNS numeric LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT CASE WHEN jsonb_typeof("value") = 'number' THEN ("value" #>> '{}')::numeric ELSE '-Infinity'::numeric END
$$;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "place" bigint NOT NULL GENERATED ALWAYS AS (CASE WHEN "id" ~ '^[0-9]{1,18}$' THEN -("id"::bigint) ELSE 1 END) STORED;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "words" text NOT NULL GENERATED ALWAYS AS (tavro_words("values")) STORED;--> statement-breakpoint
CREATE INDEX "record_order" ON "record" ("form", "place", "id");--> statement-breakpoint
CREATE INDEX "record_words" ON "record" USING gin ("form", "words" gin_trgm_ops);--> statement-breakpoint
-- A file is known by what is in it, so that no other can take its place.
ALTER TABLE "file_content" ADD COLUMN "field" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "file_content" ADD COLUMN "digest" text;--> statement-breakpoint
UPDATE "file_content" SET "digest" = encode(sha256("content"), 'hex');--> statement-breakpoint
ALTER TABLE "file_content" ALTER COLUMN "digest" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_content" DROP CONSTRAINT "file_content_filling_name_pk";--> statement-breakpoint
ALTER TABLE "file_content" ADD CONSTRAINT "file_content_pk" PRIMARY KEY ("filling", "field", "name", "digest");--> statement-breakpoint
CREATE INDEX "file_of_record" ON "file_content" ("form", "record", "field", "digest");--> statement-breakpoint
CREATE INDEX "filling_tidy" ON "filling" ("clock") WHERE "saved_as" IS NULL;--> statement-breakpoint
CREATE INDEX "filling_parent" ON "filling" ("parent") WHERE "parent" IS NOT NULL;--> statement-breakpoint
CREATE TABLE "secret" ("name" text PRIMARY KEY NOT NULL, "value" text NOT NULL);
--> statement-breakpoint
CREATE TABLE "scenario_run" (
	"form" text PRIMARY KEY NOT NULL,
	"passed" integer NOT NULL,
	"failed" integer NOT NULL,
	"of" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
