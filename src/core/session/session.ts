/**
 * A form in use, from opening to closing: takes steps, settles, answers. One session opens once; a host that wants
 * another opening makes a new session or puts its machine back to the moment before (see `sandbox/`).
 *
 * The stations of a step are accept (`#accept…`: may a person do this), write, settle (`settling.ts`) and answer
 * (`telling.ts`). Time passes only here (`#passTime`), and what becomes due on the way goes on.
 */
import { MOST_ROWS, type FieldOf, type Form } from '../form/definition';
import { accept, readRow } from '../form/kinds';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import { deepFreeze, equal, type Value, type Values } from '../form/value';
import { check, outgoing, setFault, valuesOf, wrongWith, type Found } from './checking';
import { Clock } from './clock';
import { defaultOf } from './defaults';
import { words, type Failure } from './errors';
import { makeFaces, type Faces } from './faces';
import { Loader, type Machine } from './loading';
import type { Part } from './parts';
import { Runs } from './runs';
import { Services } from './services';
import { Settling, type Event } from './settling';
import { State } from './state';
import type { Answer, Opening, Step, SubmitOutcome, TimedStep } from './step';
import { TapeWriter } from './tape-writer';
import { tell } from './telling';
import type { CompiledScript } from './ties';
import { partAt } from './tree';
import { eventFor } from './tying';
import { Waiting } from './waiting';

export interface Material {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  /** The compiled scripts of services, named `service.function`. */
  answering: readonly CompiledScript[];
  scripts: readonly CompiledScript[];
  traced: boolean;
}

/** How long a submission or a turn of pages waits for open runs, on the session's clock. */
const MOST_WAITED = 30_000;

export class Session {
  readonly #state: State;
  readonly #tape: TapeWriter;
  readonly #waiting = new Waiting();
  readonly #runs: Runs;
  readonly #settling: Settling;
  readonly #clock = new Clock();
  readonly #services: Services;
  readonly #faces: Faces;
  readonly #checkPages: boolean;
  /** Failures of scripts' top levels: those behaviours are out for good. */
  readonly #out: Failure[] = [];
  #opening: Opening | null = null;
  #isNew = true;
  #recordId: string | null = null;
  #page: Part | null = null;
  #focused: Part | null = null;
  /** What is typed and not yet committed. */
  #typing: { part: Part; value: Value } | null = null;
  #submitting = false;
  #outcome: SubmitOutcome | null = null;

