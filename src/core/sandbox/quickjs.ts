/**
 * The guest in QuickJS in WebAssembly, with memory, stack and work limited, and put back to an earlier moment by a
 * snapshot. Its calls cross without the wrappers of quickjs-emscripten, which cost fifteen times as much as the
 * crossing itself: the function handle is called by pointer, and the one host function is answered by replacing
 * `module.callbacks.callFunction` (typed in @jitl/quickjs-ffi-types; versions are pinned, and a test holds it).
 */
import { MACHINE_BYTES, MACHINE_STACK_BYTES, PATTERN_POLLS, RUN_POLLS } from '../limits';
import variant from '@jitl/quickjs-wasmfile-release-sync';
import {
  newQuickJSWASMModuleFromVariant,
  newVariant,
  type QuickJSContext,
  type QuickJSHandle,
  type QuickJSWASMModule,
} from 'quickjs-emscripten-core';
import { SHARED_BYTES } from '../wire/layout';
import { guest as guestSource, temporal as temporalSource } from './generated/guest';
import { ENTRIES, MachineDied, OutOfRoom, type GuestEntry, type Machine } from './machine';
import type { Image } from './image';
import { regionsOf, Snapshot, type Regions } from './snapshot';

export interface Limits {
  /** How often it may ask within one run whether to go on. Counted, not timed: it is the same on every machine. */
  polls: number;
}

export const LIMITS: Limits = { polls: RUN_POLLS };

/** What runs scripts, which may not end; the guest's own work is trusted to. */
const RUN_SCRIPTS: ReadonlySet<GuestEntry> = new Set([
  'load',
  'loadModule',
  'loadService',
  'answer',
  'run',
  'resume',
]);

const PAGE = 64 * 1024;
/** More than the heap has free when a machine starts, so that it has to grow. */
const GROWTH_BYTES = 1024 * 1024;
/** Bytes with which the module begins: its own data, its stack and room for a small heap. It accepts no less. */
const FIRST_BYTES = 16 * 1024 * 1024;

/**
 * Starts the WebAssembly module of a machine, whose heap grows by so many bytes at most. Each call gives a fresh one, since
 * snapshots need it to themselves. The limit that QuickJS has itself counts allocations and not bytes in WebAssembly,
 * where it cannot ask how large one is.
 */
export function startModule(bytes = MACHINE_BYTES): Promise<QuickJSWASMModule> {
  const wasmMemory = new WebAssembly.Memory({
    initial: FIRST_BYTES / PAGE,
    maximum: Math.ceil((FIRST_BYTES + bytes) / PAGE),
  });
  return newQuickJSWASMModuleFromVariant(newVariant(variant, { wasmMemory }));
}

/** What is used of the library below its own surface. */
interface Below {
  ffi: {
    QTS_Call(context: number, fn: number, self: number, count: number, args: number): number;
    QTS_ResolveException(context: number, value: number): number;
    QTS_FreeValuePointer(context: number, value: number): void;
    QTS_DupValuePointer(context: number, value: number): number;
    QTS_NewArrayBuffer(context: number, bytes: number, length: number): number;
  };
  module: {
    HEAPU8: Uint8Array;
    _malloc(bytes: number): number;
    callbacks: { callFunction: unknown };
  };
  ctx: { value: number };
  memory: { heapValueHandle(pointer: number): QuickJSHandle };
}

/** What is called with arguments. */
const FUNCTIONS = ['putText', 'putLoose', 'given', 'cut', 'fits'] as const;
type GuestFunction = (typeof FUNCTIONS)[number];

/** What its host knows of a machine's functions: where each stands in its memory. */
function pointersOf<N extends string>(
  names: readonly N[],
  pointerOf: (name: N) => number,
): Readonly<Record<N, number>> {
  return Object.fromEntries(names.map((name) => [name, pointerOf(name)])) as Record<N, number>;
}

