/**
 * What scripts ask while they run, answered: aspects and acts at the desk of the form that is open, ties at the top level
 * before any is. Nothing is ever thrown through the machine; a question that is no question is refused.
 */
import type { Restore } from '../session/checkpoint';
import type { Desk } from '../session/desk';
import type { SitePlace } from '../session/detail';
import type { Material } from '../session/material';
import type { Value } from '../form/value';
import type { Tied } from '../session/tie';
import { ScriptError, words } from '../wire/failures';
import { Cell, Double, Op, Report, Tag } from '../wire/layout';
import { lineFrom, placeOf, type Line } from '../wire/line';
import { deskDoers, isTying, readAct, tyingDoers, type Tying } from './acts';
import { calledAspect, readAspect, sayAspect } from './asking-aspects';
import { OutOfRoom, type Machine } from './machine';
import { Numbers } from './numbers';
import type { FindRow } from './strange';
import type { Trace } from './trace';
import { Untrue, type HostWire } from './wire';

/** What the machine tells while somebody looks for the script that got stuck. */
export type Tell = (behaviour: string, line: Line) => void;

/** Takes what detailed runs report. */
export interface Reports {
  /** How runs report from now on, as `Tracing`. */
  readonly tracing: number;
  /** `frame` numbers an activation, an expression or what was asked. Says whether a condition is turned round. */
  report(what: Report, place: SitePlace, frame: number, value: Value): boolean;
}

type TyingDoers = ReturnType<typeof tyingDoers>;

/** A form that is open: its desk, and the numbers of its parts. */
export interface Open {
  desk: Desk;
  numbers: Numbers;
  doers: ReturnType<typeof deskDoers> & TyingDoers;
}

/** Orders of one behaviour's ties stand below those of the next. */
const TIES_PER_BEHAVIOUR = 100_000;

export class Questions {
  #material: Material | null = null;
  #modules: readonly string[] = [];
  /** The behaviour of each tie, by the tie's number. */
  #ties: number[] = [];
  #orders = 0;
  #open: Open | null = null;
  /** Where ties go while the top levels are evaluated. */
  #loading: { parts: Numbers; doers: TyingDoers } | null = null;
  /** The behaviour that runs, by its place among the scripts. */
  running = 0;
  /** Something thrown while the machine stood between the two ends. */
  #mistake: { caught: unknown } | null = null;
  readonly #findRow: FindRow = (table, key) => this.#open?.desk.tableRow(table, key) ?? null;

  /** Where detailed runs report; null where none are. */
  reports: Reports | null = null;

  constructor(
    private readonly machine: Machine,
    private readonly wire: HostWire,
    private readonly trace: Trace,
    private readonly tell: Tell | null,
  ) {
    machine.answerWith(() => this.#answer());
  }

  /** Top levels are evaluated from now on; what they tie goes to `tie` and `untie`. */
  beginLoading(
    material: Material,
    numbers: Numbers,
    { tie, untie }: Pick<Tying, 'tie' | 'untie'>,
  ): void {
    this.#material = material;
    this.#modules = material.modules.map(({ name }) => name);
    this.#ties = [];
    this.#orders = 0;
    this.#open = null;
    this.#loading = { parts: numbers, doers: tyingDoers(numbers, this.#tying(tie, untie)) };
  }

  endLoading(): void {
    this.#loading = null;
  }

  /** How many ties there are, and going back to so many. */
  get ties(): number {
    return this.#ties.length;
  }

  backTo(ties: number): void {
    this.#ties.length = ties;
    this.#open = null;
  }

  /** Between two runs; the machine has to be put back to the same moment. */
  checkpoint(): Restore {
    const ties = [...this.#ties];
    const orders = this.#orders;
    const open = this.#open;
    return () => {
      this.#ties = [...ties];
      this.#orders = orders;
      this.#open = open;
    };
  }

  /** A behaviour's top level failed: what it tied is gone. */
  forgetTies(ties: number): void {
    this.#ties.length = ties;
  }

  behaviourOf(tie: number): number {
    return this.#ties[tie]!;
  }

  /** The form whose desk is asked from now on. */
  at(desk: Desk): Open {
    if (this.#open?.desk === desk) return this.#open;
    const numbers = new Numbers(desk.parts);
    const tying = this.#tying(
      (one) => desk.tie(one),
      (number) => desk.untie(number),
    );
    this.#open = {
      desk,
      numbers,
      doers: { ...deskDoers(numbers, desk), ...tyingDoers(numbers, tying) },
    };
    return this.#open;
  }

  /** The session's clock; NaN while no form is open. */
  get now(): number {
    return this.#open?.desk.now ?? NaN;
  }

  #tying(tie: (tied: Tied) => void, untie: (number: number) => void): Tying {
    return {
      tie,
      untie,
      behaviour: () => {
        const { name, title } = this.#material!.scripts[this.running]!;
        return { name, title, index: this.running };
      },
      line: (place) => this.lineOf(place),
      nextOrder: () => this.running * TIES_PER_BEHAVIOUR + this.#orders++,
    };
  }

