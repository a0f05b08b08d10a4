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
  conditions(
    'a constant holds the label',
    'mooring',
    `
const OWN = "Own";
keep(() => { fields.licence.shown = fields.pilot.value === (OWN as string); });`,
    ['"Own"', '"own"'],
  ),
  conditions(
    'a set of keys, one of an earlier list',
    'inspection',
    `
const SERIOUS = new Set<string>(["accident", "damage"]);
keep(() => { pages.hull.shown = fields.reason.value !== null && SERIOUS.has(fields.reason.value); });`,
    ['"accident"', '"complaint"'],
  ),
  conditions(
    'a map from labels',
    'clearance',
    `
const FEES = new Map<string, number>([["Bunkers", 40], ["Repair", 90], ["Lay_up", 120]]);
on.change(fields.purpose, ({ value }) => { fields.fee.value = value === null ? null : FEES.get(value) ?? 20; });`,
    ['"Bunkers"', '"bunkers"'],
    ['"Repair"', '"repair"'],
    ['"Lay_up"', '"lay_up"'],
  ),
  conditions(
    'a case of a switch that no option has',
    'works',
    `
keep(() => {
  let hint: string | null = null;
  switch (fields.works_kind.value as string | null) {
    case "hot": hint = "A fire watch stays for an hour."; break;
    case "dive": hint = "Flag A is hoisted."; break;
  }
  fields.leader.hint = hint;
});`,
    ['"dive"', '"diving"'],
  ),
  conditions(
    'the same key asked twice in a chain',
    'clearance',
    `
keep(() => {
  if (fields.purpose.value === "repair") fields.remark.hint = "Which yard?";
  else if (fields.purpose.value === "repair") fields.remark.hint = "How long?";
  else fields.remark.hint = null;
});`,
    ['else if (fields.purpose.value === "repair")', 'else if (fields.purpose.value === "lay_up")'],
  ),
  conditions(
    'and where or was meant',
    'clearance',
    `keep(() => { fields.checked_by.required = fields.state.value === "checked" && fields.state.value === "closed"; });`,
    ['&&', '||'],
  ),
  conditions(
    'below the smallest allowed number',
    'mooring',
    `keep(() => { fields.remarks.hint = fields.length.value !== null && fields.length.value < 2 ? "A dinghy needs no pilot." : null; });`,
    ['< 2', '< 12'],
  ),
  conditions(
    'a limit in percent asked as a share',
    'dues',
    `keep(() => { fields.account.required = (fields.discount.value ?? 0) > 150; });`,
    ['> 150', '> 15'],
  ),
  conditions(
    'a label in what is looked for in several',
    'manifest',
    `keep(() => { fields.note.required = (fields.hazards.value as string[]).includes("Fire"); });`,
    ['"Fire"', '"fire"'],
  ),
  conditions(
    'a narrower bound inside a wider one that excludes it',
    'mooring',
    `
keep(() => {
  const draught = fields.draught.value ?? 0;
  fields.remarks.hint = null;
  if (draught < 5) { if (draught > 9) fields.remarks.hint = "Only at high water."; }
});`,
    ['if (draught < 5) {', 'if (draught > 5) {'],
  ),
  conditions(
    'a cell’s key as the label has it',
    'manifest',
    `keep.each(fields.goods, (row) => { row.fields.weight.required = (row.fields.packing.value as string) === "Drum"; });`,
    ['"Drum"', '"drum"'],
  ),
  conditions(
    'else behind both answers and none',
    'manifest',
    `
keep(() => {
  const answer = fields.insured.value;
  if (answer === true) fields.note.hint = "With which insurer?";
  else if (answer !== true) fields.note.hint = null;
  else fields.note.hint = "Not answered yet.";
});`,
    ['else if (answer !== true)', 'else if (answer === false)'],
  ),
  conditions(
    'a berth asked for by its name',
    'dues',
    `keep(() => { fields.account.required = (fields.berth.value as string) === "North 1"; });`,
    ['"North 1"', '"n1"'],
  ),
  conditions(
    'a text of a table in capitals',
    'dues',
    `
keep(() => {
  const berth = fields.berth.row;
  fields.days.hint = berth !== null && ["Sunday", "Monday"].includes(berth.closed_on ?? "") ? "Not every day." : null;
});`,
    ['"Sunday", "Monday"', '"sunday", "monday"'],
  ),
  sums(
    'days and one more in a template of texts',
    'dues',
    `keep(() => { fields.days.hint = fields.days.value === null ? null : "Leaves on day " + fields.days.value + 1 + "."; });`,
    ['fields.days.value + 1', '(fields.days.value + 1)'],
  ),
  sums(
    'a text field and a number',
    'register',
    `
on.change(fields.by_hand, () => { fields.note.value = "Tide " + (fields.tide.value ?? 0) + 0.5; });`,
    ['"Tide " + (fields.tide.value ?? 0) + 0.5', '"Tide " + ((fields.tide.value ?? 0) + 0.5)'],
  ),
  sums(
    'a text that looks like a number takes part in a sum',
    'works',
    `keep(() => { fields.divers.value = Number((fields.reason.value ?? "0") + 1); });`,
    ['Number((fields.reason.value ?? "0") + 1)', 'Number(fields.reason.value ?? "0") + 1'],
  ),
  sums(
    'two amounts side by side',
    'dues',
    `keep(() => { fields.account.hint = "In all " + (fields.amount.value ?? 0) + (fields.deposit.value ?? 0); });`,
    [
      '(fields.amount.value ?? 0) + (fields.deposit.value ?? 0)',
      'round((fields.amount.value ?? 0) + (fields.deposit.value ?? 0), 2)',
    ],
  ),
  sums(
    'toFixed of what two doubles make',
    'dues',
    `keep(() => { fields.reference.value = fields.amount.value === null ? null : (fields.amount.value * 1.075).toFixed(2); });`,
    ['(fields.amount.value * 1.075).toFixed(2)', 'String(round(fields.amount.value * 1.075, 2))'],
  ),
  sums(
    'a third of an amount is asked for exactly',
    'dues',
    `
on.submit((event) => { if (fields.deposit.value !== null && fields.deposit.value !== (fields.amount.value ?? 0) * 0.3) event.stop("The deposit is 30 %.", fields.deposit); });`,
    ['(fields.amount.value ?? 0) * 0.3', 'round((fields.amount.value ?? 0) * 0.3, 2)'],
  ),
  sums(
    'an amount in a sentence with all its decimals',
    'dues',
    `keep(() => { fields.account.hint = \`Discount: \${(fields.amount.value ?? 0) * 0.07}\`; });`,
    ['(fields.amount.value ?? 0) * 0.07', 'round((fields.amount.value ?? 0) * 0.07, 2)'],
  ),
  sums(
    'rounding by ten thousand',
    'manifest',
    `keep(() => { fields.note.hint = "Premium " + Math.round((fields.total_worth.value ?? 0) * 0.0125 * 100) / 100; });`,
    [
      'Math.round((fields.total_worth.value ?? 0) * 0.0125 * 100) / 100',
      'round((fields.total_worth.value ?? 0) * 0.0125, 2)',
    ],
  ),
  sums(
    'a ship without a length is a small one',
    'mooring',
    `keep(() => { fields.pilot.locked = Number(fields.length.value) < 50; });`,
    [
      'Number(fields.length.value) < 50',
      'fields.length.value !== null && fields.length.value < 50',
    ],
  ),
  sums(
    'no crew entered is few',
    'clearance',
    `
keep(() => {
  const crew = fields.crew.value ?? 0;
  fields.remark.hint = crew <= 12 ? "No doctor needed." : null;
});`,
    [
      'const crew = fields.crew.value ?? 0;\n  fields.remark.hint = crew <= 12',
      'const crew = fields.crew.value;\n  fields.remark.hint = crew !== null && crew <= 12',
    ],
  ),
  days(
    'weeks of a stay by dates as clocks',
    'mooring',
    `keep(() => { fields.nights.value = fields.departure.value === null ? null : new Date(fields.departure.value).getDate(); });`,
    [
      'new Date(fields.departure.value).getDate()',
      'Temporal.PlainDate.from(fields.departure.value).day',
    ],
  ),
  days(
    'the ninth month for September',
    'clearance',
    `
keep(() => {
  if (fields.from.value === null) { fields.remark.hint = null; return; }
  const day = new Date(fields.from.value + "T12:00:00");
  fields.remark.hint = day.getMonth() >= 9 && day.getMonth() <= 12 ? "Autumn tariff." : null;
});`,
    ['day.getMonth() >= 9 && day.getMonth() <= 12', 'day.getMonth() >= 8 && day.getMonth() <= 11'],
  ),
  days(
    'half a year of 182 days',
    'register',
    `
on.change(fields.day, ({ value }) => {
  if (value === null) return;
  const months = Math.floor((Date.parse(value) - Date.parse("2031-01-01")) / (1000 * 60 * 60 * 24 * 30));
  fields.note.value = months + " months";
});`,
    [
      'Math.floor((Date.parse(value) - Date.parse("2031-01-01")) / (1000 * 60 * 60 * 24 * 30))',
      'Temporal.PlainDate.from("2031-01-01").until(value, { largestUnit: "month" }).months',
    ],
  ),
  days(
    'a permit for a year by adding days',
    'works',
    `
on.click(buttons.grant, () => { fields.valid_until.value = Temporal.PlainDate.from("2031-05-02").add({ days: 365 }).toString(); });`,
    ['{ days: 365 }', '{ years: 1 }'],
  ),
  days(
    'a month by adding days',
    'clearance',
    `
on.change(fields.from, ({ value }) => { if (value !== null) fields.to.value = Temporal.PlainDate.from(value).add({ days: 30 }).toString(); });`,
    ['{ days: 30 }', '{ months: 1 }'],
  ),
  days(
    'names of months from one',
    'register',
    `
const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];
keep(() => { fields.note.hint = fields.day.value === null ? null : MONTHS[Temporal.PlainDate.from(fields.day.value).month] ?? null; });`,
    [
      'Temporal.PlainDate.from(fields.day.value).month]',
      'Temporal.PlainDate.from(fields.day.value).month - 1]',
    ],
  ),
  untouched(
    'not at night is what nobody was asked',
    'works',
    `keep(() => { fields.leader.shown = !fields.at_night.value; });`,
    ['!fields.at_night.value', 'fields.at_night.value === false'],
  ),
  untouched(
    'a branch by else',
    'inspection',
    `
keep(() => {
  if (fields.passed.value) { fields.reasons.required = false; fields.reasons.hint = null; }
  else { fields.reasons.required = true; fields.reasons.hint = "Why did it not pass?"; }
});`,
    [
      'else {',
      'else if (fields.passed.value === null) { fields.reasons.required = false; fields.reasons.hint = null; }\n  else {',
    ],
  ),
  untouched(
    'no by a ternary',
    'register',
    `keep(() => { fields.owner.shown = fields.by_hand.value ? false : true; });`,
    ['fields.by_hand.value ? false : true', 'fields.by_hand.value === false'],
  ),
  untouched(
    'unanswered counts as refused at submission',
    'manifest',
    `
on.submit((event) => { if (!fields.insured.value) event.stop("Uninsured goods go to the customs shed.", fields.insured); });`,
    ['!fields.insured.value', 'fields.insured.value === false'],
  ),
  untouched(
    'rows that are not dangerous, as nobody has said',
    'manifest',
    `keep.each(fields.goods, (row) => { row.fields.packing.required = !row.fields.dangerous.value; });`,
    ['!row.fields.dangerous.value', 'row.fields.dangerous.value === false'],
  ),
  untouched(
    'by a default of no',
    'clearance',
    `keep(() => { const urgent = fields.priority.value ?? false; fields.fee.required = urgent === false; });`,
    [
      'const urgent = fields.priority.value ?? false; fields.fee.required = urgent === false;',
      'fields.fee.required = fields.priority.value === false;',
    ],
  ),
];
