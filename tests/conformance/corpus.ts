/**
 * Forty small behaviours as they are written on a busy day, each with the fault it has, and the same behaviour mended.
 * Faults of this trade are common practice, not a published list. Where `proof` stands, the two are also run: after its
 * steps the mended one brings about what is said, and the faulty one does not.
 */
import type { Step } from '../../src/core/session/step';
import type { Value } from '../../src/core/form/value';

export interface Pair {
  about: string;
  form: string;
  code: string;
  faulty: string;
  mended: string;
  proof?: { record?: string; steps: Step[]; part: string; aspect: string; is: Value };
}

export const corpus: Pair[] = [
  {
    about: 'the label of a pilot is compared',
    form: 'berth_visit',
    code: 'label-for-key',
    faulty:
      'keep("own pilot", () => {\n  sections.pilot.shown = fields.pilot_choice.value === "Own pilot";\n});',
    mended:
      'keep("own pilot", () => {\n  sections.pilot.shown = fields.pilot_choice.value === "own";\n});',
    proof: {
      steps: [{ set: 'pilot_choice', to: 'own' }],
      part: 'pilot',
      aspect: 'shown',
      is: true,
    },
  },
  {
    about: 'a switch over labels',
    form: 'works_permit',
    code: 'label-for-key',
    faulty:
      'keep("hint by kind", () => {\n  switch (fields.works_kind.value) {\n    case "Diving":\n      fields.leader.hint = "A diving leader.";\n      break;\n    default:\n      fields.leader.hint = null;\n  }\n});',
    mended:
      'keep("hint by kind", () => {\n  switch (fields.works_kind.value) {\n    case "diving":\n      fields.leader.hint = "A diving leader.";\n      break;\n    default:\n      fields.leader.hint = null;\n  }\n});',
    proof: {
      steps: [{ set: 'works_kind', to: 'diving' }],
      part: 'leader',
      aspect: 'hint',
      is: 'A diving leader.',
    },
  },
  {
    about: 'the label of a role',
    form: 'vessel',
    code: 'label-for-key',
    faulty:
      'keep("bars", () => {\n  fields.standing.locked = !form.person.roles.includes("Harbour master");\n});',
    mended:
      'keep("bars", () => {\n  fields.standing.locked = !form.person.roles.includes("master");\n});',
  },
  {
    about: 'the label of a row of a table is written',
    form: 'works_permit',
    code: 'label-for-key',
    faulty: 'on.load(() => {\n  if (form.isNew) fields.berth.value = "North quay 1";\n});',
    mended: 'on.load(() => {\n  if (form.isNew) fields.berth.value = "nq1";\n});',
    proof: { steps: [], part: 'berth', aspect: 'value', is: 'nq1' },
  },
  {
    about: 'an option that was renamed',
    form: 'works_permit',
    code: 'option-gone',
    faulty:
      'keep("fire watch", () => {\n  fields.fire_watch.shown = fields.works_kind.value === "hot_works";\n});',
    mended:
      'keep("fire watch", () => {\n  fields.fire_watch.shown = fields.works_kind.value === "hot";\n});',
    proof: {
      steps: [{ set: 'works_kind', to: 'hot' }],
      part: 'fire_watch',
      aspect: 'shown',
      is: true,
    },
  },
  {
    about: 'a key that is not among several',
    form: 'waste_declaration',
    code: 'option-gone',
    faulty:
      'keep("tank", () => {\n  fields.tank.shown = fields.wastes.value.includes("bilges");\n});',
    mended:
      'keep("tank", () => {\n  fields.tank.shown = fields.wastes.value.includes("bilge");\n});',
    proof: { steps: [{ set: 'wastes', to: ['bilge'] }], part: 'tank', aspect: 'shown', is: true },
  },
  {
    about: 'a stage that a track does not have',
    form: 'works_permit',
    code: 'option-gone',
    faulty: 'on.saved(() => {\n  tracks.short.stage = "examined";\n});',
    mended: 'on.saved(() => {\n  tracks.short.stage = "granted";\n});',
  },
  {
    about: 'an empty field compared with an empty text',
    form: 'berth_visit',
    code: 'never-holds',
    faulty:
      'keep("vessel asked for", () => {\n  fields.vessel.hint = fields.vessel.value === "" ? "Which vessel?" : null;\n});',
    mended:
      'keep("vessel asked for", () => {\n  fields.vessel.hint = fields.vessel.value === null ? "Which vessel?" : null;\n});',
    proof: { steps: [], part: 'vessel', aspect: 'hint', is: 'Which vessel?' },
  },
  {
    about: 'yes compared as a text',
    form: 'berth_visit',
    code: 'never-holds',
    faulty:
      'keep("power", () => {\n  fields.berth.required = fields.shore_power.value === "yes";\n});',
    mended:
      'keep("power", () => {\n  fields.berth.required = fields.shore_power.value === true;\n});',
    proof: {
      steps: [{ set: 'shore_power', to: true }],
      part: 'berth',
      aspect: 'required',
      is: true,
    },
  },
  {
    about: 'a list compared with one of its keys',
    form: 'waste_declaration',
    code: 'never-holds',
    faulty:
      'keep("sewage", () => {\n  fields.sewage_volume.shown = fields.wastes.value === "sewage";\n});',
    mended:
      'keep("sewage", () => {\n  fields.sewage_volume.shown = fields.wastes.value.includes("sewage");\n});',
    proof: {
      steps: [{ set: 'wastes', to: ['sewage'] }],
      part: 'sewage_volume',
      aspect: 'shown',
      is: true,
    },
  },
  {
    about: '= in an if',
    form: 'works_permit',
    code: 'assignment-in-condition',
    faulty:
      'on.change(fields.works_kind, () => {\n  if (fields.works_kind.value = "hot") log("hot works");\n});',
    mended:
      'on.change(fields.works_kind, () => {\n  if (fields.works_kind.value === "hot") log("hot works");\n});',
    proof: {
      steps: [{ set: 'works_kind', to: 'painting' }],
      part: 'works_kind',
      aspect: 'value',
      is: 'painting',
    },
  },
  {
    about: '= in a ternary, of a variable',
    form: 'crew_change',
    code: 'assignment-in-condition',
    faulty:
      'keep("few", () => {\n  let few = (fields.after.value ?? 0) < 3;\n  fields.minimum.hint = (few = true) ? "Few." : null;\n});',
    mended:
      'keep("few", () => {\n  const few = (fields.after.value ?? 0) < 3;\n  fields.minimum.hint = few ? "Few." : null;\n});',
  },
  {
    about: 'a field is assigned',
    form: 'berth_visit',
    code: 'part-for-value',
    faulty: 'on.load(() => {\n  if (form.isNew) fields.draught = 4;\n});',
    mended: 'on.load(() => {\n  if (form.isNew) fields.draught.value = 4;\n});',
    proof: { steps: [], part: 'draught', aspect: 'value', is: 4 },
  },
  {
    about: 'a field as a condition',
    form: 'waste_declaration',
    code: 'part-for-value',
    faulty:
      'keep("next port", () => {\n  fields.next_port.shown = fields.keeps_some ? true : false;\n});',
    mended:
      'keep("next port", () => {\n  fields.next_port.shown = fields.keeps_some.value ? true : false;\n});',
    proof: { steps: [], part: 'next_port', aspect: 'shown', is: false },
  },
  {
    about: 'a text in a number',
    form: 'berth_visit',
    code: 'wrong-kind',
    faulty: 'on.load(() => {\n  fields.length.value = "80";\n});',
    mended: 'on.load(() => {\n  fields.length.value = 80;\n});',
    proof: { steps: [], part: 'length', aspect: 'value', is: 80 },
  },
  {
    about: 'a date that is not spelled',
    form: 'berth_visit',
    code: 'wrong-kind',
    faulty:
      'on.load(() => {\n  fields.arrival.value = Temporal.Now.plainDateISO().add({ days: 1 });\n});',
    mended:
      'on.load(() => {\n  fields.arrival.value = Temporal.Now.plainDateISO().add({ days: 1 }).toString();\n});',
    proof: { steps: [], part: 'arrival', aspect: 'value', is: '2031-05-03' },
  },
  {
    about: 'a note that grows with each change',
    form: 'works_permit',
    code: 'piles-up',
    faulty:
      'on.change(fields.berth, ({ value }) => {\n  fields.description.value = (fields.description.value ?? "") + ` at ${value}`;\n});',
    mended:
      'keep("described by its berth", () => {\n  const berth = fields.berth.row?.name;\n  fields.description.hint = berth === undefined ? null : `At ${berth}.`;\n});',
  },
  {
    about: 'a remark added at each opening',
    form: 'berth_visit',
    code: 'piles-up',
    faulty: 'on.load(() => {\n  fields.refusal_reason.value += " (seen)";\n});',
    mended:
      'on.load(() => {\n  if (!(fields.refusal_reason.value ?? "").includes("(seen)")) fields.refusal_reason.value = `${fields.refusal_reason.value ?? ""} (seen)`;\n});',
  },
  {
    about: 'a section that is shown and never hidden again',
    form: 'berth_visit',
    code: 'no-way-back',
    faulty:
      'on.change(fields.pilot_choice, ({ value }) => {\n  if (value === "own") {\n    sections.pilot.locked = true;\n  }\n});',
    mended:
      'keep("locked with an own pilot", () => {\n  if (fields.pilot_choice.value === "own") {\n    sections.pilot.locked = true;\n  }\n});',
    proof: {
      steps: [
        { set: 'pilot_choice', to: 'own' },
        { set: 'pilot_choice', to: 'none' },
      ],
      part: 'pilot',
      aspect: 'locked',
      is: false,
    },
  },
  {
    about: 'a problem that stays after it was mended',
    form: 'crew_change',
    code: 'no-way-back',
    faulty:
      'on.change(fields.on_board, ({ value }) => {\n  if (value !== null && value > 40) fields.on_board.problem = "More than she carries.";\n});',
    mended:
      'keep("not more than she carries", () => {\n  const { value } = fields.on_board;\n  if (value !== null && value > 40) fields.on_board.problem = "More than she carries.";\n});',
    proof: {
      steps: [
        { set: 'on_board', to: 50 },
        { set: 'on_board', to: 20 },
      ],
      part: 'on_board',
      aspect: 'problem',
      is: null,
    },
  },
  {
    about: 'an early return that leaves the hint standing',
    form: 'vessel',
    code: 'no-way-back',
    faulty:
      'on.change(fields.draught, () => {\n  const { value } = fields.draught;\n  if (value === null || value < 12) return;\n  fields.draught.hint = "Only the outer mole is deep enough.";\n});',
    mended:
      'keep("deep", () => {\n  const { value } = fields.draught;\n  if (value === null || value < 12) return;\n  fields.draught.hint = "Only the outer mole is deep enough.";\n});',
    proof: {
      steps: [
        { set: 'draught', to: 13 },
        { set: 'draught', to: 3 },
      ],
      part: 'draught',
      aspect: 'hint',
      is: null,
    },
  },
  {
    about: 'a second driver that is not listened to',
    form: 'waste_declaration',
    code: 'reads-untied',
    faulty:
      'on.change(fields.keeps_some, ({ value }) => {\n  if (value === true && fields.vessel.value !== null) fields.account.required = true;\n  else fields.account.required = false;\n});',
    mended:
      'keep("account", () => {\n  fields.account.required = fields.keeps_some.value === true && fields.vessel.value !== null;\n});',
    proof: {
      steps: [
        { set: 'keeps_some', to: true },
        { set: 'vessel', to: 'Tern' },
      ],
      part: 'account',
      aspect: 'required',
      is: true,
    },
  },
  {
    about: 'tied to the arrival, judged by both days',
    form: 'berth_visit',
    code: 'reads-untied',
    faulty:
      'const judge = () => {\n  if (fields.arrival.value !== null && fields.departure.value === null) fields.departure.hint = "Until when?";\n  else fields.departure.hint = null;\n};\non.load(judge);\non.change(fields.arrival, judge);',
    mended:
      'const judge = () => {\n  if (fields.arrival.value !== null && fields.departure.value === null) fields.departure.hint = "Until when?";\n  else fields.departure.hint = null;\n};\non.load(judge);\non.change([fields.arrival, fields.departure], judge);',
    proof: {
      steps: [
        { set: 'arrival', to: '2031-05-03' },
        { set: 'departure', to: '2031-05-04' },
      ],
      part: 'departure',
      aspect: 'hint',
      is: null,
    },
  },
  {
    about: 'shown on change, not when a record is opened',
    form: 'berth_visit',
    code: 'missing-load',
    faulty:
      'on.change(fields.pilot_choice, ({ value }) => {\n  sections.pilot.shown = value === "own" || value === "harbour_pilot";\n});',
    mended:
      'keep("pilot details", () => {\n  const { value } = fields.pilot_choice;\n  sections.pilot.shown = value === "own" || value === "harbour_pilot";\n});',
    proof: { steps: [], part: 'pilot', aspect: 'shown', is: false },
  },
  {
    about: 'a lock that a saved record forgets',
    form: 'works_permit',
    code: 'missing-load',
    faulty:
      'on.change(fields.works_kind, () => {\n  fields.plan.locked = fields.works_kind.value === "painting";\n  fields.leader.required = !fields.works_kind.empty;\n});',
    mended:
      'const follow = () => {\n  fields.plan.locked = fields.works_kind.value === "painting";\n  fields.leader.required = !fields.works_kind.empty;\n};\non.load(follow);\non.change(fields.works_kind, follow);',
  },
  {
    about: 'a total that adds to itself',
    form: 'crew_change',
    code: 'rule-reads-own',
    faulty:
      'keep("escorts", () => {\n  fields.escorts.value = (fields.escorts.value ?? 0) + fields.people_rows.count;\n});',
    mended: 'keep("escorts", () => {\n  fields.escorts.value = fields.people_rows.count;\n});',
    proof: {
      steps: [{ addRow: 'people_rows' }, { addRow: 'people_rows' }],
      part: 'escorts',
      aspect: 'value',
      is: 2,
    },
  },
  {
    about: 'a default that cannot be emptied',
    form: 'works_permit',
    code: 'rule-reads-own',
    faulty:
      'keep("description", () => {\n  if (fields.description.value === null) fields.description.value = "As agreed";\n});',
    mended:
      'on.load(() => {\n  if (fields.description.value === null) fields.description.value = "As agreed";\n});',
    proof: {
      steps: [{ set: 'description', to: null }],
      part: 'description',
      aspect: 'value',
      is: null,
    },
  },
  {
    about: 'a section toggled by a rule',
    form: 'vessel',
    code: 'rule-reads-own',
    faulty:
      'keep("visits", () => {\n  if (fields.imo.value !== null) sections.visits_part.shown = !sections.visits_part.shown;\n});',
    mended:
      'keep("visits", () => {\n  if (fields.imo.value !== null) sections.visits_part.shown = false;\n});',
  },
  {
    about: 'a counter that the next record inherits',
    form: 'berth_visit',
    code: 'carried-state',
    faulty:
      'let changes = 0;\non.change(fields.berth, () => {\n  changes += 1;\n  if (changes > 2) form.message("Please decide on a berth.", "warning");\n});',
    mended:
      'let changes = 0;\non.load(() => {\n  changes = 0;\n});\non.change(fields.berth, () => {\n  changes += 1;\n  if (changes > 2) form.message("Please decide on a berth.", "warning");\n});',
  },
  {
    about: 'answers kept in a map',
    form: 'vessel',
    code: 'carried-state',
    faulty:
      'const asked = new Map<string, boolean>();\non.change(fields.imo, ({ value }) => {\n  if (value !== null) asked.set(value, true);\n  log(asked.size);\n});',
    mended:
      'on.change(fields.imo, ({ value }) => {\n  const asked = new Map<string, boolean>();\n  if (value !== null) asked.set(value, true);\n  log(asked.size);\n});',
  },
  {
    about: 'a handler for each change of another',
    form: 'berth_visit',
    code: 'tied-inside',
    faulty:
      'on.change(fields.pilot_choice, ({ value }) => {\n  if (value === "own") {\n    on.change(fields.pilot_licence, () => log("licence"));\n  }\n});',
    mended:
      'on.change(fields.pilot_licence, () => {\n  if (fields.pilot_choice.value === "own") log("licence");\n});',
  },
  {
    about: 'a rule kept from a change',
    form: 'waste_declaration',
    code: 'tied-inside',
    faulty:
      'on.change(fields.vessel, () => {\n  keep("tank", () => {\n    fields.tank.shown = fields.wastes.value.includes("sludge");\n  });\n});',
    mended:
      'keep("tank", () => {\n  fields.tank.shown = fields.wastes.value.includes("sludge");\n});',
    proof: {
      steps: [
        { set: 'vessel', to: 'Tern' },
        { set: 'wastes', to: ['sludge'] },
      ],
      part: 'tank',
      aspect: 'shown',
      is: true,
    },
  },
  {
    about: 'a look-up by a button, answered late',
    form: 'vessel',
    code: 'stale-await',
    faulty:
      'on.click(buttons.look_up, async () => {\n  const imo = fields.imo.value;\n  if (imo === null) return;\n  const ship = await services.ship_register.find({ imo });\n  fields.name.value = ship === null ? null : ship.name;\n});',
    mended:
      'on.click(buttons.look_up, async () => {\n  const imo = fields.imo.value;\n  if (imo === null) return;\n  const ship = await services.ship_register.find({ imo });\n  if (fields.imo.value !== imo) return;\n  fields.name.value = ship === null ? null : ship.name;\n});',
    proof: {
      steps: [
        { set: 'imo', to: '9900007' },
        { click: 'look_up' },
        { set: 'imo', to: null },
        { wait: 5000 },
      ],
      part: 'name',
      aspect: 'value',
      is: null,
    },
  },
  {
    about: 'all answers may write, the first one last',
    form: 'vessel',
    code: 'stale-await',
    faulty:
      'on.change(fields.imo, async ({ value }) => {\n  if (value === null) return;\n  const ship = await services.ship_register.find({ imo: value });\n  fields.call_sign.value = ship?.call_sign ?? null;\n}, { overlap: "all" });',
    mended:
      'on.change(fields.imo, async ({ value }) => {\n  if (value === null) return;\n  const ship = await services.ship_register.find({ imo: value });\n  fields.call_sign.value = ship?.call_sign ?? null;\n});',
    proof: {
      steps: [{ set: 'imo', to: '9900007' }, { set: 'imo', to: null }, { wait: 5000 }],
      part: 'call_sign',
      aspect: 'value',
      is: null,
    },
  },
  {
    about: 'a change that is no change',
    form: 'berth_visit',
    code: 'past-event',
    faulty:
      'on.change(fields.draught, ({ value, previous }) => {\n  if (value === previous) return;\n  log(value);\n});',
    mended: 'on.change(fields.draught, ({ value }) => {\n  log(value);\n});',
  },
  {
    about: 'what it was before, asked long after',
    form: 'vessel',
    code: 'past-event',
    faulty:
      'on.submit((event) => {\n  if (fields.standing.previous === "barred") event.stop("A barred vessel stays barred.", fields.standing);\n});',
    mended:
      'on.submit((event) => {\n  if (fields.standing.initial === "barred") event.stop("A barred vessel stays barred.", fields.standing);\n});',
  },
  {
    about: 'a difference asked for after saving',
    form: 'berth_visit',
    code: 'past-event',
    faulty:
      'on.saved(() => {\n  if (fields.berth.value !== fields.berth.initial) form.message("The berth was changed.");\n});',
    mended:
      'on.submit(() => {\n  if (fields.berth.value !== fields.berth.initial) form.message("The berth was changed.");\n});',
  },
  {
    about: 'a rule that waits for the evening',
    form: 'works_permit',
    code: 'clock-in-rule',
    faulty:
      'keep("evening", () => {\n  fields.at_night.value = Temporal.Now.plainTimeISO().hour >= 22;\n});',
    mended:
      'on.load(() => {\n  fields.at_night.value = Temporal.Now.plainTimeISO().hour >= 22;\n});',
  },
  {
    about: 'an invariant that makes true what it should check',
    form: 'berth_visit',
    code: 'invariant-acts',
    faulty:
      'always("own pilots have a licence", () => {\n  if (fields.pilot_choice.value === "own") fields.pilot_licence.required = true;\n  return true;\n});',
    mended:
      'keep("own pilots have a licence", () => {\n  fields.pilot_licence.required = fields.pilot_choice.value === "own";\n});\nalways("own pilots have a licence", () => fields.pilot_choice.value !== "own" || fields.pilot_licence.required);',
  },
  {
    about: 'a function that nobody ties',
    form: 'berth_visit',
    code: 'idle-behaviour',
    faulty:
      'function onChangePilot(): void {\n  sections.pilot.shown = fields.pilot_choice.value !== "none";\n}',
    mended:
      'function onChangePilot(): void {\n  sections.pilot.shown = fields.pilot_choice.value !== "none";\n}\nkeep("pilot", onChangePilot);',
    proof: {
      steps: [{ set: 'pilot_choice', to: 'none' }],
      part: 'pilot',
      aspect: 'shown',
      is: false,
    },
  },
  {
    about: 'a key of a row of cargo spelled as its name',
    form: 'berth_visit',
    code: 'label-for-key',
    faulty:
      'keep.each(fields.cargo, "gases", (row) => {\n  row.fields.flash_point.shown = row.fields.goods_class.value === "Class 2: gases";\n});',
    mended:
      'keep.each(fields.cargo, "gases", (row) => {\n  row.fields.flash_point.shown = row.fields.goods_class.value === "class_2";\n});',
    proof: {
      steps: [{ addRow: 'cargo' }, { set: 'cargo[0].goods_class', to: 'class_2' }],
      part: 'cargo[0].flash_point',
      aspect: 'shown',
      is: true,
    },
  },
];
