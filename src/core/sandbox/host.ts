/**
 * The scripts of a form in a machine, as a session runs them: hands over what a run is given, carries what scripts ask
 * to the session's desk and the answers back, and tells how the run ended. Whatever the machine says meanwhile is looked
 * up; what is untrue is refused, and nothing is ever thrown through the machine.
 */
import { deepFreeze, type Value } from '../form/value';
import type { Desk } from '../session/desk';
import type { Part } from '../session/parts';
import type { Ended, Given, Scripts } from '../session/scripts';
import type { Loaded, Material } from '../session/session';
import type { CompiledScript, Tied } from '../session/ties';
import { partsOf } from '../session/tree';
import type { PartInfo, Surroundings } from '../wire/acts';
import { ScriptFault, words, type Failure } from '../wire/failures';
import { BY, Came, Cell, Double, Given as GivenCell, Op } from '../wire/layout';
import { deskDoers, isTying, readAct, tyingDoers, type Tying } from './acts';
import { calledAspect, readAspect, sayAspect } from './asking-aspects';
import { OutOfRoom, type Entry, type Machine } from './machine';
import { Numbers } from './numbers';
import type { FindRow } from './strange';
import { Trace } from './trace';
import { HostWire, Loose, Untrue } from './wire';

/** What the machine tells while somebody looks for the script that got stuck. */
export type Tell = (behaviour: string, line: number) => void;

type DeskDoers = ReturnType<typeof deskDoers> & ReturnType<typeof tyingDoers>;

/** Orders of one behaviour's ties stand below those of the next. */
const TIES_PER_BEHAVIOUR = 100_000;

const NOTHING: readonly string[] = [];

/** A form that is open: its desk, and the numbers of its parts. */
interface Open {
  desk: Desk;
  numbers: Numbers;
  doers: DeskDoers;
}

export class Host implements Scripts {
  readonly #machine: Machine;
  readonly #wire: HostWire;
  readonly #trace: Trace;
  readonly #tell: Tell | null;
  #material: Material | null = null;
  /** The behaviour of each tie, by the tie's number; later ties of the same session follow. */
  #behaviours: number[] = [];
  #loadedTies = 0;
  #orders = 0;
  #open: Open | null = null;
  /** The names and ties of the top levels, while they are evaluated. */
  #loading: { parts: Numbers; doers: ReturnType<typeof tyingDoers> } | null = null;
  /** The behaviour that runs. */
  #running = 0;
  /** The behaviours of runs that wait. */
  readonly #waits = new Map<number, number>();
  /** Something thrown while the machine stood between the two ends. */
  #mistake: { caught: unknown } | null = null;
  readonly #findRow: FindRow = (table, key) => this.#open?.desk.tableRow(table, key) ?? null;

