/**
 * Running one handler or rule, atomically (semantics 16, 18, 19): what it reads and writes goes through here, and when
 * it fails everything it did is undone. A handler that waits runs in stretches, each atomic by itself (semantics 21).
 * What runs when is `settling.ts`.
 */
import { readRow, accept } from '../form/kinds';
import type { FieldOf } from '../form/definition';
import { equal, inWords, type Value, type Values } from '../form/value';
import { acceptAspect, acceptValue } from './accepting';
import type { EffectEntry, Entry, RunEntry } from './entries';
import { readFailure, ScriptFault, ServiceError, words, type Failure } from './errors';
import type { Aspect, Part, RunRecord } from './parts';
import { plain } from './plain';
import { makePromises, type Promises } from './promises';
import type { Row, Rows } from './rows';
import type { State } from './state';
import type { LogLine, Message } from './step';
import type { TapeWriter } from './tape-writer';
import type { Handler, Rule } from './ties';
import { OpenRun, type Call, type Outcome, type Waiting } from './waiting';

/** What a run did that others are told of when it is over, in order. */
export type Announced =
  | { type: 'change'; part: Part; value: Value; previous: Value; cause: number | null }
  | { type: 'rowAdded' | 'rowRemoved'; part: Part; row: Row; cause: number | null };

/** What is remembered of a run, or of one stretch of it, while it lasts. */
class Run {
  readonly tie: Handler | Rule;
  readonly record: RunRecord;
  readonly entry: (RunEntry & Entry) | null;
  /** A rule's words, gathered and put in place together at its end. */
  readonly said = new Map<Aspect, { value: Value; line: number }>();
  readonly reads = new Map<Aspect, Value>();
  // What most runs never need is made when it is first needed: with rules for each of ten thousand rows it counts.
  /** Values a handler wrote, with what stood before the run. */
  before: Map<Aspect, Value> | null = null;
  /** Rows fields it changed, with their value before where somebody will ask. */
  rowsBefore: Map<Rows, Value> | null = null;
  announced: Announced[] | null = null;
  effects: (EffectEntry & Entry)[] | null = null;
  logs: Entry[] | null = null;
  messages: { message: Message; line: number }[] | null = null;
  toParent: { set: string; to: Value; line: number }[] | null = null;
  /** A handler's words, for when it is superseded. */
  words: OpenRun['words'] | null = null;
  /** What waits, once it does. */
  open: OpenRun | null = null;
  wantsSubmit = false;
  /** A wrong use stays a failure even where the script catches it (edges 3). */
  fault: ScriptFault | null = null;

  constructor(tie: Handler | Rule, record: RunRecord, entry: (RunEntry & Entry) | null) {
    this.tie = tie;
    this.record = record;
    this.entry = entry;
  }
}

const NOTHING: readonly Announced[] = [];
const NO_WORDS: OpenRun['words'] = new Map();

export interface RunResult {
  failure: Failure | null;
  announced: readonly Announced[];
  record: RunRecord;
  wantsSubmit: boolean;
}

/** What made a handler run: for its title, for what supersedes what, and for printing cycles. */
export interface Trigger {
  title: string;
  part: Part | null;
  row: Row | null;
  before: RunRecord | null;
  cause: number | null;
}

export class Runs {
  readonly #state: State;
  readonly #tape: TapeWriter;
  readonly #waiting: Waiting;
  readonly promises: Promises;
  /** The run going on; scripts can touch parts only while there is one. */
  #run: Run | null = null;
  #trigger: Trigger | null = null;
  /** Between the start and the end of a script's top level. */
  topLevel = false;
  messages: Message[] = [];
  logs: LogLine[] = [];
  toParent: { set: string; to: Value }[] = [];
  /** Whether anybody will be told of changes to a rows field, which cost as much as it has rows. */
  listensToRows: (part: Part) => boolean = () => false;

