-- A person may have several roles: the one each had becomes the first of a list, in the workspace and in what was handed out.
UPDATE "workspace" SET "content" = jsonb_set("content", '{people}', (
  SELECT coalesce(jsonb_agg(CASE WHEN "person" ? 'role' THEN ("person" - 'role') || jsonb_build_object('roles', jsonb_build_array("person" -> 'role')) ELSE "person" END), '[]'::jsonb)
  FROM jsonb_array_elements("content" -> 'people') AS "person"
));--> statement-breakpoint
UPDATE "filling" SET "opening" = jsonb_set("opening", '{person}', (("opening" -> 'person') - 'role') || jsonb_build_object('roles', jsonb_build_array("opening" -> 'person' -> 'role')))
WHERE "opening" -> 'person' ? 'role';
--> statement-breakpoint
-- A release cannot be edited, so its scripts go on reading the one role a person had: the first of the list.
UPDATE "release" SET "content" = regexp_replace("content"::text, 'form\.person\.role\M', 'form.person.roles[0]', 'g')::jsonb
WHERE "content"::text ~ 'form\.person\.role\M';
