/** Dues: by length, days and kind of vessel, a tenth less from the eighth day; accepted before the request goes out. */

keep("dues", () => {
  const { value: arrival } = fields.arrival;
  const { value: departure } = fields.departure;
  const rate = fields.vessel_kind.row?.dues_rate ?? null;
  const length = fields.length.value;
  if (arrival === null || departure === null || rate === null || length === null || departure < arrival) {
    fields.dues.value = null;
    return;
  }
  const days = Temporal.PlainDate.from(arrival).until(departure, { largestUnit: "days" }).days + 1;
  const full = Math.min(days, 7) * length * rate;
  const reduced = Math.max(days - 7, 0) * length * rate * 0.9;
  fields.dues.value = full + reduced;
});

keep("only agents accept dues", () => {
  fields.dues_accepted.locked = form.person.role !== "agent";
});

on.submit((event) => {
  if (form.person.role === "agent" && fields.dues_accepted.value !== true) {
    event.stop("The dues have to be accepted.", fields.dues_accepted);
  }
});
