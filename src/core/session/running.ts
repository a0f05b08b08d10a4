/**
 * Running one handler or rule, atomically: when it fails, everything it did is undone. A handler that waits runs in
 * stretches, each atomic by itself. What it reads and says meanwhile goes through `current-run.ts`; what a rule said is
 * put in place by `rule-claims.ts`; what runs when is `settling.ts`.
 */
import { equal, type Value } from '../form/value';
import { type Failure } from '../wire/failures';
import type { Aspect, RunRecord } from './aspects';
import type { CurrentRun } from './current-run';
import type { Desk } from './desk';
import type { Entry, RunEntry } from './entries';
import type { Event, Progress } from './progress';
import { Run, type RunResult, type Trigger } from './run';
import { type RuleClaims } from './rule-claims';
import type { Ended, Given, Scripts } from './scripts';
import type { State } from './state';
import { forTape, type TapeWriter } from './tape-writer';
import type { Handler, Rule } from './tie';
import { OpenRun, type Call, type CallResult, type Waiting } from './waiting';
import type { Writing } from './writing';

const NOTHING: readonly Event[] = [];

export class Running {
  /** Never given again, even after an undoing: the scripts' end may still know the run. */
  #numbers = 0;

  constructor(
    private readonly state: State,
    private readonly tape: TapeWriter,
    private readonly waiting: Waiting,
    private readonly progress: Progress,
    private readonly ruleClaims: RuleClaims,
    private readonly writing: Writing,
    private readonly current: CurrentRun,
    private readonly scripts: Scripts,
    private readonly desk: Desk,
  ) {}

  /** Runs a handler with its event, or a rule, and gives its result. */
  run(tie: Handler | Rule, given: Given, trigger: Trigger): RunResult {
    const because =
      trigger.row !== null && trigger.part === null
        ? trigger.row.part.name
        : (trigger.part?.name ?? null);
    const record: RunRecord = {
      behaviour: tie.behaviour.title,
      line: tie.line,
      tie,
      because,
      before: trigger.before,
    };
    const run = new Run(this.#numbers++, tie, trigger, record, this.#openEntry(tie, trigger), null);
    return this.#stretch(run, tie, () =>
      this.scripts.run(tie.number, run.number, given, this.desk),
    );
  }

