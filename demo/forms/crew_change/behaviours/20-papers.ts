/** Papers: passports and certificates have to outlast the day of the change. */

import { monthsAfter } from "shared/dates";

/** Months a passport has to be valid beyond the day. */
const PASSPORT_MONTHS = 6;

keep.each(fields.people_rows, "papers outlast the day", (row) => {
  const day = fields.day.value;
  if (day === null) return;
  const passport = row.fields.passport_until.value;
  const long = monthsAfter(day, PASSPORT_MONTHS);
  if (passport !== null && passport < day) row.fields.passport_until.problem = "This passport has run out by then.";
  else if (passport !== null && passport < long) row.fields.passport_until.hint = "Runs out within half a year.";
  const medical = row.fields.medical_until.value;
  if (medical !== null && medical < day) row.fields.medical_until.problem = "This certificate has run out by then.";
});

on.click(buttons.same_passport_day, () => {
  const wrong = fields.people_rows.rows.filter((row) => row.fields.passport_until.problem !== null || row.fields.medical_until.problem !== null);
  form.message(wrong.length === 0 ? "All papers are in order." : `Papers of ${wrong.map((row) => row.fields.name.value ?? "somebody").join(", ")} have run out.`, wrong.length === 0 ? "info" : "warning");
});
