/** Numbers: how many are on board afterwards, and whether that is enough. */

keep("on board after the change", () => {
  const before = fields.on_board.value;
  let joins = 0;
  let leaves = 0;
  for (const row of fields.people_rows.rows) {
    if (row.fields.movement.value === "sign_off") leaves++;
    else if (row.fields.movement.row?.joins === true) joins++;
  }
  fields.after.value = before === null ? null : before + joins - leaves;
  fields.escorts.value = fields.people_rows.rows.filter((row) => row.fields.movement.row?.escort === true).length;
});

keep("enough crew stays on board", () => {
  const after = fields.after.value;
  const minimum = fields.minimum.value;
  const few = after !== null && minimum !== null && after < minimum;
  fields.minimum.problem = few ? `Only ${after} would be on board.` : null;
  if (few) form.message("Too few people stay on board for a safe crew.", "warning");
});

on.rowAdded(fields.people_rows, ({ row, by }) => {
  // tavro: meant, at-load: only whoever has just added a row needs to be told
  if (by === "person") row.fields.name.hint = "As written in the passport.";
});
