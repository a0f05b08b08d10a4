/** Plays an opening with steps, waits until calls have been answered, and keeps what was found at the end. */
import type { Form } from '../form/definition';
import type { Value, Values } from '../form/value';
import { NOTHING_SEEN, partsSeen, seenAfter, type Seen } from '../scenario/seen';
import type { RunEntry } from '../session/entries';
import type { Answer, Broken, Opening, PartState, Step } from '../session/step';
import type { Failure } from '../wire/failures';
import type { At } from './finding';
import type { Stage } from './ground';
import type { Checkpoints, Played } from './checkpoints';
import { columnOf, wholeOf } from './part-names';
import { saidOn, type Said } from './said';

/**
 * A step after which nothing is waited for, so that more can be done while a call is open. A row with cells is added empty
 * and then filled in cell by cell, since people get no other.
 */
export type HeldStep = Step & { hold?: true };

/** A run went on after a call by what it had read before, though a person changed that meanwhile. */
export interface DecidedBefore {
  /** What it had read and did not read again, by its column. */
  part: string;
  said: readonly Said[];
}

/** A session played to its end. */
export interface Ran {
  opening: Opening;
  /** What was done, waits among it. */
  steps: readonly Step[];
  opened: Seen;
  seen: Seen;
  /** All parts at the end, rows by their place. */
  parts: Readonly<Record<string, PartState>>;
  refused: readonly Step[];
  failures: readonly Failure[];
  /** Invariants that did not hold after some step. */
  broken: readonly Broken[];
  said: readonly Said[];
  decidedBefore: readonly DecidedBefore[];
  conflicts: readonly { part: string; aspect: string; between: readonly string[] }[];
  messages: readonly string[];
  /** Fields whose values one run asked together, or one of which started it. */
  together: readonly (readonly [string, string])[];
  /** The runs of the last step's handlers that may stop it: `submit` and `pageChange`. */
  stopRuns: readonly RunEntry[];
  /** The messages of the last step. */
  lastMessages: readonly string[];
}

/** Nothing was refused and nothing failed, so that it can be compared. */
export function isSound({ refused, failures }: Ran): boolean {
  return refused.length === 0 && failures.length === 0;
}

/** Waits are the player's own; another session waits where it has to. */
export function withoutWaits(steps: readonly Step[]): HeldStep[] {
  return steps.filter((step) => !('wait' in step));
}

/** Every line that handlers ran in the last step that may stop it. */
export function stopLines({ stopRuns }: Ran): At[] {
  return stopRuns.flatMap(({ behaviour, lines }) => lines.map(([line]) => ({ behaviour, line })));
}

/** What came of a session that was asked for by these steps, for whoever counts or compares. */
export type OnPlayed = (ran: Ran, runs: readonly RunEntry[], steps: readonly HeldStep[]) => void;

/** How many rows a field has at the end. */
export function placesIn({ seen }: Pick<Ran, 'seen'>, name: string): number {
  return seen.rows[name]?.order.length ?? 0;
}

/** Each row together with the cells that were filled in right after it was added. */
export function rowsWhole(steps: readonly HeldStep[]): HeldStep[] {
  const whole: HeldStep[] = [];
  /** The row that is being filled in, once one of its cells was. */
  let row = '';
  for (const step of steps) {
    const last = whole.at(-1);
    const [, place, cell] = 'set' in step ? (/^(.*\[\d+\])\.(.*)$/.exec(step.set) ?? []) : [];
    if (last !== undefined && 'addRow' in last && 'set' in step && cell !== undefined) {
      const cells = (last.with ?? {}) as Values;
      const isNext = Object.keys(cells).length === 0 ? place !== row : place === row;
      if (isNext && wholeOf(step.set) === last.addRow && !(cell in cells)) {
        whole[whole.length - 1] = { ...last, with: { ...cells, [cell]: step.to } };
        row = place!;
        continue;
      }
    }
    whole.push(step);
  }
  return whole;
}

/** What is kept at most: each result counts its parts, of which a form with many rows has thousands. */
const KEPT = 100_000;

/** Calls that lead to further calls are waited for so often. */
const WAITS = 6;

