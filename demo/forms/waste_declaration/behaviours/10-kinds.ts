/** What each waste asks for: several of them ask for the same further field, which is shown when any is ticked. */

const OILY = ["bilge", "sludge", "oily_rags"] as const;
const RESIDUE = ["tank_washings", "scrubber"] as const;
const GARBAGE = ["plastics", "galley"] as const;

const has = (kinds: readonly (typeof fields.wastes.value)[number][]) => kinds.some((kind) => fields.wastes.value.includes(kind));

keep("volumes", () => {
  for (const [field, kinds] of [[fields.oily_volume, OILY], [fields.residue_volume, RESIDUE], [fields.garbage_volume, GARBAGE], [fields.sewage_volume, ["sewage"] as const]] as const) {
    field.shown = has(kinds);
    field.required = field.shown;
  }
});

keep("where liquids are kept", () => {
  fields.tank.shown = has([...OILY, ...RESIDUE, "sewage"]);
  fields.tank.required = fields.tank.shown;
});

keep("where the rest goes", () => {
  fields.next_port.shown = fields.keeps_some.value === true;
  fields.next_port.required = fields.next_port.shown;
});
