/** Pilot details: asked only when a pilot is taken; a vessel that needs one says why it goes without. */

keep("asked only with a pilot", () => {
  const choice = fields.pilot_choice.value;
  sections.pilot.shown = choice === "harbour_pilot" || choice === "own";
  fields.pilot_boarding.required = choice === "harbour_pilot";
  fields.pilot_licence.shown = choice === "own";
  fields.pilot_licence.required = choice === "own";
});

keep("a reason where the kind of vessel needs a pilot", () => {
  const needed = fields.vessel_kind.row?.pilot_required ?? false;
  const without = needed && fields.pilot_choice.value === "none";
  fields.pilot_choice.hint = needed ? "This kind of vessel takes a pilot." : null;
  fields.refusal_reason.shown = without;
  fields.refusal_reason.required = without;
});

on.change(fields.pilot_choice, ({ value, by }) => {
  if (value === "harbour_pilot" && by === "person" && fields.pilot_boarding.empty) {
    fields.pilot_boarding.value = "fairway_buoy";
  }
});

always("a licence is asked only of one's own pilot", () => !fields.pilot_licence.required || fields.pilot_choice.value === "own");
