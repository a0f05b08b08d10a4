/** Times: the works end after they begin, take twelve hours at most, and are marked when they go into the night. */

/** Hours that a permit can cover. */
const MOST_HOURS = 12;

keep("hours", () => {
  const begins = fields.begins.value;
  const ends = fields.ends.value;
  if (begins === null || ends === null) {
    fields.hours.value = null;
    fields.at_night.value = null;
    return;
  }
  const hours = Temporal.Instant.from(begins).until(ends).total({ unit: "hours" });
  fields.hours.value = round(hours, 1);
  fields.ends.problem = hours <= 0 ? "The works end before they begin." : hours > MOST_HOURS ? `A permit covers ${MOST_HOURS} hours at most.` : null;
  const night = Temporal.Instant.from(ends).toZonedDateTimeISO(Temporal.Now.timeZoneId()).hour >= 22;
  fields.at_night.value = night;
  fields.ends.warning = night ? "The works go into the night: a watchman stays with them." : null;
});

on.click(buttons.next_day, () => {
  for (const field of [fields.begins, fields.ends]) {
    if (field.value !== null) field.value = Temporal.Instant.from(field.value).add({ hours: 24 }).toString();
  }
});

on.pageChange((event) => {
  if (event.to === "safety" && fields.begins.value === null) event.stop("Say first when the works begin.", fields.begins);
});
