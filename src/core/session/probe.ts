/**
 * What compiled scripts report to: where they are, and what it costs. The compiler (`language/instrument.ts`) puts
 * calls of this object into every script, so a script that loops for ever stops after the same number of rounds on
 * every machine, and errors and effects know their line without reading the engine's stack traces.
 */
import type { Value } from '../form/value';
import { plain } from './plain';
import { ScriptFault, words } from './errors';
import type { Promises } from './promises';

/** Loop rounds and function calls that one run may make. About 0.2 s in the slowest machine that counts. */
export const FUEL = 250_000;

/** Fuel that going on after an `await` burns: it takes the machine about so many loop rounds. */
const AWAIT_COSTS = 50;

/** How deep functions of a script may call one another. Below what the machine's own stack takes. */
export const DEPTH = 100;

/** Assigned values and conditions kept per run; a loop of a thousand rounds would drown the tape. */
const VALUES_KEPT = 200;

export class Probe {
  /** The line that is being run, 1-based. */
  l = 0;
  fuel = FUEL;
  depth = 0;
  /** The deepest the run went, which tells an exhausted stack from exhausted memory. */
  deepest = 0;
  /** What the script threw itself, to keep its words apart from the engine's. */
  thrownByScript: { value: unknown } | null = null;
  hits: Map<number, number> | null = null;
  values: { line: number; what: string; value: Value }[] = [];
  cut = false;
  /** The promises of a session; the scripts of services have none. */
  promises: Promises | null = null;
  /** What the name `parent` stands for. */
  parent: () => object | null = () => null;
  readonly #tell: ((line: number) => void) | null;

  constructor(tell: ((line: number) => void) | null = null) {
    this.#tell = tell;
  }

  get used(): number {
    return FUEL - Math.max(0, this.fuel);
  }

  /** Called before each run. */
  begin(line: number, traced: boolean): void {
    this.l = line;
    this.fuel = FUEL;
    this.depth = 0;
    this.deepest = 0;
    this.thrownByScript = null;
    this.hits = traced ? new Map() : null;
    this.values = [];
    this.cut = false;
    this.#tell?.(line);
  }

  /** A statement of a traced script. */
  s(line: number): void {
    this.l = line;
    this.#tell?.(line);
    if (this.hits !== null) this.hits.set(line, (this.hits.get(line) ?? 0) + 1);
  }

  /** A loop round, or a function without calls of its own: burns fuel. */
  f(line: number): void {
    this.l = line;
    if (--this.fuel < 0) throw new ScriptFault('fuel', words.fuel);
  }

  /** A function is entered. */
  in(line: number): void {
    this.l = line;
    if (--this.fuel < 0) throw new ScriptFault('fuel', words.fuel);
    if (++this.depth > this.deepest) this.deepest = this.depth;
    if (this.depth > DEPTH) throw new ScriptFault('depth', words.depth);
  }

  /** A function is left, however that happens. */
  out(): void {
    this.depth--;
  }

  /** Runs a compiled async function. */
  go(self: unknown, body: () => Generator<unknown, unknown, unknown>, args: readonly unknown[]): object {
    if (this.promises === null) throw new ScriptFault('async', words.asyncService);
    return this.promises.go(this, self, body, args);
  }

  /** An async function starts or goes on, which costs far more than a call. */
  goOn(): void {
    this.fuel -= AWAIT_COSTS;
    if (this.fuel < 0) throw new ScriptFault('fuel', words.fuel);
  }

  /** Something that could have moved the line is over: says it again, and passes the value on. */
  at<T>(line: number, value: T): T {
    this.l = line;
    return value;
  }

  /** An assigned value or a condition in a traced script. */
  v<T>(line: number, what: string, value: T): T {
    this.l = line;
    if (this.hits !== null) {
      if (this.values.length < VALUES_KEPT) this.values.push({ line, what, value: plain(value) });
      else this.cut = true;
    }
    return value;
  }

  /** The operand of a `throw` of the script's own. */
  t(line: number, value: unknown): unknown {
    this.l = line;
    this.thrownByScript = { value };
    return value;
  }
}
