/** Berths that fit: deep and long enough for the vessel, with shore power where it is wanted. */

/** Water that stays below the keel, in metres. */
const UNDER_KEEL = 0.5;

keep("berths that fit", () => {
  const draught = fields.draught.value ?? 0;
  const length = fields.length.value ?? 0;
  const fitting = tables.berths.rows.filter((berth) =>
    (berth.depth ?? 0) >= draught + UNDER_KEEL
    && (berth.length ?? 0) >= length
    && (fields.shore_power.value !== true || berth.shore_power === true));
  fields.berth.options = fitting;
  fields.berth.hint = fitting.length > 0 ? null : "No berth fits this vessel.";
  fields.berth.warning = fitting.length === 1 ? `Only ${fitting[0]!.name} fits. Ask early.` : null;
});
