/** What is left behind, forgotten at load, off screen, or never to be got out of. Common practice of the trade. */
import { faultsOf, type Fault } from './fault';

const never = faultsOf('not taken back');
const load = faultsOf('missing at load');
const hidden = faultsOf('off screen');
const dead = faultsOf('dead end');

export const faultsOnScreen: Fault[] = [
  never(
    'shown for one option, never hidden again',
    'mooring',
    `
on.load(() => { fields.licence.shown = fields.pilot.value === "own"; });
on.change(fields.pilot, ({ value }) => {
  if (value === "own") fields.licence.shown = true;
});`,
    [
      'if (value === "own") fields.licence.shown = true;',
      'fields.licence.shown = value === "own";',
    ],
  ),
  never(
    'required stays after the option is left',
    'works',
    `
const say = () => {
  if (fields.works_kind.value === "hot") fields.fire_watch.required = true;
};
on.load(say);
on.change(fields.works_kind, say);`,
    [
      'if (fields.works_kind.value === "hot") fields.fire_watch.required = true;',
      'fields.fire_watch.required = fields.works_kind.value === "hot";',
    ],
  ),
  never(
    'two of three branches of a switch lack one field',
    'works',
    `
const say = () => {
  switch (fields.works_kind.value) {
    case "hot": fields.fire_watch.shown = true; fields.divers.shown = false; break;
    case "diving": fields.divers.shown = true; fields.fire_watch.shown = false; break;
    default: fields.fire_watch.shown = false; break;
  }
};
on.load(say);
on.change(fields.works_kind, say);`,
    [
      'default: fields.fire_watch.shown = false; break;',
      'default: fields.fire_watch.shown = false; fields.divers.shown = false; break;',
    ],
  ),
  never(
    'a hint stays when the field is emptied',
    'mooring',
    `
const say = () => {
  const { value } = fields.draught;
  if (value === null) return;
  fields.draught.hint = value > 12 ? "Deep water berths only." : null;
};
on.load(say);
on.change(fields.draught, say);`,
    [
      'if (value === null) return;\n  fields.draught.hint = value > 12',
      'fields.draught.hint = value !== null && value > 12',
    ],
  ),
  never(
    'a lock is set by a granted permit and survives its refusal',
    'works',
    `
const settle = () => {
  if (fields.status.value === "granted") { fields.hours.locked = true; fields.works_kind.locked = true; }
  else fields.hours.locked = false;
};
on.load(settle);
on.change(fields.status, settle);`,
    [
      'else fields.hours.locked = false;',
      'else { fields.hours.locked = false; fields.works_kind.locked = false; }',
    ],
  ),
  never(
    'options are narrowed and never widened',
    'mooring',
    `
const narrow = () => {
  if (fields.kind.value === "tanker") fields.pilot.options = ["harbour"];
};
on.load(narrow);
on.change(fields.kind, narrow);`,
    [
      'if (fields.kind.value === "tanker") fields.pilot.options = ["harbour"];',
      'fields.pilot.options = fields.kind.value === "tanker" ? ["harbour"] : undefined;',
    ],
  ),
  never(
    'a problem that no later value takes away',
    'works',
    `
const check = () => {
  const hours = fields.hours.value ?? 0;
  if (hours > 24) fields.hours.problem = "A permit covers a day at most.";
  if (hours === 0) fields.hours.problem = null;
};
on.load(check);
on.change(fields.hours, check);`,
    ['if (hours === 0) fields.hours.problem = null;', 'else fields.hours.problem = null;'],
  ),
  never(
    'a section stays hidden once the stay was cleared',
    'mooring',
    `
on.change(fields.arrival, ({ value }) => {
  if (value !== null) return;
  sections.pilotage.shown = false;
});`,
    [
      'if (value !== null) return;\n  sections.pilotage.shown = false;',
      'sections.pilotage.shown = true;',
    ],
  ),
  never(
    'a label says the last option for ever',
    'dues',
    `
const name = () => {
  if (fields.payer.value === "owner") fields.account.hint = "The owner's account.";
  else if (fields.payer.value === "charterer") fields.account.hint = "The charterer's account.";
};
on.load(name);
on.change(fields.payer, name);`,
    [
      `"The charterer's account.";`,
      `"The charterer's account.";\n  else fields.account.hint = null;`,
    ],
  ),
  never(
    'a warning in a row stays when its danger goes',
    'manifest',
    `
on.change(fields.goods.each.dangerous, ({ row, value }) => {
  if (value === true) row.fields.un_number.required = true;
});
on.load(() => { for (const row of fields.goods.rows) row.fields.un_number.required = row.fields.dangerous.value === true; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.un_number.required = row.fields.dangerous.value === true; });`,
    [
      'if (value === true) row.fields.un_number.required = true;',
      'row.fields.un_number.required = value === true;',
    ],
  ),
  never(
    'a page is opened by a complaint and stays for a yearly visit',
    'inspection',
    `
const pagesFor = () => {
  if (fields.reason.value === "yearly") pages.hull.shown = true;
  if (fields.reason.value === "complaint") pages.hull.shown = false;
};
on.load(pagesFor);
on.change(fields.reason, pagesFor);`,
    [
      'if (fields.reason.value === "yearly") pages.hull.shown = true;\n  if (fields.reason.value === "complaint") pages.hull.shown = false;',
      'pages.hull.shown = fields.reason.value !== "complaint";',
    ],
  ),
  load(
    'the licence is asked for on change alone',
    'mooring',
    `
on.change(fields.pilot, () => {
  fields.licence.required = fields.pilot.value === "own";
});`,
    ['on.change(fields.pilot, () => {', 'const ask = () => {'],
    [' === "own";\n});', ' === "own";\n};\non.load(ask);\non.change(fields.pilot, ask);'],
  ),
  load(
    'a saved granted permit can be changed until its status is touched',
    'works',
    `
on.change(fields.status, ({ value }) => { sections.job.locked = value === "granted"; });`,
    [
      'on.change(fields.status, ({ value }) => { sections.job.locked = value === "granted"; });',
      'keep(() => { sections.job.locked = fields.status.value === "granted"; });',
    ],
  ),
  load(
    'hidden at load whatever the record says',
    'works',
    `
on.load(() => { fields.reason.shown = false; });
on.change(fields.status, ({ value }) => { fields.reason.shown = value === "refused"; });`,
    ['fields.reason.shown = false;', 'fields.reason.shown = fields.status.value === "refused";'],
  ),
  load(
    'loaded rows are not gone through',
    'manifest',
    `
on.change(fields.goods.each.dangerous, ({ row, value }) => { row.fields.un_number.shown = value === true; });
on.rowAdded(fields.goods, ({ row }) => { row.fields.un_number.shown = row.fields.dangerous.value === true; });`,
    [
      'on.rowAdded',
      'on.load(() => { for (const row of fields.goods.rows) row.fields.un_number.shown = row.fields.dangerous.value === true; });\non.rowAdded',
    ],
  ),
  load(
    'at load only new entries are looked at',
    'dues',
    `
const exemptions = () => { fields.discount.locked = fields.exempt.value === true; };
on.load(() => { if (form.isNew) exemptions(); });
on.change(fields.exempt, exemptions);`,
    ['if (form.isNew) exemptions();', 'exemptions();'],
  ),
  load(
    'at load another condition than on change',
    'clearance',
    `
on.load(() => { fields.checked_by.required = fields.state.value === "closed"; });
on.change(fields.state, ({ value }) => { fields.checked_by.required = value === "checked" || value === "closed"; });`,
    [
      'fields.checked_by.required = fields.state.value === "closed";',
      'fields.checked_by.required = fields.state.value === "checked" || fields.state.value === "closed";',
    ],
  ),
  hidden(
    'a licence number entered before still counts when the pilot is the harbour’s',
    'mooring',
    `
keep("licence", () => { fields.licence.shown = fields.pilot.value === "own"; });
keep("name", () => { fields.pilot_name.required = !fields.licence.empty; });`,
    ['!fields.licence.empty', 'fields.pilot.value === "own" && !fields.licence.empty'],
  ),
  hidden(
    'submission stops at a field that is off screen',
    'works',
    `
keep(() => { fields.fire_watch.shown = fields.works_kind.value === "hot"; });
on.submit((event) => { if (fields.fire_watch.empty) event.stop("Name the fire watch.", fields.fire_watch); });`,
    [
      'if (fields.fire_watch.empty)',
      'if (fields.works_kind.value === "hot" && fields.fire_watch.empty)',
    ],
  ),
  hidden(
    'a stop without words',
    'dues',
    `
on.submit((event) => { if (fields.payer.value === "owner" && fields.account.empty) event.stop("", fields.account); });`,
    ['stop("",', 'stop("Give the account of the owner.",'],
  ),
  hidden(
    'the sum counts a deposit that is off screen',
    'dues',
    `
keep(() => { fields.deposit.shown = fields.payer.value === "charterer"; });
keep(() => { fields.amount.value = (fields.days.value ?? 0) * 10 - (fields.deposit.value ?? 0); });`,
    [
      '(fields.deposit.value ?? 0); });',
      '(fields.payer.value === "charterer" ? fields.deposit.value ?? 0 : 0); });',
    ],
  ),
  hidden(
    'shown within a section that is never shown',
    'works',
    `
keep("safety", () => { sections.safety.shown = false; });
keep("divers", () => { fields.divers.shown = fields.works_kind.value === "diving"; });`,
    ['sections.safety.shown = false;', 'sections.safety.shown = fields.works_kind.value !== null;'],
  ),
  hidden(
    'a condition that asks for two options at once',
    'works',
    `
keep("boat", () => { fields.standby_boat.shown = fields.works_kind.value === "diving" && fields.status.value === "granted" && fields.works_kind.value !== "diving"; });`,
    [' && fields.works_kind.value !== "diving"', ''],
  ),
  hidden(
    'a page that its own first field would have to open',
    'inspection',
    `
keep("close", () => { pages.close.shown = fields.passed.value !== null; });`,
    ['fields.passed.value !== null', 'fields.condition.value !== null'],
  ),
  hidden(
    'required though off screen, and stopped for it by hand',
    'mooring',
    `
keep(() => {
  fields.pilot_name.shown = fields.pilot.value === "own";
  fields.pilot_name.problem = fields.pilot_name.empty && fields.pilot.value !== null ? "Who pilots?" : null;
});
on.submit((event) => { if (fields.pilot.value !== null && fields.pilot_name.empty) event.stop("Who pilots?", fields.pilot_name); });`,
    [
      'if (fields.pilot.value !== null && fields.pilot_name.empty)',
      'if (fields.pilot.value === "own" && fields.pilot_name.empty)',
    ],
  ),
  hidden(
    'the hint of one field goes by the hidden one’s value',
    'works',
    `
on.load(() => { fields.divers.shown = fields.works_kind.value === "diving"; });
on.change(fields.works_kind, ({ value }) => { fields.divers.shown = value === "diving"; });
keep(() => { fields.standby_boat.required = (fields.divers.value ?? 0) > 1; });`,
    ['(fields.divers.value ?? 0) > 1', 'fields.divers.shown && (fields.divers.value ?? 0) > 1'],
  ),
  dead(
    'locked while empty and required',
    'clearance',
    `
keep(() => {
  fields.checked_by.locked = true;
  fields.checked_by.required = fields.state.value === "closed";
});
on.load(() => { if (form.isNew) fields.state.value = "closed"; fields.state.locked = true; });`,
    [
      'fields.checked_by.locked = true;',
      'fields.checked_by.locked = fields.state.value !== "closed";',
    ],
  ),
  dead(
    'two checks that nothing can pass together',
    'mooring',
    `
keep(() => {
  fields.nights.problem = fields.nights.value === null || fields.nights.value < 1 ? "One night at least." : null;
  fields.nights.locked = fields.arrival.value === null || fields.departure.value === null || true;
});`,
    [' || true;', ';'],
  ),
  dead(
    'required and hidden in one breath, checked by hand at submit',
    'dues',
    `
keep(() => { sections.payment.shown = fields.exempt.value !== true; });
on.submit((event) => { if (fields.payer.empty) event.stop("Who pays?", fields.payer); });`,
    ['if (fields.payer.empty)', 'if (sections.payment.shown && fields.payer.empty)'],
  ),
  dead(
    'a leader is asked for where nobody can be entered',
    'works',
    `
keep(() => {
  fields.leader.required = true;
  fields.leader.locked = true;
});
on.click(buttons.grant, () => { fields.status.value = "granted"; });`,
    ['fields.status.value = "granted";', 'fields.leader.value = form.person.name;'],
  ),
  hidden(
    'the club that was named first is saved with a private boat',
    'slip',
    `
keep(() => { fields.club.shown = fields.use.value === "club"; });`,
    [
      'fields.club.shown = fields.use.value === "club"; });',
      'fields.club.shown = fields.use.value === "club"; });\non.change(fields.use, ({ value }) => { if (value !== "club") fields.club.value = null; });',
    ],
  ),
  hidden(
    'the shed of a boat that stays afloat',
    'slip',
    `
on.load(() => { fields.shed.shown = fields.winter.value === "ashore"; });
on.change(fields.winter, ({ value }) => { fields.shed.shown = value === "ashore"; });`,
    [
      'fields.shed.shown = value === "ashore"; });',
      'fields.shed.shown = value === "ashore"; if (value !== "ashore") fields.shed.value = null; });',
    ],
  ),
  never(
    'the form is replaced for a lay-up and never comes back',
    'clearance',
    `
on.change(fields.purpose, ({ value }) => { if (value === "lay_up") form.replaceWith("Ask the harbour master for a lay-up."); });`,
    [
      'if (value === "lay_up") form.replaceWith("Ask the harbour master for a lay-up.");',
      'form.replaceWith(value === "lay_up" ? "Ask the harbour master for a lay-up." : null);',
    ],
  ),
  never(
    'a hint counts how often it was changed',
    'mooring',
    `
on.change(fields.kind, () => { fields.kind.hint = fields.kind.hint === null ? "Changed." : fields.kind.hint + " Again."; });
on.load(() => { fields.kind.hint = null; });`,
    [
      'fields.kind.hint = fields.kind.hint === null ? "Changed." : fields.kind.hint + " Again."; });',
      'fields.kind.hint = fields.kind.value === null ? null : "Changed."; });',
    ],
    [
      'on.load(() => { fields.kind.hint = null; });',
      'on.load(() => { fields.kind.hint = fields.kind.value === null ? null : "Changed."; });',
    ],
  ),
  load(
    'a launched purpose is written after the form was arranged',
    'clearance',
    `
const arrange = () => { fields.fee.shown = fields.purpose.value === "repair"; };
on.load(() => { arrange(); if (form.isNew && form.launch.purpose === "repair") fields.purpose.value = "repair"; });
on.change(fields.purpose, ({ by }) => { if (by === "person") arrange(); });`,
    ['({ by }) => { if (by === "person") arrange(); }', 'arrange'],
  ),
  dead(
    'a problem on what is computed, that no input can mend',
    'mooring',
    `
keep(() => {
  fields.nights.locked = true;
  fields.nights.value = fields.arrival.value === null || fields.departure.value === null ? 0 : Temporal.PlainDate.from(fields.departure.value).until(fields.arrival.value).days;
  fields.nights.problem = (fields.nights.value ?? 0) < 0 || (fields.nights.value ?? 0) > 0 || fields.arrival.value === null ? "The stay has to be a night at least." : null;
});
on.submit((event) => { if ((fields.nights.value ?? 0) < 1) event.stop("The stay has to be a night at least.", fields.nights); });`,
    [
      'Temporal.PlainDate.from(fields.departure.value).until(fields.arrival.value).days',
      'Temporal.PlainDate.from(fields.arrival.value).until(fields.departure.value).days',
    ],
    [
      '(fields.nights.value ?? 0) < 0 || (fields.nights.value ?? 0) > 0 || fields.arrival.value === null ?',
      '(fields.nights.value ?? 0) < 1 ?',
    ],
  ),
  dead(
    'a section is locked for whoever has to fill it in',
    'clearance',
    `
keep(() => {
  sections.request.locked = !form.isNew || form.person.roles.includes("agent");
  fields.agent_name.required = true;
});`,
    [
      '!form.isNew || form.person.roles.includes("agent")',
      '!form.isNew && fields.state.initial === "closed"',
    ],
  ),
  hidden(
    'a submission stops at a page that is hidden',
    'inspection',
    `
keep(() => { pages.hull.shown = fields.reason.value !== "complaint"; });
on.submit((event) => { if (fields.condition.empty) event.stop("In what condition is the hull?", fields.condition); });`,
    ['if (fields.condition.empty)', 'if (pages.hull.shown && fields.condition.empty)'],
  ),
];
