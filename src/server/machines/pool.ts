/**
 * The machines in which submissions are done again. Each is an engine over a thread of its own and is used by one
 * submission at a time, so that nothing of one reaches another. Forms take turns, and one form never has all machines:
 * whatever its behaviours do, the others are served.
 */
import { TookTooLong, without, type Engine, type Stuck } from '../../core/sandbox/engine';
import type { BriefAnswer } from '../../core/sandbox/reply';
import type { Material } from '../../core/session/session';
import type { Opening, TimedStep } from '../../core/session/step';

export interface PoolOptions {
  /** Machines at most; at least two, so that one is left for other forms. */
  size: number;
  /** Submissions of one form, and of all together, that may wait. */
  mostWaitingOfForm: number;
  mostWaiting: number;
  /** Real milliseconds that a submission may wait for a machine, which it is refused for and can be sent again. */
  patience: number;
  /**
   * Real milliseconds that it may keep a machine once it has one. Far longer than the engine lets scripts work: it is
   * reached on a machine so busy that nobody gets on, or by several scripts that are found to be stuck one by one.
   */
  limit: number;
}

/** Too many wait, or it took too long until one was free. */
export class Busy extends Error {
  /** Seconds after which it is worth trying again. */
  readonly retryAfter: number;
  constructor(retryAfter: number) {
    super('Too many forms are being submitted at the moment. Try again in a few seconds.');
    this.retryAfter = retryAfter;
  }
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
  isLoading: boolean;
}

interface Waiting {
  form: string;
  /** Takes the machine, or is refused. */
  settle: (machine: Machine | Busy) => void;
}

/** What is known of a release whose behaviours got stuck. */
interface Known {
  /** Stuck at their top level, which comes out alike every time: they are out. */
  atLoad: Stuck[];
  /** Stuck in a run, which may depend on what was entered: they are tried again, and taken out without a search. */
  suspects: Stuck[];
}

export class MachinePool {
  readonly #make: () => Engine;
  readonly #options: PoolOptions;
  readonly #machines: Machine[] = [];
  /** By form, in the order in which forms take turns. */
  readonly #waiting = new Map<string, Waiting[]>();
  readonly #known = new Map<string, Known>();

  constructor(make: () => Engine, options: PoolOptions) {
    this.#make = make;
    this.#options = options;
  }

  /** Opens a release and does steps. Throws Busy or TookTooLong; then nothing was done. */
  async play(
    release: Playable,
    opening: Opening,
    steps: readonly TimedStep[],
  ): Promise<BriefAnswer[]> {
    const machine = await this.#take(release.form);
    try {
      return await this.#limited(() => this.#play(machine, release, opening, steps));
    } catch (caught) {
      this.#learn(machine, release);
      this.#end(machine);
      throw caught;
    } finally {
      this.#giveBack(machine);
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
      machine.isLoading = true;
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
    const { isLoading } = machine;
    machine.stuckBefore = machine.engine.stuck.length;
    machine.isLoading = false;
    if (stuck.length === 0) return false;
    const known = this.#knownOf(release);
    const others = (of: readonly Stuck[]) =>
      of.filter((one) => !stuck.some(({ behaviour }) => behaviour === one.behaviour));
    this.#remember(
      release.id,
      isLoading
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
      timer = setTimeout(() => reject(new TookTooLong()), this.#options.limit);
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

  #take(form: string): Promise<Machine> {
    const free = this.#freeFor(form);
    if (free !== null) return Promise.resolve(free);
    const ofForm = this.#waiting.get(form) ?? [];
    const all = [...this.#waiting.values()].reduce((sum, waiting) => sum + waiting.length, 0);
    if (ofForm.length >= this.#options.mostWaitingOfForm || all >= this.#options.mostWaiting)
      return Promise.reject(new Busy(5));
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => waiting.settle(new Busy(10)), this.#options.patience);
      const waiting: Waiting = {
        form,
        settle: (machine) => {
          clearTimeout(timer);
          this.#drop(waiting);
          if (machine instanceof Busy) reject(machine);
          else resolve(machine);
        },
      };
      this.#waiting.set(form, [...ofForm, waiting]);
    });
  }

  #drop(waiting: Waiting): void {
    const left = (this.#waiting.get(waiting.form) ?? []).filter((one) => one !== waiting);
    // A form that was served goes behind the others.
    this.#waiting.delete(waiting.form);
    if (left.length > 0) this.#waiting.set(waiting.form, left);
  }

  /** A machine for a form: one that has it loaded, else any that is free. Null when there is none, or when the form has all but one. */
  #freeFor(form: string): Machine | null {
    const { size } = this.#options;
    if (
      this.#machines.filter((one) => one.used && one.form === form).length >= Math.max(1, size - 1)
    )
      return null;
    const free = this.#machines.filter(({ used }) => !used);
    let machine = free.find((one) => one.form === form) ?? free[0] ?? null;
    if (machine === null && this.#machines.length < size) {
      machine = {
        engine: this.#make(),
        loaded: null,
        form,
        used: false,
        stuckBefore: 0,
        isLoading: false,
      };
      this.#machines.push(machine);
    }
    if (machine === null) return null;
    machine.form = form;
    machine.used = true;
    return machine;
  }

  #end(machine: Machine): void {
    machine.engine.close();
    const at = this.#machines.indexOf(machine);
    if (at >= 0) this.#machines.splice(at, 1);
  }

  #giveBack(machine: Machine): void {
    machine.used = false;
    for (const [form, [first]] of this.#waiting) {
      const free = this.#freeFor(form);
      if (free !== null) return first!.settle(free);
    }
  }
}

/** Releases of which something is remembered. */
const MOST_KNOWN = 1000;

/** The material with behaviours out that get stuck while they are loaded. */
function leftOut(material: Material, stuck: readonly Stuck[]): Material {
  return stuck.reduce(without, material);
}
