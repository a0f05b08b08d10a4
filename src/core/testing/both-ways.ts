/**
 * From each option to each other and back again, and to numbers around those that scripts mention, as practitioners click
 * it by hand: on a new form for each set of roles and on saved forms, entered and as it is when the form is opened with
 * it. What does not come back, what differs between opening and entering, and what throws are
 * findings. What is lost by going there and back is a fault more often than not; some of it is meant, and stays listed.
 */
import type { Field, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Table } from '../form/table';
import { equal, type Value } from '../form/value';
import { outcomeChanges, outcomeOf, type CellChange, type GridGround } from '../scenario/grid';
import type { Open, Scenario } from '../scenario/definition';
import { onePerRoles, openingOf, type Cast } from '../scenario/opening';
import { recordScenario } from '../scenario/record';
import { isOffered, NOTHING_SEEN, savedValues, seenAfter, type Seen } from '../scenario/seen';
import type { Answer, Opening, Step } from '../session/step';
import { mentionedIn, valuesFor } from './values';
import { isNumeric, isPicked } from '../form/traits';

export type BothWaysFinding = {
  field: string;
  /** What the field was before, and what it was set to. */
  from: Value;
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
  /** The scripts of the form, for the numbers that they mention. */
  sources: readonly { text: string }[];
}

type Player = (opening: Opening, steps: readonly Step[]) => Promise<Answer[]>;

/** Saved records that are tried besides a new form. */
const RECORDS = 5;

/** From so many options of a field each other one is tried. */
const FROM = 6;

/** At most so many numbers of the scripts that mention a field are tried in it, each with those around it. */
const NUMBERS = 8;

/** The fields that can be tried: those with options, and numbers that scripts mention beside other numbers. */
export function drivingFields(form: Form, sources: readonly { text: string }[]): Field[] {
  return fieldsOf(form).filter(
    (field) =>
      field.scriptOnly !== true &&
      (isPicked(field) || (isNumeric(field) && numbersBeside(field, sources).length > 0)),
  );
}

/** Numbers in the scripts that mention a field. */
function numbersBeside({ name }: Field, sources: readonly { text: string }[]): readonly number[] {
  const mention = new RegExp(`\\bfields\\s*\\.\\s*${name}\\b|["'\`]${name}["'\`]`);
  return mentionedIn(sources.filter(({ text }) => mention.test(text))).numbers.slice(0, NUMBERS);
}

/** What a field is tried from: a new form for each set of roles, and the first saved records by the first person. */
export function contextsOf({ people, records }: Cast, field: Field): Open[] {
  const { key } = people[0]!;
  const saved = records.slice(0, isNumeric(field) ? 1 : RECORDS);
  return [
    ...onePerRoles(people).map((person) => ({ as: person.key })),
    ...saved.map(({ id }) => ({ as: key, record: id })),
  ];
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
  const mentioned = { numbers: numbersBeside(field, ground.sources), texts: [] };
  const options = valuesFor(field, tables, mentioned).filter(
    (value) => !equal(value, from) && isOffered(own, value),
  );
  const atStart = stateOf(opened);
  const again = stateOf(await play(reopened(opening, first, form), []));
  // A saved form may well differ from a new one; what counts is what the option adds to that.
  const usual = new Set(outcomeChanges(atStart, again).map(nameOf));
  const findings: BothWaysFinding[] = [];

  /** There and back from where some steps lead. Whether the way can be gone at all. */
  const there = async (before: Step[], was: Value, option: Value): Promise<Answer[] | null> => {
    const steps: Step[] = [
      ...before,
      { set: field.name, to: option },
      { set: field.name, to: was },
    ];
    const answers = await play(opening, steps);
    const of = { field: field.name, from: was, option, open };
    const says = answers.flatMap(({ errors }) =>
      errors.map(
        ({ behaviour, line, says: what }) =>
          `${behaviour}${line === null ? '' : `, line ${line}`}: ${what}`,
      ),
    );
    if (says.length > 0) findings.push({ ...of, steps, is: 'threw', says: [...new Set(says)] });
    // What cannot be chosen, or not be taken back, is no way there and back.
    if (answers.some(({ refused }) => refused !== null)) return null;
    const start = stateOf(answers.slice(0, 1 + before.length));
    const changes = outcomeChanges(start, stateOf(answers));
    if (changes.length > 0) findings.push({ ...of, steps, is: 'not back', changes });
    return answers;
  };

  for (const option of options) {
    const answers = await there([], from, option);
    if (answers === null) continue;
    const byHand = answers.slice(0, 2);
    const loaded = stateOf(await play(reopened(opening, seenOf(byHand), form), []));
    const changes = outcomeChanges(stateOf(byHand), loaded).filter(
      (change) => !usual.has(nameOf(change)),
    );
    if (changes.length > 0)
      findings.push({
        field: field.name,
        from,
        option,
        open,
        steps: [{ set: field.name, to: option }],
        is: 'at load',
        changes,
      });
  }
  if (isNumeric(field)) return findings;
  for (const was of options.slice(0, FROM))
    for (const option of options)
      if (!equal(option, was)) await there([{ set: field.name, to: was }], was, option);
  return findings;
}

