/** Right behaviours that look to somebody who reads the source like the faults of `faults-in-source.ts`. */
import { right, type RightOne } from './right-one';

export const rightInSource: readonly RightOne[] = [
  right(
    'a key by a constant',
    'mooring',
    `
const OWN = "own";
keep(() => { fields.licence.shown = fields.pilot.value === OWN; });`,
  ),
  right(
    'a set of keys',
    'inspection',
    `
const SERIOUS = new Set<string>(["complaint", "damage"]);
keep(() => { pages.hull.shown = fields.reason.value !== null && SERIOUS.has(fields.reason.value); });`,
  ),
  right(
    'a lookup by a text that is not the field’s key',
    'dues',
    `
const OPEN: Record<string, string> = { North: "All year.", West: "In summer." };
keep(() => { const name = fields.berth.optionLabel; fields.days.hint = name === null ? null : (OPEN[name.split(" ")[0]!] ?? null); });`,
  ),
  right(
    'a lookup with a key for nothing chosen',
    'works',
    `
const WHO: Record<string, string> = { hot: "The fire officer.", diving: "The diving supervisor.", crane: "A banksman.", none: "Nobody yet." };
keep(() => { fields.leader.hint = WHO[fields.works_kind.value ?? "none"]!; });`,
  ),
  right(
    'steps of a tariff, the largest first',
    'mooring',
    `
keep(() => {
  const length = fields.length.value;
  fields.nights.hint = length === null ? null : length > 200 ? "Tariff C" : length > 100 ? "Tariff B" : "Tariff A";
});`,
  ),
  right(
    'steps of a tariff, the smallest first, with returns',
    'dues',
    `
const band = (days: number) => {
  if (days < 3) return "short";
  if (days < 30) return "medium";
  return "long";
};
keep(() => { fields.days.hint = fields.days.value === null ? null : band(fields.days.value); });`,
  ),
  right(
    'between two bounds',
    'mooring',
    `keep(() => { fields.remarks.required = fields.length.value !== null && fields.length.value > 100 && fields.length.value <= 200; });`,
  ),
  right(
    'outside of two bounds',
    'mooring',
    `keep(() => { fields.remarks.required = (fields.draught.value ?? 5) < 2 || (fields.draught.value ?? 5) > 12; });`,
  ),
  right(
    'a word of one’s own at the definition’s limit',
    'works',
    `keep(() => { fields.hours.problem = fields.hours.value !== null && fields.hours.value > 72 ? "Ask for a second permit after three days." : null; });`,
  ),
  right(
    'more than nothing',
    'manifest',
    `keep(() => { fields.note.required = (fields.total.value ?? 0) > 0; });`,
  ),
  right(
    'nothing or none',
    'clearance',
    `keep(() => { fields.remark.hint = (fields.crew.value ?? 0) === 0 ? "Nobody on board?" : null; });`,
  ),
  right(
    'empty counts as nothing in a sum',
    'dues',
    `keep(() => { fields.amount.value = round((fields.days.value ?? 0) * 12.5, 2) + (fields.deposit.value ?? 0); });`,
  ),
  right(
    'a number in a sentence, computed in brackets',
    'dues',
    `keep(() => { fields.days.hint = "Leaves on day " + ((fields.days.value ?? 0) + 1) + "."; });`,
  ),
  right(
    'texts joined with a number between them',
    'works',
    `keep(() => { fields.reason.hint = (fields.contractor.value ?? "Nobody") + " works " + (fields.hours.value ?? 0) + " hours"; });`,
  ),
  right(
    'a sum before its unit',
    'manifest',
    `keep(() => { fields.total.hint = fields.goods.sum("weight") + 20 + " kg with the pallet"; });`,
  ),
  right(
    'money rounded before it is told',
    'dues',
    `keep(() => { const gross = round((fields.amount.value ?? 0) * 1.19, 2); fields.account.hint = "With tax: " + gross; });`,
  ),
  right(
    'money compared with a whole limit',
    'dues',
    `keep(() => { fields.deposit.required = (fields.amount.value ?? 0) * 1.1 > 500; });`,
  ),
  right(
    'a share of money in a money field',
    'dues',
    `on.change(fields.amount, ({ value }) => { fields.deposit.value = value === null ? null : round(value / 3, 2); });`,
  ),
  right(
    'thirty days as the rule book says',
    'clearance',
    `
on.change(fields.from, ({ value }) => { if (value !== null && fields.to.empty) fields.to.value = Temporal.PlainDate.from(value).add({ days: 14 }).toString(); });`,
  ),
  right(
    'minutes and hours by division',
    'works',
    `keep(() => { fields.hours.hint = fields.hours.value === null ? null : round(fields.hours.value / 24, 1) + " days"; });`,
  ),
  right(
    'a thirtieth that is no month',
    'manifest',
    `keep(() => { fields.lines.hint = Math.ceil((fields.total.value ?? 0) / 30) + " pallets of 30 kg"; });`,
  ),
  right(
    'a month of a plain date',
    'clearance',
    `keep(() => { fields.remark.hint = fields.from.value !== null && Temporal.PlainDate.from(fields.from.value).month === 12 ? "Closed at the end of the month." : null; });`,
  ),
  right(
    'names of months by a plain date',
    'register',
    `
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
keep(() => { fields.note.hint = fields.day.value === null ? null : MONTHS[Temporal.PlainDate.from(fields.day.value).month - 1] ?? null; });`,
  ),
  right(
    'yes, and otherwise not',
    'works',
    `keep(() => { fields.leader.required = fields.at_night.value === true; fields.leader.hint = fields.at_night.value ? "Stays all night." : null; });`,
  ),
  right(
    'not exempt unless said',
    'dues',
    `keep(() => { sections.payment.shown = fields.exempt.value !== true; });`,
  ),
  right(
    'no is asked for by itself',
    'inspection',
    `keep(() => { fields.signature.required = fields.passed.value === false; });`,
  ),
  right(
    'not empty, by a negation',
    'mooring',
    `keep(() => { fields.pilot_name.shown = !fields.licence.empty; });`,
  ),
  right(
    'a text of a table as it stands there',
    'dues',
    `keep(() => { fields.days.hint = fields.berth.row?.closed_on === "sunday" ? "Closed on Sundays." : null; });`,
  ),
];
