/** What services answer, and when (semantics 21): from the tables of the form, or from the service's own small script. */
import { DEFAULT_DELAY, type Service, type ServiceFunction, type ServiceMood } from '../form/service';
import { isDate } from '../form/formats';
import { deepFreeze, inWords, type Value } from '../form/value';
import { ScriptFault, words } from './errors';
import { plain } from './plain';
import type { Probe } from './probe';
import type { State } from './state';
import type { Outcome } from './waiting';

/** A service's script, compiled like a behaviour. */
export type Answering = (parameters: Record<string, unknown>) => unknown;

export interface Asked {
  /** `service.function`. */
  name: string;
  args: Value;
  /** Milliseconds until it answers; Infinity when somebody does by hand. */
  delay: number;
  outcome: () => Outcome;
}

const KINDS = {
  text: ['a text', (x: unknown) => typeof x === 'string'],
  number: ['a finite number', (x: unknown) => typeof x === 'number' && Number.isFinite(x)],
  date: ['a date spelled YYYY-MM-DD', (x: unknown) => typeof x === 'string' && isDate(x)],
  yes_no: ['true or false', (x: unknown) => typeof x === 'boolean'],
} as const satisfies Record<string, readonly [string, (x: unknown) => boolean]>;

export class Services {
  readonly all: ReadonlyMap<string, Service>;
  readonly #state: State;
  readonly #scripts: ReadonlyMap<string, { run: Answering; probe: Probe }>;
  /** Calls of each service in this session, for those that are slow at times. */
  readonly #calls = new Map<string, number>();
  moods: Readonly<Record<string, ServiceMood>> = {};

  constructor(services: readonly Service[], state: State, scripts: ReadonlyMap<string, { run: Answering; probe: Probe }>) {
    this.all = new Map(services.map((service) => [service.name, service]));
    this.#state = state;
    this.#scripts = scripts;
  }

  /** Takes a call. Throws ScriptFault for arguments the function does not take. */
  ask(service: Service, called: string, offered: unknown): Asked {
    const name = `${service.name}.${called}`;
    const definition = service.functions[called]!;
    const args = readArguments(name, definition, offered);
    const calls = (this.#calls.get(service.name) ?? 0) + 1;
    this.#calls.set(service.name, calls);
    const mood = { ...this.moods[service.name], ...this.moods[name] };
    const usual = definition.delay ?? service.delay ?? DEFAULT_DELAY;
    const delay = service.slow !== undefined && calls % service.slow.every === 0 ? service.slow.delay : usual;
    const fails = mood.fails ?? service.fails;
    return {
      name,
      args: args as Value,
      delay: mood.byHand === true ? Infinity : (mood.delay ?? delay),
      outcome: () => (fails === undefined ? this.#answer(name, definition, args) : { ok: false, reason: fails }),
    };
  }

  #answer(name: string, { answers }: ServiceFunction, args: Record<string, Value>): Outcome {
    if (answers.from === 'table') {
      const conditions = Object.entries(answers.where);
      const fits = (row: Readonly<Record<string, unknown>>) => conditions.every(([column, parameter]) => row[column] === args[parameter]);
      const { rows } = this.#state.table(answers.table);
      return { ok: true, value: answers.many === true ? Object.freeze(rows.filter(fits)) : (rows.find(fits) ?? null) };
    }
    const script = this.#scripts.get(name);
    if (script === undefined) return { ok: false, reason: 'its script does not run' };
    script.probe.begin(1, false);
    try {
      return { ok: true, value: deepFreeze(plain(script.run(args))) };
    } catch {
      return { ok: false, reason: `its script failed in line ${script.probe.l}` };
    }
  }
}

function readArguments(name: string, definition: ServiceFunction, offered: unknown): Record<string, Value> {
  const { parameters } = definition;
  const wrong = (says: string): never => {
    throw new ScriptFault('wrong_value', words.wrongArguments(name, says));
  };
  const list = parameters.map((parameter) => parameter.name).join(', ');
  if (offered !== undefined && (typeof offered !== 'object' || offered === null || Array.isArray(offered))) return wrong(`takes { ${list} }, not ${inWords(offered)}.`);
  const given = (offered ?? {}) as Record<string, unknown>;
  const unknown = Object.keys(given).find((key) => !parameters.some((parameter) => parameter.name === key));
  if (unknown !== undefined) return wrong(`has no parameter "${unknown}". It has ${list}.`);
  const args: Record<string, Value> = {};
  for (const { name: parameter, kind, optional } of parameters) {
    const value = given[parameter] ?? null;
    const [takes, fits] = KINDS[kind];
    if (value === null ? optional !== true : !fits(value)) return wrong(`takes ${takes} as ${parameter}, not ${inWords(value)}.`);
    args[parameter] = value as Value;
  }
  return args;
}
