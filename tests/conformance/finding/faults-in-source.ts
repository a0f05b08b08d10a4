/** What every session shows alike, so that reading is what tells: conditions, keys, arithmetic, days. Common practice. */
import { faultsOf, type Fault } from './fault';

const conditions = faultsOf('conditions and keys', 'source');
const sums = faultsOf('arithmetic', 'source');
const days = faultsOf('days and months', 'source');
const untouched = faultsOf('untouched for no', 'source');

export const faultsInSource: Fault[] = [
  conditions(
    'a label is compared',
    'mooring',
    `keep(() => { fields.licence.shown = (fields.pilot.value as string) === "Own"; });`,
    ['"Own"', '"own"'],
  ),
  conditions(
    'a key of an earlier list',
    'works',
    `
const NEEDS = ["hot_work", "diving"];
keep(() => { fields.leader.required = NEEDS.includes(fields.works_kind.value ?? ""); });`,
    ['"hot_work"', '"hot"'],
  ),
  conditions(
    'labels as the keys of a lookup',
    'works',
    `
const HINTS: Record<string, string> = { Hot: "A fire watch.", Diving: "Two divers.", Crane: "A banksman." };
keep(() => { fields.leader.hint = HINTS[fields.works_kind.value ?? ""] ?? null; });`,
    ['Hot:', 'hot:'],
    ['Diving:', 'diving:'],
    ['Crane:', 'crane:'],
  ),
  conditions(
    'one key of a lookup is no option',
    'dues',
    `
const TERMS: Record<string, number> = { agent: 14, owner: 30, charter: 7 };
keep(() => { fields.account.hint = fields.payer.value === null ? null : "Within " + (TERMS[fields.payer.value] ?? 30) + " days"; });`,
    ['charter:', 'charterer:'],
  ),
  conditions(
    'a role that nobody has',
    'clearance',
    `keep(() => { sections.office.shown = form.person.roles.includes("officers" as never); });`,
    ['"officers" as never', '"officer"'],
  ),
  conditions(
    'a cell’s text that no row of the table has',
    'dues',
    `keep(() => { fields.days.hint = fields.berth.row?.closed_on === "Monday" ? "Closed on Mondays." : null; });`,
    ['"Monday"', '"monday"'],
  ),
  conditions(
    'above a limit that the definition sets',
    'works',
    `keep(() => { fields.leader.required = (fields.hours.value ?? 0) > 80; });`,
    ['> 80', '> 24'],
  ),
  conditions(
    'a branch behind a return with the same condition',
    'dues',
    `
keep(() => {
  if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }
  if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }
  fields.days.hint = null;
});`,
    [
      'if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }\n  if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }',
      'if ((fields.days.value ?? 0) > 30) { fields.days.hint = "Ask the master."; return; }\n  if ((fields.days.value ?? 0) > 5) { fields.days.hint = "A long stay."; return; }',
    ],
  ),
  conditions(
    'two bounds that exclude each other',
    'mooring',
    `keep(() => { fields.remarks.required = (fields.length.value ?? 0) > 200 && (fields.length.value ?? 0) < 100; });`,
    ['< 100', '< 300'],
  ),
  conditions(
    'or where and was meant',
    'mooring',
    `keep(() => { fields.pilot_name.shown = fields.pilot.value !== "none" || fields.pilot.value !== null; });`,
    ['||', '&&'],
  ),
  conditions(
    'an option compared with another spelling in a list',
    'manifest',
    `keep(() => { fields.note.required = fields.hazards.value.some((hazard) => (["fire", "toxic"] as string[]).includes(hazard)); });`,
    ['"toxic"', '"poison"'],
  ),
  conditions(
    'a launch name that the form does not have',
    'clearance',
    `on.load(() => { if (form.isNew && form.launch.purpouse === "repair") fields.purpose.value = "repair"; });`,
    ['form.launch.purpouse', 'form.launch.purpose'],
  ),
  sums(
    'a number added to a text',
    'dues',
    `keep(() => { fields.reference.value = "D" + (fields.days.value ?? 0) + 1; });`,
    ['"D" + (fields.days.value ?? 0) + 1', '"D" + ((fields.days.value ?? 0) + 1)'],
  ),
  sums(
    'money without rounding is compared',
    'dues',
    `keep(() => { fields.deposit.required = (fields.amount.value ?? 0) * 1.1 === 110; });`,
    [
      '(fields.amount.value ?? 0) * 1.1 === 110',
      'round((fields.amount.value ?? 0) * 1.1, 2) === 110',
    ],
  ),
  sums(
    'rounding by a hundred',
    'dues',
    `keep(() => { fields.amount.value = Math.round((fields.days.value ?? 0) * 1.005 * 100) / 100; });`,
    [
      'Math.round((fields.days.value ?? 0) * 1.005 * 100) / 100',
      'round((fields.days.value ?? 0) * 1.005, 2)',
    ],
  ),
  sums(
    'an empty number counts as free',
    'dues',
    `keep(() => { fields.amount.hint = (fields.tonnage.value ?? 0) < 100 ? "Free below 100 tons." : null; });`,
    [
      '(fields.tonnage.value ?? 0) < 100',
      'fields.tonnage.value !== null && fields.tonnage.value < 100',
    ],
  ),
  sums(
    'a text from a field joined to a number',
    'works',
    `keep(() => { fields.reason.hint = "Hour " + (fields.hours.value ?? 0) + 24; });`,
    ['"Hour " + (fields.hours.value ?? 0) + 24', '"Hour " + ((fields.hours.value ?? 0) + 24)'],
  ),
  sums(
    'money in doubles ends in a hint',
    'manifest',
    `keep(() => { fields.note.hint = fields.total_worth.value === null ? null : "Insured at " + fields.total_worth.value * 1.1; });`,
    ['fields.total_worth.value * 1.1', 'round(fields.total_worth.value * 1.1, 2)'],
  ),
  days(
    'a month of thirty days',
    'clearance',
    `
const DAY = 24 * 60 * 60 * 1000;
keep(() => { fields.fee.required = fields.from.value !== null && fields.to.value !== null && (Date.parse(fields.to.value) - Date.parse(fields.from.value)) / DAY / 30 > 1; });`,
    [
      '(Date.parse(fields.to.value) - Date.parse(fields.from.value)) / DAY / 30 > 1',
      'Temporal.PlainDate.compare(Temporal.PlainDate.from(fields.to.value), Temporal.PlainDate.from(fields.from.value).add({ months: 1 })) > 0',
    ],
  ),
  days(
    'months from zero',
    'clearance',
    `keep(() => { fields.remark.hint = fields.from.value !== null && new Date(fields.from.value).getMonth() === 12 ? "The office is closed at the end of December." : null; });`,
    [
      'new Date(fields.from.value).getMonth() === 12',
      'Temporal.PlainDate.from(fields.from.value).month === 12',
    ],
  ),
  days(
    'a year of 365 days',
    'works',
    `
const DAY = 86_400_000;
on.change(fields.works_kind, () => { fields.valid_until.value = new Date(Date.parse("2031-05-02") + 365 * DAY).toISOString().slice(0, 10); });`,
    [
      'new Date(Date.parse("2031-05-02") + 365 * DAY).toISOString().slice(0, 10)',
      'Temporal.PlainDate.from("2031-05-02").add({ years: 1 }).toString()',
    ],
  ),
  days(
    'the local day of a date that has none',
    'mooring',
    `keep(() => { fields.remarks.hint = fields.arrival.value !== null && new Date(fields.arrival.value).getDay() === 0 ? "No linesmen on Sundays." : null; });`,
    [
      'new Date(fields.arrival.value).getDay() === 0',
      'Temporal.PlainDate.from(fields.arrival.value).dayOfWeek === 7',
    ],
  ),
  untouched(
    'untouched is taken for no',
    'dues',
    `keep(() => { fields.account.required = fields.exempt.value === false; });`,
    ['fields.exempt.value === false', 'fields.exempt.value !== true'],
  ),
  untouched(
    'not insured is what nobody was asked',
    'manifest',
    `keep(() => { fields.note.required = !fields.insured.value; });`,
    ['!fields.insured.value', 'fields.insured.value === false'],
  ),
  untouched(
    'a follow-up that was not answered hides the repair',
    'inspection',
    `keep(() => { sections.repair.shown = fields.passed.value === false; });`,
    ['fields.passed.value === false', 'fields.passed.value !== true'],
  ),
];
