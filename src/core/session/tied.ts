/** All that is tied to a form at present. Ties made and undone in a step that is taken back are put back with it. */
import type { EventType } from '../wire/layout';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Row, Rows } from './rows';
import type { State } from './state';
import { NOTHING_SAID, ruleOf, type Handler, type MadeRule, type Rule, type Tied } from './ties';

/** What an event is tied by: its type and the part, for cells the column. */
export function keyOf(type: EventType, part: Part | null): string {
  if (part === null) return type;
  return part.row === null || part.sort === 'row' ? `${type}:${part.name}` : columnKey(type, part.row.rows.field.name, part.field.name);
}

export function columnKey(type: EventType, rows: string, column: string): string {
  return `${type}:${rows}.${column}`;
}

export class Ties {
  readonly #state: State;
  readonly #progress: Progress;
  #handlers = new Map<string, readonly Handler[]>();
  #rules: readonly Rule[] = [];
  /** Made while a record was loaded, so they end with that record (edges 14). */
  #ofRecord = new Set<number>();

  constructor(state: State, progress: Progress, tied: readonly Tied[]) {
    this.#state = state;
    this.#progress = progress;
    for (const one of tied) this.add(one, false);
  }

  listens(type: EventType, part: Part | null): boolean {
    return this.#handlers.size > 0 && this.#handlers.has(keyOf(type, part));
  }

  /** The handlers of an event, in the order in which they run. */
  handlers(type: EventType, part: Part | null): readonly Handler[] | null {
    return this.#handlers.get(keyOf(type, part)) ?? null;
  }

  /** The rules that are for no row. */
  get rules(): readonly Rule[] {
    return this.#rules;
  }

  /** All rules, those for each row too. */
  *all(): Iterable<Rule> {
    yield* this.#rules;
    for (const rows of this.#rowsFields()) for (const row of rows.list) yield* row.rules;
  }

  add(tied: Tied, ofRecord: boolean): void {
    const { journal } = this.#progress;
    if (ofRecord) {
      this.#ofRecord.add(tied.number);
      journal.undoable(() => this.#ofRecord.delete(tied.number));
    }
    if (tied.is === 'handler') {
      const { number, behaviour, event, keys, overlap, line, order } = tied;
      const handler: Handler = { sort: 'handler', number, behaviour, event, keys, overlap, line, order, rowRuns: null, step: 0, runs: 0 };
      for (const key of new Set(keys)) this.#setHandlers(key, [...(this.#handlers.get(key) ?? []), handler].sort((a, b) => a.order - b.order));
      return;
    }
    const made: MadeRule = tied;
    if (tied.rows !== null) return this.#addEach(this.#state.parts.byName.get(tied.rows)!.rows!, made);
    const rule = ruleOf(made, null);
    const before = this.#rules;
    this.#rules = [...before, rule].sort((a, b) => a.order - b.order);
    this.#state.stirred.add(rule);
    journal.undoable(() => {
      this.#rules = before;
      this.#state.stirred.delete(rule);
    });
  }

  #addEach(rows: Rows, made: MadeRule): void {
    const { each } = rows;
    rows.each = [...each, { rows, made }];
    for (const row of rows.list) this.#addTo(row, made);
    this.#progress.journal.undoable(() => {
      rows.each = each;
    });
  }

  #addTo(row: Row, made: MadeRule): void {
    const { rules } = row;
    const rule = ruleOf(made, row);
    row.rules = [...rules, rule];
    this.#state.stirred.add(rule);
    this.#progress.journal.undoable(() => {
      row.rules = rules;
      this.#state.stirred.delete(rule);
    });
  }

  /** Unties the handler of this number, if there is one. */
  untie(number: number): void {
    for (const [key, list] of this.#handlers) {
      if (list.some((handler) => handler.number === number)) this.#setHandlers(key, list.filter((handler) => handler.number !== number));
    }
  }

  #setHandlers(key: string, list: readonly Handler[]): void {
    const before = this.#handlers.get(key);
    if (list.length === 0) this.#handlers.delete(key);
    else this.#handlers.set(key, list);
    this.#progress.journal.undoable(() => {
      if (before === undefined) this.#handlers.delete(key);
      else this.#handlers.set(key, before);
    });
  }

  /** Another record is opened: what was tied while the former one was loaded ends with it, rules forget what they saw. */
  leaveRecord(): void {
    const ended = this.#ofRecord;
    this.#ofRecord = new Set();
    for (const [key, list] of this.#handlers) {
      for (const handler of list) handler.rowRuns = null;
      if (list.some(({ number }) => ended.has(number))) this.#setHandlers(key, list.filter(({ number }) => !ended.has(number)));
    }
    this.#rules = this.#rules.filter(({ number }) => !ended.has(number));
    for (const rule of this.#rules) {
      rule.words = NOTHING_SAID;
      rule.reads = null;
      rule.state = 'new';
      rule.last = null;
    }
    for (const rows of this.#rowsFields()) rows.each = rows.each.filter(({ made }) => !ended.has(made.number));
  }

  #rowsFields(): Rows[] {
    return this.#state.parts.fields.flatMap(({ rows }) => (rows === null ? [] : [rows]));
  }

  /** The names, columns as `rows.column`, at which anybody listens to this. */
  namesOf(type: EventType, names: readonly string[]): string[] {
    return names.filter((name) => this.#handlers.has(`${type}:${name}`));
  }
}
