/**
 * From a step to rest: events first in first out, each with its handlers; when none is left, rules
 * that read something that differs, in order, until none has to run; then the values they said are put in place; when
 * those are still, the form's own corrections. A step that does not settle is taken back (`progress.ts`).
 *
 * From write to rest the order is that of this file: `writing.ts` queues events, `running.ts` runs a handler or rule,
 * `current-run.ts` is what scripts meet meanwhile, `rule-claims.ts` puts in place what rules say, `corrections.ts` ends it.
 */
import { lineInWords } from '../wire/line';
import type { Value } from '../form/value';
import { words, type Failure } from '../wire/failures';
import type { Aspect, RunRecord } from './aspects';
import { keepMap, type Restore } from './checkpoint';
import type { Corrections } from './corrections';
import type { Event, Progress } from './progress';
import type { Row } from './rows';
import { differing, type RuleClaims } from './rule-claims';
import type { RunResult } from './run';
import type { Running } from './running';
import type { State } from './state';
import type { Stopping } from './stopping';
import { forTape, type TapeWriter } from './tape-writer';
import type { Ties } from './ties';
import type { Handler, Rule } from './tie';
import type { Call, CallResult, Waiting } from './waiting';

/** Thrown through the settling when a handler or rule exceeds the limit. Never reaches a script. */
class NoRest {
  constructor(readonly failure: Failure) {}
}

const NOTHING = { is: 'nothing' } as const;

export class Settling {
  /** Handlers and rules whose last run failed; not undone, since a step that is taken back does not mend them. */
  readonly failing = new Map<object, Failure>();

  constructor(
    private readonly state: State,
    private readonly running: Running,
    private readonly ruleClaims: RuleClaims,
    private readonly tape: TapeWriter,
    private readonly waiting: Waiting,
    private readonly progress: Progress,
    private readonly ties: Ties,
    private readonly corrections: Corrections,
    private readonly stopping: Stopping,
    private readonly limit: number,
  ) {}

  /**
   * Settles until events and rules are still. False when they did not settle: then everything scripts did since the
   * settling began has been taken back.
   */
  settle(cause: number | null): boolean {
    try {
      this.#untilStill(cause);
      this.#rest();
      return true;
    } catch (caught) {
      if (!(caught instanceof NoRest)) throw caught;
      this.progress.takeBack();
      this.ruleClaims.forget();
      this.state.outdated.rules.clear();
      this.progress.errors.push(caught.failure);
      const error = this.tape.add(cause, { type: 'error', failure: caught.failure });
      this.tape.add(error?.n ?? null, {
        type: 'takenBack',
        what: 'everything scripts did in this step',
      });
      this.#rest();
      return false;
    }
  }

  checkpoint(): Restore {
    return keepMap(this.failing);
  }

