/**
 * Where scripts ask: reading and saying aspects, and everything else they can do. Each question names the part it is
 * about; whoever carries it here (`sandbox/`) has looked the part up.
 */
import type { FieldOf } from '../form/definition';
import { ROWS_PER_FIELD } from '../limits';
import { accept, readRow } from '../form/kinds';
import type { Value } from '../form/value';
import { ScriptError, words } from '../wire/failures';
import type { Clock } from './clock';
import type { CurrentRun } from './current-run';
import type { AspectName } from './aspects';
import type { Defaults } from './defaults';
import type { Observer } from './observer';
import type { Pages } from './pages';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Opened } from './opened';
import type { Row } from './rows';
import type { Services } from './services';
import type { Situation } from './situation';
import type { State } from './state';
import type { Ties } from './ties';
import type { Tied } from './tie';
import type { Stopping } from './stopping';
import type { Parts } from './tree';
import type { Writing } from './writing';
import type { Line } from '../wire/line';
import { emptyOf, holdsKeys, isList, textOf } from '../form/traits';

export class Desk {
  constructor(
    private readonly state: State,
    readonly run: CurrentRun,
    private readonly writing: Writing,
    private readonly services: Services,
    private readonly clock: Clock,
    private readonly defaults: Defaults,
    private readonly situation: Situation,
    private readonly ties: Ties,
    private readonly pages: Pages,
    private readonly progress: Progress,
    private readonly opened: Opened,
    private readonly stopping: Stopping,
    private readonly observer: Observer | null,
  ) {}

  get parts(): Parts {
    return this.state.parts;
  }

  /** A row of reference data. */
  tableRow(table: string, key: string): object | null {
    return this.state.offers.row(table, key);
  }

  get now(): number {
    return this.clock.now;
  }

  random(): number {
    this.run.mayDraw();
    if (this.run.isAsking) return this.run.fault(new ScriptError('wrong_use', words.askingOnly));
    const number = this.clock.random();
    this.run.asks('random', number);
    return number;
  }

  read(part: Part, name: AspectName): Value {
    return this.run.read(part.aspects[name] ?? part.aspect(name));
  }

  say(part: Part, name: AspectName, offered: unknown, line: Line): void {
    this.run.say(part.aspects[name] ?? part.aspect(name), offered, line);
  }

  /** Whether a part, and all it stands in, is shown. Each is a read of its own. */
  onScreen(part: Part): boolean {
    for (let p: Part | null = part; p !== null; p = p.parent)
      if (p.has('shown') && this.read(p, 'shown') !== true) return false;
    return true;
  }

  editable(part: Part): boolean {
    for (let p: Part | null = part; p !== null; p = p.parent)
      if (p.has('locked') && this.read(p, 'locked') !== false) return false;
    return !part.scriptOnly;
  }

  previous(part: Part): Value {
    this.read(part, 'value');
    this.run.notesAsked(`previous ${part.name}`);
    return this.state.previous.get(part) ?? null;
  }

  initial(part: Part): Value {
    this.read(part, 'value');
    this.run.notesAsked(`initial ${part.name}`);
    return this.state.initialOf(part);
  }

  orphan(part: Part): boolean {
    this.read(part, 'value');
    return this.state.orphans.has(part);
  }

  options(part: Part): Value {
    return (this.state.offers.optionsOf(part.field, this.read(part, 'options')) ??
      NO_OPTIONS) as Value;
  }

  optionLabel(part: Part): Value {
    const value = this.read(part, 'value');
    const set = this.read(part, 'options');
    const { field } = part;
    const around = {
      options: set as never,
      table: (name: string) => this.state.offers.table(name),
    };
    if (!holdsKeys(field) || value === null) return null;
    return isList(field)
      ? (value as readonly string[]).map((key) => textOf([key], field, around))
      : textOf(value, field, around);
  }

  /** The rows of a field in order; a rule depends on which there are. */
  rows(part: Part): readonly Row[] {
    this.run.read(part.rows!.order);
    return part.rows!.list;
  }

  count(part: Part): Value {
    return this.run.read(part.rows!.count);
  }

  sum(part: Part, column: string): Value {
    return this.run.read(part.rows!.sum(column));
  }

  index(row: Row): number {
    this.run.read(row.rows.order);
    return row.index;
  }

  /** How the form was opened, which stays as it is. */
  standing(what: 'isNew' | 'record' | 'person' | 'launch' | 'viewing'): Value {
    this.run.demand(`form.${what} was read`);
    const { opening, isNew, record, viewing } = this.situation;
    const standing: Record<typeof what, unknown> = {
      isNew,
      record,
      person: opening.person,
      launch: opening.launch,
      viewing,
    };
    this.run.asks(what, standing[what]);
    return standing[what] as Value;
  }

  get zone(): string {
    return this.clock.zone;
  }

