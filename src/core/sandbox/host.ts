/**
 * The scripts of a form in a machine, as a session runs them: loads them, hands over what a run is given, and tells how
 * it ended. What scripts ask meanwhile is `questions.ts`. Whatever the machine says is looked up; what is untrue is
 * refused.
 */
import { deepFreeze, type Value } from '../form/value';
import { inOrder, keepMap, type Restore } from '../session/checkpoint';
import type { Desk } from '../session/desk';
import type { Part } from '../session/parts';
import type { Ended, Given, Scripts } from '../session/scripts';
import type { Loaded, Material } from '../session/material';
import type { CompiledScript, Tied } from '../session/tie';
import { partsOf } from '../session/tree';
import { ScriptError, words, type Failure } from '../wire/failures';
import { BY, Came, Cell, Double, Given as GivenCell, Tracing } from '../wire/layout';
import type { Line } from '../wire/line';
import { OutOfRoom, type GuestEntry, type Machine } from './machine';
import { Numbers } from './numbers';
import { Questions, type Reports, type Tell } from './questions';
import { surroundingsOf } from './surroundings';
import { Trace } from './trace';
import { HostWire, Loose, Untrue } from './wire';

/** Texts checked against patterns that are remembered. */
const MOST_CHECKED = 200;

export class Host implements Scripts {
  readonly #wire: HostWire;
  readonly #trace: Trace;
  readonly #questions: Questions;
  #material: Material | null = null;
  #loadedTies = 0;
  /** Texts that were checked against patterns lately; a slow one is not run again with every step. */
  readonly #fits = new Map<string, boolean | null>();
  /** The behaviours of runs that wait. */
  readonly #waits = new Map<number, number>();

  constructor(
    private readonly machine: Machine,
    tell: Tell | null,
  ) {
    this.#wire = new HostWire(machine);
    this.#trace = new Trace(this.#wire);
    this.#questions = new Questions(machine, this.#wire, this.#trace, tell);
  }