  constructor(machine: Machine, tell: Tell | null) {
    this.#machine = machine;
    this.#wire = new HostWire(machine);
    this.#trace = new Trace(this.#wire);
    this.#tell = tell;
    machine.answerWith(() => this.#answer());
  }

  /** Evaluates the behaviours' top levels in a machine that is as it booted; from here every opening starts. */
  load(material: Material, watched: boolean): Loaded {
    this.#wire.reset();
    this.#open = null;
    this.#material = material;
    this.#behaviours = [];
    this.#orders = 0;
    const { cells, floats } = this.#machine;
    cells[Cell.Watched] = watched ? 1 : 0;
    floats[Double.Clock] = NaN;
    const parts = partsOf(material.form);
    const numbers = new Numbers(parts);
    let tied: Tied[] = [];
    const tying: Tying = {
      tie: (one) => void tied.push(one),
      untie: (number) => void (tied = tied.filter((one) => one.number !== number)),
      behaviour: () => this.#behaviour(),
      nextOrder: () => this.#nextOrder(),
    };
    this.#loading = { parts: numbers, doers: tyingDoers(numbers, tying) };
    this.#hand('surround', JSON.stringify(surroundingsOf(material)));
    const failures: Failure[] = [];
    material.scripts.forEach((script, index) => {
      const before = [...tied];
      const failure = this.#loadBehaviour(script, index);
      if (failure === null) return;
      tied = before;
      failures.push({ ...failure, behaviour: script.name });
    });
    material.answering.forEach((script, index) => {
      this.#running = material.scripts.length + index;
      if (script.code !== null) this.#hand('loadService', script.code, this.#running);
    });
    this.#loading = null;
    this.#loadedTies = this.#behaviours.length;
    this.#wire.setBase();
    return { tied, failures };
  }

  #loadBehaviour(script: CompiledScript, index: number): Omit<Failure, 'behaviour'> | null {
    if (script.code === null) return script.failure!;
    this.#running = index;
    const ties = this.#behaviours.length;
    this.#trace.begin(NOTHING);
    try {
      this.#machine.cells[Cell.Op] = Came.Ended;
      const through = this.#hand('load', script.code, index);
      const failure = through ? (this.#machine.cells[Cell.Op] === Came.Failed ? this.#wire.takeFailure() : null) : this.#lost();
      if (failure !== null) this.#behaviours.length = ties;
      return failure === null ? null : { ...failure, line: this.#machine.cells[Cell.Line]! };
    } finally {
      this.#wire.endRun();
    }
  }

  /** Calls the guest with a loose text and a number. */
  #hand(entry: Entry, text: string, number = 0): boolean {
    this.#machine.putLoose(Loose.answer, text);
    this.#machine.cells[Cell.More] = number;
    return this.#machine.call(entry);
  }

  /** The machine was put back to when the top levels had been evaluated. */
  restored(): void {
    this.#wire.restored();
    this.#behaviours.length = this.#loadedTies;
    this.#waits.clear();
    this.#open = null;
  }

  #behaviour(): Tied['behaviour'] {
    const { name, title } = this.#material!.scripts[this.#running]!;
    return { name, title, index: this.#running };
  }

  #nextOrder(): number {
    return this.#running * TIES_PER_BEHAVIOUR + this.#orders++;
  }