  /** Goes on with an open run after something it waited for has ended. */
  resume(open: OpenRun, call: Call, came: CallResult, cause: number | null): RunResult {
    const { handler, record, title, part, row } = open;
    const trigger = {
      title,
      part,
      row,
      before: record.before,
      cause,
      stops: handler.event === 'submit' || handler.event === 'pageChange',
    };
    const run = new Run(
      open.number,
      handler,
      trigger,
      record,
      this.#openEntry(handler, trigger),
      open,
    );
    return this.#stretch(run, handler, () =>
      this.scripts.resume(open.number, call.order, came, this.desk),
    );
  }

  /** A handler starts again while an earlier run of it is open: the earlier one is not resumed. */
  supersede(open: OpenRun, why: 'started again' | 'another record', cause: number | null): void {
    this.waiting.end(open, 'superseded');
    const { behaviour, line } = open.handler;
    const entry = this.tape.add(cause, {
      type: 'superseded',
      behaviour: behaviour.name,
      title: open.title,
      line,
      why,
    });
    for (const [aspect, { before, mine }] of open.claims) {
      // Its own words only: what was said over them since stays.
      if (aspect.handlerClaim !== mine) continue;
      const from = aspect.current;
      this.state.putHandlerClaim(aspect, before, open.record);
      if (entry !== null && !equal(from, aspect.current))
        this.tape.effect(entry.n, aspect, from, aspect.current, {
          by: 'form',
          line: null,
          withdrawn: true,
        });
    }
  }

  /** One atomic stretch: from the start or a wait to the next wait or the end. */
  #stretch(run: Run, tie: Handler | Rule, begin: () => Ended): RunResult {
    const { journal } = this.progress;
    const mark = journal.mark();
    const ended = this.current.during(run, begin);
    const fault =
      ended.failure ??
      (run.fault === null ? null : { code: run.fault.code, says: run.fault.message });
    const failure: Failure | null =
      fault === null
        ? null
        : {
            code: fault.code,
            says: fault.says,
            behaviour: tie.behaviour.name,
            line: ended.line === 0 ? tie.line : ended.line,
          };
    let events = NOTHING;
    if (failure === null) {
      if (run.rule === null) events = this.writing.told(run.writes!);
      else this.ruleClaims.settle(run.rule, run.said, run.reads!, run.record, run.entry?.n ?? null);
    } else {
      journal.rollBack(mark);
      // What the failed run read counts as read; what its last good run said stands.
      if (run.rule !== null) this.ruleClaims.remember(run.rule, run.reads);
    }
    this.#leave(run, ended, failure);
    this.#closeEntry(run, ended, failure);
    return { failure, broken: failure === null && ended.broken, events };
  }

  #leave(run: Run, ended: Ended, failure: Failure | null): void {
    if (run.rule !== null) return;
    if (failure === null) this.#deliver(run);
    if (failure === null && ended.open && run.open === null) {
      const { title, part, row } = run.trigger;
      run.open = new OpenRun(run.number, run.handler!, title, part, row, run.record);
    }
    const { open } = run;
    if (open === null) {
      // Its end may say that it failed where it did not, or the other way round.
      if (ended.open) this.scripts.drop(run.number);
      return;
    }
    if (failure !== null) {
      this.waiting.end(open, 'failed');
      if (ended.failure === null) this.scripts.drop(run.number);
      return;
    }
    for (const [aspect, word] of run.claims ?? [])
      open.claims.set(aspect, {
        before: open.claims.get(aspect)?.before ?? word.before,
        mine: word.mine,
      });
    if (ended.open || open.calls.size > 0) this.waiting.keep(open);
    else this.waiting.end(open, 'ended');
  }

  #deliver(run: Run): void {
    const entry = run.entry?.n ?? null;
    for (const { message, line } of run.messages ?? []) {
      this.progress.message(message);
      this.tape.add(entry, { type: 'message', line, ...message });
    }
    for (const { set, to, line } of run.toParent ?? []) {
      this.progress.askParent({ set, to });
      this.tape.add(entry, { type: 'toParent', set, to: forTape(to), line });
    }
    if (run.wantsSubmit) this.progress.wantSubmit();
  }

  #openEntry(tie: Handler | Rule, { title, cause, row }: Trigger): (RunEntry & Entry) | null {
    if (!this.tape.on) return null;
    return this.tape.add(cause, {
      type: 'run',
      sort: tie.sort,
      behaviour: tie.behaviour.name,
      title,
      line: tie.line,
      outcome: 'ended',
      fuel: 0,
      reads: [],
      asked: [],
      lines: [],
      values: [],
      cut: false,
      ...(tie.sort === 'invariant' ? { row: row?.part.name ?? null } : {}),
    }) as (RunEntry & Entry) | null;
  }

  #closeEntry(run: Run, { fuel, trace, broken }: Ended, failure: Failure | null): void {
    const { entry, open } = run;
    if (entry === null) return;
    entry.fuel = fuel;
    const { reads = new Map<Aspect, Value>(), asked = [] } = run.noticed ?? {};
    entry.asked = [...asked];
    entry.reads = [...reads].map(([aspect, value]) => ({
      part: aspect.part.name,
      aspect: aspect.name,
      value: forTape(value),
    }));
    if (trace !== null) {
      entry.lines = trace.lines;
      entry.values = trace.values;
      entry.cut = trace.cut;
    }
    if (open !== null && open.state === 'open' && this.waiting.runs.includes(open))
      entry.outcome = 'open';
    if (run.rule?.sort === 'invariant' && broken) entry.outcome = 'broken';
    if (failure === null) return;
    entry.outcome = 'failed';
    this.tape.add(entry.n, { type: 'error', failure });
  }
}
