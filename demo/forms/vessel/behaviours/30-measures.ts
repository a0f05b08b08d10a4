/** Measures: a draught no vessel of this length has, and the day of the next survey. */

/** Years between two surveys. */
const SURVEY_YEARS = 5;

keep("draught fits the length", () => {
  const length = fields.length.value;
  const draught = fields.draught.value;
  const deep = length !== null && draught !== null && draught > length / 4;
  fields.draught.problem = deep ? "That is deeper than a quarter of the length." : null;
});

keep("next survey", () => {
  const last = fields.surveyed.value;
  fields.survey_due.value = last === null ? null : Temporal.PlainDate.from(last).add({ years: SURVEY_YEARS }).toString();
});

keep("a survey cannot lie ahead", () => {
  const last = fields.surveyed.value;
  const ahead = last !== null && last > Temporal.Now.plainDateISO().toString();
  fields.surveyed.problem = ahead ? "This day is still to come." : null;
});
