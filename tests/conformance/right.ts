/** Behaviours that are right and look like faults at first sight: nothing is to be found in any of them. */

export interface Right {
  about: string;
  form: string;
  code: string;
  /** A behaviour that takes part beside it, and is right too. */
  beside?: string;
}

export const rightBehaviours: Right[] = [
  {
    about: 'a launch parameter is written once it is known to be there',
    form: 'berth_visit',
    code: 'on.load(() => {\n  if (form.isNew && form.launch.vessel) fields.vessel.value = form.launch.vessel;\n});',
  },
  {
    about: 'a launch parameter is written after asking whether it is undefined',
    form: 'berth_visit',
    code: 'on.load(() => {\n  const { vessel } = form.launch;\n  if (vessel !== undefined) fields.vessel.value = vessel;\n});',
  },
  {
    about: 'a launch parameter that is not declared, asked whether it is a text',
    form: 'vessel',
    code: 'on.load(() => {\n  if (typeof form.launch.imo === "string") fields.imo.value = form.launch.imo;\n});',
  },
  {
    about: 'a launch parameter that is not declared is written when it is there',
    form: 'vessel',
    code: 'on.load(() => {\n  if (form.launch.imo) fields.imo.value = form.launch.imo;\n});',
  },
  {
    about: 'a launch parameter with a default',
    form: 'berth_visit',
    code: 'on.load(() => {\n  if (form.isNew) fields.vessel.value = form.launch.vessel ?? null;\n});',
  },
  {
    about: 'a default in a handler that a rule of the same behaviour takes over',
    form: 'works_permit',
    code: 'on.load(() => {\n  fields.fire_watch.shown = false;\n});\nkeep("fire watch", () => {\n  fields.fire_watch.shown = fields.works_kind.value === "hot";\n});',
  },
  {
    about: 'a default in a handler of one behaviour that a rule of another takes over',
    form: 'works_permit',
    code: 'on.load(() => {\n  fields.fire_watch.shown = false;\n});',
    beside:
      'keep("fire watch", () => {\n  fields.fire_watch.shown = fields.works_kind.value === "hot";\n});',
  },
  {
    about: 'a value that one behaviour enters at load and a rule of another computes',
    form: 'works_permit',
    code: 'on.load(() => {\n  if (form.isNew) fields.hours.value = 1;\n});',
    beside: 'keep("hours", () => {\n  fields.hours.value = fields.at_night.value ? 8 : 4;\n});',
  },
  {
    about: 'a rule that keeps a value within its limits',
    form: 'works_permit',
    code: 'keep("at most a day", () => {\n  const { hours } = fields;\n  if (hours.value !== null && hours.value > 24) hours.value = 24;\n});',
  },
  {
    about: 'a rule that keeps a value within its limits by Math.min',
    form: 'works_permit',
    code: 'keep("at most a day", () => {\n  const { hours } = fields;\n  if (hours.value !== null) hours.value = Math.min(hours.value, 24);\n});',
  },
  {
    about: 'a rule that spells a text in capitals',
    form: 'vessel',
    code: 'keep("capitals", () => {\n  const { call_sign } = fields;\n  call_sign.value = call_sign.value?.toUpperCase() ?? null;\n});',
  },
  {
    about: 'a rule that takes blanks out of a text',
    form: 'vessel',
    code: 'keep("no blanks", () => {\n  const { imo } = fields;\n  if (imo.value !== null) imo.value = imo.value.replace(/\\s+/g, "");\n});',
  },
  {
    about: 'a rule that empties a value which does not fit any more',
    form: 'berth_visit',
    code: 'keep("departure after arrival", () => {\n  const { arrival, departure } = fields;\n  if (arrival.value !== null && departure.value !== null && departure.value < arrival.value)\n    departure.value = null;\n});',
  },
  {
    about: 'a field that a handler sets together with the one it is tied to',
    form: 'vessel',
    code: 'on.change(fields.imo, () => {\n  fields.name.value = fields.imo.value === null ? null : "known";\n  fields.kind.required = fields.name.value !== null;\n});\non.load(() => {\n  fields.kind.required = fields.name.value !== null;\n});',
  },
  {
    about: 'a handler that reads a locked field which a rule computes from the tied one',
    form: 'berth_visit',
    code: 'keep("dues", () => {\n  fields.dues.value = (fields.length.value ?? 0) * 3;\n});\nconst decide = () => {\n  fields.dues_accepted.required = fields.length.value !== null && (fields.dues.value ?? 0) > 100;\n};\non.load(decide);\non.change(fields.length, decide);',
  },
  {
    about: 'a cache keyed by all that it depends on',
    form: 'vessel',
    code: 'const known = new Map<string, string>();\non.change(fields.imo, async () => {\n  const imo = fields.imo.value;\n  if (imo === null) return;\n  const kept = known.get(imo);\n  if (kept !== undefined) {\n    fields.name.value = kept;\n    return;\n  }\n  const ship = await services.ship_register.find({ imo });\n  if (ship === null) return;\n  known.set(imo, ship.name);\n  fields.name.value = ship.name;\n});',
  },
  {
    about: 'a cache in an object keyed by all that it depends on',
    form: 'vessel',
    code: 'const lengths: Record<string, number> = {};\non.click(buttons.look_up, async () => {\n  const imo = fields.imo.value ?? "";\n  if (lengths[imo] === undefined) {\n    const ship = await services.ship_register.find({ imo });\n    lengths[imo] = ship?.length ?? 0;\n  }\n  log(lengths[imo]);\n});',
  },
  {
    about: 'a comparison after an await with what was read before it',
    form: 'vessel',
    code: 'on.click(buttons.look_up, async () => {\n  const imo = fields.imo.value;\n  if (imo === null) return;\n  const ship = await services.ship_register.find({ imo });\n  if (fields.imo.value !== imo) return;\n  fields.name.value = ship?.name ?? null;\n});',
  },
  {
    about: 'a comparison with a text after an await that may hold since time has passed',
    form: 'vessel',
    code: 'on.click(buttons.look_up, async () => {\n  if (fields.standing.value === "barred") return;\n  const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" });\n  if (fields.standing.value === "barred" || ship === null) return;\n  fields.standing.value = "known";\n});',
  },
  {
    about: 'a text appended only where it is not there yet',
    form: 'works_permit',
    code: 'on.change(fields.works_kind, () => {\n  const { description, works_kind } = fields;\n  if (works_kind.value === "hot" && !description.value?.includes("Hot works"))\n    description.value = `${description.value ?? ""} Hot works`;\n});',
  },
  {
    about: 'a text appended under a guard that returns early',
    form: 'works_permit',
    code: 'on.change(fields.works_kind, () => {\n  const text = fields.description.value ?? "";\n  if (text.endsWith("Hot works")) return;\n  fields.description.value = text + " Hot works";\n});',
  },
  {
    about: 'a counter that a click adds to',
    form: 'works_permit',
    code: 'on.click(buttons.next_day, () => {\n  fields.hours.value = (fields.hours.value ?? 0) + 1;\n});',
  },
  {
    about: 'an else branch that leaves what a person entered',
    form: 'berth_visit',
    code: 'keep("no pilot, no licence", () => {\n  fields.pilot_licence.shown = fields.pilot_choice.value === "own";\n  fields.pilot_licence.required = fields.pilot_licence.shown;\n});',
  },
  {
    about: 'every way of an if and a switch says it',
    form: 'works_permit',
    code: 'on.load(decide);\non.change(fields.works_kind, decide);\nfunction decide() {\n  switch (fields.works_kind.value) {\n    case "hot":\n      fields.fire_watch.shown = true;\n      break;\n    default:\n      fields.fire_watch.shown = false;\n  }\n}',
  },
  {
    about: 'a handler for load and change, from one array of fields',
    form: 'berth_visit',
    code: 'const decide = () => {\n  fields.dues_accepted.required = fields.dues.value !== null && fields.shore_power.value === true;\n};\non.load(decide);\non.change([fields.dues, fields.shore_power], decide);',
  },
  {
    about: 'a constant table that handlers only read',
    form: 'works_permit',
    code: 'const HOURS = { hot: 4, lifting: 6, diving: 3, painting: 8, inspection: 2 };\nkeep("hours", () => {\n  const kind = fields.works_kind.value;\n  fields.hours.value = kind === null ? null : HOURS[kind];\n});',
  },
  {
    about: 'a variable of the module that is set again at load',
    form: 'works_permit',
    code: 'let asked = false;\non.load(() => {\n  asked = false;\n});\non.submit((event) => {\n  if (asked) return;\n  asked = true;\n  event.stop("Look at it once more, then send it again.");\n});',
  },
  {
    about: 'a rule per row that sums what stands in the row',
    form: 'berth_visit',
    code: 'keep.each(fields.cargo, (row) => {\n  row.fields.flash_point.required = row.values.goods_class === "class_3";\n});',
  },
  {
    about: 'two behaviours that steer different aspects of one part',
    form: 'works_permit',
    code: 'keep("shown", () => {\n  fields.fire_watch.shown = fields.works_kind.value === "hot";\n});',
    beside:
      'keep("required", () => {\n  fields.fire_watch.required = fields.works_kind.value === "hot";\n});',
  },
  {
    about: 'two handlers of two behaviours that enter a value by turns',
    form: 'works_permit',
    code: 'on.click(buttons.next_day, () => {\n  fields.hours.value = 8;\n});',
    beside: 'on.change(fields.at_night, () => {\n  fields.hours.value = 4;\n});',
  },
  {
    about: 'a rule of roles that nobody changes while the form is open',
    form: 'vessel',
    code: 'on.load(() => {\n  fields.standing.locked = !form.person.roles.includes("master");\n});',
  },
  {
    about: 'a problem that a rule withdraws by saying nothing',
    form: 'berth_visit',
    code: 'keep("draught", () => {\n  const { draught } = fields;\n  if (draught.value !== null && draught.value > 12) draught.problem = "Too deep for every berth.";\n});',
  },
  {
    about: 'a field that is compared with null and with its keys',
    form: 'berth_visit',
    code: 'keep("pilot time", () => {\n  const pilot = fields.pilot_choice.value;\n  fields.pilot_time.shown = pilot !== null && pilot !== "none";\n});',
  },
];
