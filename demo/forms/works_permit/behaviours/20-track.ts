/** Track: hot works and diving are examined in full, everything else in short. */

keep("which track", () => {
  const kind = fields.works_kind.value;
  const full = kind === "hot" || kind === "diving";
  tracks.full.shown = full;
  tracks.short.shown = kind !== null && kind !== "inspection" && !full;
});

on.saved(() => {
  tracks.full.stage = "examined";
  form.message("The request is on its way.");
});
