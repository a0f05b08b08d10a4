/** Cargo: dangerous goods are asked for their UN number, flammable ones for their flash point, each row by itself. */

keep("cargo only where the vessel carries some", () => {
  sections.cargo_part.shown = fields.vessel_kind.row?.carries_cargo ?? true;
});

keep.each(fields.cargo, "what a class asks for", (row) => {
  const goods = row.fields.goods_class.row;
  row.fields.un_number.shown = goods?.dangerous === true;
  row.fields.un_number.required = goods?.dangerous === true;
  row.fields.flash_point.shown = goods?.flammable === true;
});

keep.each(fields.cargo, "not more than a class allows", (row) => {
  const most = row.fields.goods_class.row?.limit ?? null;
  const weight = row.fields.weight.value;
  row.fields.weight.problem = most !== null && weight !== null && weight > most ? `At most ${most} t of this class.` : null;
});

keep("weight in all", () => {
  const tons = round(fields.cargo.sum("weight"), 1);
  fields.cargo.hint = fields.cargo.count === 0 ? null : `${tons} t in ${fields.cargo.count === 1 ? "one lot" : `${fields.cargo.count} lots`}.`;
});

always.each(fields.cargo, "dangerous goods have a UN number", (row) => row.fields.goods_class.row?.dangerous !== true || row.fields.un_number.required);
