/** What is asked of a person: the row of the movement says it, so a new movement needs no code. */

keep.each(fields.people_rows, "what the movement asks for", (row) => {
  const movement = row.fields.movement.row;
  const passport = movement?.passport === true;
  const medical = movement?.medical === true;
  row.fields.passport.shown = passport;
  row.fields.passport.required = passport;
  row.fields.passport_until.shown = passport;
  row.fields.passport_until.required = passport;
  row.fields.medical_until.shown = medical;
  row.fields.medical_until.required = medical;
  row.fields.gate_at.shown = movement?.escort === true;
});
