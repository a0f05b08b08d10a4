/**
 * Running one handler or rule, atomically (semantics 16, 18, 19): what it reads and writes goes through here, and when
 * it fails everything it did is undone. What runs when is `settling.ts`.
 */
import { equal, type Value } from '../form/value';
import { accept } from '../form/kinds';
import type { Option } from '../form/definition';
import type { EffectEntry, Entry, RunEntry } from './entries';
import { readFailure, ScriptFault, words, type Failure } from './errors';
import type { Aspect, Part, RunRecord } from './parts';
import { plain } from './plain';
import type { State } from './state';
import type { LogLine, Message } from './step';
import type { TapeWriter } from './tape-writer';
import type { Handler, Rule } from './ties';

/** A value change that a run made, to be announced when the run is over. */
export interface ValueChange {
  part: Part;
  value: Value;
  previous: Value;
  cause: number | null;
}

/** What is remembered of a run while it lasts. */
class Run {
  readonly tie: Handler | Rule;
  readonly record: RunRecord;
  readonly entry: (RunEntry & Entry) | null;
  /** A rule's words, gathered and put in place together at its end. */
  readonly said = new Map<Aspect, { value: Value; line: number }>();
  readonly reads = new Map<Aspect, Value>();
  /** Values a handler wrote, with what stood before the run. */
  readonly before = new Map<Aspect, Value>();
  readonly effects: (EffectEntry & Entry)[] = [];
  readonly logs: Entry[] = [];
  readonly messages: { message: Message; line: number }[] = [];
  wantsSubmit = false;
  /** A wrong use stays a failure even where the script catches it (edges 3). */
  fault: ScriptFault | null = null;

  constructor(tie: Handler | Rule, record: RunRecord, entry: (RunEntry & Entry) | null) {
    this.tie = tie;
    this.record = record;
    this.entry = entry;
  }
}

export interface RunResult {
  failure: Failure | null;
  changes: ValueChange[];
  record: RunRecord;
  wantsSubmit: boolean;
}

export class Runs {
  readonly #state: State;
  readonly #tape: TapeWriter;
  /** The run going on; scripts can touch parts only while there is one. */
  #run: Run | null = null;
  /** Between the start and the end of a script's top level. */
  topLevel = false;
  messages: Message[] = [];
  logs: LogLine[] = [];

  constructor(state: State, tape: TapeWriter) {
    this.#state = state;
    this.#tape = tape;
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
    if (aspect.name === 'value') {
      const value = this.#acceptValue(aspect.part, offered);
      if (run.tie.sort === 'rule') run.said.set(aspect, { value, line });
      else this.#writeValue(run, aspect, value, line);
      return;
    }
    const value = offered === undefined ? undefined : this.#acceptAspect(aspect, offered);
    if (run.tie.sort === 'rule') {
      if (value === undefined) run.said.delete(aspect);
      else run.said.set(aspect, { value, line });
      return;
    }
    const from = aspect.current;
    this.#state.setHandlerWord(aspect, value, run.record);
    this.#effect(run, aspect, from, line, value);
  }

