/**
 * Each option and back again, as practitioners click it by hand: on a new form and on saved ones, entered and as it is
 * when the form is opened with it. What does not come back, what differs between opening and entering, and what throws are
 * findings. What is lost by going there and back is a fault more often than not; some of it is meant, and stays listed.
 */
import type { Field, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Table } from '../form/table';
import { equal, type Value } from '../form/value';
import { outcomeChanges, outcomeOf, type CellChange, type GridGround } from '../scenario/grid';
import type { Open, Scenario } from '../scenario/definition';
import { openingOf, type Cast } from '../scenario/opening';
import { recordScenario } from '../scenario/record';
import { NOTHING_SEEN, seenAfter, type Seen } from '../scenario/seen';
import type { Answer, Opening, Step } from '../session/step';
import { valuesFor } from './values';

export type BothWaysFinding = {
  field: string;
  /** What the field was set to. */
  option: Value;
  open: Open;
  /** Leads to the moment at which it shows. */
  steps: Step[];
} & (
  | { is: 'not back'; changes: CellChange[] }
  /** `before` is by hand, `now` when the form is opened so. */
  | { is: 'at load'; changes: CellChange[] }
  | { is: 'threw'; says: string[] }
);

export interface BothWaysGround extends GridGround {
  tables: readonly Table[];
}

type Player = (opening: Opening, steps: readonly Step[]) => Promise<Answer[]>;

/** Saved records that are tried besides a new form. */
const RECORDS = 5;

/** The fields that have options to try: choices, references and yes-or-no. */
export function drivingFields(form: Form): Field[] {
  return fieldsOf(form).filter(
    ({ kind, scriptOnly }) =>
      scriptOnly !== true && ['choice', 'choices', 'reference', 'yes_no'].includes(kind),
  );
}

/** New, and the first saved records, by the first person. */
export function contextsOf({ people, records }: Cast): Open[] {
  const { key } = people[0]!;
  return [{ as: key }, ...records.slice(0, RECORDS).map(({ id }) => ({ as: key, record: id }))];
}

/** Tries every option of one field from one opening. */
export async function bothWays(
  field: Field,
  open: Open,
  ground: BothWaysGround,
  play: Player,
): Promise<BothWaysFinding[]> {
  const { form, cast, tables } = ground;
  const opening = openingOf(open, form, cast);
  const plan = { axes: [{ input: field.name, values: [null] }], parts: null };
  const stateOf = (answers: readonly Answer[]) => {
    const { '@form': _, ...parts } = outcomeOf(answers, plan, ground);
    return parts;
  };
  const opened = await play(opening, []);
  const first = seenOf(opened);
  const own = first.parts[field.name]!;
  // Nobody can choose anything here.
  if (!own.editable || !own.onScreen) return [];
  const from = own.value ?? null;
  const offered = own.options?.map(({ key }) => key) ?? null;
  const options = valuesFor(field, tables, { numbers: [], texts: [] }).filter(
    (value) =>
      !equal(value, from) &&
      (offered === null || [value].flat().every((key) => isOffered(key, offered))),
  );
  const atStart = stateOf(opened);
  const again = stateOf(await play(reopened(opening, first), []));
  // A saved form may well differ from a new one; what counts is what the option adds to that.
  const usual = new Set(outcomeChanges(atStart, again).map(nameOf));
  const findings: BothWaysFinding[] = [];
  for (const option of options) {
    const there: Step[] = [{ set: field.name, to: option }];
    const back: Step[] = [...there, { set: field.name, to: from }];
    const answers = await play(opening, back);
    const of = { field: field.name, option, open };
    const says = answers.flatMap(({ errors }) =>
      errors.map(
        ({ behaviour, line, says: what }) =>
          `${behaviour}${line === null ? '' : `, line ${line}`}: ${what}`,
      ),
    );
    if (says.length > 0)
      findings.push({ ...of, steps: back, is: 'threw', says: [...new Set(says)] });
    // What cannot be chosen, or not be taken back, is no way there and back.
    if (answers.some(({ refused }) => refused !== null)) continue;
    const notBack = outcomeChanges(atStart, stateOf(answers));
    if (notBack.length > 0) findings.push({ ...of, steps: back, is: 'not back', changes: notBack });
    const byHand = answers.slice(0, 2);
    const loaded = stateOf(await play(reopened(opening, seenOf(byHand)), []));
    const atLoad = outcomeChanges(stateOf(byHand), loaded).filter(
      (change) => !usual.has(nameOf(change)),
    );
    if (atLoad.length > 0) findings.push({ ...of, steps: there, is: 'at load', changes: atLoad });
  }
  return findings;
}

const seenOf = (answers: readonly Answer[]): Seen => answers.reduce(seenAfter, NOTHING_SEEN);

const nameOf = ({ part, aspect }: CellChange) => `${part}.${aspect}`;

function isOffered(key: Value, offered: readonly string[]): boolean {
  return key === null || typeof key === 'boolean' || offered.includes(String(key));
}

/** The form opened as it was saved just now: the same values, as a record. */
function reopened(opening: Opening, seen: Seen): Opening {
  const values = Object.fromEntries(
    Object.entries(seen.parts)
      .filter(([, { value }]) => value !== undefined)
      .map(([name, { value }]) => [
        name,
        seen.rows[name] === undefined
          ? value!
          : seen.rows[name].order.map((id) => seen.rows[name]!.byId[id]!.values),
      ]),
  );
  return { ...opening, record: { id: opening.record?.id ?? 'tried', values } };
}

/** A finding as a scenario that passes as things are, for its expectations to be put right. */
export function findingAsScenario(
  { field, option, open, steps, is }: BothWaysFinding,
  form: Form,
  answers: readonly Answer[],
): Scenario {
  const to = option === null ? 'nothing' : JSON.stringify(option);
  const title = `${field} to ${to}${is === 'at load' ? '' : ' and back'}`;
  return recordScenario(title.slice(0, 110), open, form, steps, answers);
}

/** What differs, in a sentence. */
export function findingInWords(finding: BothWaysFinding, label: (part: string) => string): string {
  const to = finding.option === null ? 'nothing' : JSON.stringify(finding.option);
  if (finding.is === 'threw')
    return `${label(finding.field)} set to ${to} and back: ${finding.says.join('; ')}`;
  const what = finding.changes
    .map(
      ({ part, aspect, before, now }) =>
        `${label(part)} ${aspect}: ${JSON.stringify(before)} → ${JSON.stringify(now)}`,
    )
    .join('; ');
  return finding.is === 'not back'
    ? `${label(finding.field)} set to ${to} and back does not come back: ${what}`
    : `${label(finding.field)} ${to}: the form differs between setting it and being opened with it: ${what}`;
}

/** The same finding from several openings, once; a null among the records is a new form. */
export function grouped(
  findings: readonly BothWaysFinding[],
): { finding: BothWaysFinding; records: (string | null)[] }[] {
  const groups = new Map<string, { finding: BothWaysFinding; records: (string | null)[] }>();
  for (const finding of findings) {
    const { field, option, is } = finding;
    const what =
      finding.is === 'threw'
        ? finding.says
        : finding.changes.map(({ part, aspect }) => [part, aspect]);
    const key = JSON.stringify([field, option, is, what]);
    const group = groups.get(key) ?? { finding, records: [] };
    group.records.push(finding.open.record ?? null);
    groups.set(key, group);
  }
  return [...groups.values()];
}
