/**
 * A session in a machine of its own: QuickJS in WebAssembly, with fuel, memory and stack limited, and put back to the
 * moment before the opening by a snapshot. One string goes in and one comes out. A sandbox can still be kept busy by
 * a built-in function that never yields, so every host runs it in a worker under `engine.ts`, which can end that.
 */
import type { QuickJSContext, QuickJSHandle, QuickJSWASMModule } from 'quickjs-emscripten-core';
import type { Material } from '../session/session';
import type { Answer, Opening, TimedStep } from '../session/step';
import { session as sessionSource, temporal as temporalSource } from './generated/guest';
import { allowanceFor, rowsIn } from './allowance';
import { regionsOf, Snapshot } from './snapshot';

export interface Limits {
  /** Bytes the machine may use. */
  memory: number;
  /** Real milliseconds one call may take where the machine still polls, and more for rows; deterministic fuel comes long before. */
  milliseconds: number;
}

export const LIMITS: Limits = { memory: 96 * 1024 * 1024, milliseconds: 600 };

/** More lets deeply nested data overflow the host's own stack. */
const STACK_BYTES = 128 * 1024;

/** The machine ended in the middle of a call; it must not be used again. */
export class MachineDied extends Error {}

export interface Listens {
  input: string[];
  focus: string[];
  blur: string[];
}

/** What the machine tells while somebody looks for the script that got stuck. */
export type Tell = (behaviour: string, line: number) => void;

export class Sandbox {
  readonly #context: QuickJSContext;
  readonly #answer: QuickJSHandle;
  readonly #memory: WebAssembly.Memory;
  readonly #regions: { dataEnd: number; heapStart: number };
  readonly #booted: Snapshot;
  readonly #limits: Limits;
  #loaded: Snapshot | null = null;
  #opened = false;
  #deadline = Infinity;
  /** Rows that came into the session so far. */
  #rows = 0;

  /** Boots a machine: 10–50 ms, once. `wasm` has to be a module that nothing else uses. */
  constructor(wasm: QuickJSWASMModule, options: { temporal: boolean; limits?: Limits; tell?: Tell }) {
    this.#limits = options.limits ?? LIMITS;
    this.#memory = wasm.getWasmMemory();
    const runtime = wasm.newRuntime();
    runtime.setMaxStackSize(STACK_BYTES);
    runtime.setMemoryLimit(this.#limits.memory);
    runtime.setInterruptHandler(() => Date.now() > this.#deadline);
    this.#context = runtime.newContext();
    this.#regions = regionsOf(this.#memory);
    const { tell } = options;
    if (tell !== undefined) {
      const told = this.#context.newFunction('__tell', (behaviour, line) => {
        tell(this.#context.getString(behaviour), this.#context.getNumber(line));
      });
      this.#context.setProp(this.#context.global, '__tell', told);
    }
    if (options.temporal) this.#evaluate(temporalSource);
    this.#evaluate(sessionSource);
    this.#answer = this.#context.getProp(this.#context.global, '__answer');
    this.#booted = new Snapshot(this.#memory, this.#regions);
  }

  #evaluate(source: string): void {
    const result = this.#context.evalCode(source, 'tavro.js');
    if (result.error) throw new Error(`the session does not start: ${JSON.stringify(this.#context.dump(result.error))}`);
    result.value.dispose();
  }

  #call<T>(request: object): T {
    const context = this.#context;
    this.#deadline = Date.now() + this.#limits.milliseconds + allowanceFor(this.#rows);
    try {
      const text = context.newString(JSON.stringify(request));
      const result = context.callFunction(this.#answer, context.undefined, text);
      if (result.error) throw new MachineDied(describe(context.dump(result.error)));
      const answer = context.getString(result.value);
      text.dispose();
      result.value.dispose();
      return JSON.parse(answer) as T;
    } catch (caught) {
      throw caught instanceof MachineDied ? caught : new MachineDied(String(caught));
    } finally {
      this.#deadline = Infinity;
    }
  }

  /** Evaluates the behaviours' top levels; from here every opening starts. */
  load(material: Material, watched = false): Listens {
    this.#booted.restore();
    const listens = this.#call<Listens>({ do: 'load', material, watched });
    this.#loaded = new Snapshot(this.#memory, this.#regions);
    this.#opened = false;
    return listens;
  }

  open(opening: Opening): Answer {
    if (this.#loaded === null) throw new Error('nothing is loaded');
    if (this.#opened) this.#loaded.restore();
    this.#opened = true;
    this.#rows = Math.max(rowsIn(opening), ...(opening.records ?? []).map((record) => rowsIn({ ...opening, record })));
    return this.#call<Answer>({ do: 'open', opening });
  }

  step(step: TimedStep): Answer {
    this.#rows += rowsIn(step);
    return this.#call<Answer>({ do: 'step', step });
  }
}

function describe(error: unknown): string {
  if (typeof error !== 'object' || error === null) return String(error);
  const { name, message, stack } = error as { name?: string; message?: string; stack?: string };
  return `${name ?? 'error'}: ${message ?? ''} ${stack ?? ''}`;
}

/** Whether any script wants `Temporal`, which makes the machine larger and slower to put back. */
export function needsTemporal(material: Material): boolean {
  return [...material.scripts, ...material.answering].some((script) => script.code?.includes('Temporal') ?? false);
}