const seenOf = (answers: readonly Answer[]): Seen => answers.reduce(seenAfter, NOTHING_SEEN);

const nameOf = ({ part, aspect }: CellChange) => `${part}.${aspect}`;

/** The form opened as it was saved just now. */
function reopened(opening: Opening, seen: Seen, form: Form): Opening {
  const id = opening.record?.id ?? 'tried';
  return { ...opening, record: { id, values: savedValues(seen, form) } };
}

/** A finding as a scenario that passes as things are, for its expectations to be put right. */
export function findingAsScenario(
  finding: BothWaysFinding,
  form: Form,
  answers: readonly Answer[],
): Scenario {
  const { field, open, steps, is } = finding;
  const title = `${field} ${wayInWords(finding)}${is === 'at load' ? '' : ' and back'}`;
  return recordScenario(title.slice(0, 110), open, form, steps, answers);
}

/** What differs, in a sentence. */
export function findingInWords(finding: BothWaysFinding, label: (part: string) => string): string {
  const way = wayInWords(finding);
  if (finding.is === 'threw')
    return `${label(finding.field)} set ${way} and back: ${finding.says.join('; ')}`;
  const what = finding.changes
    .map(
      ({ part, aspect, before, now }) =>
        `${label(part)} ${aspect}: ${JSON.stringify(before)} → ${JSON.stringify(now)}`,
    )
    .join('; ');
  return finding.is === 'not back'
    ? `${label(finding.field)} set ${way} and back does not come back: ${what}`
    : `${label(finding.field)} set ${way}: the form differs between setting it and being opened with it: ${what}`;
}

/** `to "own"`, or `from "none" to "own"` where it was not there from the start. */
function wayInWords({ from, option, steps }: BothWaysFinding): string {
  const spelled = (value: Value) => (value === null ? 'nothing' : JSON.stringify(value));
  return `${steps.length > 2 ? `from ${spelled(from)} ` : ''}to ${spelled(option)}`;
}

export interface Grouped {
  finding: BothWaysFinding;
  /** Every opening in which it was found. */
  openings: Open[];
}

/** The same finding from several openings and from several options, once: the shortest way there. */
export function grouped(findings: readonly BothWaysFinding[]): Grouped[] {
  const groups = new Map<string, Grouped>();
  for (const finding of findings.toSorted((a, b) => a.steps.length - b.steps.length)) {
    const { field, option, is, open } = finding;
    const what =
      finding.is === 'threw'
        ? finding.says
        : finding.changes.map(({ part, aspect }) => [part, aspect]);
    const key = JSON.stringify([field, option, is, what]);
    const group = groups.get(key) ?? { finding, openings: [] };
    if (!group.openings.some((one) => equal(one as Value, open as Value)))
      group.openings.push(open);
    groups.set(key, group);
  }
  return [...groups.values()];
}

/** An opening as it is named beside a finding: `new`, `record 3`, `new, as Tom Ferrel`. */
export function openingInWords({ as, record }: Open, people: Cast['people']): string {
  const who =
    as === people[0]?.key ? '' : `, as ${people.find(({ key }) => key === as)?.name ?? as}`;
  return `${record == null ? 'new' : `record ${record}`}${who}`;
}
