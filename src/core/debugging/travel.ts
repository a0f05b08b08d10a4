/**
 * Going through a recording: from entry to entry of the tape, and within a run from statement to statement, forward
 * and back. A moment is an entry, or a detail of a run.
 */
import type { Detail, DetailedRun } from '../session/detail';
import type { Entry } from '../session/entries';
import type { Run, Tape } from '../tape/tape';

/** Where somebody stands: right after this entry, or within a run after so many of its details (from 0). */
export interface Standing {
  entry: number;
  detail: number | null;
}

/** What was on the tape at a moment; in the middle of a run what it says in the end has not been said yet. */
export function entriesUntil(entries: readonly Entry[], { entry, detail }: Standing): Entry[] {
  return entries.filter(({ n }) => (detail === null ? n <= entry : n < entry));
}

export type Way = 'next' | 'last' | 'into' | 'out';

/** What a detailed run can be stood on: its statements, by their place among the details, each with how deep it is. */
export interface Stop {
  detail: number;
  depth: number;
}

export function stopsOf({ details }: Pick<DetailedRun, 'details'>): Stop[] {
  const stack: number[] = [];
  return details.flatMap((detail, i): Stop[] => {
    if (detail.is === 'enter' || detail.is === 'resume') stack.push(detail.frame);
    if (detail.is === 'leave' || detail.is === 'suspend') {
      const at = stack.lastIndexOf(detail.frame);
      if (at >= 0) stack.length = at;
    }
    if (detail.is !== 'statement') return [];
    const depth = stack.lastIndexOf(detail.frame);
    return [{ detail: i, depth: Math.max(0, depth) }];
  });
}

/** Goes one way within a run; null where it leads out of it. */
export function withinRun(run: DetailedRun, from: number, way: Way): Standing | null {
  const stops = stopsOf(run);
  const at = stops.findLastIndex(({ detail }) => detail <= from);
  const depth = stops[at]?.depth ?? 0;
  const to =
    way === 'into'
      ? stops[at + 1]
      : way === 'next'
        ? stops.slice(at + 1).find((stop) => stop.depth <= depth)
        : way === 'last'
          ? stops.slice(0, Math.max(0, at)).findLast((stop) => stop.depth <= depth)
          : depth === 0
            ? undefined
            : stops.slice(at + 1).find((stop) => stop.depth < depth);
  return to === undefined ? null : { entry: run.entry, detail: to.detail };
}

/** Goes one way from entry to entry; `shown` are those that are listed, in their order. Null where there is none. */
export function alongTape(
  tape: Tape,
  shown: readonly number[],
  from: number,
  way: Way,
): Standing | null {
  if (way === 'into') {
    const [first] = tape.childrenOf(tape.entry(from)!);
    return first === undefined ? null : { entry: first.n, detail: null };
  }
  if (way === 'out') {
    const cause = tape.causeOf(tape.entry(from)!);
    return cause === null ? null : { entry: cause.n, detail: null };
  }
  const at = shown.indexOf(from);
  const next = way === 'next' ? shown[at + 1] : at > 0 ? shown[at - 1] : undefined;
  return next === undefined ? null : { entry: next, detail: null };
}

/** What can be gone to directly, forward or back. */
export type Wanted =
  { is: 'effect'; part: string } | { is: 'run'; behaviour: string } | { is: 'error' };

export function nearest(
  tape: Tape,
  from: number,
  wanted: Wanted,
  forward: boolean,
): Standing | null {
  const fits = (entry: Entry): boolean => {
    if (wanted.is === 'error') return entry.type === 'error';
    if (wanted.is === 'run')
      return entry.type === 'run' && (entry as Run).behaviour === wanted.behaviour;
    return entry.type === 'effect' && entry.part === wanted.part;
  };
  const found = forward
    ? tape.entries.find((entry) => entry.n > from && fits(entry))
    : tape.entries.findLast((entry) => entry.n < from && fits(entry));
  return found === undefined ? null : { entry: found.n, detail: null };
}

/** The step that an entry belongs to: 0 for the opening, then one for each answer. */
export function stepOf(tapes: readonly (readonly Entry[])[], entry: number): number {
  const at = tapes.findIndex((tape) => tape.length > 0 && tape.at(-1)!.n >= entry);
  return at < 0 ? tapes.length - 1 : at;
}

/** Where a detail stands in the code: the place of the statement at or before it; null before the first. */
export function placeAt(
  { details }: Pick<DetailedRun, 'details'>,
  detail: number,
): (Detail & { is: 'statement' }) | null {
  const found = details
    .slice(0, detail + 1)
    .findLast((one): one is Detail & { is: 'statement' } => one.is === 'statement');
  return found ?? null;
}
