/**
 * Running one handler or rule, atomically: what it reads and writes goes through here, and when it fails
 * everything it did is undone. A handler that waits runs in stretches, each atomic by itself. What a
 * rule said is put in place by `rule-claims.ts`; what runs when is `settling.ts`.
 */
import { CALLS_WAITING } from '../limits';
import { equal, type Value } from '../form/value';
import { ScriptError, words, type Failure } from '../wire/failures';
import { acceptAspect, acceptValue } from './accepting';
import type { Aspect, RunRecord } from './aspects';
import type { Desk } from './desk';
import type { Entry, RunEntry } from './entries';
import type { Observer } from './observer';
import type { Part } from './parts';
import type { Event, Progress } from './progress';
import { Run, type RunResult, type Trigger } from './run';
import { seenBy, type RuleClaims } from './rule-claims';
import type { Ended, Given, Scripts } from './scripts';
import type { State } from './state';
import type { Message } from './step';
import { forTape, type TapeWriter } from './tape-writer';
import type { Handler, Rule } from './tie';
import { OpenRun, type Call, type CallResult, type Waiting } from './waiting';
import type { Writes, Writing } from './writing';
import type { Line } from '../wire/line';

/** Whoever asks something while nothing runs. */
const NOBODY = { handler: null, behaviour: '', entry: null, noted: null } as const;

const NOTHING: readonly Event[] = [];

/** The parts of the session that it uses. */
export interface RunsRooms {
  state: State;
  tape: TapeWriter;
  waiting: Waiting;
  progress: Progress;
  scripts: Scripts;
  ruleClaims: RuleClaims;
  writing: Writing;
  observer: Observer | null;
}

export class Running {
  readonly #state: State;
  readonly #tape: TapeWriter;
  readonly #waiting: Waiting;
  readonly #progress: Progress;
  readonly #scripts: Scripts;
  readonly #ruleClaims: RuleClaims;
  readonly #writing: Writing;
  readonly #observer: Observer | null;
  /** Somebody asks something on the way, who may read all and change nothing. */
  #asking = false;
  /** The run going on; scripts can touch parts only while there is one. */
  #run: Run | null = null;
  #numbers = 0;

  constructor({
    state,
    tape,
    waiting,
    progress,
    scripts,
    ruleClaims,
    writing,
    observer,
  }: RunsRooms) {
    this.#state = state;
    this.#tape = tape;
    this.#waiting = waiting;
    this.#progress = progress;
    this.#scripts = scripts;
    this.#ruleClaims = ruleClaims;
    this.#writing = writing;
    this.#observer = observer;
  }

  get isAsking(): boolean {
    return this.#asking;
  }

  /** Turns on or off that reads come from a watch or the prompt and not from a run. */
  asking(asking: boolean): void {
    this.#asking = asking;
  }

