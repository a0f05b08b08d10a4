/** Safety: what each kind of works asks for. */

keep("fire watch", () => {
  const hot = fields.works_kind.value === "hot";
  fields.fire_watch.shown = hot;
  fields.fire_watch.required = hot;
  const missing = hot && !fields.gear.value.includes("extinguisher");
  fields.gear.problem = missing ? "Hot works need extinguishers on site." : null;
});

keep("diving", () => {
  const diving = fields.works_kind.value === "diving";
  fields.dive_supervisor.shown = diving;
  fields.dive_supervisor.required = diving;
});

/** The day on which whoever fills it in begins: a moment of the evening may be another day in UTC. */
function dayOf(moment: string): string {
  return Temporal.Instant.from(moment).toZonedDateTimeISO(Temporal.Now.timeZoneId()).toPlainDate().toString();
}

async function tellTide(): Promise<void> {
  const begins = fields.begins.value;
  fields.begins.hint = null;
  if (begins === null || fields.works_kind.value !== "diving") return;
  const { level } = await services.tide_gauge.level({ day: dayOf(begins) });
  if (fields.begins.value !== begins || fields.works_kind.value !== "diving") return;
  fields.begins.hint = `At noon the tide stands at ${level} m.`;
}

on.load(tellTide);
on.change([fields.begins, fields.works_kind], tellTide);

keep("a plan for lifting and diving", () => {
  const kind = fields.works_kind.value;
  fields.plan.shown = kind === "diving" || kind === "lifting";
  fields.plan.required = kind === "diving";
});