  /** Throws what could not be thrown while the machine stood in between. */
  throwMistake(): void {
    if (this.#mistake === null) return;
    const { caught } = this.#mistake;
    this.#mistake = null;
    throw caught;
  }

  /** Answers what scripts ask. Nothing may be thrown from here: the machine stands between the two ends. */
  #answer(): void {
    try {
      this.#do(this.machine.cells[Cell.Op]!);
    } catch (caught) {
      this.#fault(caught);
    }
  }

  #fault(caught: unknown): void {
    // What is no fault of the scripts is thrown once the machine has come back.
    if (!(caught instanceof ScriptError) && !(caught instanceof OutOfRoom))
      this.#mistake ??= { caught };
    const fault = caught instanceof ScriptError ? caught : new ScriptError('memory', words.memory);
    if (!(caught instanceof ScriptError) || caught instanceof Untrue)
      this.#open?.desk.run.blame(fault);
    try {
      this.wire.giveFault(fault);
    } catch {
      // Not even that can be told; what is read there is then nothing.
      this.machine.cells[Cell.Tag] = 0;
    }
  }

  #do(op: Op): void {
    const { cells } = this.machine;
    switch (op) {
      case Op.Read:
        return this.wire.give(this.#read(cells[Cell.Aspect]!, cells[Cell.More]!));
      case Op.Say: {
        const said = this.wire.take(Cell.Tag, Cell.Payload, Double.Answer, this.#findRow);
        const { desk, numbers } = this.#atDesk(cells[Cell.Aspect]!, 'written');
        sayAspect(desk, numbers, cells[Cell.Aspect]!, said, this.lineOf(cells[Cell.Line]!));
        cells[Cell.Tag] = 0;
        return;
      }
      case Op.NewText:
        return this.wire.hearText();
      case Op.LooseText:
        return this.wire.hearLoose();
      case Op.Act:
        return this.#act(this.lineOf(cells[Cell.Line]!));
      case Op.Random:
        this.machine.floats[Double.Answer] = this.#open?.desk.random() ?? 0;
        return;
      case Op.Trace:
        return this.trace.empty();
      case Op.Detail:
        return this.#report();
      case Op.Tell:
        return this.#whereabouts(cells[Cell.More]!, this.lineOf(cells[Cell.Line]!));
      default:
        throw new Untrue();
    }
  }

  #report(): void {
    const { cells } = this.machine;
    const { reports } = this;
    if (reports === null || this.#open === null) throw new Untrue();
    const what = cells[Cell.More]! as Report;
    if (what === Report.Ask || what === Report.Asked || what === Report.AskFailed)
      this.#open.desk.run.asking(what === Report.Ask);
    const { script, line: site } = placeOf(
      this.lineOf(cells[Cell.Line]!),
      this.#material!.scripts[this.running]!.name,
    );
    const value =
      cells[Cell.Tag] === Tag.Undefined
        ? null
        : this.wire.traced(cells[Cell.Tag]!, cells[Cell.Payload]!);
    const turned = reports.report(what, { script, site }, cells[Cell.Aspect]!, value);
    cells[Cell.More] = turned ? 1 : 0;
  }

  /** The line that a number of the machine's stands for. */
  lineOf(place: number): Line {
    return lineFrom(place, this.#modules);
  }

  /** Scripts are numbered behind each other: behaviours, those of services, modules. */
  #whereabouts(number: number, line: Line): void {
    const { scripts, answering, modules } = this.#material!;
    const script = [...scripts, ...answering, ...modules][number];
    this.tell?.(
      script?.name ?? '',
      placeOf(line, '').script === script?.name ? placeOf(line, '').line : line,
    );
  }

  #read(aspect: number, more: number): unknown {
    const { desk, numbers } = this.#atDesk(aspect, 'read');
    return readAspect(desk, numbers, aspect, more);
  }

  /** Where an aspect is asked for. Throws the fault of asking where no form is open. */
  #atDesk(aspect: number, done: 'read' | 'written'): Open {
    if (this.#open !== null) return this.#open;
    throw new ScriptError(
      'wrong_use',
      words.topLevel(`${calledAspect(this.#loading?.parts ?? null, aspect)} was ${done}`),
    );
  }

  #act(line: Line): void {
    const { name, asked } = readAct(
      this.wire.take(Cell.Tag, Cell.Payload, Double.Answer, this.#findRow),
    );
    const doers = this.#open?.doers ?? (isTying(name) ? this.#loading?.doers : undefined);
    if (doers === undefined) throw new Untrue();
    const ties = name === 'tie' || name === 'keep';
    // Ties are numbered one after the other.
    if (ties && (asked as { tie: number }).tie !== this.#ties.length) throw new Untrue();
    const answer = ((doers as Open['doers'])[name] as (asked: unknown, line: Line) => unknown)(
      asked,
      line,
    );
    if (ties) this.#ties.push(this.running);
    this.wire.give(answer);
  }
}
