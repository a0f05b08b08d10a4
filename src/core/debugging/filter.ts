/** What of a tape is listed: filtered by part, behaviour, sort and words, with what changed nothing folded away. */
import type { Entry } from '../session/entries';
import type { Run, Tape } from '../tape/tape';

export type EntrySort = 'steps' | 'events' | 'runs' | 'effects' | 'calls' | 'log' | 'errors';

export interface Filter {
  part: string | null;
  behaviour: string | null;
  /** None means all. */
  sorts: readonly EntrySort[];
  /** Letters that the entry in words has to hold, of whatever case. */
  words: string;
  /** Whether runs that changed nothing are listed. */
  quiet: boolean;
}

export const ALL: Filter = { part: null, behaviour: null, sorts: [], words: '', quiet: false };

/** An entry as it is listed. */
export interface Listed {
  entry: Entry;
  depth: number;
  /** Runs right below it that changed nothing and are not listed. */
  quiet: number;
}

const SORT_OF: Readonly<Record<Entry['type'], EntrySort>> = {
  opened: 'steps',
  step: 'steps',
  refused: 'errors',
  event: 'events',
  run: 'runs',
  effect: 'effects',
  rows: 'effects',
  page: 'effects',
  conflict: 'effects',
  superseded: 'effects',
  call: 'calls',
  answered: 'calls',
  toParent: 'calls',
  log: 'log',
  message: 'log',
  error: 'errors',
  takenBack: 'errors',
  checked: 'steps',
  outcome: 'steps',
};

/** The entries to list, in order, each below what caused it. `inWords` gives what is searched. */
export function listed(tape: Tape, filter: Filter, inWords: (entry: Entry) => string): Listed[] {
  const sorts = new Set(filter.sorts);
  const words = filter.words.trim().toLowerCase();
  const isNarrow =
    filter.part !== null || filter.behaviour !== null || sorts.size > 0 || words !== '';
  const fits = (entry: Entry): boolean =>
    (filter.part === null || touches(entry, filter.part)) &&
    (filter.behaviour === null || behaviourOf(tape, entry) === filter.behaviour) &&
    (sorts.size === 0 || sorts.has(SORT_OF[entry.type])) &&
    (words === '' || inWords(entry).toLowerCase().includes(words));
  // What fits, and what led to it.
  const kept = new Set<number>();
  if (isNarrow)
    for (const entry of tape.entries) {
      if (!fits(entry)) continue;
      for (let at: Entry | null = entry; at !== null && !kept.has(at.n); at = tape.causeOf(at))
        kept.add(at.n);
    }
  const rows: Listed[] = [];
  // Not by calling itself: a tape may be as deep as it is long.
  const due: { entry: Entry; depth: number }[] = tape.roots
    .map((entry) => ({ entry, depth: 0 }))
    .reverse();
  for (let next = due.pop(); next !== undefined; next = due.pop()) {
    const { entry, depth } = next;
    const children = tape
      .childrenOf(entry)
      .filter((child) => (isNarrow ? kept.has(child.n) : true));
    const shown =
      filter.quiet || isNarrow ? children : children.filter((child) => !isQuiet(tape, child));
    rows.push({ entry, depth, quiet: children.length - shown.length });
    for (const child of shown.toReversed()) due.push({ entry: child, depth: depth + 1 });
  }
  return isNarrow ? rows.filter(({ entry }) => kept.has(entry.n)) : rows;
}

/** A run that changed nothing, or an event whose runs all changed nothing. */
function isQuiet(tape: Tape, entry: Entry): boolean {
  if (entry.type === 'event') return tape.childrenOf(entry).every((child) => isQuiet(tape, child));
  if (entry.type !== 'run') return false;
  const { outcome } = entry as Run;
  return outcome === 'ended' && tape.childrenOf(entry).length === 0;
}

/** Whether an entry is about a part: it changed it, happened to it, read it or names it. */
function touches(entry: Entry, part: string): boolean {
  const is = (name: string | null | undefined) =>
    name != null && (name === part || name.startsWith(`${part}#`) || name.startsWith(`${part}.`));
  switch (entry.type) {
    case 'effect':
    case 'conflict':
    case 'rows':
    case 'event':
      return is(entry.part);
    case 'step':
      return Object.values(entry.step).some((name) => typeof name === 'string' && is(name));
    case 'run':
      return (entry as Run).reads.some((read) => is(read.part));
    case 'checked':
      return entry.faults.some((fault) => is(fault.part));
    case 'outcome':
      return entry.stops.some((stop) => is(stop.part));
    default:
      return false;
  }
}

/** The behaviour in whose name something happened. */
function behaviourOf(tape: Tape, entry: Entry): string | null {
  if (entry.type === 'error') return entry.failure.behaviour;
  for (let at: Entry | null = entry; at !== null; at = tape.causeOf(at)) {
    if (at.type === 'run') return (at as Run).behaviour;
    if (at.type === 'superseded') return at.behaviour;
    if (at.type !== 'effect' && at.type !== 'log' && at.type !== 'message' && at.type !== 'call')
      return null;
  }
  return null;
}
