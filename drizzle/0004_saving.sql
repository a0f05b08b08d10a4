-- The one way to save whatever has revisions (docs/decisions/0012): what somebody saved meanwhile is never overwritten,
-- a number is never given twice, and what was removed can come back. Records have tables of their own; all other kinds
-- are documents. Saves content made from revision "in_from", 0 for something new; no content removes what is there.
-- Gives whether it was saved and the revision there is now; where it was not saved, also what is there instead.
CREATE FUNCTION tavro_save("in_kind" text, "in_form" text, "in_name" text, "in_content" jsonb, "in_from" integer, "in_by" text, "in_release" integer,
  OUT "saved" boolean, OUT "revision" integer, OUT "content" jsonb, OUT "document" integer) LANGUAGE plpgsql AS $$
DECLARE
  "is_record" boolean := "in_kind" = 'record';
BEGIN
  -- Waits until nobody else saves the same, new things included; what follows sees what was saved by then.
  PERFORM pg_advisory_xact_lock(hashtextextended(concat_ws(' ', "in_kind", "in_form", "in_name"), 0));
  IF "is_record" THEN
    SELECT r."values", r."revision" INTO "content", "revision" FROM "record" r WHERE r."form" = "in_form" AND r."id" = "in_name" FOR UPDATE;
  ELSE
    SELECT d."content", d."revision", d."id" INTO "content", "revision", "document" FROM "document" d
      WHERE d."kind" = "in_kind" AND d."form" = "in_form" AND d."name" = "in_name" AND d."content" IS NOT NULL FOR UPDATE;
  END IF;

  -- Content that is there already is saved as it is, so that saving can be done again.
  "saved" := "content" = "in_content";
  IF "saved" THEN
    "content" := NULL;
    RETURN;
  END IF;
  "saved" := coalesce("revision", 0) = "in_from" AND ("revision" IS NOT NULL OR "in_content" IS NOT NULL);
  IF NOT "saved" THEN
    "revision" := coalesce("revision", 0);
    RETURN;
  END IF;

  -- What is there has the last number of all; what was removed goes on with its own.
  IF "revision" IS NULL AND "is_record" THEN
    SELECT max(r."number") INTO "revision" FROM "record_revision" r WHERE r."form" = "in_form" AND r."id" = "in_name";
  ELSIF "revision" IS NULL THEN
    SELECT d."revision", d."id" INTO "revision", "document" FROM "document" d
      WHERE d."kind" = "in_kind" AND d."form" = "in_form" AND d."name" = "in_name" ORDER BY d."revision" DESC LIMIT 1;
  END IF;
  "revision" := coalesce("revision", 0) + 1;
  "content" := NULL;

  IF "is_record" THEN
    INSERT INTO "record_revision" ("form", "id", "number", "values", "release", "saved_by", "saved_at")
      VALUES ("in_form", "in_name", "revision", "in_content", "in_release", "in_by", clock_timestamp());
    IF "in_content" IS NULL THEN
      DELETE FROM "record" r WHERE r."form" = "in_form" AND r."id" = "in_name";
    ELSE
      INSERT INTO "record" AS r ("form", "id", "values", "revision", "release", "saved_by", "saved_at")
        VALUES ("in_form", "in_name", "in_content", "revision", "in_release", "in_by", clock_timestamp())
        ON CONFLICT ("form", "id") DO UPDATE SET "values" = excluded."values", "revision" = excluded."revision", "release" = excluded."release", "saved_by" = excluded."saved_by", "saved_at" = excluded."saved_at";
    END IF;
    RETURN;
  END IF;
  IF "document" IS NULL THEN
    INSERT INTO "document" AS d ("kind", "form", "name", "content", "revision") VALUES ("in_kind", "in_form", "in_name", "in_content", "revision") RETURNING d."id" INTO "document";
  ELSE
    UPDATE "document" d SET "content" = "in_content", "revision" = tavro_save."revision" WHERE d."id" = tavro_save."document";
  END IF;
  INSERT INTO "revision" ("document", "number", "content", "saved_by", "saved_at") VALUES ("document", "revision", "in_content", "in_by", clock_timestamp());
END
$$;--> statement-breakpoint
-- Saves what came of a filling-in, once: the record, the filling-in with it, and the files that were chosen. "before" is
-- what it was saved as by an earlier call, which then stands.
CREATE FUNCTION tavro_submit("in_filling" jsonb, "in_form" text, "in_values" jsonb, "in_from" integer, "in_by" text, "in_release" integer,
  OUT "before" text, OUT "saved" boolean, OUT "revision" integer) LANGUAGE plpgsql AS $$
DECLARE
  "row" "filling" := jsonb_populate_record(NULL::"filling", "in_filling");
BEGIN
  SELECT f."saved_as" INTO "before" FROM "filling" f WHERE f."id" = "row"."id" FOR UPDATE;
  "saved" := "before" IS NOT NULL;
  IF "saved" THEN
    RETURN;
  END IF;
  SELECT s."saved", s."revision" INTO "saved", "revision" FROM tavro_save('record', "in_form", "row"."saved_as", "in_values", "in_from", "in_by", "in_release") s;
  IF NOT "saved" THEN
    RETURN;
  END IF;
  INSERT INTO "filling" SELECT "row".* ON CONFLICT ("id") DO UPDATE SET "saved_as" = excluded."saved_as", "to_parent" = excluded."to_parent";
  UPDATE "file_content" f SET "record" = "row"."saved_as" WHERE f."filling" = "row"."id";
END
$$;--> statement-breakpoint
-- The number of the next new record of a form. It has to be on the disk before anybody uses it: one that was forgotten in
-- a crash would be given twice.
CREATE FUNCTION tavro_next_number("in_form" text) RETURNS integer LANGUAGE sql AS $$
  INSERT INTO "record_number" AS n ("form", "next") VALUES ("in_form", 2) ON CONFLICT ("form") DO UPDATE SET "next" = n."next" + 1 RETURNING n."next" - 1
$$;
