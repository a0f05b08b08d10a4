/** All that is tied to a form at present. Ties made and undone in a step that is taken back are put back with it. */
import type { EventType } from '../wire/layout';
import { inOrder, keepMap, type Restore } from './checkpoint';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Row, Rows } from './rows';
import type { State } from './state';
import { NOTHING_CLAIMED, ruleOf, type Handler, type MadeRule, type Rule, type Tied } from './tie';

/** What an event is tied by: its type and the part, for cells the column. */
export function keyOf(type: EventType, part: Part | null): string {
  if (part === null) return type;
  return part.row === null || part.sort === 'row'
    ? `${type}:${part.name}`
    : columnKey(type, part.row.rows.field.name, part.field.name);
}

export function columnKey(type: EventType, rows: string, column: string): string {
  return `${type}:${rows}.${column}`;
}

type Ordered = Pick<Handler | Rule, 'order'>;

const byOrder = (a: Ordered, b: Ordered) => a.order - b.order;

/** A list with one more at its place; most come last. Whoever goes through the former one goes on with that. */
function withOne<T extends Ordered>(list: readonly T[], one: T): readonly T[] {
  const last = list.at(-1);
  return last === undefined || last.order <= one.order
    ? [...list, one]
    : [...list, one].sort(byOrder);
}

function handlerOf({ is, ...tied }: Extract<Tied, { is: 'handler' }>): Handler {
  return { sort: is, ...tied, rowRuns: null, step: 0, runs: 0 };
}

export class Ties {
  #handlers = new Map<string, readonly Handler[]>();
  #rules: readonly Rule[] = [];
  /** Made while a record was loaded, so they end with that record. */
  #ofRecord = new Set<number>();

  constructor(
    private readonly state: State,
    private readonly progress: Progress,
    tied: readonly Tied[],
    /** Whether invariants count. They are for developers; where people fill in a form, none runs. */
    private readonly invariants: boolean,
  ) {
    // All at once: one by one, each would make a list of its own.
    const handlers = new Map<string, Handler[]>();
    const rules: Rule[] = [];
    for (const one of tied) {
      if (one.is === 'rule') this.#addRule(one, (rule) => rules.push(rule));
      else {
        const handler = handlerOf(one);
        for (const key of new Set(one.keys))
          handlers
            .set(key, handlers.get(key) ?? [])
            .get(key)!
            .push(handler);
      }
    }
    for (const [key, list] of handlers) this.#handlers.set(key, list.sort(byOrder));
    this.#rules = rules.sort(byOrder);
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
    const { journal } = this.progress;
    if (ofRecord) {
      this.#ofRecord.add(tied.number);
      journal.undoable(() => this.#ofRecord.delete(tied.number));
    }
    if (tied.is === 'handler') {
      const handler = handlerOf(tied);
      for (const key of new Set(tied.keys)) this.#tie(key, handler);
      return;
    }
    this.#addRule(tied, (rule) => {
      this.#rules = withOne(this.#rules, rule);
      journal.undoable(() => {
        this.#rules = this.#rules.filter((one) => one !== rule);
        this.state.outdated.delete(rule);
      });
    });
  }

  /** A rule for each row goes to the rows it is for, any other to `put`. */
  #addRule(made: Extract<Tied, { is: 'rule' }>, put: (rule: Rule) => void): void {
    if (made.sort === 'invariant' && !this.invariants) return;
    if (made.rows !== null)
      return this.#addEach(this.state.parts.byName.get(made.rows)!.rows!, made);
    const rule = ruleOf(made, null);
    this.state.outdated.add(rule);
    put(rule);
  }

  #addEach(rows: Rows, made: MadeRule): void {
    const added = { rows, made };
    rows.each = [...rows.each, added];
    for (const row of rows.list) this.#addTo(row, made);
    this.progress.journal.undoable(() => {
      rows.each = rows.each.filter((one) => one !== added);
    });
  }

  #addTo(row: Row, made: MadeRule): void {
    const rule = ruleOf(made, row);
    row.rules = [...row.rules, rule];
    this.state.outdated.add(rule);
    this.progress.journal.undoable(() => {
      row.rules = row.rules.filter((one) => one !== rule);
      this.state.outdated.delete(rule);
    });
  }

  /** Unties the handler of this number, if there is one. */
  untie(number: number): void {
    for (const [key, list] of this.#handlers) {
      const handler = list.find((one) => one.number === number);
      if (handler !== undefined) this.#untie(key, handler);
    }
  }

  // Undoing keeps no list as it was: thousands tied in one step would hold as many lists.
  #tie(key: string, handler: Handler, undoing = false): void {
    this.#handlers.set(key, withOne(this.#handlers.get(key) ?? [], handler));
    if (!undoing) this.progress.journal.undoable(() => this.#untie(key, handler, true));
  }

  #untie(key: string, handler: Handler, undoing = false): void {
    const left = this.#handlers.get(key)!.filter((one) => one !== handler);
    if (left.length === 0) this.#handlers.delete(key);
    else this.#handlers.set(key, left);
    if (!undoing) this.progress.journal.undoable(() => this.#tie(key, handler, true));
  }

  /** Another record is opened: what was tied while the former one was loaded ends with it, rules forget what they saw. */
  leaveRecord(): void {
    const ended = this.#ofRecord;
    this.#ofRecord = new Set();
    for (const [key, list] of this.#handlers) {
      for (const handler of list) {
        handler.rowRuns = null;
        if (ended.has(handler.number)) this.#untie(key, handler);
      }
    }
    this.#rules = this.#rules.filter(({ number }) => !ended.has(number));
    for (const rule of this.#rules) {
      rule.claims = NOTHING_CLAIMED;
      rule.reads = null;
      rule.state = 'new';
      rule.last = null;
    }
    for (const rows of this.#rowsFields())
      rows.each = rows.each.filter(({ made }) => !ended.has(made.number));
  }

  /** Between steps no rule waits for its turn. */
  checkpoint(): Restore {
    const handlers = keepMap(this.#handlers);
    const ofRecord = [...this.#ofRecord];
    const rules = this.#rules;
    const each = inOrder(
      [...this.all()].map((rule) => {
        const { claims, reads, last, state } = rule;
        return () => {
          Object.assign(rule, { claims, reads, last, state, ticket: 0 });
        };
      }),
    );
    return () => {
      handlers();
      this.#ofRecord = new Set(ofRecord);
      this.#rules = rules;
      each();
    };
  }

  #rowsFields(): Rows[] {
    return this.state.parts.fields.flatMap(({ rows }) => (rows === null ? [] : [rows]));
  }

  /** The names, columns as `rows.column`, at which anybody listens to this. */
  namesOf(type: EventType, names: readonly string[]): string[] {
    return names.filter((name) => this.#handlers.has(`${type}:${name}`));
  }
}
