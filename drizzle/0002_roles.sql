-- A person may have several roles: the one each had becomes the first of a list, in the workspace and in what was handed out.
UPDATE "workspace" SET "content" = jsonb_set("content", '{people}', (
  SELECT coalesce(jsonb_agg(CASE WHEN "person" ? 'role' THEN ("person" - 'role') || jsonb_build_object('roles', jsonb_build_array("person" -> 'role')) ELSE "person" END), '[]'::jsonb)
  FROM jsonb_array_elements("content" -> 'people') AS "person"
));--> statement-breakpoint
UPDATE "filling" SET "opening" = jsonb_set("opening", '{person}', (("opening" -> 'person') - 'role') || jsonb_build_object('roles', jsonb_build_array("opening" -> 'person' -> 'role')))
WHERE "opening" -> 'person' ? 'role';