  constructor(state: State, tape: TapeWriter, waiting: Waiting) {
    this.#state = state;
    this.#tape = tape;
    this.#waiting = waiting;
    this.promises = makePromises(() => this.#owner());
  }

  /** The tie that is running, or null. */
  get running(): Handler | Rule | null {
    return this.#run?.tie ?? null;
  }

  /** The number of the running entry, as the cause of what it does. */
  get cause(): number | null {
    return this.#run?.entry?.n ?? null;
  }

  get line(): number {
    return this.#run?.tie.behaviour.probe.l ?? 0;
  }

  /** A fault that also ends the run where the script catches it. */
  fault(fault: ScriptFault): never {
    if (this.#run !== null) this.#run.fault ??= fault;
    throw fault;
  }

  #demand(what: string): Run {
    if (this.#run === null) {
      throw new ScriptFault('wrong_use', this.topLevel ? words.topLevel(what) : words.outside(what));
    }
    return this.#run;
  }

  /** The run that a promise is waited for in. */
  #owner(): OpenRun {
    const run = this.#demand('a promise was made');
    if (run.tie.sort === 'rule') return this.fault(new ScriptFault('async', words.asyncRule));
    return (run.open ??= new OpenRun(run.tie, this.#trigger!.title, this.#trigger!.part, this.#trigger!.row, run.record));
  }

  /** What a script sees of an aspect. A rule's reads are what it depends on. */
  read(aspect: Aspect): Value {
    const run = this.#run ?? this.#demand(`${aspect.part.name}.${aspect.name} was read`);
    if (run.tie.sort === 'handler') return aspect.current;
    const own = run.said.get(aspect);
    if (own !== undefined) return own.value;
    const seen = aspect.below(run.tie);
    if (!run.reads.has(aspect)) run.reads.set(aspect, seen);
    return seen;
  }

  /** What a script says of an aspect; undefined takes back what it said. */
  say(aspect: Aspect, offered: unknown): void {
    const run = this.#run ?? this.#demand(`${aspect.part.name}.${aspect.name} was written`);
    const { line } = this;
    const { part } = aspect;
    if (part.row?.removed === true) this.fault(new ScriptFault('wrong_use', words.rowGone(part.name)));
    if (run.tie.sort === 'rule' && run.tie.row !== null && run.tie.row !== part.row) this.fault(new ScriptFault('wrong_use', words.notRow(part.name)));
    if (aspect.name === 'value') {
      const value = this.#guarded(() => acceptValue(this.#state, part, offered));
      if (run.tie.sort === 'rule') run.said.set(aspect, { value, line });
      else this.#writeValue(run, aspect, value, line);
      return;
    }
    const value = offered === undefined ? undefined : this.#guarded(() => acceptAspect(this.#state, aspect, offered));
    if (run.tie.sort === 'rule') {
      if (value === undefined) run.said.delete(aspect);
      else run.said.set(aspect, { value, line });
      return;
    }
    const from = aspect.current;
    const before = run.words?.get(aspect)?.before ?? aspect.handlerWord;
    this.#state.setHandlerWord(aspect, value, run.record);
    (run.words ??= new Map()).set(aspect, { before, mine: aspect.handlerWord });
    this.#effect(run, aspect, from, line, value);
  }

  #guarded<T>(read: () => T): T {
    try {
      return read();
    } catch (caught) {
      return this.fault(caught as ScriptFault);
    }
  }

  #writeValue(run: Run, aspect: Aspect, value: Value, line: number): void {
    const { rows, row } = aspect.part;
    if (rows !== null) return this.#writeRows(run, rows, value as readonly Values[], line);
    const from = aspect.base;
    if (equal(from, value)) return;
    if (row !== null) this.#rowsTouched(run, row.rows);
    run.before ??= new Map();
    if (!run.before.has(aspect)) run.before.set(aspect, from);
    this.#state.setValue(aspect, value, run.record);
    this.#effect(run, aspect, from, line);
  }

