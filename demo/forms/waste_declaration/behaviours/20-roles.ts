/** Roles: the ship's agent declares, the office receives; each finds the other's part locked. */

import { notAfterToday } from "shared/dates";

keep("each their own part", () => {
  sections.declared.locked = !form.person.roles.includes("agent") && !form.isNew;
  sections.reception.locked = form.person.roles.includes("agent");
});

keep("a receipt once it is collected", () => {
  fields.receipt.required = fields.collected_on.value !== null;
});

keep("collected today at the latest", () => notAfterToday(fields.collected_on));
