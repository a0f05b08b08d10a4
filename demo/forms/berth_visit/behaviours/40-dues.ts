/** Dues: by length, days and kind of vessel, a tenth less from the eighth day; accepted before the request goes out. */

import { daysFromTo } from "shared/dates";

/** Days at the full rate; each further day costs a tenth less. */
const FULL_DAYS = 7;

keep("tariff lines", () => {
  const { value: arrival } = fields.arrival;
  const { value: departure } = fields.departure;
  const rate = fields.vessel_kind.row?.dues_rate ?? null;
  const length = fields.length.value;
  if (arrival === null || departure === null || rate === null || length === null || departure < arrival) {
    fields.tariff.value = [];
    return;
  }
  const days = daysFromTo(arrival, departure);
  const further = Math.max(days - FULL_DAYS, 0);
  const lines = [{ item: "Days at the full rate", days: days - further, amount: (days - further) * length * rate }];
  if (further > 0) lines.push({ item: "Further days, a tenth less", days: further, amount: further * length * rate * 0.9 });
  fields.tariff.value = lines;
});

keep("dues are the sum of the lines", () => {
  fields.dues.value = fields.tariff.count === 0 ? null : round(fields.tariff.sum("amount"), 2);
});

keep("only agents accept dues", () => {
  fields.dues_accepted.locked = !form.person.roles.includes("agent");
});

on.submit((event) => {
  if (form.person.roles.includes("agent") && fields.dues_accepted.value !== true) {
    event.stop("The dues have to be accepted.", fields.dues_accepted);
  }
});
