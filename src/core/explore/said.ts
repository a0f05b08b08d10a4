/** Who said what there is: the effects of scripts in a session, each with the run that it was an effect of. */
import type { Form } from '../form/definition';
import type { Entry, RunEntry } from '../session/entries';
import type { Line } from '../wire/line';
import type { Value } from '../form/value';
import { containersOf } from '../form/outline';
import { columnOf, wholeOf } from './part-names';

export interface Said {
  behaviour: string;
  /** The line that said it. */
  line: Line;
  /** By its column (`part-names.ts`). */
  part: string;
  aspect: string;
  from: Value;
  to: Value;
  sort: RunEntry['sort'];
  /** What the run read, as `column.aspect`. */
  reads: readonly string[];
  asked: readonly string[];
  /** The number of the run on the tape, and the line at which it is tied. */
  run: number;
  tie: Line;
  /** A rule held otherwise, so that nobody met it. */
  covered: boolean;
}

/** The effects of scripts on one answer's tape; what was undone is left out. */
export function saidOn(tape: readonly Entry[]): Said[] {
  const runs = new Map<number, RunEntry>();
  const said: Said[] = [];
  for (const entry of tape) {
    if (entry.type === 'run') runs.set(entry.n, entry);
    if (entry.type !== 'effect' || entry.by === 'person' || entry.struck === true) continue;
    const run = entry.cause === null ? undefined : runs.get(entry.cause);
    if (run === undefined) continue;
    said.push({
      behaviour: run.behaviour,
      line: entry.line ?? run.line,
      part: columnOf(entry.part),
      aspect: entry.aspect,
      from: entry.from,
      to: entry.to,
      sort: run.sort,
      reads: run.reads.map(({ part, aspect }) => `${columnOf(part)}.${aspect}`),
      asked: run.asked,
      run: entry.cause!,
      tie: run.line,
      covered: entry.covered === true,
    });
  }
  return said;
}

/** What scripts say an aspect by, where people meet it under another name. */
const SAID_AS: Readonly<Record<string, string>> = {
  onScreen: 'shown',
  editable: 'locked',
  hiddenValue: 'value',
};

/** What was said of an aspect as people meet it, of the part or of what it stands in where that matters. */
export function saidAbout(said: readonly Said[], part: string, aspect: string, form: Form): Said[] {
  const name = SAID_AS[aspect] ?? aspect;
  const parts = new Set([columnOf(part)]);
  if (name === 'shown' || name === 'locked') {
    const whole = wholeOf(part);
    for (const one of [whole, ...containersOf(form, whole)]) parts.add(one);
  }
  return said.filter((one) => parts.has(one.part) && one.aspect === name);
}
