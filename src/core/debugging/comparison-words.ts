/** Comparisons with both sides as they were, conditions with what they came to, and what is nearly right of them. */
import type { Value } from '../form/value';
import type { Names } from '../tape/words';
import { holds, type Comparison } from './comparison';
import type { ConditionMet } from './decision';
import type { NearMiss } from './near-miss';
import { capital, lineAt, quotedValue, type Piece, type Sentence } from './pieces';

/** At most so many comparisons of one statement are named. */
const MOST_SIDES = 6;

export function sidesOf(comparisons: readonly Comparison[]): string {
  if (comparisons.length === 0) return '';
  const told = comparisons.slice(0, MOST_SIDES).map(comparisonInWords).join(', ');
  return ` (${told}${comparisons.length > MOST_SIDES ? ', …' : ''})`;
}

/** Conditions in order, each with all the times that it was looked at. */
export function bySite(conditions: readonly ConditionMet[]): ConditionMet[][] {
  const sites = new Map<string, ConditionMet[]>();
  for (const condition of conditions) {
    const key = `${condition.script} ${condition.site}`;
    const known = sites.get(key);
    if (known === undefined) sites.set(key, [condition]);
    else known.push(condition);
  }
  return [...sites.values()];
}

/** At most so many rounds of one statement are named. */
const MOST_ROUNDS = 4;

/** One that was looked at often, as in a callback, is told once. */
export function conditionsInWords(times: readonly ConditionMet[]): Sentence {
  const [first] = times;
  const sides = ({ comparisons }: ConditionMet) => comparisons.map(comparisonInWords).join(', ');
  const at = capitalPiece(lineAt(first!.script, first!.line));
  if (first!.is === 'statement') {
    const rounds = [...new Set(times.map(sides))];
    const told = rounds.slice(0, MOST_ROUNDS).join('; ');
    const text = first!.text.replace(/;$/, '');
    return [at, `: ${text} (${told}${rounds.length > MOST_ROUNDS ? '; …' : ''}).`];
  }
  if (times.length === 1) return conditionInWords(first!);
  if (times.every(({ came }) => came === null))
    return [at, `: ${first!.text} was empty ${timesInWords(times.length)}.`];
  const held = times.filter(({ came }) => holds(came));
  const failed = times.filter(({ came }) => !holds(came));
  const told = [
    held.length === 0 ? '' : `held ${timesInWords(held.length)}`,
    failed.length === 0 ? '' : `did not hold ${timesInWords(failed.length)}`,
  ].filter((text) => text !== '');
  const example =
    failed.find(({ comparisons }) => comparisons.length > 0) ??
    held.find(({ comparisons }) => comparisons.length > 0);
  return [
    at,
    `: ${first!.text} ${told.join(' and ')}${example === undefined ? '' : `, first where ${sides(example)}`}.`,
  ];
}

function timesInWords(count: number): string {
  return count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`;
}

function conditionInWords({ script, line, text, came, comparisons }: ConditionMet): Sentence {
  const sides = comparisons.map(comparisonInWords).join(', ');
  return [
    capitalPiece(lineAt(script, line)),
    `: ${text} ${cameInWords(came)}${sides === '' ? '' : ` (${sides})`}.`,
  ];
}

/** What a condition came to: `holds`, `is empty`, `is "tug"`. */
export function cameInWords(came: Value): string {
  if (typeof came === 'boolean') return came ? 'holds' : 'does not hold';
  return came === null || came === '' ? 'is empty' : `is ${quotedValue(came)}`;
}

function capitalPiece(piece: Exclude<Piece, string>): Piece {
  return { ...piece, text: capital(piece.text) };
}

const HOLDS: Readonly<Record<string, string>> = {
  '===': '=',
  '==': '=',
  '!==': '≠',
  '!=': '≠',
  '>=': '≥',
  '<=': '≤',
  includes: 'has',
};
/** Of two numbers that compare otherwise. */
const OPPOSITE: Readonly<Record<string, string>> = { '>': '≤', '>=': '<', '<': '≥', '<=': '>' };
const FAILS: Readonly<Record<string, string>> = {
  '===': '≠',
  '==': '≠',
  '!==': '=',
  '!=': '=',
  includes: 'has no',
};

/** Both sides as they were: `"own" ≠ "none"`, `7 > 5`. */
export function comparisonInWords({ op, left, right, came }: Comparison): string {
  const numbers = typeof left.value === 'number' && typeof right.value === 'number';
  const sign = came
    ? (HOLDS[op] ?? op)
    : (FAILS[op] ?? (numbers ? OPPOSITE[op] : undefined) ?? `is not ${HOLDS[op] ?? op}`);
  const list = op === 'includes' && Array.isArray(left.value);
  const first = list
    ? `[${(left.value as Value[]).map(quotedValue).join(', ')}]`
    : quotedValue(left.value);
  return `${first} ${sign} ${quotedValue(right.value)}`;
}

export function nearMissInWords(near: NearMiss, names: Names): string {
  switch (near.is) {
    case 'label':
      return `“${near.label}” is the label of an option; scripts compare its key, ${JSON.stringify(near.key)}.`;
    case 'case':
      return 'The two differ in capital letters alone.';
    case 'spaces':
      return 'The two differ in spaces alone.';
    case 'kind':
      return 'One side is a text and the other is not, though both read the same.';
    case 'list':
      return 'One side is a list that holds the other; ask with includes.';
    case 'empty':
      return 'One side is empty.';
    case 'hidden':
      return `${names.part(near.part)} is hidden, and its value is read all the same.`;
    case 'unknown key':
      return `No option has the key ${JSON.stringify(near.key)}; there is ${near.keys.join(', ')}.`;
  }
}
