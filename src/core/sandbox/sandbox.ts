/**
 * A form with its scripts in a machine of their own: opens it, does steps. Each opening is a new session (`session/`),
 * which stands outside, over a machine put back by a snapshot to the moment after the scripts' top levels. A machine can
 * still be kept busy by a built-in function that never yields, so every host runs it in a worker under `engine.ts`, which
 * can end that.
 */
import type { QuickJSWASMModule } from 'quickjs-emscripten-core';
import { inOrder, type Checkpoint } from '../session/checkpoint';
import { Session } from '../session/session';
import type { Loaded, Material } from '../session/material';
import type { Answer, Opening, TimedStep } from '../session/step';
import type { Tied } from '../session/tie';
import { ASKING } from './asking-script';
import { Host } from './host';
import type { Image } from './image';
import { Inspector, type Inspection, type Wanted } from './inspector';
import { LIMITS, QuickJS, type Limits } from './quickjs';
import type { Tell } from './questions';
import type { Snapshot } from './snapshot';

/** Snapshots of released checkpoints that are kept for the next ones. */
const SPARE = 4;

/** Which events anybody listens to, so that a live form sends no steps in vain; columns as `rows.column`. */
export interface Listens {
  input: string[];
  focus: string[];
  blur: string[];
}

export class Sandbox {
  readonly #machine: QuickJS;
  readonly #host: Host;
  #ready: { material: Material; loaded: Loaded; snapshot: Snapshot } | null = null;
  #session: Session | null = null;
  #askingTie: number | null = null;
  readonly #spare: Snapshot[] = [];

  /** Boots a machine, or starts from the image of one. `wasm` has to be a module that nothing else uses. */
  constructor(
    wasm: QuickJSWASMModule,
    options: {
      temporal: boolean;
      limits?: Limits;
      alive?: () => void;
      tell?: Tell;
      image?: Image | null;
    },
  ) {
    this.#machine = new QuickJS(wasm, {
      temporal: options.temporal,
      limits: options.limits ?? LIMITS,
      alive: options.alive ?? (() => undefined),
      image: options.image ?? null,
    });
    this.#host = new Host(this.#machine, options.tell ?? null);
  }

  /** What other machines can start from. */
  get image(): Image {
    return this.#machine.image;
  }

  /** Evaluates the behaviours' top levels; from here every opening starts. Throws MachineDied. */
  load(material: Material, watched = false): Listens {
    this.#session = null;
    this.#machine.booted.restore();
    const all = this.#host.load(material, watched);
    const isAsking = ({ behaviour }: Tied) => behaviour.name === ASKING;
    this.#askingTie = all.tied.find(isAsking)?.number ?? null;
    const loaded = { ...all, tied: all.tied.filter((tie) => !isAsking(tie)) };
    this.#ready = { material, loaded, snapshot: this.#machine.snapshot() };
    return listensOf(loaded);
  }

  /** Opens the form, with a mutant switched on where one is named. Throws MachineDied. */
  open(opening: Opening, mutant?: number): Answer {
    if (this.#ready === null) throw new Error('nothing is loaded');
    const { material, loaded, snapshot } = this.#ready;
    if (this.#session !== null) snapshot.restore();
    this.#host.restored();
    if (mutant !== undefined) this.#host.mutate(mutant);
    this.#session = new Session(material, loaded, this.#host, opening);
    return this.#session.open();
  }

  /** The mutants up to a number whose places the session has reached. */
  reached(most: number): number[] {
    return this.#host.reached(most);
  }

  /** The id that the record of the open session is saved under, where it was not known when the session was opened. */
  identify(newId: string): void {
    this.#session?.identify(newId);
  }

  /** Keeps the open session as it stands: its own state, and the machine with what its scripts hold. */
  checkpoint(): Checkpoint {
    const session = this.#session;
    const ready = this.#ready;
    if (session === null) throw new Error('the form is not open');
    const restore = inOrder([session.checkpoint(), this.#host.checkpoint()]);
    const snapshot = this.#machine.snapshot(this.#spare.pop());
    return {
      restore: () => {
        if (this.#ready !== ready) throw new Error('other scripts have been loaded');
        snapshot.restore();
        restore();
        this.#session = session;
      },
      release: () => {
        if (this.#spare.length < SPARE) this.#spare.push(snapshot);
      },
    };
  }

  /** Does a step. Throws MachineDied. */
  step(step: TimedStep): Answer {
    if (this.#session === null) throw new Error('the form is not open');
    return this.#session.do(step);
  }

  /**
   * Runs a session again from its opening and says what is wanted of it. The material has to be compiled for details
   * (`language/compile.ts`). The session that was open is gone. Throws MachineDied.
   */
  inspect(opening: Opening, steps: readonly TimedStep[], wanted: Wanted): Inspection {
    if (this.#ready === null) throw new Error('nothing is loaded');
    const { material, loaded, snapshot } = this.#ready;
    if (this.#session !== null) snapshot.restore();
    const host = this.#host;
    host.restored();
    const inspector: Inspector = new Inspector(wanted, {
      look: () => session.look(),
      ask: () => this.#ask(session),
    });
    const session = new Session(material, loaded, host, opening, inspector);
    this.#session = session;
    host.reportTo(inspector);
    try {
      return inspector.end([session.open(), ...steps.map((step) => session.do(step))]);
    } finally {
      host.reportTo(null);
    }
  }

  /** Evaluates what the asking script asks, while no script runs. */
  #ask({ desk }: Session): void {
    if (this.#askingTie !== null)
      this.#host.run(this.#askingTie, ASKING_RUN, { is: 'nothing' }, desk);
  }

  /** Bytes that scripts and what runs beside them hold. */
  get bytesUsed(): number {
    return this.#machine.bytesUsed;
  }
}

function listensOf({ tied }: Loaded): Listens {
  const of = (event: keyof Listens): string[] => [
    ...new Set(
      tied.flatMap((one) =>
        one.is === 'handler' && one.event === event
          ? one.keys.map((key) => key.slice(event.length + 1))
          : [],
      ),
    ),
  ];
  return { input: of('input'), focus: of('focus'), blur: of('blur') };
}

/** No run of a session has this number. */
const ASKING_RUN = -1;

/** Whether any script wants `Temporal`, which makes the machine larger and slower to put back. */
export function needsTemporal(material: Material): boolean {
  return [...material.scripts, ...material.modules, ...material.answering].some(
    (script) => script.code?.includes('Temporal') ?? false,
  );
}
