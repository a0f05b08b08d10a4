/** Behaviours that are right, and look to a search or a reader like ones that are not. */
import { right, type RightOne } from './right-one';
import { rightInSource } from './right-in-source';

export const rightOnes: readonly RightOne[] = [
  right(
    'a value filled once, for the person to change',
    'mooring',
    `
on.change(fields.kind, ({ value }) => { if (value === "tanker" && fields.pilot.empty) fields.pilot.value = "harbour"; });`,
  ),
  right(
    'a button that empties what was entered',
    'mooring',
    `
on.click(buttons.clear_stay, () => { fields.arrival.value = null; fields.departure.value = null; fields.nights.value = null; });`,
  ),
  right(
    'the departure follows the arrival when it would be before it',
    'mooring',
    `
on.change(fields.arrival, ({ value }) => { if (value !== null && fields.departure.value !== null && fields.departure.value < value) fields.departure.value = value; });`,
  ),
  right(
    'nights by both dates, in a rule',
    'mooring',
    `
keep(() => {
  const { arrival, departure } = fields;
  fields.nights.locked = true;
  fields.nights.value = arrival.value === null || departure.value === null ? null : Temporal.PlainDate.from(arrival.value).until(departure.value).days;
});`,
  ),
  right(
    'shown, required and emptied with its choice',
    'mooring',
    `
keep(() => { fields.licence.shown = fields.pilot.value === "own"; fields.licence.required = fields.licence.shown; });
on.change(fields.pilot, ({ value }) => { if (value !== "own") fields.licence.value = null; });`,
  ),
  right(
    'a prefill for new entries',
    'clearance',
    `
on.load(() => { if (form.isNew) fields.agent_name.value = form.person.name; });`,
  ),
  right(
    'a prefill from the launch',
    'clearance',
    `
on.load(() => { if (form.isNew && form.launch.visit) fields.remark.value = "Visit " + form.launch.visit; });`,
  ),
  right(
    'a record locked by what it was saved as',
    'clearance',
    `
keep(() => { sections.request.locked = fields.state.initial === "closed"; });`,
  ),
  right(
    'whoever checks or closes last is named',
    'clearance',
    `
keep(() => { fields.checked_by.locked = true; });
on.change(fields.state, ({ value }) => { fields.checked_by.value = value === "open" ? null : form.person.name; });`,
  ),
  right(
    'a greeting with the name of whoever opens it',
    'clearance',
    `
on.load(() => { fields.remark.hint = "Write to " + form.person.name + "."; });`,
  ),
  right(
    'what an agent does not see',
    'clearance',
    `
keep(() => { sections.office.shown = form.person.roles.includes("officer"); });`,
  ),
  right(
    'an approval keeps who gave it',
    'works',
    `
on.change(fields.status, ({ value }) => { fields.granted_by.value = value === "granted" ? form.person.name : null; });
keep(() => { fields.granted_by.locked = true; });`,
  ),
  right(
    'a button that grants once',
    'works',
    `
on.click(buttons.grant, () => { fields.status.value = "granted"; });
keep(() => { buttons.grant.locked = fields.status.value === "granted"; });`,
  ),
  right(
    'a reason asked for when refused',
    'works',
    `
keep(() => { fields.reason.shown = fields.status.value === "refused"; fields.reason.required = fields.reason.shown; });`,
  ),
  right(
    'three sorts of work, each with its own fields',
    'works',
    `
keep(() => {
  const kind = fields.works_kind.value;
  fields.fire_watch.shown = kind === "hot";
  fields.divers.shown = kind === "diving";
  fields.standby_boat.shown = kind === "diving";
});`,
  ),
  right(
    'a default hidden at load that a rule takes over',
    'works',
    `
on.load(() => { fields.divers.shown = false; });
keep(() => { fields.divers.shown = fields.works_kind.value === "diving"; });`,
  ),
  right(
    'options narrowed, the chosen one let go when it is gone',
    'works',
    `
keep(() => { fields.status.options = fields.contractor.empty ? ["draft"] : ["draft", "granted", "refused"]; });`,
  ),
  right(
    'the total of all rows',
    'manifest',
    `
keep(() => { fields.total.value = fields.goods.sum("weight"); fields.lines.value = fields.goods.count; });`,
  ),
  right(
    'dangerous goods anywhere',
    'manifest',
    `
keep(() => { fields.note.required = fields.goods.value.some((row) => row.dangerous === true); });`,
  ),
  right(
    'each row asks for itself',
    'manifest',
    `
keep.each(fields.goods, (row) => { row.fields.un_number.shown = row.fields.dangerous.value === true; row.fields.un_number.required = row.fields.un_number.shown; });`,
  ),
  right(
    'each row by a handler of its cell, and all of them at load',
    'manifest',
    `
on.change(fields.goods.each.dangerous, ({ row, value }) => { row.fields.un_number.required = value === true; });
on.load(() => { for (const row of fields.goods.rows) row.fields.un_number.required = row.fields.dangerous.value === true; });`,
  ),
  right(
    'the first line is the main cargo',
    'manifest',
    `
keep(() => { fields.consignee.hint = fields.goods.count === 0 ? null : "Main cargo: " + (fields.goods.value[0]!.what ?? "not named"); });`,
  ),
  right(
    'duplicates among the rows',
    'manifest',
    `
keep(() => {
  const names = fields.goods.value.map(({ what }) => what).filter((what) => what !== null);
  fields.goods.warning = new Set(names).size < names.length ? "Something is listed twice." : null;
});`,
  ),
  right(
    'a submission stops at the first row that lacks something',
    'manifest',
    `
on.submit((event) => { for (const row of fields.goods.rows) if (row.fields.dangerous.value === true && row.fields.un_number.empty) return event.stop("Which UN number?", row.fields.un_number); });`,
  ),
  right(
    'insurance as it was answered',
    'manifest',
    `
keep(() => { fields.total_worth.value = fields.insured.value === true ? fields.goods.sum("worth") : null; });`,
  ),
  right(
    'dues with rounding, empty while something is missing',
    'dues',
    `
keep(() => {
  const { berth, days, tonnage, exempt } = fields;
  fields.rate.value = berth.row?.rate ?? null;
  fields.amount.value = berth.row === null || days.value === null || tonnage.value === null ? null : exempt.value === true ? 0 : round(berth.row.rate * days.value * tonnage.value, 2);
});`,
  ),
  right(
    'a rate that people may put another one in for',
    'dues',
    `
on.change(fields.berth, ({ part }) => { fields.deposit.value = part.row === null ? null : part.row.rate * 10; });`,
  ),
  right(
    'a large berth asks for the account',
    'dues',
    `
keep(() => { fields.account.required = fields.payer.value !== null && (fields.berth.row?.depth ?? 0) > 10; });`,
  ),
  right(
    'at submit the payer is asked for where it is on screen',
    'dues',
    `
keep(() => { sections.payment.shown = fields.exempt.value !== true; });
on.submit((event) => { if (sections.payment.onScreen && fields.payer.empty) event.stop("Who pays?", fields.payer); });`,
  ),
  right(
    'a message at a button',
    'dues',
    `
on.click(buttons.recalculate, () => { form.message("The amount is " + (fields.amount.value ?? 0) + "."); });`,
  ),
  right(
    'a ship looked up, emptied when it is unknown, told when the register is down',
    'register',
    `
keep(() => { fields.ship.locked = fields.by_hand.value !== true; });
on.change(fields.imo, async ({ value }) => {
  fields.ship.value = null;
  fields.imo.warning = null;
  if (value === null) return;
  try { fields.ship.value = (await services.ships.find({ imo: value }))?.name ?? null; }
  catch { fields.imo.warning = "The register does not answer. Enter the ship by hand."; }
});`,
  ),
  right(
    'waiting shown and ended in every case',
    'register',
    `
on.click(buttons.look_up, async () => {
  buttons.look_up.locked = true;
  fields.imo.locked = true;
  try { fields.tonnage.value = (await services.ships.find({ imo: fields.imo.value ?? "" }))?.tonnage ?? null; }
  catch { form.message("The register does not answer.", "warning"); }
  finally { buttons.look_up.locked = false; fields.imo.locked = false; }
});`,
  ),
  right(
    'an answer only where nothing is entered yet',
    'register',
    `
on.change(fields.imo, async ({ value }) => {
  if (value === null) return;
  try {
    const found = await services.ships.find({ imo: value });
    if (found !== null && fields.flag.empty) fields.flag.value = found.flag;
  } catch { form.message("The register does not answer."); }
});`,
  ),
  right(
    'pages by the reason',
    'inspection',
    `
keep(() => { pages.hull.shown = fields.reason.value !== "complaint"; });`,
  ),
  right(
    'reasons for what did not pass',
    'inspection',
    `
keep(() => { fields.reasons.shown = fields.passed.value === false; fields.reasons.required = fields.reasons.shown; });`,
  ),
  right(
    'a due date only where there is something to repair',
    'inspection',
    `
keep(() => { sections.repair.shown = fields.condition.value === "bad"; fields.due.required = fields.condition.value === "bad"; });`,
  ),
  right(
    'thin plates are worth a warning',
    'inspection',
    `
keep(() => { fields.thickness.warning = fields.thickness.value !== null && fields.thickness.value < 8 ? "Thinner than 8 mm." : null; });`,
  ),
  right(
    'a fee in two handlers that agree',
    'clearance',
    `
const fee = () => { fields.fee.value = fields.priority.value === true ? 80 : 40; };
on.load(() => { if (form.isNew) fee(); });
on.change(fields.priority, fee);`,
  ),
  right(
    'dates in order, checked from both ends',
    'clearance',
    `
keep(() => { fields.to.problem = fields.from.value !== null && fields.to.value !== null && fields.to.value < fields.from.value ? "Ends before it begins." : null; });`,
  ),
  right(
    'a table of texts by key',
    'dues',
    `
const HINTS = { agent: "Within 14 days.", owner: "Within 30 days.", charterer: "At once." } as const;
keep(() => { fields.account.hint = fields.payer.value === null ? null : HINTS[fields.payer.value]; });`,
  ),
  right(
    'a guard for what may not be there',
    'dues',
    `
keep(() => { fields.days.hint = fields.berth.row === null ? null : fields.berth.row.closed_on === null ? "Open every day." : "Closed on " + fields.berth.row.closed_on + "."; });`,
  ),
  right(
    'what was typed is kept in capitals',
    'register',
    `
on.change(fields.flag, ({ value }) => { if (value !== null) fields.flag.value = value.toUpperCase(); });`,
  ),
  right(
    'after saving the form says so',
    'clearance',
    `
on.saved(() => { form.message("Sent to the office."); });`,
  ),
  right(
    'the status moves on when it is submitted',
    'clearance',
    `
on.submit(() => { if (fields.state.value === null) fields.state.value = "open"; });`,
  ),
  ...rightInSource,
  right(
    'what was found is put together when the last page is reached',
    'inspection',
    `
on.pageChange(({ to }) => {
  if (to !== "close") return;
  fields.reasons.hint = fields.condition.value === null ? null : "Plates are " + fields.condition.value;
  if (fields.reasons.empty && fields.condition.value === "bad") fields.reasons.value = "Bad plates";
});`,
  ),
  right(
    'a page is left only once its question is answered, and says so',
    'inspection',
    `
on.pageChange((event) => { if (event.from === "general" && event.to === "hull" && fields.reason.empty) event.stop("Choose a reason first.", fields.reason); });`,
  ),
  right(
    'a page is passed over by whoever needs none of it',
    'inspection',
    `
keep(() => { pages.hull.shown = fields.reason.value !== "complaint"; });
on.pageChange(({ to }) => { if (to === "close") form.message("Nearly done.", "info"); });`,
  ),
  right(
    'a clearance begins with what its mooring says',
    'clearance',
    `
on.load(() => {
  if (parent === null || !form.isNew) return;
  fields.from.value = parent.get("arrival") as string | null;
  fields.remark.value = (parent.get("vessel") as string | null) ?? null;
});
on.saved(({ id }) => parent?.set("remarks", "Clearance " + id));`,
  ),
  right(
    'what was typed while the register was asked stays, whether the ship is known or not',
    'register',
    `
keep(() => { fields.flag.locked = true; });
on.change(fields.imo, async ({ value }) => {
  const before = fields.owner.value;
  fields.flag.value = null;
  if (value === null) return;
  try {
    const found = await services.ships.find({ imo: value });
    if (fields.imo.value !== value) return;
    fields.flag.value = found?.flag ?? null;
    if (found !== null && before === null && fields.owner.value === null) fields.owner.value = "Owner of " + found.name;
  } catch { form.message("The register does not answer."); }
});`,
  ),
];
