/** The order of doing, of answers and of behaviours; who opens the form; where and when. Common practice of the trade. */
import { faultsOf, type Fault } from './fault';

const order = faultsOf('order');
const answers = faultsOf('answers');
const people = faultsOf('people and records');

export const faultsOfOrder: Fault[] = [
  order(
    'a field asks another only when it changes itself',
    'works',
    `
on.change(fields.at_night, ({ value }) => { fields.leader.required = value === true && fields.works_kind.value === "hot"; });
on.load(() => { fields.leader.required = fields.at_night.value === true && fields.works_kind.value === "hot"; });`,
    [
      'on.change(fields.at_night, ({ value }) => { fields.leader.required = value === true',
      'on.change([fields.at_night, fields.works_kind], () => { fields.leader.required = fields.at_night.value === true',
    ],
  ),
  order(
    'two handlers say the same aspect of one field',
    'mooring',
    `
const byKind = () => { fields.licence.required = fields.kind.value === "tanker"; };
const byPilot = () => { fields.licence.required = fields.pilot.value === "own"; };
on.load(() => { byKind(); byPilot(); });
on.change(fields.kind, byKind);
on.change(fields.pilot, byPilot);`,
    [
      'const byKind = () => { fields.licence.required = fields.kind.value === "tanker"; };\nconst byPilot = () => { fields.licence.required = fields.pilot.value === "own"; };',
      'const byKind = () => { fields.licence.required = fields.kind.value === "tanker" || fields.pilot.value === "own"; };\nconst byPilot = byKind;',
    ],
  ),
  order(
    'the draught is checked when it is entered, not when the berth is',
    'dues',
    `
const check = () => { fields.tonnage.warning = (fields.tonnage.value ?? 0) > 1000 && fields.berth.row?.covered === true ? "Too large for a covered berth." : null; };
on.load(check);
on.change(fields.tonnage, check);`,
    ['on.change(fields.tonnage, check);', 'on.change([fields.tonnage, fields.berth], check);'],
  ),
  order(
    'the latest of two locks wins',
    'clearance',
    `
on.change(fields.state, ({ value }) => { fields.fee.locked = value === "closed"; });
on.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true; });
on.load(() => { fields.fee.locked = fields.state.value === "closed" || fields.priority.value !== true; });`,
    [
      'fields.fee.locked = value === "closed"; });\non.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true; });',
      'fields.fee.locked = value === "closed" || fields.priority.value !== true; });\non.change(fields.priority, ({ value }) => { fields.fee.locked = value !== true || fields.state.value === "closed"; });',
    ],
  ),
  order(
    'one handler hides what the other has shown',
    'works',
    `
const kinds = () => { fields.divers.shown = fields.works_kind.value === "diving"; fields.standby_boat.shown = fields.works_kind.value === "diving"; };
const night = () => { fields.standby_boat.shown = fields.at_night.value === true; };
on.load(() => { kinds(); night(); });
on.change(fields.works_kind, kinds);
on.change(fields.at_night, night);`,
    [
      'fields.standby_boat.shown = fields.works_kind.value === "diving"; };\nconst night = () => { fields.standby_boat.shown = fields.at_night.value === true; };',
      'night(); };\nconst night = () => { fields.standby_boat.shown = fields.works_kind.value === "diving" || fields.at_night.value === true; };',
    ],
  ),
  order(
    'the amount is made before the rate',
    'dues',
    `
on.change([fields.tonnage, fields.days], () => { fields.amount.value = fields.tonnage.value === null || fields.days.value === null ? null : (fields.rate.value ?? 0) * fields.days.value; });
on.change(fields.tonnage, ({ value }) => { fields.rate.value = value === null ? null : value > 1000 ? 20 : 10; });`,
    [
      'on.change([fields.tonnage, fields.days], () => {',
      'on.change([fields.rate, fields.tonnage, fields.days], () => {',
    ],
  ),
  order(
    'only the first choice sets the end',
    'clearance',
    `
on.change(fields.from, ({ value }) => { fields.to.hint = fields.crew.value !== null && fields.crew.value > 30 ? "At least two days." : null; });
on.load(() => { fields.to.hint = fields.crew.value !== null && fields.crew.value > 30 ? "At least two days." : null; });`,
    ['on.change(fields.from, ({ value }) => {', 'on.change(fields.crew, ({ value }) => {'],
  ),
  order(
    'a rule steers what a handler also steers',
    'mooring',
    `
keep("remarks", () => { if (fields.kind.value === "tug") fields.remarks.required = true; else fields.remarks.required = false; });
on.change(fields.pilot, ({ value }) => { fields.remarks.required = value === "none"; });`,
    [
      'on.change(fields.pilot, ({ value }) => { fields.remarks.required = value === "none"; });',
      '',
    ],
    ['fields.kind.value === "tug"', 'fields.kind.value === "tug" || fields.pilot.value === "none"'],
  ),
  order(
    'a field asked for by the other order of two dates',
    'clearance',
    `
on.change(fields.to, () => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });
on.load(() => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });`,
    ['on.change(fields.to, () => {', 'on.change([fields.from, fields.to], () => {'],
  ),
  answers(
    'the ship of the former number stays when the new one is not found',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  let found: { readonly name: string } | null = null;
  try { if (value !== null) found = await services.ships.find({ imo: value }); } catch { found = null; }
  if (value === null || found !== null) fields.ship.value = found?.name ?? null;
});
keep(() => { fields.ship.locked = true; });`,
    ['if (value === null || found !== null) ', ''],
  ),
  answers(
    'two looks at once, the later answer wins',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  let tonnage: number | null = null;
  try { if (value !== null) tonnage = (await services.ships.find({ imo: value }))?.tonnage ?? null; } catch { tonnage = null; }
  fields.tonnage.value = tonnage;
}, { overlap: "all" });
keep(() => { fields.tonnage.locked = true; });`,
    [', { overlap: "all" }', ''],
  ),
  answers(
    'the lock of waiting is not taken off when the register is down',
    'register',
    `
on.click(buttons.look_up, async () => {
  fields.imo.locked = true;
  const found = await services.ships.find({ imo: fields.imo.value ?? "" });
  fields.ship.value = found?.name ?? null;
  fields.imo.locked = false;
});`,
    [
      'const found = await services.ships.find({ imo: fields.imo.value ?? "" });\n  fields.ship.value = found?.name ?? null;\n  fields.imo.locked = false;',
      'try {\n    const found = await services.ships.find({ imo: fields.imo.value ?? "" });\n    fields.ship.value = found?.name ?? null;\n  } catch { fields.ship.hint = "The register does not answer."; }\n  fields.imo.locked = false;',
    ],
  ),
  answers(
    'a hint says that it is looking, for ever',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  fields.ship.value = null;
  if (value === null) { fields.imo.hint = null; return; }
  fields.imo.hint = "Looking it up …";
  const found = await services.ships.find({ imo: value });
  fields.ship.value = found?.name ?? null;
  fields.imo.hint = null;
});
keep(() => { fields.ship.locked = true; });`,
    [
      'const found = await services.ships.find({ imo: value });\n  fields.ship.value = found?.name ?? null;\n  fields.imo.hint = null;',
      'try { fields.ship.value = (await services.ships.find({ imo: value }))?.name ?? null; } catch { fields.ship.value = null; }\n  fields.imo.hint = null;',
    ],
  ),
  answers(
    'the answer writes over what was typed meanwhile',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  if (value === null) return;
  const found = await services.ships.find({ imo: value });
  if (found !== null) fields.owner.value = found.flag;
});`,
    ['if (found !== null)', 'if (found !== null && fields.owner.empty)'],
  ),
  answers(
    'decided before the call',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  const byHand = fields.by_hand.value === true;
  let flag: string | null = null;
  try { if (value !== null) flag = (await services.ships.find({ imo: value }))?.flag ?? null; } catch { flag = null; }
  if (!byHand) fields.flag.value = flag;
});
keep(() => { fields.flag.locked = fields.by_hand.value !== true; });`,
    ['  const byHand = fields.by_hand.value === true;\n', ''],
    ['if (!byHand)', 'if (fields.by_hand.value !== true)'],
  ),
  answers(
    'a ship that is not found is told in the words of the language',
    'register',
    `