  #rowsTouched(run: Run, rows: Rows): void {
    run.rowsBefore ??= new Map();
    if (!run.rowsBefore.has(rows)) run.rowsBefore.set(rows, this.listensToRows(rows.field) ? rows.value : null);
  }

  /** Brings a rows field to a value: cells by place, rows added and removed at the end. */
  #writeRows(run: Run, rows: Rows, value: readonly Values[], line: number): void {
    value.slice(0, rows.list.length).forEach((wanted, i) => {
      const row = rows.list[i]!;
      for (const name of rows.columns.keys()) {
        if (equal(row.values[name], wanted[name])) continue;
        this.#writeValue(run, rows.cell(row, name).aspect('value'), wanted[name]!, line);
      }
    });
    for (const row of rows.list.slice(value.length)) this.#removeRow(run, row, line);
    for (const wanted of value.slice(rows.list.length)) this.#addRow(run, rows, wanted, line);
  }

  #addRow(run: Run, rows: Rows, values: Values, line: number): Row {
    this.#rowsTouched(run, rows);
    const row = rows.make(values);
    this.#state.setRows(rows, [...rows.list, row]);
    const entry = this.#tape.add(run.entry?.n ?? null, { type: 'rows', part: rows.field.name, did: 'added', row: row.id, place: row.index, by: 'script', line });
    (run.announced ??= []).push({ type: 'rowAdded', part: rows.field, row, cause: entry?.n ?? run.entry?.n ?? null });
    return row;
  }

  #removeRow(run: Run, row: Row, line: number): void {
    const { rows } = row;
    this.#rowsTouched(run, rows);
    const place = row.index;
    this.#state.setRows(rows, rows.list.filter((other) => other !== row));
    const entry = this.#tape.add(run.entry?.n ?? null, { type: 'rows', part: rows.field.name, did: 'removed', row: row.id, place, by: 'script', line });
    (run.announced ??= []).push({ type: 'rowRemoved', part: rows.field, row, cause: entry?.n ?? run.entry?.n ?? null });
  }

  /** `fields.NAME.add(values)`. */
  addRow(rows: Rows, offered: unknown): Row {
    const { line } = this.act(`fields.${rows.field.name}.add()`);
    const read = readRow(offered ?? {}, rows.field.field as FieldOf<'rows'>, this.#state.surroundings(rows.field), accept);
    if (typeof read === 'string') return this.fault(new ScriptFault('wrong_value', words.wrongArguments(`${rows.field.name}.add`, `takes the cells of a row; ${read}.`)));
    return this.#addRow(this.#run!, rows, read, line);
  }

  /** `fields.NAME.remove(row)`. */
  removeRow(rows: Rows, row: Row | null, offered: unknown): void {
    const { line } = this.act(`fields.${rows.field.name}.remove()`);
    if (row === null || row.rows !== rows || row.removed) return this.fault(new ScriptFault('wrong_use', words.noRow(rows.field.name, offered)));
    this.#removeRow(this.#run!, row, line);
  }

  /** Tapes an effect if anything came of it; a word hidden by a rule's is taped as covered. */
  #effect(run: Run, aspect: Aspect, from: Value, line: number | null, said?: Value): void {
    if (!this.#tape.on) return;
    const to = aspect.current;
    const covered = said !== undefined && !equal(said, to);
    if (equal(from, to) && !covered) return;
    const entry = this.#tape.add(run.entry!.n, {
      type: 'effect',
      part: aspect.part.name,
      sort: aspect.part.sort,
      aspect: aspect.name,
      from: forTape(from),
      to: forTape(covered ? said : to),
      by: 'script',
      line,
      ...(line === null ? { withdrawn: true as const } : {}),
      ...(covered ? { covered: true as const } : {}),
    });
    (run.effects ??= []).push(entry as EffectEntry & Entry);
  }

  /** Something a handler does that is no aspect; refused to rules. */
  act(what: string): { handler: Handler; line: number } {
    const run = this.#demand(`${what} was called`);
    if (run.tie.sort === 'rule') this.fault(new ScriptFault('wrong_use', words.notInRule(what)));
    return { handler: run.tie as Handler, line: this.line };
  }

  message(text: string, tone: Message['tone']): void {
    const run = this.#demand('form.message() was called');
    (run.messages ??= []).push({ message: { text, tone, behaviour: run.tie.behaviour.name }, line: this.line });
  }

  log(values: unknown[]): void {
    const run = this.#demand('log() was called');
    const line = { behaviour: run.tie.behaviour.name, line: this.line, values: values.map((value) => plain(value)) };
    this.logs.push(line);
    const entry = this.#tape.add(this.cause, { type: 'log', ...line, struck: false });
    if (entry !== null) (run.logs ??= []).push(entry);
  }

  wantSubmit(): void {
    this.#demand('form.submit() was called').wantsSubmit = true;
  }

  askParent(set: string, to: Value): void {
    (this.#demand('parent.set() was called').toParent ??= []).push({ set, to, line: this.line });
  }

  /** Calls something that ends later, at `due`, and gives the promise of it. */
  call(name: string, args: Value, now: number, due: number, outcome: () => Outcome): object {
    const { line } = this.act(`${name}()`);
    const open = this.#owner();
    const { promise, settle, waitedFor } = this.promises.pending();
    const entry = this.#tape.add(this.cause, { type: 'call', name, args, due: Number.isFinite(due) ? due : null, line });
    this.#waiting.add({
      name,
      args,
      run: open,
      due,
      since: now,
      entry: entry?.n ?? null,
      outcome,
      settle: (came) => {
        if (came.ok) settle({ ok: true, value: came.value });
        else {
          const error = new ServiceError(name, came.reason);
          // A failure that nobody waits for is a failure of the run.
          if (!waitedFor()) open.ready(() => this.#throwIn(error));
          settle({ ok: false, reason: error });
        }
      },
    });
    return promise;
  }

  #throwIn(error: Error): never {
    throw error;
  }

  /** Runs a handler with its event, or a rule, and says what came of it. */
  run(tie: Handler | Rule, argument: unknown, trigger: Trigger): RunResult {
    const because = trigger.row !== null && trigger.part === null ? trigger.row.part.name : (trigger.part?.name ?? null);
    const record: RunRecord = { behaviour: tie.behaviour.title, line: tie.line, tie, because, before: trigger.before };
    const run = new Run(tie, record, this.#openEntry(tie, trigger.title, trigger.cause));
    this.#trigger = trigger;
    return this.#stretch(run, () => {
      const result = (tie.run as (argument: unknown) => unknown)(argument);
      const waits = this.promises.isPromise(result);
      if (tie.sort === 'rule') {
        if (waits || (typeof result === 'object' && result !== null && 'then' in result)) this.fault(new ScriptFault('async', words.asyncRule));
        return;
      }
      if (waits) this.#owner().main = result;
    });
  }

  /** Goes on with an open run after something it waited for has ended. */
  resume(open: OpenRun, call: Call, came: Outcome, cause: number | null): RunResult {
    const { handler, record } = open;
    const run = new Run(handler, record, this.#openEntry(handler, open.title, cause));
    run.open = open;
    this.#trigger = { title: open.title, part: open.part, row: open.row, before: record.before, cause };
    return this.#stretch(run, () => call.settle(came));
  }

  /** A handler starts again while an earlier run of it is open: the earlier one is not resumed (semantics 22). */
  supersede(open: OpenRun, why: 'started again' | 'another record', cause: number | null): void {
    this.#waiting.end(open, 'superseded');
    const { behaviour, line } = open.handler;
    const entry = this.#tape.add(cause, { type: 'superseded', behaviour: behaviour.name, title: open.title, line, why });
    for (const [aspect, { before, mine }] of open.words) {
      if (aspect.handlerWord !== mine) continue;
      const from = aspect.current;
      this.#state.putHandlerWord(aspect, before, open.record);
      if (entry === null || equal(from, aspect.current)) continue;
      this.#tape.add(entry.n, {
        type: 'effect', part: aspect.part.name, sort: aspect.part.sort, aspect: aspect.name,
        from: forTape(from), to: forTape(aspect.current), by: 'form', line: null, withdrawn: true,
      });
    }
  }

  /** One atomic stretch: from the start or a wait to the next wait or the end. */
  #stretch(run: Run, begin: () => void): RunResult {
    const { tie } = run;
    const mark = this.#state.mark();
    tie.behaviour.probe.begin(tie.line, this.#tape.on);
    this.#run = run;
    let failure: Failure | null = null;
    let announced = NOTHING;
    try {
      begin();
      this.#drain(run);
      if (run.fault !== null) throw run.fault;
      const main = run.open?.main ?? null;
      const settled = main === null ? null : this.promises.settled(main);
      if (settled?.ok === false) throw settled.reason;
      announced = tie.sort === 'rule' ? this.#settleRule(run, tie) : this.#gather(run);
    } catch (caught) {
      this.#state.rollBack(mark);
      announced = NOTHING;
      failure = this.#fail(run, caught);
    } finally {
      this.#run = null;
      this.#trigger = null;
    }
    this.#leave(run, failure);
    this.#closeEntry(run, failure);
    return { failure, announced, record: run.record, wantsSubmit: failure === null && run.wantsSubmit };
  }

  /** What is ready goes on at once: an `await` of something that has ended does not end the stretch. */
  #drain(run: Run): void {
    for (let job = run.open?.jobs.shift(); job !== undefined; job = run.open!.jobs.shift()) job();
  }

  #leave(run: Run, failure: Failure | null): void {
    const { open } = run;
    if (failure === null) this.#deliver(run);
    if (open === null) return;
    if (failure !== null) return this.#waiting.end(open, 'failed');
    for (const [aspect, word] of run.words ?? NO_WORDS) open.words.set(aspect, { before: open.words.get(aspect)?.before ?? word.before, mine: word.mine });
    const ended = (open.main === null || this.promises.settled(open.main) !== null) && open.calls.size === 0;
    if (ended) this.#waiting.end(open, 'ended');
    else this.#waiting.runs.add(open);
  }

  #deliver(run: Run): void {
    for (const { message, line } of run.messages ?? []) {
      this.messages.push(message);
      this.#tape.add(run.entry?.n ?? null, { type: 'message', line, ...message });
    }
    for (const { set, to, line } of run.toParent ?? []) {
      this.toParent.push({ set, to });
      this.#tape.add(run.entry?.n ?? null, { type: 'toParent', set, to: forTape(to), line });
    }
  }

  #gather(run: Run): readonly Announced[] {
    if (run.before === null && run.rowsBefore === null && run.announced === null) return NOTHING;
    const announced: Announced[] = [];
    for (const [aspect, previous] of run.before ?? []) {
      const { base: value, part } = aspect;
      if (part.row?.removed !== true && !equal(previous, value)) announced.push({ type: 'change', part, value, previous, cause: this.#lastEffectOn(run, part) });
    }
    announced.push(...(run.announced ?? []));
    for (const [rows, previous] of run.rowsBefore ?? []) {
      if (this.listensToRows(rows.field)) announced.push(...rowsChanged(rows, previous, run.entry?.n ?? null));
    }
    return announced;
  }

  #lastEffectOn(run: Run, part: Part): number | null {
    const effect = run.effects?.findLast((entry) => entry.part === part.name && entry.aspect === 'value');
    return effect?.n ?? run.entry?.n ?? null;
  }

  /** Replaces all the rule's previous run said by what this one says (semantics 18). */
  #settleRule(run: Run, rule: Rule): readonly Announced[] {
    const { words: old, reads } = rule;
    this.#state.undoable(() => {
      rule.words = old;
      this.#remember(rule, reads);
    });
    rule.words = run.said;
    for (const aspect of old.keys()) {
      if (!run.said.has(aspect)) this.#withdraw(run, rule, aspect);
    }
    for (const [aspect, word] of run.said) {
      // Most runs say again what the last one said.
      const standing = old.get(aspect);
      if (standing !== undefined && equal(standing.value, word.value) && (!aspect.sticks || equal(aspect.current, word.value))) continue;
      const from = aspect.current;
      this.#state.setRuleWord(aspect, rule, word, run.record);
      if (aspect.sticks) this.#applyValueWord(run, aspect, word);
      else this.#effect(run, aspect, from, word.line, word.value);
      this.#noteConflict(run, aspect);
    }
    this.#remember(rule, run.reads);
    // A rule's own writes never set it off: it counts as having seen them.
    for (const aspect of run.said.keys()) {
      if (aspect.sticks && run.reads.has(aspect)) run.reads.set(aspect, aspect.current);
    }
    if (run.rowsBefore !== null) this.#seeOwnRows(run, run.rowsBefore);
    return this.#gather(run);
  }

  /** Sums and values of rows that the rule read and itself moved count as seen too. */
  #seeOwnRows(run: Run, moved: ReadonlyMap<Rows, Value>): void {
    for (const aspect of run.reads.keys()) {
      const { rows } = aspect.part;
      if (aspect.derive !== null && rows !== null && moved.has(rows)) run.reads.set(aspect, aspect.current);
    }
  }

  #withdraw(run: Run, rule: Rule, aspect: Aspect): void {
    const from = aspect.current;
    this.#state.setRuleWord(aspect, rule, null, run.record);
    if (!aspect.sticks) {
      this.#effect(run, aspect, from, null);
      return;
    }
    // The value stays, unless a rule that was covered until now says it differently.
    const next = aspect.ruleWords[aspect.ruleWords.length - 1];
    if (next !== undefined) this.#applyValueWord(run, aspect, next);
  }

  #applyValueWord(run: Run, aspect: Aspect, word: { value: Value; line: number }): void {
    const winner = aspect.ruleWords[aspect.ruleWords.length - 1]!;
    if (aspect.part.row?.removed === true || !equal(winner.value, word.value)) return;
    this.#writeValue(run, aspect, word.value, word.line);
  }

  #noteConflict(run: Run, aspect: Aspect): void {
    const { ruleWords } = aspect;
    if (!this.#tape.on || ruleWords.length < 2) return;
    const winner = ruleWords[ruleWords.length - 1]!;
    if (ruleWords.every((word) => equal(word.value, winner.value))) return;
    this.#tape.add(run.entry!.n, {
      type: 'conflict',
      part: aspect.part.name,
      aspect: aspect.name,
      between: ruleWords.map((word) => word.rule.title),
      wins: winner.rule.title,
    });
  }

  /** Makes the rule depend on what it read. */
  #remember(rule: Rule, reads: Map<Aspect, Value> | null): void {
    if (rule.reads !== null && reads !== null && sameKeys(rule.reads, reads)) {
      rule.reads = reads;
      return;
    }
    for (const aspect of rule.reads?.keys() ?? []) aspect.readers?.delete(rule);
    rule.reads = reads;
    for (const aspect of reads?.keys() ?? []) aspect.readBy(rule);
  }

  #fail(run: Run, caught: unknown): Failure {
    const { tie } = run;
    const { probe } = tie.behaviour;
    const cause = run.fault ?? caught;
    const marked = probe.thrownByScript !== null && probe.thrownByScript.value === cause;
    const { code, says } = readFailure(cause, marked, probe.deepest);
    // What the failed run read counts as read; what its last good run said stands.
    if (tie.sort === 'rule') {
      const { reads } = tie;
      this.#state.undoable(() => this.#remember(tie, reads));
      this.#remember(tie, run.reads);
    }
    return { code, says, behaviour: tie.behaviour.name, line: probe.l };
  }

  #openEntry(tie: Handler | Rule, title: string, cause: number | null): (RunEntry & Entry) | null {
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

  #closeEntry(run: Run, failure: Failure | null): void {
    const { entry, tie, open } = run;
    if (entry === null) return;
    const { probe } = tie.behaviour;
    entry.fuel = probe.used;
    entry.reads = [...run.reads].map(([aspect, value]) => ({ part: aspect.part.name, aspect: aspect.name, value: forTape(value) }));
    entry.lines = [...(probe.hits ?? [])].sort((a, b) => a[0] - b[0]);
    entry.values = probe.values;
    entry.cut = probe.cut;
    if (open?.state === 'open' && this.#waiting.runs.has(open)) entry.outcome = 'open';
    if (failure === null) return;
    entry.outcome = 'failed';
    for (const effect of run.effects ?? []) effect.struck = true;
    for (const log of run.logs ?? []) (log as { struck: boolean }).struck = true;
    this.#tape.add(entry.n, { type: 'error', failure });
  }
}

/** The change of a rows field as a whole, if it differs from before. */
export function rowsChanged(rows: Rows, previous: Value, cause: number | null): Announced[] {
  const { value, field: part } = rows;
  return equal(previous, value) ? [] : [{ type: 'change', part, value, previous, cause }];
}

function sameKeys(a: ReadonlyMap<Aspect, Value>, b: ReadonlyMap<Aspect, Value>): boolean {
  if (a.size !== b.size) return false;
  for (const key of a.keys()) if (!b.has(key)) return false;
  return true;
}

/** More rows than this are told by their number. */
const MOST_TAPED = 20;

/** Options are told by their keys on the tape, long lists by how long they are. */
export function forTape(value: Value): Value {
  if (!Array.isArray(value)) return value;
  const isRows = value.length > MOST_TAPED && typeof value[0] === 'object';
  if (isRows && !('key' in (value[0] as object))) return inWords(value);
  return value.map((item: Value) =>
    typeof item === 'object' && item !== null && !Array.isArray(item) && 'key' in item && 'label' in item ? (item as { key: Value }).key : item,
  );
}
