/** Loading scripts: making functions of compiled code, with the names scripts have, and running behaviours' top levels. */
import { checks, fitsMask, throughMask } from '../form/checks';
import { round } from '../form/round';
import { ServiceError } from '../wire/failures';
import type { Asking } from './asking';
import type { GuestClock } from './clock';
import type { Current } from './current';
import type { Faces } from './faces';
import type { ReadsAs } from './plain';
import { Probe } from './probe';
import type { Promises } from './promises';
import type { Tables } from './tables';
import { tyingFor, type Tie } from './tying';
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
  makeFunction: MakeFunction;
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
  const { wire, readsAs, tables, makeFunction } = stage;
  const probe = new Probe(number, { wire, readsAs, parent: () => null, promises: null });
  const scope = { __probe: probe, tables: tables.face, ...surroundings(stage) };
  const run = makeFunction(['parameters', ...Object.keys(scope)], body(code));
  return { probe, run: (parameters) => run(parameters, ...Object.values(scope)) };
}

Object.freeze(ServiceError.prototype);
Object.freeze(ServiceError);

const CHECKS = Object.freeze({ ...checks, fits: fitsMask, format: throughMask });

/** Runs a behaviour's top level, where it ties itself to the form. Throws what it throws, with the probe in `current`. */
export function loadBehaviour(stage: Stage, number: number, code: string, ties: Tie[]): void {
  const { wire, current, faces, asking, tables, form, readsAs, promises, makeFunction } = stage;
  const probe = new Probe(number, { wire, readsAs, parent: asking.parent, promises });
  current.probe = probe;
  probe.begin(1, false);
  const scope: Record<string, unknown> = {
    __probe: probe,
    ...tyingFor(probe, ties, wire, current, faces, readsAs),
    ...faces.globals,
    tables: tables.face,
    services: asking.services,
    form,
    after: asking.after,
    round,
    checks: CHECKS,
    ServiceError,
    ...surroundings(stage),
  };
  makeFunction(Object.keys(scope), body(code))(...Object.values(scope));
}
