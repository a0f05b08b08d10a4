/** The end of a session part by part, and what differs between two of them as people meet it. */
import type { Form } from '../form/definition';
import { isEmpty, equal, type Value } from '../form/value';
import type { Seen } from '../scenario/seen';
import type { PartState } from '../session/step';
import { stateInWords } from '../tape/words';
import { containersOf } from '../form/outline';
import { definitionOf, wholeOf } from './part-names';
import type { Ran } from './play';

/** `hiddenValue` is the value of a field that is off screen and would be submitted all the same. */
export type Met =
  | 'exists'
  | 'onScreen'
  | 'editable'
  | 'required'
  | 'options'
  | 'hint'
  | 'warning'
  | 'problem'
  | 'label'
  | 'stage'
  | 'value'
  | 'hiddenValue'
  | 'replaced'
  | 'notice';

export interface Difference {
  /** `@form` for what stands instead of it or above it. */
  part: string;
  aspect: Met;
  one: unknown;
  other: unknown;
}

const ASPECTS = [
  'editable',
  'required',
  'options',
  'hint',
  'warning',
  'problem',
  'label',
  'stage',
  'value',
] as const;

type Parts = Readonly<Record<string, PartState>>;

export function differencesOf(form: Form, one: Ran, other: Ran): Difference[] {
  return differencesBetween(form, one.parts, other.parts, one.seen, other.seen);
}

/** What people meet of a part, to stand behind its name. */
export function metInWords(aspect: Met, value: unknown): string {
  if (aspect !== 'replaced' && aspect !== 'notice')
    return stateInWords(aspect, (value ?? null) as Value);
  const text = (value as { text: string } | null)?.text;
  if (aspect === 'notice') return text === undefined ? 'has no message' : `says “${text}”`;
  return text === undefined ? 'shows its fields' : `is replaced by “${text}”`;
}

/** What a part is in the one session and in the other, as the end of a sentence. */
export function differenceInWords({ part, aspect, one, other }: Difference): string {
  return `${part} ${metInWords(aspect, one)}; otherwise it ${metInWords(aspect, other)}`;
}

/** Messages, the page and faults are left out, since they tell of the way; so is what is off screen in both. */
export function differencesBetween(
  form: Form,
  one: Parts,
  other: Parts,
  seenOne: Seen,
  seenOther: Seen,
): Difference[] {
  const differences: Difference[] = [];
  const add = (part: string, aspect: Met, a: unknown, b: unknown) =>
    differences.push({ part, aspect, one: a, other: b });
  for (const name of new Set([...Object.keys(one), ...Object.keys(other)])) {
    const [a, b] = [one[name], other[name]];
    if (a === undefined || b === undefined) {
      const there = (a ?? b)!;
      if (there.onScreen && !name.includes('.'))
        add(name, 'exists', a !== undefined, b !== undefined);
      continue;
    }
    if (!a.onScreen && !b.onScreen) {
      if (isSubmittedHidden(form, name, a) && !equal(a.value ?? null, b.value ?? null))
        add(name, 'hiddenValue', a.value ?? null, b.value ?? null);
      continue;
    }
    if (a.onScreen !== b.onScreen) {
      add(name, 'onScreen', a.onScreen, b.onScreen);
      continue;
    }
    const isRows = a.sort === 'row' || definitionOf(form, name)?.kind === 'rows';
    for (const aspect of ASPECTS) {
      if (aspect === 'value' && isRows) continue;
      const [was, is] = [shown(a, aspect), shown(b, aspect)];
      if (!equal(was, is)) add(name, aspect, was, is);
    }
  }
  if (!equal(seenOne.replaced, seenOther.replaced))
    add('@form', 'replaced', seenOne.replaced, seenOther.replaced);
  if (!equal(seenOne.notice, seenOther.notice))
    add('@form', 'notice', seenOne.notice, seenOther.notice);
  return withoutNested(form, differences);
}

/** Off screen, and saved by a definition that says so or says nothing. */
function isSubmittedHidden(form: Form, name: string, { sort }: PartState): boolean {
  const field = definitionOf(form, name);
  return (
    sort === 'field' &&
    field !== undefined &&
    field.kind !== 'rows' &&
    (field.whenHidden ?? 'keep') === 'keep'
  );
}

function shown(part: PartState, aspect: (typeof ASPECTS)[number]): Value {
  if (aspect === 'options') return part.options?.map(({ key }) => key) ?? null;
  return (part[aspect] ?? null) as Value;
}

/** A part that differs as what it stands in does has no difference of its own. */
function withoutNested(form: Form, differences: Difference[]): Difference[] {
  if (differences.length < 2) return differences;
  const all = new Set(differences.map(({ part, aspect }) => `${part}.${aspect}`));
  return differences.filter(({ part, aspect }) => {
    if (aspect !== 'onScreen' && aspect !== 'editable') return true;
    const whole = wholeOf(part);
    const outside = [...(whole === part ? [] : [whole]), ...containersOf(form, whole)];
    return !outside.some((name) => all.has(`${name}.${aspect}`));
  });
}

/** A value that nobody has to have entered: empty, no, or the field's default. */
export function isUntouched(form: Form, part: string, value: Value): boolean {
  return isEmpty(value) || value === false || equal(value, defaultOf(form, part));
}

/** The default of a field; null where it has none. */
export function defaultOf(form: Form, part: string): Value {
  const field = definitionOf(form, part);
  return field !== undefined && 'default' in field ? ((field.default ?? null) as Value) : null;
}
