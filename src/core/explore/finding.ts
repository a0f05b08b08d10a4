/** What a search finds: what is wrong, at which line, and the shortest way there. */
import type { Opening, Step } from '../session/step';
import { placeOf, type Line } from '../wire/line';
import { columnOf } from './part-names';

/** `wrong` is what cannot be meant; `may` is a hint that never fails a pipeline. */
export type Level = 'wrong' | 'may';

/** Every relation between sessions, predicate over one, and thing that nobody ever met, by its name. */
export const KINDS = [
  'throws',
  'cycle',
  'broken',
  'dead-end',
  'not-back',
  'at-load',
  'over-another',
  'order',
  'gone-leaves',
  'never-shown',
  'each-opening-changes',
  'load-overwrites',
  'launched-differs',
  'former-record',
  'same-roles-differ',
  'zone',
  'order-of-rows',
  'row-touches-row',
  'removed-row',
  'page-turn',
  'order-of-answers',
  'late-answer',
  'late-answer-overwrites',
  'failure-keeps',
  'decided-before',
  'left-waiting',
  'overwrites-typed',
  'orphaned',
  'submits-hidden',
  'stopped-off-screen',
  'silent-stop',
  'written-after-saving',
  'writes-invalid',
  'junk',
  'conflict',
  'never-shows',
  'never-filled',
  'never-offered',
  'one-sided',
  'no-difference',
] as const;
export type Kind = (typeof KINDS)[number];

/** A session by how it is opened and what is done. */
export interface Way {
  opening: Opening;
  /** Waits among them, so that playing them again needs nothing else. */
  steps: readonly Step[];
}

/** A line that had to do with it. */
export interface At {
  behaviour: string;
  /** Null where it is not known. */
  line: Line | null;
  /** The line at which the run that said it is tied. */
  tie?: Line;
}

/** Places of a finding at most. */
const PLACES = 8;

/** Each place once. Takes whatever has one, such as what scripts said. */
export function placesOf(lines: Iterable<At>): At[] {
  const places = new Map<string, At>();
  for (const { behaviour, line, tie } of lines)
    places.set(`${behaviour}:${line}`, { behaviour, line, ...(tie === undefined ? {} : { tie }) });
  return [...places.values()].slice(0, PLACES);
}

/** Whether somebody answers calls in one of its sessions, where services wait for that. */
export const isAnsweredByHand = ({ way, other }: Pick<Finding, 'way' | 'other'>): boolean =>
  [way, other].some((one) => one?.steps.some((step) => 'answer' in step));

/** A step without the value that it enters, by which it is found among others. */
export const actOf = (step: Step) => ('set' in step ? `set ${step.set}` : JSON.stringify(step));

/** The script that a line stands in, a shared module where the behaviour called one; its first line where none is known. */
export const scriptAt = ({ behaviour, line }: Pick<At, 'behaviour' | 'line'>) =>
  placeOf(line ?? 1, behaviour);

export interface Finding {
  kind: Kind;
  level: Level;
  /** `@form` for the form itself. */
  part: string;
  aspect: string;
  /** The line that said it first. Empty where no line says anything of it. */
  lines: readonly At[];
  /** What happens, in a sentence; technical names as they are. */
  says: string;
  way: Way;
  /** The session that it is compared with; null where one session is enough. */
  other: Way | null;
  /** What the aspect is at the end of the way, and in the session compared with or as it should be; null where nothing is compared. */
  met: { one: unknown; other: unknown } | null;
  /** Kinds of findings with the same cause, which are not listed. */
  also: readonly Kind[];
}

/** Findings of one name are one finding; cells of one column are one part. */
export function keyOf({ kind, part, aspect }: Pick<Finding, 'kind' | 'part' | 'aspect'>): string {
  return `${kind} ${columnOf(part)}.${aspect}`;
}

/** A record that the search has saved itself says nothing to whoever reads it, so that a new form may take longer. */
const SAVED_BY_SEARCH = 2;

/** Whether a session is opened with a record that the search would have saved, and not with one of the samples. */
export const opensOwnRecord = ({ record }: Opening): boolean =>
  /^(?:tried|saved \d+)$/.test(record?.id ?? '');

/** How long the way is, for whoever follows it. */
export function lengthOf({ way: { opening, steps } }: Pick<Finding, 'way'>): number {
  return steps.length + (opensOwnRecord(opening) ? SAVED_BY_SEARCH : 0);
}

/** The better of two of one name: wrong rather than a hint, then the shorter way, else the former one. */
export function betterOf(one: Finding, other: Finding): Finding {
  const isOther =
    one.level === other.level ? lengthOf(other) < lengthOf(one) : other.level === 'wrong';
  return { ...(isOther ? other : one), also: [...new Set([...one.also, ...other.also])] };
}
