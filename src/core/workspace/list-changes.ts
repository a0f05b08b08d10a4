/** What differs between two lists that are not kept by a key: steps of scenarios in words, anything else by its value. */
import { diffArrays } from 'diff';
import { inWords, type Value } from '../form/value';
import { STEP_KINDS, type Step } from '../session/step';
import { stepInWords, type Names } from '../tape/words';

/** Changes told of one by one; more are counted. */
const TOLD = 6;
const LETTERS = 80;

/** Each as it stands behind the name of what the list belongs to: `step 3: set Length to 40 → set Length to 42`. */
export function listChanges(
  key: string,
  before: readonly unknown[],
  after: readonly unknown[],
  names: Names | null,
): string[] {
  const item = singular(key);
  const told = (value: unknown) => itemInWords(value, names);
  const all: string[] = [];
  /** Where the former list stands, and the later one, from 0. */
  const at = { before: 0, after: 0 };
  let gone: unknown[] = [];
  const addGone = () => {
    for (const value of gone) all.push(`${item} ${++at.before} removed: ${told(value)}`);
    gone = [];
  };
  const texts = (list: readonly unknown[]) => list.map((value) => JSON.stringify(value));
  for (const { added, removed, value } of diffArrays(texts(before), texts(after))) {
    const values = value.map((text) => JSON.parse(text) as unknown);
    if (removed) {
      gone = values;
      continue;
    }
    if (!added) {
      addGone();
      at.before += values.length;
      at.after += values.length;
      continue;
    }
    // What takes the place of something has changed.
    for (const now of values) {
      at.after++;
      const was = gone.shift();
      if (was === undefined) all.push(`${item} ${at.after} added: ${told(now)}`);
      else {
        at.before++;
        all.push(`${item} ${at.after}: ${changeInWords(was, now, names)}`);
      }
    }
    addGone();
  }
  addGone();
  return all.length <= TOLD + 1
    ? all
    : [...all.slice(0, TOLD), `${all.length - TOLD} more changes of its ${key}`];
}

export const singular = (key: string) => key.replace(/ies$/, 'y').replace(/s$/, '');

/** One that took the place of another: what within them differs, or the whole where that is short. */
function changeInWords(was: unknown, now: unknown, names: Names | null): string {
  if (names !== null && isStep(was) && isStep(now))
    return `${itemInWords(was, names)} → ${itemInWords(now, names)}`;
  const leaves = leavesChanged(was, now, '');
  return leaves.length <= LEAVES
    ? leaves.join(', ')
    : `${leaves.slice(0, LEAVES).join(', ')} and ${leaves.length - LEAVES} more`;
}

/** Differences within one item that are told of. */
const LEAVES = 4;

function leavesChanged(was: unknown, now: unknown, path: string): string[] {
  if (JSON.stringify(was) === JSON.stringify(now)) return [];
  const isObject = (value: unknown): value is Record<string, unknown> =>
    typeof value === 'object' && value !== null;
  if (isObject(was) && isObject(now) && Array.isArray(was) === Array.isArray(now))
    return [...new Set([...Object.keys(was), ...Object.keys(now)])].flatMap((key) =>
      leavesChanged(was[key], now[key], path === '' ? key : `${path}.${key}`),
    );
  return [`${path === '' ? '' : `${path} `}${inWords(was as Value)} → ${inWords(now as Value)}`];
}

function itemInWords(value: unknown, names: Names | null): string {
  const text =
    names !== null && isStep(value) ? stepInWords(value, names, '').trim() : plain(value, names);
  return text.length <= LETTERS ? text : `${text.slice(0, LETTERS - 1)}…`;
}

const isStep = (value: unknown): value is Step =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(STEP_KINDS).some((kind) => Object.hasOwn(value, kind));

function plain(value: unknown, names: Names | null): string {
  if (typeof value !== 'object' || value === null) return inWords(value as Value);
  if ('expect' in value && typeof value.expect === 'object' && value.expect !== null)
    return `expect ${Object.entries(value.expect)
      .map(([part, of]) => `${names?.part(part) ?? part} ${aspectsInWords(of)}`)
      .join(', ')}`;
  return JSON.stringify(value);
}

/** `required yes (true), hint "Deep."` */
function aspectsInWords(of: unknown): string {
  if (typeof of !== 'object' || of === null || Array.isArray(of)) return inWords(of as Value);
  return Object.entries(of)
    .map(([aspect, value]) => `${aspect} ${inWords(value as Value)}`)
    .join(', ');
}
