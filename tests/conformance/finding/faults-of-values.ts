/** Values that are wrong, kept too long, counted twice or never come to rest. Common practice of the trade. */
import { faultsOf, type Fault } from './fault';

const empty = faultsOf('empty and wrong values');
const rows = faultsOf('rows');
const cycles = faultsOf('no rest');
const stale = faultsOf('stale values');
const saved = faultsOf('saved and launched');

export const faultsOfValues: Fault[] = [
  empty(
    'a method of an empty text',
    'clearance',
    `
const check = () => { fields.remark.hint = fields.agent_name.value!.trim().length < 3 ? "Give the agent's full name." : null; };
on.load(() => { if (!fields.agent_name.empty) check(); });
on.change(fields.agent_name, check);`,
    [
      'fields.agent_name.value!.trim().length < 3',
      'fields.agent_name.value !== null && fields.agent_name.value.trim().length < 3',
    ],
  ),
  empty(
    'the row of a reference that is empty',
    'dues',
    `
on.change(fields.berth, () => { fields.rate.value = fields.berth.row!.rate; });`,
    ['fields.berth.row!.rate', 'fields.berth.row?.rate ?? null'],
  ),
  empty(
    'a division by an empty number shows at the field',
    'manifest',
    `
keep(() => { fields.note.hint = \`\${round(fields.total.value! / fields.goods.count, 1)} kg a line\`; });
keep(() => { fields.total.value = fields.goods.sum("weight"); });`,
    ['fields.note.hint = `', 'fields.note.hint = fields.goods.count === 0 ? null : `'],
  ),
  empty(
    'null in a sentence',
    'mooring',
    `
keep(() => { fields.remarks.hint = "Berth for " + fields.vessel.value + " asked for."; });`,
    [
      '"Berth for " + fields.vessel.value + " asked for."',
      'fields.vessel.value === null ? null : "Berth for " + fields.vessel.value + " asked for."',
    ],
  ),
  empty(
    'not a number in a text',
    'works',
    `
keep(() => { fields.reason.hint = "Until hour " + (Number(fields.leader.value) + (fields.hours.value ?? 0)); });`,
    [
      '"Until hour " + (Number(fields.leader.value) + (fields.hours.value ?? 0))',
      'fields.hours.value === null ? null : "For " + fields.hours.value + " hours"',
    ],
  ),
  empty(
    'a text beyond its length is written',
    'register',
    `
on.change(fields.ship, ({ value }) => { fields.imo.value = value; });`,
    ['fields.imo.value = value;', 'fields.note.value = value;'],
  ),
  empty(
    'a list’s first entry where there may be none',
    'manifest',
    `
keep(() => { fields.note.hint = fields.goods.rows[0]!.fields.what.value; });`,
    ['fields.goods.rows[0]!.fields', 'fields.goods.rows.at(0)?.fields'],
    ['.what.value;', '.what.value ?? null;'],
  ),
  empty(
    'an option that the field does not have is written',
    'clearance',
    `
on.change(fields.purpose, ({ value }) => { if (value === "lay_up") fields.state.value = "waiting" as never; });`,
    ['"waiting" as never', '"checked"'],
  ),
  empty(
    'a decimal tail in a message',
    'dues',
    `
keep(() => { fields.reference.hint = fields.days.value === null ? null : "Per day: " + (100.1 * fields.days.value) / 3; });`,
    [
      '"Per day: " + (100.1 * fields.days.value) / 3',
      '"Per day: " + round((100.1 * fields.days.value) / 3, 2)',
    ],
  ),
  rows(
    'the total is added to at every change',
    'manifest',
    `
on.change(fields.goods.each.weight, ({ value }) => { fields.total.value = (fields.total.value ?? 0) + (value ?? 0); });`,
    [
      'on.change(fields.goods.each.weight, ({ value }) => { fields.total.value = (fields.total.value ?? 0) + (value ?? 0); });',
      'keep(() => { fields.total.value = fields.goods.sum("weight"); });',
    ],
  ),
  rows(
    'the total forgets rows that go',
    'manifest',
    `
const sum = () => { fields.total.value = fields.goods.sum("weight"); };
on.load(sum);
on.rowAdded(fields.goods, sum);
on.change(fields.goods.each.weight, sum);`,
    [
      'on.rowAdded(fields.goods, sum);',
      'on.rowAdded(fields.goods, sum);\non.rowRemoved(fields.goods, sum);',
    ],
  ),
  rows(
    'the count is of what it was before',
    'manifest',
    `
on.rowAdded(fields.goods, () => { fields.lines.value = fields.goods.count; });
on.rowRemoved(fields.goods, () => { fields.lines.value = (fields.lines.value ?? 0); });
on.load(() => { fields.lines.value = fields.goods.count; });`,
    ['(fields.lines.value ?? 0)', 'fields.goods.count'],
  ),
  rows(
    'only the first row is looked at',
    'manifest',
    `
keep(() => { fields.note.required = fields.goods.value[0]?.dangerous === true; });`,
    [
      'fields.goods.value[0]?.dangerous === true',
      'fields.goods.value.some((row) => row.dangerous === true)',
    ],
  ),
  rows(
    'the last row decides',
    'manifest',
    `
keep(() => {
  fields.consignee.required = false;
  for (const { worth } of fields.goods.value) fields.consignee.required = (worth ?? 0) > 1000;
});`,
    [
      'fields.consignee.required = (worth ?? 0) > 1000;',
      'if ((worth ?? 0) > 1000) fields.consignee.required = true;',
    ],
  ),
  rows(
    'a row writes into its neighbour',
    'manifest',
    `
on.change(fields.goods.each.packing, ({ row, value }) => {
  const first = fields.goods.rows[0]!;
  first.fields.packages.locked = value === "loose";
});
on.load(() => { for (const row of fields.goods.rows) row.fields.packages.locked = row.fields.packing.value === "loose"; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.packages.locked = row.fields.packing.value === "loose"; });`,
    ['const first = fields.goods.rows[0]!;\n  first.', 'row.'],
  ),
  rows(
    'a text piles up with each danger',
    'manifest',
    `
keep("dangers", () => {
  fields.note.locked = true;
  for (const { what, dangerous } of fields.goods.value) if (dangerous === true) fields.note.value = (fields.note.value ?? "") + " " + what;
});`,
    [
      'for (const { what, dangerous } of fields.goods.value) if (dangerous === true) fields.note.value = (fields.note.value ?? "") + " " + what;',
      'fields.note.value = fields.goods.value.filter(({ dangerous }) => dangerous === true).map(({ what }) => what ?? "?").join(" ") || null;',
    ],
  ),
  rows(
    'a submission stops at the first row alone',
    'manifest',
    `
on.submit((event) => {
  const row = fields.goods.rows.at(0);
  if (row !== undefined && row.fields.dangerous.value === true && row.fields.un_number.empty) event.stop("Which UN number?", row.fields.un_number);
});`,
    [
      'const row = fields.goods.rows.at(0);\n  if (row !== undefined && row',
      'for (const row of fields.goods.rows) if (row',
    ],
  ),
  rows(
    'ties are made for each row that comes',
    'manifest',
    `
on.rowAdded(fields.goods, () => {
  on.change(fields.goods.each.packages, ({ value }) => { fields.lines.value = (fields.lines.value ?? 0) + (value === null ? 0 : 1); });
});`,
    [
      'on.rowAdded(fields.goods, () => {\n  on.change(fields.goods.each.packages, ({ value }) => { fields.lines.value = (fields.lines.value ?? 0) + (value === null ? 0 : 1); });\n});',
      'keep(() => { fields.lines.value = fields.goods.value.filter(({ packages }) => packages !== null).length; });',
    ],
  ),
  cycles(
    'two handlers set each other’s field',
    'dues',
    `
on.change(fields.days, ({ value }) => { fields.tonnage.value = (value ?? 0) + 1; });
on.change(fields.tonnage, ({ value }) => { fields.days.value = (value ?? 0) + 1; });`,
    ['on.change(fields.tonnage, ({ value }) => { fields.days.value = (value ?? 0) + 1; });', ''],
    ['(value ?? 0) + 1', 'value === null ? null : value + 1'],
  ),
  cycles(
    'a row is added for each row that is added',
    'manifest',
    `
on.rowAdded(fields.goods, ({ row }) => { if (row.fields.packages.value === null) fields.goods.add({ what: "Papers" }); });`,
    ['{ what: "Papers" }', '{ what: "Papers", packages: 1 }'],
  ),
  cycles(
    'swapping dates for ever',
    'clearance',
    `
on.change([fields.from, fields.to], () => {
  const { from, to } = fields;
  if (from.value !== null && to.value !== null && from.value !== to.value) { const earlier = from.value; from.value = to.value; to.value = earlier; }
});`,
    ['from.value !== to.value', 'from.value > to.value'],
  ),
  stale(
    'nights are counted on change of the departure alone',
    'mooring',
    `
const DAY = 24 * 60 * 60 * 1000;
on.change(fields.departure, () => {
  const { arrival, departure } = fields;
  fields.nights.value = arrival.value === null || departure.value === null ? null : round((Date.parse(departure.value) - Date.parse(arrival.value)) / DAY);
});`,
    [
      'on.change(fields.departure, () => {',
      'on.change([fields.arrival, fields.departure], () => {',
    ],
  ),
  stale(
    'the amount is not made anew when the berth changes',
    'dues',
    `
const sum = () => { fields.amount.value = round((fields.berth.row?.rate ?? 0) * (fields.tonnage.value ?? 0) * (fields.days.value ?? 0), 2); };
on.load(sum);
on.change([fields.days, fields.tonnage], sum);`,
    ['[fields.days, fields.tonnage]', '[fields.days, fields.tonnage, fields.berth]'],
  ),
  stale(
    'what the former berth brought stays when none is chosen',
    'dues',
    `
on.change(fields.berth, ({ part }) => {
  const { row } = part;
  if (row === null) return;
  fields.rate.value = row.rate;
});`,
    [
      'if (row === null) return;\n  fields.rate.value = row.rate;',
      'fields.rate.value = row?.rate ?? null;',
    ],
  ),
  stale(
    'a discount is taken off what was already reduced',
    'dues',
    `
on.change([fields.days, fields.tonnage], () => { fields.amount.value = (fields.days.value ?? 0) * (fields.tonnage.value ?? 0); });
on.change(fields.discount, ({ value }) => { fields.amount.value = round((fields.amount.value ?? 0) * (1 - (value ?? 0) / 100), 2); });`,
    [
      'on.change([fields.days, fields.tonnage], () => { fields.amount.value = (fields.days.value ?? 0) * (fields.tonnage.value ?? 0); });\non.change(fields.discount, ({ value }) => { fields.amount.value = round((fields.amount.value ?? 0) * (1 - (value ?? 0) / 100), 2); });',
      'keep(() => { fields.amount.value = round((fields.days.value ?? 0) * (fields.tonnage.value ?? 0) * (1 - (fields.discount.value ?? 0) / 100), 2); });',
    ],
  ),
  stale(
    'the value before the last change is taken for the former choice',
    'works',
    `
keep(() => { fields.leader.hint = fields.works_kind.previous === "hot" ? "Was hot work before." : null; });`,
    [
      'fields.works_kind.previous === "hot" ? "Was hot work before." : null',
      'fields.works_kind.value === "hot" ? "Hot work." : null',
    ],
  ),
  stale(
    'a counter at the top of the file outlives the record',
    'works',
    `
let warned = false;
on.load(() => { if (fields.works_kind.value === "hot") warned = true; });
keep(() => { fields.contractor.hint = fields.works_kind.value !== null && warned ? "Hot work needs a watch." : null; });`,
    ['let warned = false;\n', ''],
    ['on.load(() => { if (fields.works_kind.value === "hot") warned = true; });\n', ''],
    ['fields.works_kind.value !== null && warned', 'fields.works_kind.value === "hot"'],
  ),
  saved(
    'the agent of a saved request is overwritten at load',
    'clearance',
    `
on.load(() => { fields.agent_name.value = form.person.name; });`,
    [
      'fields.agent_name.value = form.person.name;',
      'if (form.isNew) fields.agent_name.value = form.person.name;',
    ],
  ),
  saved(
    'each opening raises the fee',
    'clearance',
    `
on.load(() => { if (fields.priority.value === true) fields.fee.value = (fields.fee.value ?? 0) + 50; });
on.change(fields.priority, ({ value }) => { fields.fee.value = value === true ? 50 : null; });`,
    [
      'on.load(() => { if (fields.priority.value === true) fields.fee.value = (fields.fee.value ?? 0) + 50; });\n',
      '',
    ],
  ),
  saved(
    'a remark grows at each opening',
    'clearance',
    `
on.load(() => { if (!form.isNew) fields.remark.value = (fields.remark.value ?? "") + " seen"; });`,
    [
      'on.load(() => { if (!form.isNew) fields.remark.value = (fields.remark.value ?? "") + " seen"; });',
      'on.load(() => { if (!form.isNew) fields.remark.hint = "Seen before."; });',
    ],
  ),
  saved(
    'the launched purpose does not do what the typed one does',
    'clearance',
    `
on.load(() => { if (form.isNew && form.launch.purpose === "repair") fields.purpose.value = "repair"; });
on.load(() => { fields.fee.required = false; });
on.change(fields.purpose, ({ value, by }) => { fields.fee.required = by === "person" && value === "repair"; });`,
    ['fields.fee.required = false;', 'fields.fee.required = fields.purpose.value === "repair";'],
    ['by === "person" && ', ''],
  ),
  saved(
    'a default is cleared and never comes back',
    'clearance',
    `
on.change(fields.priority, ({ value }) => { if (value === true) fields.state.value = null; });`,
    [
      'if (value === true) fields.state.value = null;',
      'if (value === true && fields.state.value === null) fields.state.value = "open";',
    ],
  ),
  saved(
    'written after it was saved',
    'clearance',
    `
on.saved(() => { fields.state.value = "checked"; });`,
    [
      'on.saved(() => { fields.state.value = "checked"; });',
      'on.submit(() => { fields.state.value = "checked"; });',
    ],
  ),
  saved(
    'the berth of a record is reset as if it had been changed',
    'dues',
    `
on.load(() => { if (fields.exempt.value === true) fields.days.value = null; });
on.change(fields.exempt, ({ value }) => { if (value === true) fields.days.value = null; });`,
    ['on.load(() => { if (fields.exempt.value === true) fields.days.value = null; });\n', ''],
  ),
  saved(
    'options at load leave out what the record has',
    'clearance',
    `
on.load(() => { fields.state.options = ["open", "checked"]; });`,
    [
      'fields.state.options = ["open", "checked"];',
      'if (form.isNew) fields.state.options = ["open", "checked"];',
    ],
  ),
];