  #writeValue(run: Run, aspect: Aspect, value: Value, line: number): void {
    const from = aspect.base;
    if (equal(from, value)) return;
    if (!run.before.has(aspect)) run.before.set(aspect, from);
    this.#state.setValue(aspect, value, run.record);
    this.#effect(run, aspect, from, line);
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
    run.effects.push(entry as EffectEntry & Entry);
  }

  #acceptValue(part: Part, offered: unknown): Value {
    const { field } = part;
    const accepted = accept(offered, field, this.#state.surroundings(part));
    if (accepted.ok) return accepted.value;
    return this.fault(new ScriptFault('wrong_value', words.wrongValue(part.name, field.kind, accepted.takes, offered, accepted.help)));
  }

  #acceptAspect(aspect: Aspect, offered: unknown): Value {
    const wrong = (takes: string): never =>
      this.fault(new ScriptFault('wrong_value', words.wrongAspect(aspect.part.name, aspect.name, takes, offered)));
    switch (aspect.name) {
      case 'shown':
      case 'locked':
      case 'required':
        return typeof offered === 'boolean' ? offered : wrong('true or false');
      case 'hint':
      case 'problem':
      case 'replaced':
        if (offered === null || offered === '') return null;
        return typeof offered === 'string' ? offered : wrong('a text or null');
      case 'label':
        return typeof offered === 'string' && offered !== '' ? offered : wrong('a text');
      case 'options':
        return this.#acceptOptions(aspect.part, offered, wrong) as unknown as Value;
      default:
        return plain(offered);
    }
  }

  /** Options are given as keys, as key and label, or as rows of a table. */
  #acceptOptions(part: Part, offered: unknown, wrong: (takes: string) => never): readonly Option[] {
    const { field } = part;
    if (field.kind !== 'choice' && field.kind !== 'reference') return wrong('nothing: only choices and references have options');
    if (!Array.isArray(offered)) return wrong('a list of options or rows, or undefined to take it back');
    const known = this.#state.optionsOf(part, null)!;
    const table = field.kind === 'reference' ? this.#state.table(field.table) : null;
    const seen = new Set<string>();
    const options: Option[] = [];
    for (const item of offered as unknown[]) {
      const option = this.#readOption(item, known);
      if (option === null) return wrong('keys, { key, label } or rows of a table');
      if (table !== null && table.find(option.key) === null) return wrong(`keys of table ${table.table.name}, and "${option.key}" is none`);
      if (!seen.has(option.key)) options.push(option);
      seen.add(option.key);
    }
    return Object.freeze(options);
  }

  #readOption(item: unknown, known: readonly Option[]): Option | null {
    if (typeof item === 'string') return known.find((option) => option.key === item) ?? Object.freeze({ key: item, label: item });
    if (typeof item !== 'object' || item === null) return null;
    const { key, label } = item as { key?: unknown; label?: unknown };
    for (const table of this.#state.tables.values()) {
      const row = table.find(String((item as Record<string, unknown>)[table.table.key]));
      if (row === item) return table.optionOf(row);
    }
    if (typeof key !== 'string') return null;
    return Object.freeze({ key, label: typeof label === 'string' ? label : (known.find((o) => o.key === key)?.label ?? key) });
  }

  /** Something a handler does that is no aspect; refused to rules. */
  act(what: string): { handler: Handler; line: number } {
    const run = this.#demand(`${what} was called`);
    if (run.tie.sort === 'rule') this.fault(new ScriptFault('wrong_use', words.notInRule(what)));
    return { handler: run.tie as Handler, line: this.line };
  }

  message(text: string, tone: Message['tone']): void {
    const run = this.#demand('form.message() was called');
    run.messages.push({ message: { text, tone, behaviour: run.tie.behaviour.name }, line: this.line });
  }

  log(values: unknown[]): void {
    const run = this.#demand('log() was called');
    const line = { behaviour: run.tie.behaviour.name, line: this.line, values: values.map((value) => plain(value)) };
    this.logs.push(line);
    const entry = this.#tape.add(this.cause, { type: 'log', ...line, struck: false });
    if (entry !== null) run.logs.push(entry);
  }

  wantSubmit(): void {
    this.#demand('form.submit() was called').wantsSubmit = true;
  }

  /** Runs a handler with its event, or a rule, and says what came of it. */
  run(tie: Handler | Rule, event: unknown, title: string, because: string | null, before: RunRecord | null, cause: number | null): RunResult {
    const { probe } = tie.behaviour;
    const record: RunRecord = { behaviour: tie.behaviour.title, line: tie.line, tie, because, before };
    const run = new Run(tie, record, this.#openEntry(tie, title, cause));
    const mark = this.#state.mark();
    probe.begin(tie.line, this.#tape.on);
    this.#run = run;
    let failure: Failure | null = null;
    const changes: ValueChange[] = [];
    try {
      const result = tie.sort === 'handler' ? tie.run(event) : tie.run();
      if (run.fault !== null) throw run.fault;
      if (typeof (result as { then?: unknown } | undefined | null)?.then === 'function') {
        probe.l = tie.line;
        throw new ScriptFault('async', words.async);
      }
      if (tie.sort === 'rule') this.#settleRule(run, tie, changes);
      else this.#gatherChanges(run, changes);
    } catch (caught) {
      this.#state.rollBack(mark);
      changes.length = 0;
      failure = this.#fail(run, caught);
    } finally {
      this.#run = null;
    }
    if (failure === null) this.#deliver(run);
    this.#closeEntry(run, failure);
    return { failure, changes, record, wantsSubmit: failure === null && run.wantsSubmit };
  }

  #deliver(run: Run): void {
    for (const { message, line } of run.messages) {
      this.messages.push(message);
      this.#tape.add(run.entry?.n ?? null, { type: 'message', line, ...message });
    }
  }

  #gatherChanges(run: Run, changes: ValueChange[]): void {
    for (const [aspect, previous] of run.before) {
      const { base: value, part } = aspect;
      if (!equal(previous, value)) changes.push({ part, value, previous, cause: this.#lastEffectOn(run, part) });
    }
  }

  #lastEffectOn(run: Run, part: Part): number | null {
    const effect = run.effects.findLast((entry) => entry.part === part.name && entry.aspect === 'value');
    return effect?.n ?? run.entry?.n ?? null;
  }

  /** Replaces all the rule's previous run said by what this one says (semantics 18). */
  #settleRule(run: Run, rule: Rule, changes: ValueChange[]): void {
    const { words: old, reads } = rule;
    this.#state.undoable(() => {
      rule.words = old;
      this.#remember(rule, reads);
    });
    rule.words = run.said;
    for (const aspect of old.keys()) {
      if (!run.said.has(aspect)) this.#withdraw(run, rule, aspect, changes);
    }
    for (const [aspect, word] of run.said) {
      // Most runs say again what the last one said.
      const standing = old.get(aspect);
      if (standing !== undefined && equal(standing.value, word.value) && (!aspect.sticks || equal(aspect.base, word.value))) continue;
      const from = aspect.current;
      this.#state.setRuleWord(aspect, rule, word, run.record);
      if (aspect.sticks) this.#applyValueWord(run, aspect, word, changes);
      else this.#effect(run, aspect, from, word.line, word.value);
      this.#noteConflict(run, aspect);
    }
    this.#remember(rule, run.reads);
    // A rule's own writes never set it off: it counts as having seen them.
    for (const aspect of run.said.keys()) {
      if (aspect.sticks && run.reads.has(aspect)) run.reads.set(aspect, aspect.base);
    }
  }

  #withdraw(run: Run, rule: Rule, aspect: Aspect, changes: ValueChange[]): void {
    const from = aspect.current;
    this.#state.setRuleWord(aspect, rule, null, run.record);
    if (!aspect.sticks) {
      this.#effect(run, aspect, from, null);
      return;
    }
    // The value stays, unless a rule that was covered until now says it differently.
    const next = aspect.ruleWords[aspect.ruleWords.length - 1];
    if (next !== undefined) this.#applyValueWord(run, aspect, next, changes);
  }

  #applyValueWord(run: Run, aspect: Aspect, word: { value: Value; line: number }, changes: ValueChange[]): void {
    const winner = aspect.ruleWords[aspect.ruleWords.length - 1]!;
    const previous = aspect.base;
    if (!equal(winner.value, word.value)) return;
    if (equal(previous, word.value)) return;
    this.#state.setValue(aspect, word.value, run.record);
    this.#effect(run, aspect, previous, word.line);
    changes.push({ part: aspect.part, value: word.value, previous, cause: this.#lastEffectOn(run, aspect.part) });
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
    for (const aspect of rule.reads?.keys() ?? []) aspect.readers.delete(rule);
    rule.reads = reads;
    for (const aspect of reads?.keys() ?? []) aspect.readers.add(rule);
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
    const { entry, tie } = run;
    if (entry === null) return;
    const { probe } = tie.behaviour;
    entry.fuel = probe.used;
    entry.reads = [...run.reads].map(([aspect, value]) => ({ part: aspect.part.name, aspect: aspect.name, value: forTape(value) }));
    entry.lines = [...(probe.hits ?? [])].sort((a, b) => a[0] - b[0]);
    entry.values = probe.values;
    entry.cut = probe.cut;
    if (failure === null) return;
    entry.outcome = 'failed';
    for (const effect of run.effects) effect.struck = true;
    for (const log of run.logs) (log as { struck: boolean }).struck = true;
    this.#tape.add(entry.n, { type: 'error', failure });
  }
}

function sameKeys(a: ReadonlyMap<Aspect, Value>, b: ReadonlyMap<Aspect, Value>): boolean {
  if (a.size !== b.size) return false;
  for (const key of a.keys()) if (!b.has(key)) return false;
  return true;
}

/** Options are told by their keys on the tape. */
export function forTape(value: Value): Value {
  if (!Array.isArray(value)) return value;
  return value.map((item: Value) =>
    typeof item === 'object' && item !== null && !Array.isArray(item) && 'key' in item ? (item as { key: Value }).key : item,
  );
}
