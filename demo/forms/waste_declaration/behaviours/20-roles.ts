/** Roles: the ship's agent declares, the office receives; each finds the other's part locked. */

keep("each their own part", () => {
  sections.declared.locked = !form.person.roles.includes("agent") && !form.isNew;
  sections.reception.locked = form.person.roles.includes("agent");
});

keep("a receipt once it is collected", () => {
  fields.receipt.required = fields.collected_on.value !== null;
});

keep("collected today at the latest", () => {
  const day = fields.collected_on.value;
  fields.collected_on.problem = day !== null && day > Temporal.Now.plainDateISO().toString() ? "This day is still to come." : null;
});