keep(() => { fields.ship.locked = true; });
const look = async () => {
  const { value } = fields.imo;
  fields.imo.warning = null;
  if (value === null) { fields.ship.value = null; return; }
  try {
    const found = await services.ships.find({ imo: value });
    if (fields.imo.value !== value) return;
    fields.ship.value = found?.name ?? null;
    fields.imo.warning = found === null ? "Found: " + (found as { name: string } | null)?.name : null;
  } catch { if (fields.imo.value !== value) return; fields.ship.value = null; fields.imo.warning = "The register does not answer."; }
};
on.load(look);
on.change(fields.imo, look);`,
    ['"Found: " + (found as { name: string } | null)?.name', '"No such ship."'],
  ),
  people(
    'the name of the one master stands in the code',
    'clearance',
    `
keep(() => { sections.office.locked = form.person.key !== "eva"; });`,
    ['form.person.key !== "eva"', '!form.person.roles.includes("master")'],
  ),
  people(
    'a lock for a name',
    'works',
    `
on.load(() => { fields.status.locked = form.person.name !== "Per Holm"; });`,
    ['form.person.name !== "Per Holm"', '!form.person.roles.includes("officer")'],
  ),
  people(
    'what the former record showed stays for the next one',
    'works',
    `
let shown = 0;
on.load(() => { shown += 1; fields.contractor.hint = shown > 1 ? "Compare with the last one." : null; });`,
    ['let shown = 0;\n', ''],
    ['shown += 1; fields.contractor.hint = shown > 1 ?', 'fields.contractor.hint = form.isNew ?'],
  ),
  people(
    'a list at the top of the file remembers kinds',
    'mooring',
    `
const seen: string[] = [];
on.load(() => { if (fields.kind.value !== null) seen.push(fields.kind.value); });
keep(() => { fields.kind.hint = fields.kind.value !== null && seen.includes("tanker") ? "Tankers need a tug." : null; });`,
    ['const seen: string[] = [];\n', ''],
    ['on.load(() => { if (fields.kind.value !== null) seen.push(fields.kind.value); });\n', ''],
    ['fields.kind.value !== null && seen.includes("tanker")', 'fields.kind.value === "tanker"'],
  ),
  people(
    'the first role decides for somebody with two',
    'clearance',
    `
keep(() => { fields.state.locked = form.person.roles[0] !== "master"; fields.state.hint = form.person.roles.includes("master") && fields.state.locked ? null : "Set by the master."; });
on.submit((event) => { if (form.person.roles.includes("master") && fields.state.value === "open") event.stop("Close it.", fields.state); });`,
    ['form.person.roles[0] !== "master"', '!form.person.roles.includes("master")'],
  ),
  people(
    'today is the day of the machine and not of the person',
    'clearance',
    `
on.load(() => { if (form.isNew) fields.from.value = new Date().toISOString().slice(0, 10); });`,
    ['new Date().toISOString().slice(0, 10)', 'Temporal.Now.plainDateISO().toString()'],
  ),
  people(
    'a random reference at each opening',
    'clearance',
    `
on.load(() => { fields.remark.value = "Ref " + Math.floor(Math.random() * 1000); });`,
    ['fields.remark.value', 'if (form.isNew) fields.remark.value'],
  ),
];