  #untilStill(cause: number | null): void {
    const { queue } = this.progress;
    for (;;) {
      const item = queue.shift();
      if (item !== undefined) {
        if (typeof item === 'function') item();
        else this.#dispatch(item);
        continue;
      }
      const rule = this.#nextRule();
      if (rule !== null) {
        this.#runRule(rule, cause);
        continue;
      }
      const events = this.ruleClaims.putValues();
      if (events !== null) {
        queue.push(...events);
        continue;
      }
      if (!this.corrections.correct(cause)) return;
    }
  }

  #rest(): void {
    this.corrections.rest();
    this.progress.opening = false;
  }

  #dispatch(event: Event): void {
    const handlers = this.ties.handlers(event.type, event.part);
    // Nobody listens, so nothing happens that a tape could tell.
    if (handlers === null) return;
    const { part, row, type, from } = event;
    const name = part === null ? null : part.name;
    const entry = !this.tape.on
      ? null
      : this.tape.add(event.cause, {
          type: 'event',
          event: type,
          part: name,
          value: forTape(event.value),
          previous: forTape(event.previous),
          by: event.by,
        });
    const cause = entry?.n ?? null;
    const stops = event.stop === undefined ? 0 : this.stopping.begin(event);
    for (const handler of handlers) {
      // Rows that a handler itself brought about are one circle, however many rows there are.
      const isEndless = type === 'rowAdded' && isOwnDoing(handler, from);
      this.#count(handler, isEndless ? null : row, name, from);
      const earlier = handler.overlap === 'all' ? null : this.waiting.earlier(handler, part, row);
      if (earlier !== null) this.running.supersede(earlier, 'started again', cause);
      const title = name === null ? type : `${type} of ${name}`;
      const result = this.running.run(
        handler,
        { is: 'event', event, stops },
        { title, part, row, before: from, cause, stops: stops > 0 },
      );
      this.#after(handler, result);
      if (result.failure !== null)
        event.stop?.(
          `${handler.behaviour.title} failed${result.failure.line === null ? '' : `, ${lineInWords(result.failure.line)}`}.`,
          null,
          new Set(),
        );
    }
  }

  /** Goes on with the run that waited for this call, with what it comes to or with what somebody answers instead. */
  resume(call: Call, cause: number | null, instead: CallResult | null = null): void {
    const { run } = call;
    const came = instead ?? call.outcome();
    this.waiting.answered(call);
    // Under the step that let time pass, while `call` leads back to what asked for it.
    const entry = this.tape.add(cause ?? call.entry, {
      type: 'answered',
      call: call.entry,
      name: call.name,
      with: came.ok ? forTape(came.value as Value) : null,
      fails: came.ok ? null : came.reason,
      clock: call.due,
    });
    this.#after(run.handler, this.running.resume(run, call, came, entry?.n ?? cause));
  }

  #nextRule(): Rule | null {
    const { rules } = this.state.outdated;
    for (let rule = rules.first(); rule !== null; rule = rules.first()) {
      if (rule.state !== 'stirred' || differing(rule) !== null) return rule;
      rules.delete(rule);
    }
    return null;
  }

  #runRule(rule: Rule, cause: number | null): void {
    const trigger: Aspect | null = differing(rule);
    this.state.outdated.rules.delete(rule);
    const because = trigger?.part.name ?? null;
    const before = trigger?.changedBy ?? null;
    this.#count(rule, null, because, before);
    const { row } = rule;
    const result = this.running.run(rule, row === null ? NOTHING : { is: 'row', row }, {
      title: rule.title,
      part: trigger?.part ?? null,
      row,
      before,
      cause,
      stops: false,
    });
    // What it read and speaks of since, it now sees below its own words.
    if (differing(rule) === null) this.state.outdated.rules.delete(rule);
    else this.state.outdated.rules.add(rule);
    this.#after(rule, result);
  }

  /** Keeps whether the last run of a tie failed. */
  noteFailure(tie: Handler | Rule, failure: Failure | null): void {
    if (failure !== null) {
      this.failing.set(tie, failure);
      this.progress.errors.push(failure);
    } else this.failing.delete(tie);
  }

  #after(tie: Handler | Rule, { failure, events }: RunResult): void {
    this.noteFailure(tie, failure);
    if (events.length > 0) this.progress.queue.push(...events);
  }

  #count(
    tie: Handler | Rule,
    row: Row | null,
    because: string | null,
    before: RunRecord | null,
  ): void {
    const { number } = this.progress;
    if (tie.step !== number) {
      tie.step = number;
      tie.runs = 0;
      if (tie.sort === 'handler') tie.rowRuns = null;
    }
    if (tie.sort === 'handler' && row !== null) {
      tie.rowRuns ??= new Map();
      const runs = (tie.rowRuns.get(row) ?? 0) + 1;
      tie.rowRuns.set(row, runs);
      if (runs <= this.limit) return;
    } else if (++tie.runs <= this.limit) return;
    throw new NoRest({
      code: 'cycle',
      says: words.cycle(this.limit),
      behaviour: tie.behaviour.name,
      line: tie.line,
      cycle: roundOf(tie, because, before),
    });
  }
}

/** Runs back to which a circle is looked for. */
const ROUND = 20;

/** A run of this tie led to what makes it run again. */
function isOwnDoing(tie: object, before: RunRecord | null): boolean {
  let run = before;
  for (let i = 0; run !== null && i < ROUND; i++, run = run.before)
    if (run.tie === tie) return true;
  return false;
}

/** The round that a run went, as sentences: which behaviour set which part, back to the same run. */
function roundOf(tie: object, because: string | null, before: RunRecord | null): string[] {
  const round: string[] = [];
  let part = because;
  for (let run = before; run !== null && round.length < ROUND; run = run.before) {
    round.unshift(`${run.behaviour} (${lineInWords(run.line)}) set ${part ?? 'something'}`);
    if (run.tie === tie) break;
    part = run.because;
  }
  return round;
}
