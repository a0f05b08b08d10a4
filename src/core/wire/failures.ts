/**
 * What can go wrong in a script, with the words for it. One table, so that the editor, the tape and the bar on the
 * form say the same. The words are Tavro's own; the text of the script engine never gets through, since it differs
 * from machine to machine.
 */
import { SAID_CHARACTERS } from '../limits';
import { inWords } from '../form/value';
import type { RuleSort } from './layout';
import type { Line } from './line';

export interface Failure {
  code: FailureCode;
  says: string;
  behaviour: string;
  /** 1-based; null where no line is to blame. */
  line: Line | null;
  /** For a cycle: who set what, round and round. */
  cycle?: string[];
}

/** In the order of their numbers on the wire. */
export const FAILURES = [
  'syntax',
  'thrown',
  'type',
  'name',
  'range',
  'fuel',
  'depth',
  'memory',
  'stuck',
  'wrong_value',
  'wrong_use',
  'cycle',
  'async',
  'service',
  'module',
] as const;
export type FailureCode = (typeof FAILURES)[number];

/** Thrown by what scripts touch when they touch it wrongly. */
export class ScriptError extends Error {
  constructor(
    readonly code: FailureCode,
    says: string,
  ) {
    super(says);
  }
}

/** What a service call rejects with. */
export class ServiceError extends Error {
  readonly service: string;
  readonly function: string;
  constructor(
    name: string,
    readonly reason: string,
  ) {
    super(words.serviceFailed(name, reason));
    const [service, called] = name.split('.') as [string, string?];
    this.service = service;
    this.function = called ?? '';
  }
}