  /** Evaluates the behaviours' top levels in a machine that is as it booted; from here every opening starts. */
  load(material: Material, watched: boolean): Loaded {
    this.#wire.reset();
    this.#material = material;
    const { cells, floats } = this.machine;
    cells[Cell.Watched] = watched ? 1 : 0;
    cells[Cell.Mutant] = material.mutant ?? 0;
    floats[Double.Clock] = NaN;
    let tied: Tied[] = [];
    this.#questions.beginLoading(material, new Numbers(partsOf(material.form)), {
      tie: (one) => void tied.push(one),
      untie: (number) => void (tied = tied.filter((one) => one.number !== number)),
    });
    this.#hand('surround', JSON.stringify(surroundingsOf(material)));
    material.modules.forEach((module, index) => this.#loadModule(module, index));
    const failures: Failure[] = [];
    material.scripts.forEach((script, index) => {
      const before = [...tied];
      const failure = this.#loadBehaviour(script, index);
      if (failure === null) return;
      tied = before;
      failures.push({ ...failure, behaviour: script.name });
    });
    material.answering.forEach(({ code }, index) => {
      this.#questions.running = material.scripts.length + index;
      if (code !== null) this.#hand('loadService', code, this.#questions.running);
    });
    this.#questions.endLoading();
    this.#loadedTies = this.#questions.ties;
    this.#wire.setBase();
    return { tied, failures };
  }

  #loadBehaviour(script: CompiledScript, index: number): Omit<Failure, 'behaviour'> | null {
    if (script.code === null) return script.failure!;
    this.#questions.running = index;
    const { ties } = this.#questions;
    this.#trace.begin(undefined, this.#material!.modules);
    try {
      this.machine.cells[Cell.Op] = Came.Ended;
      const through = this.#hand('load', script.code, index);
      const failure = through
        ? this.machine.cells[Cell.Op] === Came.Failed
          ? this.#wire.takeFailure()
          : null
        : this.#lost();
      if (failure !== null) this.#questions.forgetTies(ties);
      // Stopped before its first statement it stands at line 1.
      return failure === null ? null : { ...failure, line: this.#line(1) };
    } finally {
      this.#wire.endRun();
    }
  }

  /** One that fails is remembered there with the reason, for whoever imports from it. */
  #loadModule({ name, code, failure }: CompiledScript, index: number): void {
    const { scripts, answering } = this.#material!;
    const why = failure === null ? null : { line: failure.line, says: failure.says };
    this.#questions.running = scripts.length + answering.length + index;
    try {
      const through = this.#hand(
        'loadModule',
        JSON.stringify({ name, code, why, index }),
        this.#questions.running,
      );
      if (!through) {
        const { says } = this.#lost();
        const stopped = { name, code: null, why: { line: null, says }, index };
        this.#hand('loadModule', JSON.stringify(stopped), this.#questions.running);
      }
    } finally {
      this.#wire.endRun();
    }
  }

  /** Calls the guest with a loose text and a number. */
  #hand(entry: GuestEntry, text: string, number = 0): boolean {
    this.machine.putLoose(Loose.answer, text);
    this.machine.cells[Cell.More] = number;
    return this.machine.call(entry);
  }

  /** Where detailed runs report from now on; null where nobody looks. */
  reportTo(reports: Reports | null): void {
    this.#questions.reports = reports;
  }

  /** The machine was put back to when the top levels had been evaluated. */
  restored(): void {
    this.#wire.restored();
    this.#questions.backTo(this.#loadedTies);
    this.#waits.clear();
  }

  /** Between two runs; the machine has to be put back to the same moment. */
  checkpoint(): Restore {
    return inOrder([this.#wire.checkpoint(), this.#questions.checkpoint(), keepMap(this.#waits)]);
  }

  /** Switches a mutant on until the machine is put back. */
  mutate(mutant: number): void {
    this.machine.cells[Cell.Mutant] = mutant;
  }

  /** The mutants up to a number whose places were reached since the scripts were loaded. */
  reached(most: number): number[] {
    const { cells } = this.machine;
    const reached: number[] = [];
    for (let mutant = 1; mutant <= most; mutant++)
      if (((cells[Cell.Trace + (mutant >> 5)]! >> (mutant & 31)) & 1) === 1) reached.push(mutant);
    return reached;
  }

  run(tie: number, run: number, given: Given, desk: Desk): Ended {
    const open = this.#questions.at(desk);
    this.#questions.running = this.#questions.behaviourOf(tie);
    return this.#cross('run', desk, () => {
      if (given.is === 'event') this.#giveEvent(given.event, given.stops, open.numbers);
      const { cells } = this.machine;
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

  resume(
    run: number,
    call: number,
    came: { ok: true; value: Value | undefined } | { ok: false; reason: string },
    desk: Desk,
  ): Ended {
    this.#questions.at(desk);
    this.#questions.running = this.#waits.get(run) ?? 0;
    return this.#cross(
      'resume',
      desk,
      () => {
        this.#wire.give(
          came.ok ? came.value : came.reason,
          Cell.ValueTag,
          Cell.ValuePayload,
          Double.Value,
          Loose.value,
        );
        const { cells } = this.machine;
        cells[Cell.Run] = run;
        cells[Cell.Call] = call;
        cells[Cell.More] = came.ok ? 0 : 1;
      },
      run,
    );
  }

  #giveRow(row: NonNullable<Part['row']>, numbers: Numbers): void {
    const { cells } = this.machine;
    cells[Cell.Row] = numbers.numberOfRow(row);
    cells[Cell.RowField] = numbers.numberOf(row.rows.field);
    cells[Cell.RowId] = Number(row.id);
  }

  #giveEvent(
    { part, row, value, previous, by, extra }: Extract<Given, { is: 'event' }>['event'],
    stops: number,
    numbers: Numbers,
  ): void {
    const wire = this.#wire;
    wire.give(value, Cell.ValueTag, Cell.ValuePayload, Double.Value, Loose.value);
    wire.give(previous, Cell.PreviousTag, Cell.PreviousPayload, Double.Previous, Loose.previous);
    wire.give(extra, Cell.ExtraTag, Cell.ExtraPayload, Double.Answer, Loose.extra);
    const { cells } = this.machine;
    cells[Cell.Part] = part === null ? -1 : numbers.numberOf(part);
    cells[Cell.Row] = -1;
    if (row !== null) this.#giveRow(row, numbers);
    cells[Cell.By] = BY.indexOf(by);
    cells[Cell.Event] = stops;
  }

  #cross(entry: 'run' | 'resume', desk: Desk, give: () => void, run: number | null = null): Ended {
    const { traced, scripts, modules } = this.#material!;
    if (traced) this.#trace.begin(scripts[this.#questions.running], modules);
    let failure: Ended['failure'] = null;
    let open = false;
    let broken = false;
    try {
      give();
      const machine = this.machine;
      machine.cells[Cell.Traced] = traced
        ? Tracing.Lines | (this.#questions.reports?.tracing ?? 0)
        : 0;
      machine.floats[Double.Clock] = desk.now;
      if (machine.call(entry)) {
        const came = machine.cells[Cell.Op]!;
        open = came === Came.Open;
        broken = came === Came.Broken;
        if (came === Came.Failed) failure = this.#wire.takeFailure();
        else if (came !== Came.Ended && !open && !broken)
          failure = { code: 'wrong_use', says: new Untrue().message };
        if (traced) this.#trace.empty();
      } else failure = this.#lost();
    } catch (caught) {
      failure = this.#stumbled(caught);
    }
    this.#questions.throwMistake();
    const { cells } = this.machine;
    const number = run ?? cells[Cell.Run]!;
    if (open) this.#waits.set(number, this.#questions.running);
    else this.#waits.delete(number);
    const ended: Ended = {
      failure,
      broken,
      open,
      line: this.#line(),
      fuel: cells[Cell.Fuel]!,
      trace: traced ? this.#trace.take() : null,
    };
    this.#wire.endRun();
    return ended;
  }

  /** The run was stopped from outside: the machine is asked where it was, and both lists begin again. Throws MachineDied. */
  #lost(): { code: Failure['code']; says: string } {
    const late = this.machine.wasInterrupted;
    this.#wire.cut();
    this.machine.call('lost');
    return late
      ? { code: 'stuck', says: words.interrupted }
      : { code: 'memory', says: words.memory };
  }

  /** Something went wrong on the way in or out. A machine that died is not for the run to bear. */
  #stumbled(caught: unknown): { code: Failure['code']; says: string } {
    if (caught instanceof OutOfRoom) return this.#lost();
    if (caught instanceof ScriptError) return { code: caught.code, says: caught.message };
    throw caught;
  }

  /** Where the script is that runs, or was; at least `least`. */
  #line(least = 0): Line {
    return this.#questions.lineOf(Math.max(least, this.machine.cells[Cell.Line]!));
  }

  fits(pattern: string, text: string): boolean | null {
    const key = `${pattern}\n${text}`;
    const known = this.#fits.get(key);
    if (known !== undefined) return known;
    if (this.#fits.size >= MOST_CHECKED) this.#fits.clear();
    const fits = this.machine.fits(pattern, text);
    this.#fits.set(key, fits);
    return fits;
  }

  drop(run: number): void {
    this.#waits.delete(run);
    this.machine.cells[Cell.Run] = run;
    this.machine.call('drop');
  }

  answer(
    service: string,
    args: Value,
  ): { ok: true; value: Value } | { ok: false; line: Line } | null {
    const at = this.#material!.answering.filter(({ code }) => code !== null).findIndex(
      ({ name }) => name === service,
    );
    if (at < 0) return null;
    const machine = this.machine;
    try {
      machine.floats[Double.Clock] = this.#questions.now;
      if (!this.#hand('answer', JSON.stringify(args), at)) {
        this.#lost();
        return { ok: false, line: this.#line() };
      }
      if (machine.cells[Cell.Op] !== Came.Ended) return { ok: false, line: this.#line() };
      return {
        ok: true,
        value: deepFreeze(
          (this.#wire.take(Cell.Tag, Cell.Payload, Double.Answer, () => null) ?? null) as Value,
        ),
      };
    } catch (caught) {
      this.#stumbled(caught);
      return { ok: false, line: this.#line() };
    } finally {
      this.#wire.endRun();
    }
  }
}
