/**
 * The run going on, as scripts meet it: what they read and say of aspects, and what they ask for, goes through here and is
 * kept in the run (`run.ts`). It begins and ends in `running.ts`.
 */
import { CALLS_WAITING } from '../limits';
import { equal, type Value } from '../form/value';
import { ScriptError, words } from '../wire/failures';
import { acceptAspect, acceptValue } from './accepting';
import type { Aspect } from './aspects';
import type { Observer } from './observer';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Run } from './run';
import { seenBy } from './rule-claims';
import type { State } from './state';
import type { Message } from './step';
import type { TapeWriter } from './tape-writer';
import type { Handler } from './tie';
import { OpenRun, type CallResult, type Waiting } from './waiting';
import type { Writes, Writing } from './writing';
import type { Line } from '../wire/line';

/** Whoever asks something while nothing runs. */
const NOBODY = { handler: null, behaviour: '', entry: null, noted: null } as const;

export class CurrentRun {
  /** Somebody asks something on the way, who may read all and change nothing. */
  #asking = false;
  /** Scripts can touch parts only while there is one. */
  #run: Run | null = null;

  constructor(
    private readonly state: State,
    private readonly tape: TapeWriter,
    private readonly waiting: Waiting,
    private readonly progress: Progress,
    private readonly writing: Writing,
    private readonly observer: Observer | null,
  ) {}

  /** What is asked while this works is asked by the run. */
  during<T>(run: Run, work: () => T): T {
    this.#run = run;
    if (run.entry !== null) this.observer?.begins(run.entry.n);
    try {
      return work();
    } finally {
      this.#run = null;
      this.observer?.ends();
    }
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
      run.saw(aspect, current);
      this.observer?.read(aspect, current);
      return current;
    }
    const own = run.said.get(aspect);
    if (own !== undefined) {
      this.observer?.read(aspect, own.value);
      return own.value;
    }
    const seen = seenBy(rule, aspect);
    run.saw(aspect, seen);
    this.observer?.read(aspect, seen);
    return seen;
  }

  /** The same for somebody who asks, which leaves no mark. */
  #seen(aspect: Aspect): Value {
    const rule = this.#run?.rule ?? null;
    if (rule === null) return aspect.current;
    const own = this.#run!.said.get(aspect);
    return own === undefined ? seenBy(rule, aspect) : own.value;
  }

  /** Something is asked that is no aspect. */
  asks(what: string, value: unknown): void {
    this.notesAsked(what);
    this.observer?.asked(what, value);
  }

  /** The same where whoever looks on is told of it as a read. */
  notesAsked(what: string): void {
    if (!this.#asking) this.#run?.noticed?.asked.add(what);
  }

  /** What a script says of an aspect; undefined takes back what it said. */
  say(aspect: Aspect, offered: unknown, line: Line): void {
    if (this.#asking) throw new ScriptError('wrong_use', words.askingOnly);
    const run = this.#run ?? this.#demand(`${aspect.part.name}.${aspect.name} was written`);
    const { part } = aspect;
    const { rule } = run;
    if (rule?.sort === 'invariant')
      this.fault(
        new ScriptError(
          'wrong_use',
          words.notIn('invariant', `writing ${part.name}.${aspect.name}`),
        ),
      );
    if (part.row?.removed === true)
      this.fault(new ScriptError('wrong_use', words.rowGone(part.name)));
    if (rule !== null && rule.row !== null && rule.row !== part.row)
      this.fault(new ScriptError('wrong_use', words.notRow(part.name)));
    if (aspect.name === 'value') {
      const value = this.guarded(() => acceptValue(this.state, part, offered));
      this.observer?.said(aspect, value, line);
      if (rule === null) this.writing.value(run.writes!, aspect, value, line);
      else run.claim(aspect, { value, line });
      return;
    }
    const value =
      offered === undefined
        ? undefined
        : typeof offered === 'boolean' && typeof aspect.base === 'boolean'
          ? offered
          : this.guarded(() => acceptAspect(this.state, aspect, offered));
    this.observer?.said(aspect, value, line);
    if (rule !== null) {
      run.claim(aspect, value === undefined ? null : { value, line });
      return;
    }
    const from = aspect.current;
    const before = run.claims?.get(aspect)?.before ?? aspect.handlerClaim;
    this.state.putHandlerClaim(aspect, value === undefined ? null : { value }, run.record);
    (run.claims ??= new Map()).set(aspect, { before, mine: aspect.handlerClaim });
    this.#tapeClaim(run, aspect, from, value, line);
  }

  /** Tapes a handler's word if anything came of it; one hidden by a rule's is taped as covered. */
  #tapeClaim(run: Run, aspect: Aspect, from: Value, said: Value | undefined, line: Line): void {
    if (!this.tape.on) return;
    const to = aspect.current;
    const covered = said !== undefined && !equal(said, to);
    if (equal(from, to) && !covered) return;
    this.tape.effect(run.entry!.n, aspect, from, covered ? said : to, {
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
    if (run.rule !== null)
      this.fault(new ScriptError('wrong_use', words.notIn(run.rule.sort, what)));
    return run as Run & { writes: Writes };
  }

  /** Random numbers follow each other: one drawn by an invariant would change what scripts get after it. */
  mayDraw(): void {
    if (this.#run?.rule?.sort === 'invariant')
      this.fault(new ScriptError('wrong_use', words.notIn('invariant', 'Math.random()')));
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
    this.progress.logs.push(told);
    this.tape.add(entry, { type: 'log', ...told, struck: false });
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
    if (this.waiting.calls.length >= CALLS_WAITING)
      this.fault(new ScriptError('wrong_use', words.tooManyCalls(name, CALLS_WAITING)));
    const { title, part, row } = run.trigger;
    run.open ??= new OpenRun(run.number, run.handler!, title, part, row, run.record);
    const entry = this.tape.add(run.entry?.n ?? null, {
      type: 'call',
      name,
      args,
      due: Number.isFinite(due) ? due : null,
      line,
    });
    return this.waiting.add({
      name,
      args,
      run: run.open,
      due,
      since: now,
      entry: entry?.n ?? null,
      outcome,
    }).order;
  }
}