  constructor(material: Material, machine: Machine) {
    const { form } = material;
    this.#state = new State(form, material.tables);
    this.#tape = new TapeWriter(material.traced);
    this.#runs = new Runs(this.#state, this.#tape, this.#waiting);
    const loader = new Loader(machine, this.#state, this.#runs, this.#clock);
    this.#services = new Services(material.services, this.#state, loader.answering(material.answering));
    this.#settling = new Settling(this.#state, this.#runs, this.#tape, this.#waiting, form.settings?.runLimit ?? 100, {
      eventFor: (event) => eventFor(event, this.#faces, this.#runs),
      rowFace: (row) => this.#faces.rowFace(row),
      defaultOf: (part) => this.#defaultOf(part),
    });
    this.#runs.listensToRows = (part) => this.#settling.listens('change', part);
    this.#checkPages = form.settings?.checkPages ?? true;
    this.#faces = makeFaces(this.#state, this.#runs, this.#services, this.#clock, {
      opening: () => this.#opening!,
      isNew: () => this.#isNew,
      record: () => this.#recordId,
      submitting: () => this.#submitting,
      defaultOf: (part) => this.#defaultOf(part),
      openPage: (page, cause, line) => this.#turnTo(page, cause, line),
    });
    material.scripts.forEach((script, index) => {
      const failure = loader.load(script, index, this.#settling, this.#faces);
      if (failure !== null) this.#out.push(failure);
    });
  }

  /** Which events anybody listens to, so that a live form sends no steps in vain; columns as `rows.column`. */
  listensTo(): { input: string[]; focus: string[]; blur: string[] } {
    const names = this.#state.parts.fields.flatMap((part) => [part.name, ...[...(part.rows?.columns.keys() ?? [])].map((column) => `${part.name}.${column}`)]);
    const of = (type: 'input' | 'focus' | 'blur') => names.filter((name) => this.#settling.handlers.has(`${type}:${name}`));
    return { input: of('input'), focus: of('focus'), blur: of('blur') };
  }

  /** Opens the form: base and record, `load` handlers, rules. To be called once. */
  open(opening: Opening): Answer {
    if (this.#opening !== null) throw new Error('a session opens once');
    this.#opening = deepFreeze(opening);
    this.#clock.now = opening.clock;
    this.#clock.seed(opening.seed);
    this.#services.moods = opening.services ?? {};
    this.#openRecord(opening.record);
    return this.#answer(null);
  }

  #openRecord(record: Opening['record']): void {
    this.#isNew = record === null;
    this.#recordId = record?.id ?? null;
    const opening = this.#opening!;
    if (opening.viewing === true) {
      this.#state.parts.form.aspect('locked').base = true;
      this.#state.parts.nesting.version++;
    }
    for (const part of this.#state.parts.fields) {
      this.#state.begin(part, record === null ? this.#defaultOf(part) : (record.values[part.name] ?? null));
    }
    this.#state.rebase();
    for (const part of this.#state.parts.byName.values()) this.#state.touch(part);
    this.#touchUnoffered();
    const entry = this.#tape.add(null, {
      type: 'opened',
      record: this.#recordId,
      person: opening.person.key,
      clock: this.#clock.now!,
      values: valuesOf(this.#state),
    });
    const cause = entry?.n ?? null;
    for (const failure of this.#out) this.#tape.add(cause, { type: 'error', failure });
    this.#settling.errors.push(...this.#out);
    this.#settling.begin(true);
    this.#settling.push({ ...ofForm('load', cause), by: 'form' });
    this.#settling.settle(cause);
    this.#page = this.#state.parts.pages.find((page) => page.onScreen) ?? null;
    this.#afterSteps();
  }

  /** Keys in rows that are not offered have to be marked or dropped, though nobody has touched their cells. */
  #touchUnoffered(): void {
    for (const { rows } of this.#state.parts.fields) {
      if (rows === null) continue;
      for (const [name, { field }] of rows.columns) {
        if (field.kind !== 'choice' && field.kind !== 'choices' && field.kind !== 'reference') continue;
        const around = { options: null, table: (table: string) => this.#state.table(table) };
        for (const row of rows.list) if (!accept(row.values[name], field, around).ok) this.#state.touch(rows.cell(row, name));
      }
    }
  }

  #defaultOf(part: Part): Value {
    return defaultOf(part.field, this.#opening!.person, this.#clock.now!);
  }

  /** Does one step of a person's, settles, and says what came of it. */
  do(step: TimedStep): Answer {
    if (this.#opening === null) throw new Error('the form is not open');
    const { at, ...bare } = step;
    if (at !== undefined) this.#passTime(this.#opening.clock + at, null);
    this.#outcome = null;
    const refused = this.#step(bare as Step, 'person');
    this.#afterSteps();
    return this.#answer(refused);
  }

  /** What scripts asked to follow as steps of their own. */
  #afterSteps(): void {
    for (let i = 0; this.#settling.submitWanted && i < 10; i++) {
      this.#settling.submitWanted = false;
      this.#step({ submit: true }, 'script');
    }
  }

  #step(step: Step, by: 'person' | 'script'): string | null {
    this.#settling.begin(false);
    const entry = this.#tape.add(null, { type: 'step', step, clock: this.#clock.now!, by });
    const cause = entry?.n ?? null;
    const why = this.#begin(step, cause);
    if (why !== null) {
      this.#tape.add(cause, { type: 'refused', why });
      // What was typed before is committed all the same.
      this.#settling.settle(cause);
      return why;
    }
    this.#settling.settle(cause);
    this.#keepPage(cause);
    return null;
  }

  /** Lets the clock move on; what becomes due on the way goes on in order, each as a settling of its own. */
  #passTime(until: number, cause: number | null): void {
    for (let call = this.#waiting.next(until); call !== null; call = this.#waiting.next(until)) {
      this.#clock.now = Math.max(this.#clock.now!, call.due);
      this.#settling.begin(false);
      this.#settling.resume(call, cause);
      this.#settling.settle(cause);
      this.#keepPage(cause);
    }
    this.#clock.now = Math.max(this.#clock.now!, until);
  }

  /** Waits until no run is open. What it waited for in vain, or null when all have ended. */
  #waitOut(cause: number | null): string | null {
    const until = this.#clock.now! + MOST_WAITED;
    while (this.#waiting.runs.size > 0) {
      const call = this.#waiting.next(until);
      if (call === null) return words.waitedTooLong([...new Set(this.#waiting.calls.map(({ name }) => name))].join(' and '));
      this.#passTime(call.due, cause);
    }
    return null;
  }

  /** Accepts a step and sets off what it does; or says why a person cannot do it. */
  #begin(step: Step, cause: number | null): string | null {
    if ('set' in step) return this.#acceptSet(step.set, step.to, cause);
    if ('input' in step) return this.#acceptInput(step.input, step.to, cause);
    if ('focus' in step) return this.#acceptFocus(step.focus, cause);
    if ('blur' in step) return this.#acceptBlur(step.blur, cause);
    this.#commitTyping(cause);
    if ('click' in step) return this.#acceptClick(step.click, cause);
    if ('wait' in step) {
      this.#settling.settle(cause);
      this.#passTime(this.#clock.now! + Math.max(0, step.wait), cause);
      return null;
    }
    if ('turnTo' in step) return this.#acceptTurn(step.turnTo, cause);
    if ('addRow' in step) return this.#acceptAddRow(step.addRow, isList(step.with) ? step.with : [step.with ?? {}], cause);
    if ('removeRow' in step) return this.#acceptRemoveRow(step.removeRow, cause);
    if ('moveRow' in step) return this.#acceptMoveRow(step.moveRow, step.to, cause);
    if ('next' in step) return this.#acceptTurnRecord(1, cause);
    if ('previous' in step) return this.#acceptTurnRecord(-1, cause);
    if ('answer' in step) return this.#acceptAnswer(step, cause);
    if ('fromChild' in step) return this.#acceptFromChild(step.fromChild, step.to, cause);
    if (this.#opening!.viewing === true) return 'this record is only being viewed';
    this.#submit(cause);
    return null;
  }

  #reachable(name: string, sort: 'field' | 'button' | 'row'): Part | string {
    const part = partAt(this.#state.parts, name);
    if (part === null || part.sort !== sort) return `there is no ${sort} "${name}"`;
    if (!part.onScreen) return `${part.label} is hidden`;
    if (!part.editable) return this.#opening!.viewing === true ? 'this record is only being viewed' : `${part.label} is locked`;
    return part;
  }

  #offer(part: Part, offered: Value): { value: Value } | string {
    const accepted = accept(offered, part.field, this.#state.surroundings(part));
    if (part.rows !== null) return `the rows of ${part.label} are added, removed and filled in one by one`;
    const current = part.value;
    if (!accepted.ok) return equal(offered, current) ? { value: current } : `${part.label} takes ${accepted.takes}`;
    if (!this.#state.isOffered(part, accepted.value) && !equal(accepted.value, current)) {
      return `${this.#state.notOffered(part, accepted.value).map((key) => JSON.stringify(key)).join(', ')} is not among the options of ${part.label}`;
    }
    return { value: accepted.value };
  }

  #acceptSet(name: string, offered: Value, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.address !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const offer = this.#offer(part, offered);
    if (typeof offer === 'string') return offer;
    this.#typing = null;
    this.#moveFocus(part, cause);
    this.#fire('input', part, offer.value, cause);
    this.#commit(part, offer.value, cause);
    this.#fire('blur', part, offer.value, cause);
    this.#focused = null;
    return null;
  }

  #acceptInput(name: string, offered: Value, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.address !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const offer = this.#offer(part, offered);
    if (typeof offer === 'string') return offer;
    this.#moveFocus(part, cause);
    this.#typing = { part, value: offer.value };
    this.#fire('input', part, offer.value, cause);
    return null;
  }

  #acceptFocus(name: string, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.address !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    // A locked field can be visited, if not changed.
    if (typeof part === 'string' && partAt(this.#state.parts, name)?.onScreen !== true) return part;
    this.#moveFocus(partAt(this.#state.parts, name)!, cause);
    return null;
  }

  #acceptBlur(name: string, cause: number | null): string | null {
    const part = partAt(this.#state.parts, name);
    if (part === null || part.sort !== 'field') return `there is no field "${name}"`;
    this.#commitTyping(cause);
    if (this.#focused === part) {
      this.#fire('blur', part, part.value, cause);
      this.#focused = null;
    }
    return null;
  }

  #acceptClick(name: string, cause: number | null): string | null {
    const part = this.#reachable(name, 'button');
    if (typeof part === 'string') return part;
    const busy = [...this.#waiting.runs].some((run) => run.part === part && run.handler.overlap === 'supersede');
    if (busy) return `${part.label} is busy until what it began has ended`;
    this.#fire('click', part, null, cause);
    return null;
  }

  #moveFocus(part: Part, cause: number | null): void {
    const before = this.#focused;
    if (before === part) return;
    if (before !== null) this.#fire('blur', before, before.value, cause);
    this.#focused = part;
    this.#fire('focus', part, part.value, cause);
  }

  #fire(type: 'input' | 'focus' | 'blur' | 'click', part: Part, value: Value, cause: number | null): void {
    // Most fields have nobody listening for these.
    if (!this.#settling.listens(type, part)) return;
    const previous = type === 'click' ? null : type === 'blur' ? value : part.value;
    this.#settling.push({ type, part, row: part.row, value, previous, by: 'person', from: null, cause });
  }

  /** Writes what a person entered when its turn in the queue comes. */
  #commit(part: Part, value: Value, cause: number | null): void {
    this.#settling.push(() => {
      const aspect = part.aspect('value');
      // A handler may have removed the row meanwhile.
      if (part.row?.removed === true || equal(aspect.base, value)) return;
      this.#settling.entered(() => this.#state.setValue(aspect, value, null));
      this.#settling.write(part, value, 'person', cause);
    });
  }

  #commitTyping(cause: number | null): void {
    const typing = this.#typing;
    if (typing === null) return;
    this.#typing = null;
    if (typing.part.row?.removed !== true) this.#commit(typing.part, typing.value, cause);
    if (this.#focused === typing.part) {
      this.#fire('blur', typing.part, typing.value, cause);
      this.#focused = null;
    }
  }

  #acceptAddRow(name: string, given: readonly Values[], cause: number | null): string | null {
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const { rows, field } = part;
    if (rows === null) return `${part.label} has no rows`;
    const { maxRows } = field as FieldOf<'rows'>;
    if (rows.list.length + given.length > (maxRows ?? MOST_ROWS)) return `${part.label} takes at most ${maxRows ?? MOST_ROWS} rows`;
    const defaults: Values = Object.fromEntries([...rows.columns].map(([column, { field: cell }]) => [column, defaultOf(cell, this.#opening!.person, this.#clock.now!)]));
    const read: Values[] = [];
    for (const row of given) {
      const values = readRow({ ...defaults, ...row }, field as FieldOf<'rows'>, this.#state.surroundings(part), accept);
      if (typeof values === 'string') return `${part.label} takes rows of its own cells; ${values}`;
      read.push(values);
    }
    this.#settling.push(() => {
      const added = read.map((values) => rows.make(values));
      this.#settling.entered(() => this.#state.setRows(rows, [...rows.list, ...added]));
      this.#settling.arrange(part, [...rows.list, ...added], added, 'added', 'person', cause);
    });
    return null;
  }

  #acceptRemoveRow(name: string, cause: number | null): string | null {
    const part = this.#reachable(name, 'row');
    if (typeof part === 'string') return part;
    const { rows } = part.row!;
    const without = () => rows.list.filter((row) => row !== part.row);
    this.#settling.push(() => {
      this.#settling.entered(() => this.#state.setRows(rows, without()));
      this.#settling.arrange(rows.field, without(), [part.row!], 'removed', 'person', cause);
    });
    return null;
  }

  #acceptMoveRow(name: string, to: number, cause: number | null): string | null {
    const part = this.#reachable(name, 'row');
    if (typeof part === 'string') return part;
    const row = part.row!;
    const { rows } = row;
    if (to >= rows.list.length) return `${rows.field.label} has ${rows.list.length} rows, so none can be moved to place ${to}`;
    this.#settling.push(() => {
      const list = rows.list.filter((other) => other !== row);
      list.splice(to, 0, row);
      this.#settling.entered(() => this.#state.setRows(rows, list));
      if (row.index !== to) this.#settling.arrange(rows.field, list, [row], 'moved', 'person', cause);
    });
    return null;
  }

  /** Opens the next or the previous record: `load` fires for it, and nothing of the former one stays. */
  #acceptTurnRecord(by: 1 | -1, cause: number | null): string | null {
    const records = this.#opening!.records ?? [];
    const at = records.findIndex((record) => record.id === this.#recordId);
    const to = at < 0 ? undefined : records[at + by];
    if (to === undefined) return by > 0 ? 'there is no next record' : 'there is no previous record';
    for (const run of this.#waiting.runs) this.#runs.supersede(run, 'another record', cause);
    this.#settling.leaveRecord();
    this.#state.reset();
    this.#focused = null;
    this.#typing = null;
    this.#openRecord(to);
    return null;
  }

  /** Somebody answers the oldest call of a service in its place. */
  #acceptAnswer(step: Extract<Step, { answer: string }>, cause: number | null): string | null {
    if (!this.#settling.settle(cause)) return null;
    const call = this.#waiting.oldest(step.answer);
    if (call === null) return `nothing waits for ${step.answer}`;
    call.due = Infinity;
    this.#passTime(this.#clock.now! + (step.after ?? 0), cause);
    // What was let through meanwhile may have superseded the run that waits.
    if (!this.#waiting.calls.includes(call)) return null;
    call.due = this.#clock.now!;
    const answer = step.with ?? null;
    const came = step.fails === undefined ? { ok: true as const, value: deepFreeze(answer) } : { ok: false as const, reason: step.fails };
    this.#settling.begin(false);
    this.#settling.resume(call, cause, came);
    return null;
  }

  /** A form that was opened from this one sets a value here, as a script would. */
  #acceptFromChild(name: string, offered: Value, cause: number | null): string | null {
    const part = partAt(this.#state.parts, name);
    if (part === null || part.sort !== 'field' || part.rows !== null) return `there is no field "${name}"`;
    const accepted = accept(offered, part.field, this.#state.surroundings(part));
    if (!accepted.ok) return `${part.label} takes ${accepted.takes}`;
    this.#settling.push(() => {
      if (equal(part.value, accepted.value)) return;
      this.#settling.write(part, accepted.value, 'script', cause);
    });
    return null;
  }

  /** An event that handlers may stop; who stops it is told to `stopped`. */
  #pushStoppable(type: 'pageChange' | 'submit', cause: number | null, extra: Record<string, unknown>, stopped: (says: string, part: Part | null) => void): void {
    this.#settling.push({ ...ofForm(type, cause), by: 'person', extra, stop: stopped });
  }

  #acceptTurn(name: string, cause: number | null): string | null {
    const { pages } = this.#state.parts;
    const to = this.#state.parts.byName.get(name);
    if (to === undefined || to.sort !== 'page') return `there is no page "${name}"`;
    if (!to.onScreen) return `${to.label} is hidden`;
    const from = this.#page;
    if (from === to || from === null) return null;
    const forward = pages.indexOf(to) > pages.indexOf(from);
    if (!this.#settling.settle(cause)) return null;
    if (forward && this.#checkPages && this.#check(cause, from).length > 0) return null;
    let stopped = false;
    this.#pushStoppable('pageChange', cause, { from: from.name, to: to.name }, (says, part) => {
      stopped = true;
      if (part?.sort === 'field') setFault(this.#state, part, says, true);
      else this.#runs.messages.push({ text: says, tone: 'error', behaviour: '' });
    });
    if (!this.#settling.settle(cause)) return null;
    const inVain = this.#waitOut(cause);
    if (inVain !== null) this.#runs.messages.push({ text: inVain, tone: 'error', behaviour: '' });
    else if (!stopped) this.#turnTo(to, cause, null);
    return null;
  }

  #turnTo(page: Part, cause: number | null, line: number | null): void {
    const from = this.#page;
    if (from === page) return;
    this.#state.undoable(() => (this.#page = from));
    this.#page = page;
    this.#tape.add(cause, { type: 'page', from: from?.name ?? null, to: page.name, line });
  }

  /** The page one is on has been hidden: the form turns to the nearest shown one (edges 8). */
  #keepPage(cause: number | null): void {
    if (this.#page?.onScreen) return;
    const { pages } = this.#state.parts;
    const at = this.#page === null ? 0 : pages.indexOf(this.#page);
    const shown = pages.filter((page) => page.onScreen);
    const distance = (page: Part) => Math.abs(pages.indexOf(page) - at);
    const nearest = shown.sort((a, b) => distance(a) - distance(b))[0] ?? null;
    if (nearest === this.#page) return;
    this.#tape.add(cause, { type: 'page', from: this.#page?.name ?? null, to: nearest?.name ?? null, line: null });
    this.#page = nearest;
  }

  #check(cause: number | null, page: Part | null): Found[] {
    const found = check(this.#state, page);
    this.#tape.add(cause, { type: 'checked', faults: found });
    return found;
  }

  #submit(cause: number | null): void {
    const stops: SubmitOutcome['stops'] = [];
    const finish = (saved: boolean) => {
      this.#outcome = { saved, stoppedBy: stops[0]?.part ?? null, stops, id: saved ? this.#recordId : null, ...outgoing(this.#state) };
      this.#tape.add(cause, { type: 'outcome', ...this.#outcome });
    };
    const noRest = { part: null, says: 'The behaviours of this form came to no rest.' };
    const waited = (): boolean => {
      const inVain = this.#waitOut(cause);
      if (inVain !== null) stops.push({ part: null, says: inVain });
      return inVain === null;
    };
    if (!this.#settling.settle(cause)) {
      stops.push(noRest);
      return finish(false);
    }
    if (!waited()) return finish(false);
    for (const part of this.#state.faults.keys()) this.#state.touch(part);
    this.#state.faults.clear();
    for (const part of this.#state.parts.fields) this.#state.touch(part);
    const found = this.#check(cause, null);
    if (found.length > 0) {
      stops.push(...found);
      return finish(false);
    }
    this.#submitting = true;
    const before = valuesOf(this.#state);
    this.#pushStoppable('submit', cause, {}, (says, part) => {
      stops.push({ part: part?.address ?? null, says });
      if (part?.sort === 'field') setFault(this.#state, part, says, true);
    });
    if (!this.#settling.settle(cause)) stops.push(noRest);
    waited();
    this.#submitting = false;
    if (stops.length > 0) return finish(false);
    if (!equal(before, valuesOf(this.#state))) {
      stops.push(...this.#check(cause, null));
      if (stops.length > 0) return finish(false);
    }
    this.#recordId ??= this.#opening!.newId;
    finish(true);
    this.#state.rebase();
    this.#settling.push({ ...ofForm('saved', cause), by: 'form', extra: { id: this.#recordId } });
    this.#settling.settle(cause);
    this.#isNew = false;
  }

  #answer(refused: string | null): Answer {
    // The field that was mended loses its fault; others keep theirs until the next check.
    for (const [part, fault] of this.#state.faults) {
      const mended = !fault.byScript && this.#outcome === null && this.#state.touched.has(part) && wrongWith(this.#state, part) === null;
      if (mended) this.#state.faults.delete(part);
    }
    const { form } = this.#state.parts;
    const answer: Answer = {
      refused,
      ...tell(this.#state),
      record: this.#recordId,
      clock: this.#clock.now!,
      waiting: [...this.#waiting.runs].map((run) => ({
        behaviour: run.handler.behaviour.name,
        line: run.handler.line,
        part: run.part?.name ?? null,
        calls: [...run.calls].map(({ name, args, since, due }) => ({ name, args, since, due: Number.isFinite(due) ? due : null })),
      })),
      toParent: this.#runs.toParent,
      page: this.#page?.name ?? null,
      replaced: form.now('replaced') as string | null,
      notice: form.now('message') as Answer['notice'],
      messages: this.#runs.messages,
      log: this.#runs.logs,
      errors: this.#settling.errors,
      failing: [...this.#out, ...this.#settling.failing.values()],
      submit: this.#outcome,
      changed: this.#state.changed,
      tape: this.#tape.take(),
    };
    this.#runs.messages = [];
    this.#runs.logs = [];
    this.#runs.toParent = [];
    this.#settling.errors = [];
    return answer;
  }
}

function isList(given: Values | Values[] | undefined): given is Values[] {
  return Array.isArray(given);
}

/** An event of the form as a whole. */
function ofForm(type: Event['type'], cause: number | null): Omit<Event, 'by'> {
  return { type, part: null, row: null, value: null, previous: null, from: null, cause };
}