  /** The run going on. Throws where there is none. */
  demand(what: string): {
    handler: Handler | null;
    behaviour: string;
    entry: number | null;
    noted: ReadonlySet<Part> | null;
  } {
    if (this.#asking && this.#run === null) return NOBODY;
    const run = this.#demand(what);
    return {
      handler: run.handler,
      behaviour: (run.handler ?? run.rule!).behaviour.name,
      entry: run.entry?.n ?? null,
      noted: run.noted,
    };
  }

  #demand(what: string): Run {
    if (this.#run === null) throw new ScriptError('wrong_use', words.outside(what));
    return this.#run;
  }

  /** A fault that also ends the run where the script catches it. */
  fault(fault: ScriptError): never {
    if (this.#run !== null && !this.#asking) this.#run.fault ??= fault;
    throw fault;
  }

  /** The run going on, if there is one, has failed whatever its end will say. */
  blame(fault: ScriptError): void {
    if (this.#run !== null && !this.#asking) this.#run.fault ??= fault;
  }

  /** What a script sees of an aspect. A rule's reads are what it depends on. */
  read(aspect: Aspect): Value {
    if (this.#asking) return this.#seen(aspect);
    const run = this.#run ?? this.#demand(`${aspect.part.name}.${aspect.name} was read`);
    const { rule } = run;
    if (rule === null) {
      run.noted?.add(aspect.part);
      const { current } = aspect;
      this.#observer?.read(aspect, current);
      return current;
    }
    const own = run.said.get(aspect);
    if (own !== undefined) {
      this.#observer?.read(aspect, own.value);
      return own.value;
    }
    const seen = seenBy(rule, aspect);
    run.saw(aspect, seen);
    this.#observer?.read(aspect, seen);
    return seen;
  }

  /** The same for somebody who asks, which leaves no mark. */
  #seen(aspect: Aspect): Value {
    const rule = this.#run?.rule ?? null;
    if (rule === null) return aspect.current;
    const own = this.#run!.said.get(aspect);
    return own === undefined ? seenBy(rule, aspect) : own.value;
  }

  /** What a script says of an aspect; undefined takes back what it said. */
  say(aspect: Aspect, offered: unknown, line: Line): void {
    if (this.#asking) throw new ScriptError('wrong_use', words.askingOnly);
    const run = this.#run ?? this.#demand(`${aspect.part.name}.${aspect.name} was written`);
    const { part } = aspect;
    const { rule } = run;
    if (part.row?.removed === true)
      this.fault(new ScriptError('wrong_use', words.rowGone(part.name)));
    if (rule !== null && rule.row !== null && rule.row !== part.row)
      this.fault(new ScriptError('wrong_use', words.notRow(part.name)));
    if (aspect.name === 'value') {
      const value = this.guarded(() => acceptValue(this.#state, part, offered));
      this.#observer?.said(aspect, value, line);
      if (rule === null) this.#writing.value(run.writes!, aspect, value, line);
      else run.claim(aspect, { value, line });
      return;
    }
    const value =
      offered === undefined
        ? undefined
        : typeof offered === 'boolean' && typeof aspect.base === 'boolean'
          ? offered
          : this.guarded(() => acceptAspect(this.#state, aspect, offered));
    this.#observer?.said(aspect, value, line);
    if (rule !== null) {
      run.claim(aspect, value === undefined ? null : { value, line });
      return;
    }
    const from = aspect.current;
    const before = run.claims?.get(aspect)?.before ?? aspect.handlerClaim;
    this.#state.putHandlerClaim(aspect, value === undefined ? null : { value }, run.record);
    (run.claims ??= new Map()).set(aspect, { before, mine: aspect.handlerClaim });
    this.#tapeClaim(run, aspect, from, value, line);
  }

  /** Tapes a handler's word if anything came of it; one hidden by a rule's is taped as covered. */
  #tapeClaim(run: Run, aspect: Aspect, from: Value, said: Value | undefined, line: Line): void {
    if (!this.#tape.on) return;
    const to = aspect.current;
    const covered = said !== undefined && !equal(said, to);
    if (equal(from, to) && !covered) return;
    this.#tape.effect(run.entry!.n, aspect, from, covered ? said : to, {
      by: 'script',
      line,
      ...(covered ? { covered: true as const } : {}),
    });
  }

  /** Does something of which every ScriptError is one of the run. */
  guarded<T>(work: () => T): T {
    try {
      return work();
    } catch (caught) {
      if (caught instanceof ScriptError) return this.fault(caught);
      throw caught;
    }
  }

  /** Something a handler does that is no aspect; refused to rules. */
  act(what: string): Run & { writes: Writes } {
    if (this.#asking) throw new ScriptError('wrong_use', words.askingOnly);
    const run = this.#demand(`${what} was called`);
    if (run.rule !== null) this.fault(new ScriptError('wrong_use', words.notInRule(what)));
    return run as Run & { writes: Writes };
  }

  message(text: string, tone: Message['tone'], line: Line): void {
    const run = this.act('form.message()');
    (run.messages ??= []).push({
      message: { text, tone, behaviour: run.handler!.behaviour.name },
      line,
    });
  }

  log(values: Value[], line: Line): void {
    if (this.#asking) throw new ScriptError('wrong_use', words.askingOnly);
    const { behaviour, entry } = this.demand('log() was called');
    const told = { behaviour, line, values };
    this.#progress.logs.push(told);
    this.#tape.add(entry, { type: 'log', ...told, struck: false });
  }

  wantSubmit(): void {
    this.act('form.submit()').wantsSubmit = true;
  }

  askParent(set: string, to: Value, line: Line): void {
    (this.act('parent.set()').toParent ??= []).push({ set, to, line });
  }

  /** Calls something that ends later, at `due`. The number of the call. */
  call(
    name: string,
    args: Value,
    now: number,
    due: number,
    line: Line,
    outcome: () => CallResult,
  ): number {
    const run = this.act(`${name}()`);
    if (this.#waiting.calls.length >= CALLS_WAITING)
      this.fault(new ScriptError('wrong_use', words.tooManyCalls(name, CALLS_WAITING)));
    const { title, part, row } = run.trigger;
    run.open ??= new OpenRun(run.number, run.handler!, title, part, row, run.record);
    const entry = this.#tape.add(run.entry?.n ?? null, {
      type: 'call',
      name,
      args,
      due: Number.isFinite(due) ? due : null,
      line,
    });
    return this.#waiting.add({
      name,
      args,
      run: run.open,
      due,
      since: now,
      entry: entry?.n ?? null,
      outcome,
    }).order;
  }

  /** Runs a handler with its event, or a rule, and gives its result. */
  run(tie: Handler | Rule, given: Given, trigger: Trigger, desk: Desk): RunResult {
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
    return this.#stretch(run, tie, () => this.#scripts.run(tie.number, run.number, given, desk));
  }

  /** Goes on with an open run after something it waited for has ended. */
  resume(open: OpenRun, call: Call, came: CallResult, cause: number | null, desk: Desk): RunResult {
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
      this.#scripts.resume(open.number, call.order, came, desk),
    );
  }

  /** A handler starts again while an earlier run of it is open: the earlier one is not resumed. */
  supersede(open: OpenRun, why: 'started again' | 'another record', cause: number | null): void {
    this.#waiting.end(open, 'superseded');
    const { behaviour, line } = open.handler;
    const entry = this.#tape.add(cause, {
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
      this.#state.putHandlerClaim(aspect, before, open.record);
      if (entry !== null && !equal(from, aspect.current))
        this.#tape.effect(entry.n, aspect, from, aspect.current, {
          by: 'form',
          line: null,
          withdrawn: true,
        });
    }
  }

  /** One atomic stretch: from the start or a wait to the next wait or the end. */
  #stretch(run: Run, tie: Handler | Rule, begin: () => Ended): RunResult {
    const { journal } = this.#progress;
    const mark = journal.mark();
    this.#run = run;
    if (run.entry !== null) this.#observer?.begins(run.entry.n);
    let ended: Ended;
    try {
      ended = begin();
    } finally {
      this.#run = null;
      this.#observer?.ends();
    }
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
      if (run.rule === null) events = this.#writing.told(run.writes!);
      else
        this.#ruleClaims.settle(run.rule, run.said, run.reads!, run.record, run.entry?.n ?? null);
    } else {
      journal.rollBack(mark);
      // What the failed run read counts as read; what its last good run said stands.
      if (run.rule !== null) this.#ruleClaims.remember(run.rule, run.reads);
    }
    this.#leave(run, ended, failure);
    this.#closeEntry(run, ended, failure);
    return { failure, events };
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
      if (ended.open) this.#scripts.drop(run.number);
      return;
    }
    if (failure !== null) {
      this.#waiting.end(open, 'failed');
      if (ended.failure === null) this.#scripts.drop(run.number);
      return;
    }
    for (const [aspect, word] of run.claims ?? [])
      open.claims.set(aspect, {
        before: open.claims.get(aspect)?.before ?? word.before,
        mine: word.mine,
      });
    if (ended.open || open.calls.size > 0) this.#waiting.keep(open);
    else this.#waiting.end(open, 'ended');
  }

  #deliver(run: Run): void {
    const entry = run.entry?.n ?? null;
    for (const { message, line } of run.messages ?? []) {
      this.#progress.message(message);
      this.#tape.add(entry, { type: 'message', line, ...message });
    }
    for (const { set, to, line } of run.toParent ?? []) {
      this.#progress.askParent({ set, to });
      this.#tape.add(entry, { type: 'toParent', set, to: forTape(to), line });
    }
    if (run.wantsSubmit) this.#progress.wantSubmit();
  }

  #openEntry(tie: Handler | Rule, { title, cause }: Trigger): (RunEntry & Entry) | null {
    if (!this.#tape.on) return null;
    return this.#tape.add(cause, {
      type: 'run',
      sort: tie.sort,
      behaviour: tie.behaviour.name,
      title,
      line: tie.line,
      outcome: 'ended',
      fuel: 0,
      reads: [],
      lines: [],
      values: [],
      cut: false,
    }) as (RunEntry & Entry) | null;
  }

  #closeEntry(run: Run, { fuel, trace }: Ended, failure: Failure | null): void {
    const { entry, open } = run;
    if (entry === null) return;
    entry.fuel = fuel;
    entry.reads = [...(run.reads ?? [])].map(([aspect, value]) => ({
      part: aspect.part.name,
      aspect: aspect.name,
      value: forTape(value),
    }));
    if (trace !== null) {
      entry.lines = trace.lines;
      entry.values = trace.values;
      entry.cut = trace.cut;
    }
    if (open !== null && open.state === 'open' && this.#waiting.runs.includes(open))
      entry.outcome = 'open';
    if (failure === null) return;
    entry.outcome = 'failed';
    this.#tape.add(entry.n, { type: 'error', failure });
  }
}