  #opened(desk: Desk): Open {
    if (this.#open?.desk === desk) return this.#open;
    const numbers = new Numbers(desk.parts);
    const tying: Tying = { tie: (one) => desk.tie(one), untie: (number) => desk.untie(number), behaviour: () => this.#behaviour(), nextOrder: () => this.#nextOrder() };
    this.#open = { desk, numbers, doers: { ...deskDoers(numbers, desk), ...tyingDoers(numbers, tying) } };
    return this.#open;
  }

  run(tie: number, run: number, given: Given, desk: Desk): Ended {
    const open = this.#opened(desk);
    this.#running = this.#behaviours[tie]!;
    return this.#cross('run', desk, () => {
      if (given.is === 'event') this.#giveEvent(given.event, given.stops, open.numbers);
      const { cells } = this.#machine;
      cells[Cell.Tie] = tie;
      cells[Cell.Run] = run;
      if (given.is === 'nothing') cells[Cell.Given] = GivenCell.Nothing;
      else if (given.is === 'event') cells[Cell.Given] = GivenCell.Event;
      else {
        cells[Cell.Given] = GivenCell.Row;
        this.#giveRow(given.row, open.numbers);
      }
    });
  }

  resume(run: number, call: number, came: { ok: true; value: Value | undefined } | { ok: false; reason: string }, desk: Desk): Ended {
    this.#opened(desk);
    this.#running = this.#waits.get(run) ?? 0;
    return this.#cross('resume', desk, () => {
      this.#wire.give(came.ok ? came.value : came.reason, Cell.ValueTag, Cell.ValuePayload, Double.Value, Loose.value);
      const { cells } = this.#machine;
      cells[Cell.Run] = run;
      cells[Cell.Call] = call;
      cells[Cell.More] = came.ok ? 0 : 1;
    }, run);
  }

  #giveRow(row: NonNullable<Part['row']>, numbers: Numbers): void {
    const { cells } = this.#machine;
    cells[Cell.Row] = numbers.numberOfRow(row);
    cells[Cell.RowField] = numbers.numberOf(row.rows.field);
    cells[Cell.RowId] = Number(row.id);
  }

  #giveEvent({ part, row, value, previous, by, extra }: Extract<Given, { is: 'event' }>['event'], stops: number, numbers: Numbers): void {
    const wire = this.#wire;
    wire.give(value, Cell.ValueTag, Cell.ValuePayload, Double.Value, Loose.value);
    wire.give(previous, Cell.PreviousTag, Cell.PreviousPayload, Double.Previous, Loose.previous);
    wire.give(extra, Cell.ExtraTag, Cell.ExtraPayload, Double.Answer, Loose.extra);
    const { cells } = this.#machine;
    cells[Cell.Part] = part === null ? -1 : numbers.numberOf(part);
    cells[Cell.Row] = -1;
    if (row !== null) this.#giveRow(row, numbers);
    cells[Cell.By] = BY.indexOf(by);
    cells[Cell.Event] = stops;
  }

  #cross(entry: 'run' | 'resume', desk: Desk, give: () => void, run: number | null = null): Ended {
    const { traced, scripts } = this.#material!;
    if (traced) this.#trace.begin(scripts[this.#running]?.expressions ?? NOTHING);
    let failure: Ended['failure'] = null;
    let open = false;
    try {
      give();
      const machine = this.#machine;
      machine.cells[Cell.Traced] = traced ? 1 : 0;
      machine.floats[Double.Clock] = desk.now;
      if (machine.call(entry)) {
        const came = machine.cells[Cell.Op]!;
        open = came === Came.Open;
        if (came === Came.Failed) failure = this.#wire.takeFailure();
        else if (came !== Came.Ended && came !== Came.Open) failure = { code: 'wrong_use', says: new Untrue().message };
        if (traced) this.#trace.empty();
      } else failure = this.#lost();
    } catch (caught) {
      failure = this.#stumbled(caught);
    }
    this.#throwMistake();
    const { cells } = this.#machine;
    const number = run ?? cells[Cell.Run]!;
    if (open) this.#waits.set(number, this.#running);
    else this.#waits.delete(number);
    const ended: Ended = { failure, open, line: cells[Cell.Line]!, fuel: cells[Cell.Fuel]!, trace: traced ? this.#trace.take() : null };
    this.#wire.endRun();
    return ended;
  }

  #throwMistake(): void {
    if (this.#mistake === null) return;
    const { caught } = this.#mistake;
    this.#mistake = null;
    throw caught;
  }

  /** The run was stopped from outside: the machine is asked where it was, and both lists begin anew. Throws MachineDied. */
  #lost(): { code: Failure['code']; says: string } {
    const late = this.#machine.wasInterrupted;
    this.#wire.cut();
    this.#machine.call('lost');
    return late ? { code: 'stuck', says: words.interrupted } : { code: 'memory', says: words.memory };
  }

  /** Something went wrong on the way in or out. A machine that died is not for the run to bear. */
  #stumbled(caught: unknown): { code: Failure['code']; says: string } {
    if (caught instanceof OutOfRoom) return this.#lost();
    if (caught instanceof ScriptFault) return { code: caught.code, says: caught.message };
    throw caught;
  }

  drop(run: number): void {
    this.#waits.delete(run);
    this.#machine.cells[Cell.Run] = run;
    this.#machine.call('drop');
  }

  answer(service: string, args: Value): { ok: true; value: Value } | { ok: false; line: number } | null {
    const at = this.#material!.answering.filter(({ code }) => code !== null).findIndex(({ name }) => name === service);
    if (at < 0) return null;
    const machine = this.#machine;
    try {
      if (this.#open !== null) machine.floats[Double.Clock] = this.#open.desk.now;
      if (!this.#hand('answer', JSON.stringify(args), at)) {
        this.#lost();
        return { ok: false, line: machine.cells[Cell.Line]! };
      }
      if (machine.cells[Cell.Op] !== Came.Ended) return { ok: false, line: machine.cells[Cell.Line]! };
      return { ok: true, value: deepFreeze((this.#wire.take(Cell.Tag, Cell.Payload, Double.Answer, () => null) ?? null) as Value) };
    } catch (caught) {
      this.#stumbled(caught);
      return { ok: false, line: machine.cells[Cell.Line]! };
    } finally {
      this.#wire.endRun();
    }
  }

  /** Answers what scripts ask. Nothing may be thrown from here: the machine stands between the two ends. */
  #answer(): void {
    try {
      this.#do(this.#machine.cells[Cell.Op]!);
    } catch (caught) {
      this.#fault(caught);
    }
  }

  #fault(caught: unknown): void {
    // What is no fault of the scripts is thrown once the machine has come back.
    if (!(caught instanceof ScriptFault) && !(caught instanceof OutOfRoom)) this.#mistake ??= { caught };
    const fault = caught instanceof ScriptFault ? caught : new ScriptFault('memory', words.memory);
    if (!(caught instanceof ScriptFault) || caught instanceof Untrue) this.#open?.desk.blame(fault);
    try {
      this.#wire.giveFault(fault);
    } catch {
      // Not even that can be told; what is read there is then nothing.
      this.#machine.cells[Cell.Tag] = 0;
    }
  }

  #do(op: Op): void {
    const { cells } = this.#machine;
    switch (op) {
      case Op.Read:
        return this.#wire.give(this.#read(cells[Cell.Aspect]!, cells[Cell.More]!));
      case Op.Say: {
        const said = this.#wire.take(Cell.Tag, Cell.Payload, Double.Answer, this.#findRow);
        const { desk, numbers } = this.#atDesk(cells[Cell.Aspect]!, 'written');
        sayAspect(desk, numbers, cells[Cell.Aspect]!, said, cells[Cell.Line]!);
        cells[Cell.Tag] = 0;
        return;
      }
      case Op.NewText:
        return this.#wire.hearText();
      case Op.LooseText:
        return this.#wire.hearLoose();
      case Op.Act:
        return this.#act(cells[Cell.Line]!);
      case Op.Random:
        this.#machine.floats[Double.Answer] = this.#open?.desk.random() ?? 0;
        return;
      case Op.Trace:
        return this.#trace.empty();
      case Op.Tell:
        this.#tell?.(this.#material!.scripts[cells[Cell.More]!]?.name ?? '', cells[Cell.Line]!);
        return;
      default:
        throw new Untrue();
    }
  }

  #read(aspect: number, more: number): unknown {
    const { desk, numbers } = this.#atDesk(aspect, 'read');
    return readAspect(desk, numbers, aspect, more);
  }

  /** Where an aspect is asked for. Throws the fault of asking where no form is open. */
  #atDesk(aspect: number, done: 'read' | 'written'): Open {
    if (this.#open !== null) return this.#open;
    throw new ScriptFault('wrong_use', words.topLevel(`${calledAspect(this.#loading?.parts ?? null, aspect)} was ${done}`));
  }

  #act(line: number): void {
    const { name, asked } = readAct(this.#wire.take(Cell.Tag, Cell.Payload, Double.Answer, this.#findRow));
    const doers = this.#open?.doers ?? (isTying(name) ? this.#loading?.doers : undefined);
    if (doers === undefined) throw new Untrue();
    const ties = name === 'tie' || name === 'keep' || name === 'keepEach';
    // Ties are numbered one after the other.
    if (ties && (asked as { tie: number }).tie !== this.#behaviours.length) throw new Untrue();
    const answer = ((doers as DeskDoers)[name] as (asked: unknown, line: number) => unknown)(asked, line);
    if (ties) this.#behaviours.push(this.#running);
    this.#wire.give(answer);
  }
}

/** What the scripts of a form can touch. */
function surroundingsOf({ form, tables, services }: Material): Surroundings {
  return {
    parts: [...partsOf(form).byName.values()].map((part): PartInfo => ({
      sort: part.sort,
      name: part.name,
      label: part.sort === 'form' ? form.title : part.label,
      kind: part.sort === 'field' ? part.field.kind : null,
      table: part.sort === 'field' && part.field.kind === 'reference' ? part.field.table : null,
      columns: part.rows === null ? null : [...part.rows.columns.values()].map(({ field }) => ({ sort: 'field', name: field.name, label: field.label, kind: field.kind, table: field.kind === 'reference' ? field.table : null, columns: null })),
    })),
    tables: tables.map(({ name, key, rows }) => ({ name, key, rows: [...rows] })),
    services: services.map(({ name, functions }) => ({ name, functions: Object.keys(functions) })),
  };
}