/** Openings are told apart by everything that the search varies. */
function nameOf(opening: Opening): string {
  const { person, record, launch, clock, zone, services, records, parent, viewing } = opening;
  return JSON.stringify([
    person,
    record,
    launch,
    clock,
    zone,
    services,
    records?.map(({ id }) => id),
    parent,
    viewing,
  ]);
}

export class Player {
  sessions = 0;
  steps = 0;
  #kept = new Map<string, Ran>();
  #weight = 0;

  constructor(
    private readonly form: Form,
    private readonly stage: Stage,
    private readonly checkpoints: Checkpoints,
    private readonly onPlayed: OnPlayed,
    /** Throws where no further session is to be played. */
    private readonly mayGoOn: () => void,
  ) {}

  play(opening: Opening, steps: readonly HeldStep[]): Ran {
    // Of the opening, then with each step.
    const names = [nameOf(opening)];
    for (const step of steps) names.push(`${names.at(-1)}${JSON.stringify(step)}`);
    const name = names.at(-1)!;
    const known = this.#kept.get(name);
    if (known !== undefined) return known;
    this.mayGoOn();
    const ran = this.#run(opening, steps, names);
    this.#weight += Object.keys(ran.parts).length + ran.said.length;
    if (this.#weight > KEPT) {
      this.#kept.clear();
      this.#weight = 0;
    }
    this.#kept.set(name, ran);
    return ran;
  }

  #run(opening: Opening, steps: readonly HeldStep[], names: readonly string[]): Ran {
    this.sessions++;
    const played = this.#untilAnswered(this.#played(opening, steps, names));
    this.steps += played.done.length;
    const ran = ranOf(this.form, opening, played);
    this.onPlayed(
      ran,
      played.answers.flatMap(({ tape }) => tape.filter((entry) => entry.type === 'run')),
      steps,
    );
    return ran;
  }

  /**
   * Does the steps, from the last checkpoint on that is still kept. Its end is not kept: few sessions are continued, and one
   * that is costs a step more, where every copy costs about half of one.
   */
  #played(opening: Opening, steps: readonly HeldStep[], names: readonly string[]): Played {
    const nearest = this.checkpoints.nearest(names);
    let played = nearest?.played ?? this.#opened(opening, names[0]!, steps.length > 0);
    for (let at = nearest?.at ?? 0; at < steps.length; at++) {
      const { hold, ...step } = steps[at]!;
      const settled = (after: Played) => (hold === true ? after : this.#untilAnswered(after));
      played =
        'addRow' in step
          ? this.#row(played, step, settled)
          : settled(this.#do(played, step as Step));
      if (at < steps.length - 1)
        this.checkpoints.keep(names[at + 1]!, this.stage.checkpoint(), played);
    }
    return played;
  }

  #opened(opening: Opening, name: string, goesOn: boolean): Played {
    const first = this.stage.open(opening);
    const opened = seenAfter(NOTHING_SEEN, first);
    const played = { answers: [first], done: [], refused: [], opened, seen: opened };
    if (goesOn) this.checkpoints.keep(name, this.stage.checkpoint(), played);
    return played;
  }

  #row(
    played: Played,
    { addRow: name, with: cells }: Extract<Step, { addRow: string }>,
    settled: (after: Played) => Played,
  ): Played {
    const added = this.#do(played, { addRow: name });
    if (added.refused.length > played.refused.length) return added;
    let now = settled(added);
    const place = placesIn(added, name) - 1;
    for (const [cell, to] of Object.entries((cells ?? {}) as Values))
      now = settled(this.#do(now, { set: `${name}[${place}].${cell}`, to }));
    return now;
  }

  #do({ answers, done, refused, opened, seen }: Played, step: Step): Played {
    const answer = this.stage.do(step);
    return {
      answers: [...answers, answer],
      done: [...done, step],
      refused: answer.refused === null ? refused : [...refused, step],
      opened,
      seen: seenAfter(seen, answer),
    };
  }

  /** Waits until no call is open any more that ends by itself. */
  #untilAnswered(played: Played): Played {
    let now = played;
    for (let i = 0; i < WAITS; i++) {
      const due = now.seen.waiting.flatMap(({ calls }) => calls.map((call) => call.due));
      const last = Math.max(...due.filter((moment) => moment !== null));
      if (!Number.isFinite(last)) break;
      now = this.#do(now, { wait: Math.max(0, last - now.seen.clock) + 1 });
    }
    return now;
  }
}

