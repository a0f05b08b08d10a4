/** Visits: a vessel that has been here is known; its latest visit comes from the visit itself. */

on.change(fields.latest_visit, ({ value }) => {
  if (value !== null && fields.standing.value === "new") fields.standing.value = "known";
});

keep("visits are listed once the vessel is saved", () => {
  sections.visits_part.shown = !form.isNew || fields.latest_visit.value !== null;
});

keep("only the harbour master bars a vessel", () => {
  fields.standing.locked = !form.person.roles.includes("master");
});