  /** `fields.NAME.add(values)`: a new row begins with the defaults of its cells, and what is given instead. */
  addRow(part: Part, given: unknown, line: Line): Row {
    const rows = part.rows!;
    const run = this.run.act(`fields.${part.name}.add()`);
    if (rows.list.length >= ROWS_PER_FIELD)
      this.#wrong('wrong_use', words.tooManyRows(part.name, ROWS_PER_FIELD));
    const values =
      typeof given === 'object' || given === undefined
        ? {
            ...this.defaults.ofCells([...rows.columns.values()].map(({ field }) => field)),
            ...defined(given),
          }
        : given;
    const read = readRow(
      values,
      part.field as FieldOf<'rows'>,
      this.state.offers.surroundings(part),
      accept,
    );
    if (typeof read === 'string')
      return this.#wrong(
        'wrong_value',
        words.wrongArguments(`${part.name}.add`, `takes the cells of a row; ${read}.`),
      );
    return this.writing.addRow(run.writes, rows, read, line);
  }

  /** `fields.NAME.remove(row)`. */
  removeRow(part: Part, row: Row, line: Line): void {
    const run = this.run.act(`fields.${part.name}.remove()`);
    if (row.rows !== part.rows || row.removed) this.#wrong('wrong_use', words.noRow(part.name, {}));
    this.writing.removeRow(run.writes, row, line);
  }

  /** `services.NAME.FUNCTION(args)`. The number of the call. */
  callService(service: string, called: string, offered: unknown, line: Line): number {
    this.run.act(`services.${service}.${called}()`);
    const asked = this.run.guarded(() => this.services.ask(service, called, offered));
    const { now } = this.clock;
    return this.run.call(asked.name, asked.args, now, now + asked.delay, line, asked.outcome);
  }

  after(milliseconds: number, line: Line): number {
    const { now } = this.clock;
    return this.run.call('after', milliseconds, now, now + milliseconds, line, () => ({
      ok: true,
      value: undefined,
    }));
  }

  get hasParent(): boolean {
    this.run.demand('parent was read');
    return this.situation.opening.parent != null;
  }

  parentValue(name: string): Value {
    this.run.demand('parent.get() was called');
    const { form, fields, values } = this.situation.opening.parent!;
    if (!fields.some((field) => field.name === name))
      return this.#wrong('wrong_use', words.noParentField(name, form));
    const value = Object.hasOwn(values, name) ? values[name]! : null;
    this.run.asks(`parent.${name}`, value);
    return value;
  }

  /** `parent.set(name, value)`. The number of the call. */
  setInParent(name: string, offered: Value, line: Line): number {
    this.run.act('parent.set()');
    const { form, fields } = this.situation.opening.parent!;
    const field = fields.find((one) => one.name === name);
    const { now } = this.clock;
    const refuse = (reason: string) =>
      this.run.call('parent.set', name, now, now, line, () => ({ ok: false, reason }));
    if (field === undefined) return refuse(words.noParentField(name, form));
    let value = offered;
    // What a reference or rows take is known to the parent's session alone.
    if (field.kind !== 'rows' && field.kind !== 'reference') {
      const accepted = accept(offered, field, {
        options: null,
        table: (table) => this.state.offers.table(table),
      });
      if (!accepted.ok) return refuse(`${field.label} takes ${accepted.takes}`);
      ({ value } = accepted);
    }
    this.run.askParent(field.name, value, line);
    return this.run.call('parent.set', field.name, now, now, line, () => ({
      ok: true,
      value: undefined,
    }));
  }

  /** `form.clear()`: all fields to their defaults; rules hold again at once. */
  clear(line: Line): void {
    const { writes } = this.run.act('form.clear()');
    for (const part of this.state.parts.fields)
      this.writing.value(writes, part.aspect('value'), this.defaults.of(part.field), line);
    this.#holdAgain();
  }

  /** `form.reset()`: back to what stood when the opening had settled, prefills included. */
  reset(line: Line): void {
    const { writes } = this.run.act('form.reset()');
    for (const part of this.state.parts.fields)
      this.writing.value(
        writes,
        part.aspect('value'),
        this.opened.valueOf(part) ?? emptyOf(part.field),
        line,
      );
    this.#holdAgain();
  }

  #holdAgain(): void {
    for (const rule of this.ties.all()) {
      if (rule.sort === 'invariant') continue;
      const { state } = rule;
      rule.state = 'forced';
      this.state.outdated.add(rule);
      // It keeps its turn, at which it is asked whether anything differs.
      this.progress.journal.undoable(() => {
        rule.state = state === 'rests' ? 'stirred' : state;
      });
    }
  }

  submit(): void {
    this.run.act('form.submit()');
    if (this.situation.submitting) this.#wrong('wrong_use', words.submitInSubmit);
    this.run.wantSubmit();
  }

  openPage(page: Part, line: Line): void {
    const { entry } = this.run.act(`pages.${page.name}.open()`);
    this.pages.turnTo(page, entry?.n ?? null, line);
  }

  /** Stops the event of this number, with a message on a part. */
  stop(event: number, says: string, part: Part | null): void {
    const { noted } = this.run.demand('event.stop() was called');
    if (!this.stopping.stop(event, says, part, noted ?? NOTHING_READ))
      this.#wrong('wrong_use', words.stopTooLate);
    this.observer?.stopped(part, says);
  }

  /** Ties may be made at the top level and while a record is loaded. */
  tie(tied: Tied): void {
    this.#mayTie(
      tied.is === 'handler'
        ? `on.${tied.event}`
        : `${tied.sort === 'rule' ? 'keep' : 'always'}${tied.rows === null ? '' : '.each'}`,
    );
    this.ties.add(tied, true);
  }

  untie(number: number): void {
    this.ties.untie(number);
  }

  #mayTie(call: string): void {
    const { handler } = this.run.demand(`${call} was called`);
    if (handler?.event !== 'load') this.#wrong('wrong_use', words.tieInside(call));
  }

  #wrong(code: 'wrong_use' | 'wrong_value', says: string): never {
    return this.run.fault(new ScriptError(code, says));
  }
}

const NO_OPTIONS: readonly never[] = Object.freeze([]);
const NOTHING_READ: ReadonlySet<Part> = new Set();

/** Without what is undefined, which is as good as not given. */
function defined(given: unknown): object {
  return Object.fromEntries(
    Object.entries((given ?? {}) as object).filter(([, value]) => value !== undefined),
  );
}
