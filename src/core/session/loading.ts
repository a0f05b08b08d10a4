/** Loading scripts: making functions of compiled code, with the names scripts have, and running behaviours' top levels. */
import type { Clock } from './clock';
import { dateOn, mathOn, temporalOn } from './clock';
import { readFailure, type Failure } from './errors';
import type { Faces } from './faces';
import { Probe } from './probe';
import type { Runs } from './runs';
import type { Answering } from './services';
import type { Settling } from './settling';
import type { State } from './state';
import type { Behaviour, CompiledScript } from './ties';
import { tyingFor } from './tying';

/** What the machine around a session lends it. */
export interface Machine {
  /** Makes a function of these parameters from compiled source. Throws what the engine throws when it cannot. */
  makeFunction(parameters: readonly string[], body: string): (...args: unknown[]) => unknown;
  temporal: object | null;
  /** Told before each run and, in a traced session, each line, when somebody looks for the script that got stuck. */
  tell: ((behaviour: string, line: number) => void) | null;
}

/** Names that scripts do not get, though the machine has them. */
const WITHHELD = ['globalThis', 'Function', 'Reflect', 'Intl', 'console', 'setTimeout', 'setInterval', 'queueMicrotask', 'process', 'window', 'self', 'document', 'fetch'];

export class Loader {
  readonly #machine: Machine;
  readonly #state: State;
  readonly #runs: Runs;
  readonly #clock: Clock;
  #orders = 0;

  constructor(machine: Machine, state: State, runs: Runs, clock: Clock) {
    this.#machine = machine;
    this.#state = state;
    this.#runs = runs;
    this.#clock = clock;
  }

  /** What every script gets, whatever it is for. */
  #surroundings(): Record<string, unknown> {
    const { temporal } = this.#machine;
    const scope: Record<string, unknown> = {
      Date: dateOn(this.#clock),
      Math: mathOn(this.#clock),
      Temporal: temporal === null ? undefined : temporalOn(this.#clock, temporal as never),
      Promise: this.#runs.promises.constructor,
    };
    for (const name of WITHHELD) scope[name] = undefined;
    return scope;
  }

  #probeFor(name: string): Probe {
    const { tell } = this.#machine;
    return new Probe(tell === null ? null : (line) => tell(name, line));
  }

  /** Compiled scripts of services as functions of their parameters; those that do not compile are left out. */
  answering(scripts: readonly CompiledScript[]): Map<string, { run: Answering; probe: Probe }> {
    const made = new Map<string, { run: Answering; probe: Probe }>();
    for (const { name, code } of scripts) {
      if (code === null) continue;
      const probe = this.#probeFor(name);
      const tables = Object.fromEntries([...this.#state.tables].map(([table, index]) => [table, Object.freeze({ rows: Object.freeze(index.rows), find: (key: unknown) => index.find(String(key)) })]));
      const scope = { __probe: probe, tables, ...this.#surroundings() };
      const run = this.#machine.makeFunction(['parameters', ...Object.keys(scope)], `"use strict";${code}`);
      made.set(name, { probe, run: (parameters) => run(parameters, ...Object.values(scope)) });
    }
    return made;
  }

  /** Runs a behaviour's top level, where it ties itself to the form. When that fails none of its ties stay. */
  load(script: CompiledScript, index: number, settling: Settling, faces: Faces): Failure | null {
    if (script.code === null) return { ...script.failure!, behaviour: script.name };
    const probe = this.#probeFor(script.name);
    probe.promises = this.#runs.promises;
    probe.parent = faces.parent;
    const behaviour: Behaviour = { name: script.name, title: script.title, index, probe };
    const scope: Record<string, unknown> = {
      __probe: probe,
      ...tyingFor(behaviour, this.#runs, settling, faces, () => index * 100_000 + this.#orders++),
      ...faces.globals,
      ...this.#surroundings(),
    };
    const tiesBefore = settling.ties();
    probe.begin(1, false);
    this.#runs.topLevel = true;
    try {
      this.#machine.makeFunction(Object.keys(scope), `"use strict";${script.code}`)(...Object.values(scope));
      return null;
    } catch (caught) {
      const { thrownByScript } = probe;
      const failure = readFailure(caught, thrownByScript !== null && thrownByScript.value === caught, probe.deepest);
      settling.putTies(tiesBefore);
      return { ...failure, behaviour: script.name, line: probe.l };
    } finally {
      this.#runs.topLevel = false;
    }
  }
}
