/** Ship register: looks a vessel up by its number, and says what it is waiting for. */

async function lookUp(imo: string): Promise<void> {
  // What somebody enters while the register is asked stays.
  const { call_sign, name, length, draught, kind } = fields;
  const before = { call_sign: call_sign.value, name: name.value, length: length.value, draught: draught.value, kind: kind.value };
  fields.imo.hint = "Asking the ship register…";
  try {
    const ship = await services.ship_register.find({ imo });
    if (fields.imo.value !== imo) return;
    // tavro: meant, at-load, not-back: the register is asked when a number is entered, not at each opening
    fields.imo.hint = ship === null ? "The register does not know this number." : null;
    if (ship === null) return;
    // tavro: meant, not-back, over-another: people can change what the register filled in, so it stays
    if (call_sign.value === before.call_sign) call_sign.value = ship.call_sign;
    if (name.value === before.name) name.value = ship.name;
    if (length.value === before.length) length.value = ship.length; // tavro: meant, not-back: it stays, like the name
    if (draught.value === before.draught) draught.value = ship.draught;
    if (kind.value === before.kind) kind.value = tables.vessel_kinds.find(ship.kind as never)?.code ?? null;
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    fields.imo.hint = "The register does not answer. Fill the vessel in by hand.";
  }
}

on.change(fields.imo, async ({ value, by }) => {
  fields.imo.hint = null;
  if (by === "person" && value !== null && checks.imo(value)) await lookUp(value);
});

on.click(buttons.look_up, async () => {
  if (fields.imo.value !== null) await lookUp(fields.imo.value);
});

keep("nothing to look up without a sound number", () => {
  buttons.look_up.locked = fields.imo.value === null || !checks.imo(fields.imo.value);
});
