/** Loading scripts: making functions of compiled code, with the names scripts have, and running behaviours' top levels. */
import { checks, fitsMask, throughMask } from '../form/checks';
import { round } from '../form/round';
import { ScriptError, ServiceError, words } from '../wire/failures';
import { MODULE_STEP } from '../wire/line';
import type { Asking } from './services-face';
import type { GuestClock } from './clock';
import type { Current } from './current';
import { readFailure } from './failures';
import type { Faces } from './faces';
import type { Sight } from './glimpse';
import type { ReadsAs } from './plain';
import { ModuleProbe } from './module-probe';
import { Probe } from './probe';
import type { Promises } from './promises';
import type { Tables } from './tables';
import { logFor, tyingFor, type Tie } from './tying';
import type { Wire } from './wire';

/** Makes a function of these parameters from source. Throws what the engine throws when it cannot. */
export type MakeFunction = (
  parameters: readonly string[],
  body: string,
) => (...args: unknown[]) => unknown;

/** Names that scripts do not get, though the machine has them. */
const WITHHELD = [
  'globalThis',
  'Function',
  'Reflect',
  'Intl',
  'console',
  'setTimeout',
  'setInterval',
  'queueMicrotask',
  'process',
  'window',
  'self',
  'document',
  'fetch',
];

/** What all scripts of a form share. */
export interface Stage {
  wire: Wire;
  current: Current;
  promises: Promises;
  faces: Faces;
  asking: Asking;
  tables: Tables;
  clock: GuestClock;
  form: object;
  readsAs: ReadsAs;
  sight: Sight;
  makeFunction: MakeFunction;
  /** Shared modules by name: what they export, or why they cannot be used. */
  modules: Map<string, object | ScriptError>;
}

/** A shared module as the session hands it over; `why` says what was wrong with it where it has no code. */
export interface ModuleGiven {
  name: string;
  /** Its place among the modules, from 0. */
  index: number;
  code: string | null;
  why: { line: number | null; says: string } | null;
}

/** A service's script. */
export interface Answering {
  run: (parameters: unknown) => unknown;
  probe: Probe;
}

/** In a function of its own, so that `arguments` of the code are none. */
function body(code: string): string {
  return `"use strict";return (function () {${code}\n}).call(undefined);`;
}

/** What every script gets, whatever it is for. */
function surroundings({ clock, promises }: Stage): Record<string, unknown> {
  const scope: Record<string, unknown> = {
    Date: clock.Date,
    Math: clock.Math,
    Temporal: clock.Temporal,
    Promise: promises.constructor,
  };
  for (const name of WITHHELD) scope[name] = undefined;
  return scope;
}

/** A service's script as a function of its parameters. */
export function loadAnswering(stage: Stage, number: number, code: string): Answering {
  const { wire, sight, tables, makeFunction } = stage;
  const probe = new Probe(number, {
    wire,
    sight,
    parent: () => null,
    promises: null,
    aside: () => () => undefined,
  });
  const scope = { __probe: probe, tables: tables.face, ...surroundings(stage) };
  const run = makeFunction(['parameters', ...Object.keys(scope)], body(code));
  return { probe, run: (parameters) => run(parameters, ...Object.values(scope)) };
}

/** What behaviours and shared modules have alike. */
function common(stage: Stage): Record<string, unknown> {
  const { tables, asking, modules } = stage;
  return {
    __shared: (name: string): object => {
      const found = modules.get(name);
      if (found === undefined) throw new ScriptError('module', words.noModule(name));
      if (found instanceof ScriptError) throw found;
      return found;
    },
    tables: tables.face,
    services: asking.services,
    after: asking.after,
    round,
    checks: CHECKS,
    ServiceError,
    ...surroundings(stage),
  };
}

/** Runs a shared module's top level and keeps what it exports, or why it failed. */
export function loadShared(
  stage: Stage,
  number: number,
  { name, index, code, why }: ModuleGiven,
): void {
  const { wire, current, readsAs, sight, promises, makeFunction, modules } = stage;
  const fail = (line: number | null, says: string) =>
    modules.set(name, new ScriptError('module', words.moduleFailed(name, line, says)));
  if (code === null) return void fail(why?.line ?? null, why?.says ?? words.syntax);
  const probe = new Probe(number, {
    wire,
    sight,
    parent: () => null,
    promises,
    aside: () => current.aside(),
  });
  current.probe = probe;
  probe.begin(1, 0);
  const within = new ModuleProbe(current, (index + 1) * MODULE_STEP);
  const scope = {
    __probe: within,
    log: logFor(current, wire, readsAs),
    ...common(stage),
  };
  try {
    const exported = makeFunction(Object.keys(scope), body(code))(...Object.values(scope));
    // Without a prototype: a name that is not exported is none.
    modules.set(name, Object.freeze(Object.assign(Object.create(null) as object, exported)));
  } catch (caught) {
    const { thrownByScript } = probe;
    const marked = thrownByScript !== null && thrownByScript.value === caught;
    // It stands above the lines of its own top level.
    fail(probe.l % MODULE_STEP, readFailure(caught, marked, probe.deepest).says);
  }
}

Object.freeze(ServiceError.prototype);
Object.freeze(ServiceError);

const CHECKS = Object.freeze({ ...checks, fits: fitsMask, format: throughMask });

/** Runs a behaviour's top level, where it ties itself to the form. Throws what it throws, with the probe in `current`. */
export function loadBehaviour(stage: Stage, number: number, code: string, ties: Tie[]): void {
  const { wire, current, faces, asking, form, readsAs, sight, promises, makeFunction } = stage;
  const probe = new Probe(number, {
    wire,
    sight,
    parent: asking.parent,
    promises,
    aside: () => current.aside(),
  });
  current.probe = probe;
  probe.begin(1, 0);
  const scope: Record<string, unknown> = {
    __probe: probe,
    ...tyingFor(probe, ties, wire, current, faces),
    log: logFor(current, wire, readsAs),
    ...faces.globals,
    form,
    ...common(stage),
  };
  makeFunction(Object.keys(scope), body(code))(...Object.values(scope));
}
