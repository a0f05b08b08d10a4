/**
 * The machines in which submissions are done again. Each is an engine over a thread of its own and is used by one
 * submission at a time, so that nothing of one reaches another. Forms take turns, and one form never has all machines:
 * whatever its behaviours do, the others are served.
 */
import { without, type Engine, type Stuck } from '../../core/sandbox/engine';
import { TookTooLong } from '../../core/sandbox/cut-short';
import type { BriefAnswer } from '../../core/sandbox/reply';
import type { Material } from '../../core/session/material';
import type { Opening, TimedStep } from '../../core/session/step';
import { Turns, type TurnsOptions } from '../database/turns';

export interface PoolOptions extends TurnsOptions {
  /**
   * Real milliseconds that a submission may keep a machine once it has one. Far longer than the engine lets scripts work:
   * it is reached on a machine so busy that nobody gets on, or by several scripts that are found to be stuck one by one.
   */
  limit: number;
}

/** A release to play, by names that no other workspace gives to its own. */
export interface Playable {
  id: string;
  /** The form it is of, which takes turns with others. */
  form: string;
  material: Material;
}

interface Machine {
  engine: Engine;
  /** The release that is loaded as it is, nothing taken out. */
  loaded: string | null;
  /** The form it was used for last. */
  form: string;
  used: boolean;
  /** How many scripts it had found to be stuck when that was looked at last. */
  stuckBefore: number;
}

/** What is known of a release whose behaviours got stuck. */
interface Known {
  /** Stuck at their top level, which comes out alike every time: they are out. */
  atLoad: Stuck[];
  /** Stuck in a run, which may depend on what was entered: they are tried again, and taken out without a search. */
  suspects: Stuck[];
}

export class MachinePool {
  readonly #limit: number;
  readonly #turns: Turns;
  readonly #machines: Machine[] = [];
  readonly #known = new Map<string, Known>();

  constructor(
    private readonly make: () => Engine,
    options: PoolOptions,
  ) {
    this.#limit = options.limit;
    this.#turns = new Turns(options);
  }

  /** Opens a release and does steps. Throws Busy or TookTooLong; then nothing was done. */
  async play(
    release: Playable,
    opening: Opening,
    steps: readonly TimedStep[],
  ): Promise<BriefAnswer[]> {
    const endTurn = await this.#turns.take(release.form);
    const machine = this.#take(release.form);
    try {
      return await this.#limited(() => this.#play(machine, release, opening, steps));
    } catch (caught) {
      this.#learn(machine, release);
      this.#end(machine);
      throw caught;
    } finally {
      machine.used = false;
      endTurn();
    }
  }

  /** Ends all machines. */
  close(): void {
    for (const { engine } of this.#machines.splice(0)) engine.close();
  }

  async #play(
    machine: Machine,
    release: Playable,
    opening: Opening,
    steps: readonly TimedStep[],
  ): Promise<BriefAnswer[]> {
    const known = this.#knownOf(release);
    // A release with suspects is loaded again, since each use of it may take one out.
    if (machine.loaded !== release.id || known.suspects.length > 0) {
      machine.loaded = null;
      machine.stuckBefore = 0;
      await machine.engine.load(leftOut(release.material, known.atLoad), known.suspects);
      this.#learn(machine, release);
      machine.loaded = release.id;
    }
    const answers = await machine.engine.playInBrief(opening, steps);
    if (this.#learn(machine, release)) machine.loaded = null;
    return answers;
  }

  #knownOf({ id }: Playable): Known {
    return this.#known.get(id) ?? { atLoad: [], suspects: [] };
  }

  /** Remembers which scripts a machine has found to be stuck since it was asked last, whatever came of the rest. Whether there were any. */
  #learn(machine: Machine, release: Playable): boolean {
    const stuck = machine.engine.stuck.slice(machine.stuckBefore);
    machine.stuckBefore = machine.engine.stuck.length;
    if (stuck.length === 0) return false;
    const known = this.#knownOf(release);
    const others = (of: readonly Stuck[]) =>
      of.filter((one) => !stuck.some(({ behaviour }) => behaviour === one.behaviour));
    this.#remember(
      release.id,
      // Until it is through with loading, it has none loaded.
      machine.loaded === null
        ? { ...known, atLoad: [...others(known.atLoad), ...stuck] }
        : { ...known, suspects: [...others(known.suspects), ...stuck] },
    );
    return true;
  }

  #remember(release: string, known: Known): void {
    if (this.#known.size >= MOST_KNOWN) this.#known.clear();
    this.#known.set(release, known);
  }

  async #limited<T>(work: () => Promise<T>): Promise<T> {
    let timer: ReturnType<typeof setTimeout>;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new TookTooLong()), this.#limit);
    });
    const working = work();
    // It is refused when the machine is ended, and nobody listens any more.
    working.catch(() => undefined);
    try {
      return await Promise.race([working, late]);
    } finally {
      clearTimeout(timer!);
    }
  }

  /** A machine for a form whose turn it is: a free one that has it loaded, else any that is free, else a new one. */
  #take(form: string): Machine {
    const free = this.#machines.filter(({ used }) => !used);
    let machine = free.find((one) => one.form === form) ?? free[0];
    if (machine === undefined) {
      machine = {
        engine: this.make(),
        loaded: null,
        form,
        used: false,
        stuckBefore: 0,
      };
      this.#machines.push(machine);
    }
    machine.form = form;
    machine.used = true;
    return machine;
  }

  #end(machine: Machine): void {
    machine.engine.close();
    const at = this.#machines.indexOf(machine);
    if (at >= 0) this.#machines.splice(at, 1);
  }
}

/** Releases of which something is remembered. */
const MOST_KNOWN = 1000;

/** The material with behaviours out that get stuck while they are loaded. */
function leftOut(material: Material, stuck: readonly Stuck[]): Material {
  return stuck.reduce(without, material);
}
