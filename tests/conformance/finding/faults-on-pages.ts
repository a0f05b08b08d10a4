/** Pages that are turned, and forms that are opened from a record of another one. Common practice of the trade. */
import { faultsOf, type Fault } from './fault';

const pages = faultsOf('pages');
const parents = faultsOf('parents');

export const faultsOnPages: Fault[] = [
  pages(
    'turning to the last page takes for granted that plates were measured',
    'inspection',
    `
on.pageChange(({ to }) => { if (to === "close") fields.reasons.hint = "Plates of " + fields.thickness.value!.toFixed(1) + " mm"; });`,
    ['fields.thickness.value!', '(fields.thickness.value ?? 0)'],
  ),
  pages(
    'each turn of the page adds to the reasons',
    'inspection',
    `
on.pageChange(({ from }) => { if (from === "hull" && fields.condition.value === "bad") fields.reasons.value = [fields.reasons.value, "Bad plates."].filter((one) => one !== null).join(" "); });`,
    [
      'fields.condition.value === "bad")',
      'fields.condition.value === "bad" && fields.reasons.empty)',
    ],
  ),
  pages(
    'the page is kept back by a field that is hidden',
    'inspection',
    `
keep(() => { sections.repair.shown = fields.follow_up.value === true; });
on.pageChange((event) => { if (event.to === "close" && fields.condition.value === "bad" && fields.yard.empty) event.stop("Name the yard.", fields.yard); });`,
    ['fields.yard.empty) event', 'sections.repair.shown && fields.yard.empty) event'],
  ),
  pages(
    'where it is bad is asked for only once the page has been turned',
    'inspection',
    `
on.pageChange(() => { fields.where.required = fields.condition.value === "bad"; });`,
    ['on.pageChange(() => {', 'keep(() => {'],
  ),
  pages(
    'the page is kept back without a word',
    'inspection',
    `
on.pageChange((event) => { if (event.from === "general" && fields.reason.value === "damage" && fields.vessel.empty) event.stop(""); });`,
    ['event.stop("")', 'event.stop("Say which vessel it is.", fields.vessel)'],
  ),
  pages(
    'leaving the hull locks what was measured, and nothing unlocks it',
    'inspection',
    `
on.pageChange(({ from }) => { if (from === "hull" && fields.thickness.value !== null) fields.thickness.locked = true; });`,
    [
      'on.pageChange(({ from }) => { if (from === "hull" && fields.thickness.value !== null) fields.thickness.locked = true; });',
      'keep(() => { fields.thickness.locked = fields.passed.value === true; });',
    ],
  ),
  pages(
    'the result page counts how often it was reached in the signature',
    'inspection',
    `
let turns = 0;
on.pageChange(({ to }) => { if (to === "close") { turns++; fields.signature.hint = "Sheet " + turns + " of this inspection"; } });`,
    ['turns++;', 'turns = 1;'],
  ),
  parents(
    'the vessel of the mooring is taken for granted',
    'clearance',
    `
on.load(() => { if (parent !== null) fields.remark.value = (parent.get("vessel") as string).toUpperCase(); });`,
    ['(parent.get("vessel") as string).', '(parent.get("vessel") as string | null)?.'],
    ['toUpperCase();', 'toUpperCase() ?? null;'],
  ),
  parents(
    'the arrival is reckoned with though it is not known yet',
    'clearance',
    `
on.load(() => { if (parent !== null && form.isNew) fields.to.value = Temporal.PlainDate.from(parent.get("arrival") as string).add({ days: 3 }).toString(); });`,
    [
      'if (parent !== null && form.isNew)',
      'if (parent !== null && parent.get("arrival") !== null && form.isNew)',
    ],
  ),
  parents(
    'what a tanker needs is asked for at the opening only',
    'clearance',
    `
on.load(() => { if (parent?.get("kind") === "tanker") fields.remark.required = fields.purpose.value === "repair"; });`,
    [
      'on.load(() => { if (parent?.get("kind") === "tanker") fields.remark.required =',
      'keep(() => { fields.remark.required = parent?.get("kind") === "tanker" &&',
    ],
  ),
  // Written after the search could turn pages, and not tuned with.
  pages(
    'the repair is shown by turning to the hull, not by its condition',
    'inspection',
    `
on.load(() => { sections.repair.shown = fields.condition.value === "bad"; });
on.pageChange(({ to }) => { if (to === "close") sections.repair.shown = fields.condition.value === "bad"; });`,
    [
      'on.load(() => { sections.repair.shown = fields.condition.value === "bad"; });\non.pageChange(({ to }) => { if (to === "close") sections.repair.shown = fields.condition.value === "bad"; });',
      'keep(() => { sections.repair.shown = fields.condition.value === "bad"; });',
    ],
  ),
  pages(
    'leaving the hull takes for granted that a place was named',
    'inspection',
    `
on.pageChange(({ from }) => { if (from === "hull" && fields.condition.value === "worn") fields.reasons.value = "Worn: " + fields.where.value!.trim(); });`,
    ['fields.where.value!.trim()', '(fields.where.value ?? "somewhere").trim()'],
  ),
  pages(
    'the last page waits for a page that is hidden',
    'inspection',
    `
keep(() => { pages.hull.shown = fields.follow_up.value === true; });
on.pageChange((event) => { if (event.to === "close" && fields.condition.empty) event.stop("Say how the hull is.", fields.condition); });`,
    ['fields.condition.empty)', 'pages.hull.shown && fields.condition.empty)'],
  ),
  parents(
    'the mooring is taken for granted',
    'clearance',
    `
on.change(fields.purpose, () => { if (parent!.get("kind") === "tanker") fields.remark.hint = "Ask the fire watch."; else fields.remark.hint = null; });
on.load(() => { fields.remark.hint = parent?.get("kind") === "tanker" && !fields.purpose.empty ? "Ask the fire watch." : null; });`,
    [
      'if (parent!.get("kind") === "tanker") fields.remark.hint = "Ask the fire watch."; else fields.remark.hint = null;',
      'fields.remark.hint = parent?.get("kind") === "tanker" && !fields.purpose.empty ? "Ask the fire watch." : null;',
    ],
  ),
];