/** What came of a session that was played, and what its tape says of it. */
function ranOf(
  form: Form,
  opening: Opening,
  { answers, done, refused, opened, seen }: Played,
): Ran {
  return {
    opening,
    steps: done,
    opened,
    seen,
    parts: partsSeen(seen, form),
    refused,
    failures: answers.flatMap(({ errors }) => errors),
    broken: answers.flatMap((answer) => answer.broken),
    messages: answers.flatMap(({ messages }) => messages.map(({ text }) => text)),
    ...whatHappened(answers),
    stopRuns: answers
      .at(-1)!
      .tape.filter((entry) => entry.type === 'run')
      .filter(({ title, sort }) => sort === 'handler' && STOPPING.has(title)),
    lastMessages: answers.at(-1)!.messages.map(({ text }) => text),
  };
}

/** Events whose handlers may stop a step. */
const STOPPING: ReadonlySet<string> = new Set(['submit', 'pageChange']);

function whatHappened(
  answers: readonly Answer[],
): Pick<Ran, 'said' | 'decidedBefore' | 'conflicts' | 'together'> {
  const said: Said[] = [];
  const decidedBefore: DecidedBefore[] = [];
  const conflicts: { part: string; aspect: string; between: readonly string[] }[] = [];
  const together = new Map<string, readonly [string, string]>();
  /** Runs that wait: what they read so far, and what a person has changed since. */
  const waiting = new Map<string, { reads: Map<string, Value>; changed: Set<string> }>();
  for (const { tape } of answers) {
    const here = saidOn(tape);
    said.push(...here);
    const events = new Map<number, string>();
    for (const entry of tape) {
      if (entry.type === 'event' && entry.part !== null) events.set(entry.n, columnOf(entry.part));
      if (entry.type === 'run')
        for (const pair of askedTogether(entry, events)) together.set(pair.join(' '), pair);
      if (entry.type === 'conflict')
        conflicts.push({
          part: columnOf(entry.part),
          aspect: entry.aspect,
          between: entry.between,
        });
      if (entry.type === 'effect' && entry.by === 'person')
        for (const { changed } of waiting.values()) changed.add(columnOf(entry.part));
      if (entry.type !== 'run' || entry.sort !== 'handler') continue;
      const tie = `${entry.behaviour}:${entry.line}`;
      const before = waiting.get(tie);
      const reads = new Map(
        entry.reads
          .filter(({ aspect }) => aspect === 'value')
          .map(({ part, value }) => [columnOf(part), value]),
      );
      if (before !== undefined) {
        const mine = here.filter(({ run }) => run === entry.n);
        const old = [...before.reads.keys()].find(
          (part) => before.changed.has(part) && !reads.has(part),
        );
        if (old !== undefined && mine.length > 0) decidedBefore.push({ part: old, said: mine });
      }
      if (entry.outcome === 'open')
        waiting.set(tie, {
          reads: new Map([...(before?.reads ?? []), ...reads]),
          changed: before?.changed ?? new Set(),
        });
      else waiting.delete(tie);
    }
  }
  return { said, decidedBefore, conflicts, together: [...together.values()] };
}

/** Values of one run that are worth trying in both orders, at most so many. */
const TOGETHER = 6;

function askedTogether(
  { reads, cause }: RunEntry,
  events: ReadonlyMap<number, string>,
): (readonly [string, string])[] {
  const trigger = cause === null ? undefined : events.get(cause);
  const parts = new Set(trigger === undefined ? [] : [trigger]);
  for (const { part, aspect } of reads) if (aspect === 'value') parts.add(columnOf(part));
  const names = [...parts].slice(0, TOGETHER).toSorted();
  return names.flatMap((a, i) => names.slice(i + 1).map((b) => [a, b] as const));
}
