-- Steps are counted as the tape counts them. Where a scenario said of a refused step which entry of its list it was, that
-- is left out: the expectation stands right behind the step anyway.
UPDATE "document" SET "content" = jsonb_set("content", '{steps}', (
  SELECT jsonb_agg(CASE
    WHEN "step" #> '{expect,@refused}' IS NULL THEN "step"
    ELSE jsonb_set("step", '{expect,@refused}', (
      SELECT coalesce(jsonb_agg("one" - 'step' ORDER BY "at"), '[]')
      FROM jsonb_array_elements("step" #> '{expect,@refused}') WITH ORDINALITY AS "of" ("one", "at")))
    END ORDER BY "place")
  FROM jsonb_array_elements("content" -> 'steps') WITH ORDINALITY AS "all" ("step", "place")))
WHERE "kind" = 'scenario' AND "content" -> 'steps' @> '[{"expect": {"@refused": []}}]';