export class QuickJS implements Machine {
  readonly #context: QuickJSContext;
  readonly #below: Below;
  readonly #pointer: number;
  readonly #at: number;
  readonly #undefined: number;
  readonly #entries: Readonly<Record<GuestEntry, number>>;
  readonly #functions: Readonly<Record<GuestFunction, number>>;
  readonly #memory: WebAssembly.Memory;
  readonly #regions: Regions;
  readonly #mostPolls: number;
  /** Called again and again while the machine is at work. */
  readonly #alive: () => void;
  /** How often it may ask before what goes on is stopped. */
  #allowed = Infinity;
  #cells: Int32Array;
  #floats: Float64Array;
  #ask: () => void = () => undefined;
  #interrupted = false;
  /** How often the machine asked within this run whether to go on: once in ten thousand calls and branches. */
  #polls = 0;

  /** As it was booted. */
  readonly booted: Snapshot;

  /**
   * Boots a machine: 5–20 ms once its code is warm, and most of 200 ms before. `wasm` has to be a module that nothing
   * else uses. With an image (`image.ts`) of a machine booted before, the guest is not evaluated again.
   */
  constructor(
    wasm: QuickJSWASMModule,
    {
      temporal,
      limits,
      alive,
      image,
    }: { temporal: boolean; limits: Limits; alive: () => void; image: Image | null },
  ) {
    this.#alive = alive;
    this.#mostPolls = limits.polls;
    this.#memory = wasm.getWasmMemory();
    const runtime = wasm.newRuntime();
    runtime.setMaxStackSize(MACHINE_STACK_BYTES);
    runtime.setInterruptHandler(() => {
      alive();
      if (++this.#polls <= this.#allowed) return false;
      this.#interrupted = true;
      return true;
    });
    const context = runtime.newContext();
    this.#context = context;
    const below = context as unknown as Below;
    this.#below = below;
    const { ffi, module } = below;
    this.#pointer = below.ctx.value;
    this.#undefined = context.undefined.value as unknown as number;
    this.#at = module._malloc(SHARED_BYTES);
    module.HEAPU8.fill(0, this.#at, this.#at + SHARED_BYTES);
    this.#cells = new Int32Array(module.HEAPU8.buffer, this.#at, SHARED_BYTES / 4);
    this.#floats = new Float64Array(module.HEAPU8.buffer, this.#at, SHARED_BYTES / 8);
    context.setProp(
      context.global,
      '__buffer',
      below.memory.heapValueHandle(ffi.QTS_NewArrayBuffer(this.#pointer, this.#at, SHARED_BYTES)),
    );
    context.setProp(
      context.global,
      '__host',
      context.newFunction('host', () => {
        throw new Error('the raw callback has not been put in place');
      }),
    );
    const answer = (): number => {
      this.#ask();
      // The library’s C reads a null pointer as `undefined`, which spares a value made and freed for each question.
      return 0;
    };
    module.callbacks = { ...module.callbacks, callFunction: answer };
    this.#regions =
      image?.regions ?? regionsOf(this.#memory, () => void module._malloc(GROWTH_BYTES));
    if (image === null) {
      this.#evaluate(guestSource);
      if (temporal) this.#evaluate(temporalSource);
      const entries = context.getProp(context.global, '__entries');
      const pointerOf = (name: string) => context.getProp(entries, name).value as unknown as number;
      this.#entries = pointersOf(ENTRIES, pointerOf);
      this.#functions = pointersOf(FUNCTIONS, pointerOf);
      this.#evaluate('__close()');
      this.booted = this.snapshot();
    } else {
      this.booted = new Snapshot(this.#memory, image.data, image.heap, image.regions);
      this.booted.restore();
      this.#entries = pointersOf(ENTRIES, (name) => image.entries[name]!);
      this.#functions = pointersOf(FUNCTIONS, (name) => image.functions[name]!);
    }
  }

  #evaluate(source: string): void {
    const result = this.#context.evalCode(source, 'tavro.js');
    if (result.error)
      throw new Error(
        `the machine does not start: ${JSON.stringify(this.#context.dump(result.error))}`,
      );
    result.value.dispose();
  }

  get cells(): Int32Array {
    if (this.#cells.length === 0) this.#view();
    return this.#cells;
  }

  get floats(): Float64Array {
    if (this.#floats.length === 0) this.#view();
    return this.#floats;
  }

  /** The machine's memory has grown, which detaches all views of it. */
  #view(): void {
    const { buffer } = this.#below.module.HEAPU8;
    this.#cells = new Int32Array(buffer, this.#at, SHARED_BYTES / 4);
    this.#floats = new Float64Array(buffer, this.#at, SHARED_BYTES / 8);
  }

  get wasInterrupted(): boolean {
    return this.#interrupted;
  }

  answerWith(ask: () => void): void {
    this.#ask = ask;
  }

  call(entry: GuestEntry): boolean {
    const { ffi } = this.#below;
    const context = this.#pointer;
    const outer = this.#allowed;
    if (outer === Infinity && RUN_SCRIPTS.has(entry)) {
      this.#allowed = this.#mostPolls;
      this.#interrupted = false;
      this.#polls = 0;
      this.#alive();
    }
    try {
      const result = ffi.QTS_Call(context, this.#entries[entry], this.#undefined, 0, 0);
      const error = ffi.QTS_ResolveException(context, result);
      ffi.QTS_FreeValuePointer(context, result);
      if (error === 0) return true;
      ffi.QTS_FreeValuePointer(context, error);
      return false;
    } catch (caught) {
      throw new MachineDied(String(caught));
    } finally {
      this.#allowed = outer;
    }
  }

  #callFunction(name: GuestFunction, args: (string | number)[]): string | null {
    const context = this.#context;
    const fn = this.#below.memory.heapValueHandle(this.#functions[name]);
    try {
      const handles = args.map((arg) =>
        typeof arg === 'string' ? context.newString(arg) : context.newNumber(arg),
      );
      const result = context.callFunction(fn, context.undefined, ...handles);
      for (const handle of handles) handle.dispose();
      if (result.error) {
        result.error.dispose();
        return null;
      }
      const text = context.typeof(result.value) === 'string' ? context.getString(result.value) : '';
      result.value.dispose();
      return text;
    } catch (caught) {
      throw new MachineDied(String(caught));
    }
  }

  putText(text: string): void {
    if (this.#callFunction('putText', [text]) === null) throw new OutOfRoom();
  }

  putLoose(place: number, text: string): void {
    if (this.#callFunction('putLoose', [place, text]) === null) throw new OutOfRoom();
  }

  given(): string {
    const text = this.#callFunction('given', []);
    if (text === null) throw new OutOfRoom();
    return text;
  }

  cut(texts: number, kept: number): void {
    if (this.#callFunction('cut', [texts, kept]) === null)
      throw new MachineDied('the lists of texts cannot be cut back');
  }

  fits(pattern: string, text: string): boolean | null {
    const [outer, before] = [this.#allowed, this.#polls];
    this.#allowed = PATTERN_POLLS;
    this.#polls = 0;
    try {
      const answer = this.#callFunction('fits', [pattern, text]);
      return answer === null ? null : answer === 'yes';
    } finally {
      [this.#allowed, this.#polls] = [outer, before];
      this.#interrupted = false;
    }
  }

  /** The machine as it is now, in the place of a snapshot that nobody needs any more. No call into it may be going on. */
  snapshot(unused?: Snapshot): Snapshot {
    return Snapshot.of(this.#memory, this.#regions, unused);
  }

  /** What another machine of the same WebAssembly, guest and order of making can start from. */
  get image(): Image {
    return {
      regions: this.#regions,
      entries: this.#entries,
      functions: this.#functions,
      data: this.booted.data,
      heap: this.booted.heap,
    };
  }

  /** Bytes that scripts and the guest hold. */
  get bytesUsed(): number {
    const handle = this.#context.runtime.computeMemoryUsage();
    const usage = this.#context.dump(handle) as { memory_used_size: number };
    handle.dispose();
    return usage.memory_used_size;
  }
}
