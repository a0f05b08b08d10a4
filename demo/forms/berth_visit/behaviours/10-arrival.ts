/** Arrival and stay: prefills what is known when the form opens, and keeps the dates in order. */

on.load(() => {
  if (!form.isNew) return;
  if (form.person.roles.includes("agent")) form.message(`Welcome, ${form.person.name}. The office answers within a day.`);
  const { vessel, vessel_record: record } = form.launch;
  if (vessel !== null) {
    fields.vessel.value = vessel;
    fields.vessel.locked = true;
  }
  if (record !== null) {
    fields.vessel_record.value = record;
    fields.vessel_record.shown = true;
  }
  if (parent !== null) {
    fields.vessel.value = parent.get("name") as string | null;
    fields.length.value = parent.get("length") as number | null;
    fields.draught.value = parent.get("draught") as number | null;
    fields.vessel.locked = true;
  }
});

on.click(buttons.whole_week, () => {
  const { value: arrival } = fields.arrival;
  if (arrival === null) {
    form.message("Enter the arrival first.", "warning");
    return;
  }
  fields.departure.value = Temporal.PlainDate.from(arrival).add({ days: 7 }).toString();
});

keep("departure is not before arrival", () => {
  const { value: arrival } = fields.arrival;
  const { value: departure } = fields.departure;
  const early = arrival !== null && departure !== null && departure < arrival;
  fields.departure.problem = early ? "Departure is before arrival." : null;
});

on.saved(({ id }) => parent?.set("latest_visit", id));