export const words = {
  fuel: 'ran too long without coming to an end. Look for a loop whose condition never becomes false.',
  depth: 'called itself too deep. Look for a function that calls itself without an end.',
  memory: 'used up the memory a form may have. Look for a list or text that grows in a loop.',
  stuck:
    'was stopped: it kept the form busy in a single built-in call. This behaviour is out until the script changes.',
  interrupted:
    'was stopped: it kept the form busy for too long. Look for a built-in function that is called with something very large.',
  type: 'used a value in a way it does not allow: most often something empty (null or undefined) was read like an object, or something that is no function was called.',
  name: 'uses a name that does not exist.',
  range: 'gave a built-in function a number it does not take.',
  syntax: 'does not parse as a script.',
  noModule: (name: string) => `imports from "${name}", which the workspace does not have.`,
  moduleFailed: (name: string, line: number | null, says: string) =>
    `needs ${name}, which failed${line === null ? '' : ` in line ${line}`}: it ${says}`,
  asyncIn: (sort: RuleSort) =>
    sort === 'rule'
      ? 'waits (async), which a rule cannot: a rule says what holds now. Let a handler wait, and the rule read what it brought.'
      : 'waits (async), which an invariant cannot: it says what holds at one moment.',
  asyncService:
    'waits (async), which the script of a service cannot: what it returns is its answer.',
  notRow: (part: string) =>
    `${part} is not in the row that this rule runs for. A rule for each row says something of its own row alone.`,
  rowGone: (part: string) => `${part} is in a row that was removed; it can be read, not written.`,
  noRow: (field: string, offered: unknown) =>
    `${field}.remove() takes a row of ${field}, not ${inWords(offered)}.`,
  noCell: (field: string, name: string, known: readonly string[]) =>
    `${field} has no column "${name}". It has ${known.join(', ')}.`,
  notNumbers: (field: string, name: string) =>
    `${field}.sum("${name}") needs a column of numbers or money.`,
  noService: (name: string, near: string | null) =>
    `there is no service "${name}"${near === null ? '.' : `. Is it "${near}"?`}`,
  noFunction: (service: string, name: string, known: readonly string[]) =>
    `${service} has no function "${name}". It has ${known.join(', ')}.`,
  wrongArguments: (name: string, says: string) => `${name}() ${says}`,
  serviceFailed: (name: string, reason: string) => `${name} failed: ${reason}`,
  tooManyRows: (field: string, most: number) =>
    `${field}.add() cannot add a row: a field has ${most} rows at most.`,
  tooManyCalls: (name: string, most: number) =>
    `${name}() was called while ${most} calls wait already.`,
  waitedTooLong: (names: string) => `Still waiting for ${names} after 30 seconds.`,
  noStage: (track: string, stages: readonly string[], offered: unknown) =>
    `${track}.stage takes one of ${stages.map((s) => JSON.stringify(s)).join(', ')} or null, not ${inWords(offered)}.`,
  noParentField: (name: string, form: string) =>
    `parent has no field "${name}": the form ${form} has none.`,
  topLevel: (what: string) =>
    `${what} at the top level of the script, where no form is open yet. Put it into on.load(() => …) or keep("…", () => …).`,
  askingOnly: 'would change something. What is asked here reads only.',
  outside: (what: string) => `${what} after its handler or rule had ended.`,
  readOnly: (part: string, aspect: string) => `${part}.${aspect} can be read, not written.`,
  noAspect: (part: string, aspect: string, known: readonly string[]) =>
    `${part} has no aspect "${aspect}". It has ${known.join(', ')}.`,
  noPart: (sort: string, name: string, near: string | null) =>
    `there is no ${sort} "${name}"${near === null ? '' : `. Is it "${near}"`}${near === null ? '.' : '?'}`,
  assignPart: (sort: string, name: string) =>
    `${sort}s.${name} is the ${sort} itself. ${sort === 'field' ? `Write fields.${name}.value = …` : `Write to one of its aspects, such as ${sort}s.${name}.shown = …`}`,
  wrongValue: (field: string, kind: string, takes: string, offered: unknown, help?: string) =>
    `${field} (${kind}) takes ${takes}, not ${inWords(offered)}.${help === undefined ? '' : ` ${help}`}${temporalHelp(offered)}`,
  wrongAspect: (part: string, aspect: string, takes: string, offered: unknown) =>
    `${part}.${aspect} takes ${takes}, not ${inWords(offered)}.`,
  notIn: (sort: RuleSort, what: string) =>
    sort === 'rule'
      ? `${what} cannot be done in a rule: a rule says what holds, a handler does things.`
      : `${what} cannot be done in an invariant: it reads, and returns whether what it says holds.`,
  notYesNo: (call: string, offered: unknown) =>
    `${call}() takes a function that returns true or false, not ${inWords(offered)}.${offered === undefined ? ' Is a return missing?' : ''}`,
  tieInside: (what: string) =>
    `${what} was called inside a handler. Tie it at the top level of the script, or inside on.load.`,
  stopTooLate: 'event.stop() was called after the event was over.',
  submitInSubmit: 'form.submit() was called while the form is being submitted.',
  cycle: (limit: number) =>
    `ran ${limit} times within one step: it kept changing values and did not settle. All that scripts did in this step was taken back.`,
};

function temporalHelp(offered: unknown): string {
  const tag =
    typeof offered === 'object' && offered !== null ? Object.prototype.toString.call(offered) : '';
  return tag.startsWith('[object Temporal.') ? ' Use .toString() on it.' : '';
}

/** The nearest known name to a misspelt one, or null when none is near (edit distance of at most two). */
export function nearest(name: string, known: Iterable<string>): string | null {
  let best: string | null = null;
  let bestDistance = 3;
  for (const candidate of known) {
    const distance = editDistance(name, candidate);
    if (distance < bestDistance) [best, bestDistance] = [candidate, distance];
  }
  return best;
}

function editDistance(a: string, b: string): number {
  if (Math.abs(a.length - b.length) > 2) return 3;
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next[j] = Math.min(
        row[j]! + 1,
        next[j - 1]! + 1,
        row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1),
      );
    }
    row = next;
  }
  return row[b.length]!;
}

/** A text of a script's, cut where nobody reads on. */
export function cutText(text: string): string {
  // Never between the two halves of a character.
  return text.length <= SAID_CHARACTERS
    ? text
    : `${text.slice(0, SAID_CHARACTERS - 1).replace(/[\uD800-\uDBFF]$/, '')}…`;
}
