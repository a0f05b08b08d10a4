/** What services answer, and when: from the tables of the form, or from the service's own small script. */
import { lineInWords } from '../wire/line';
import { USUAL_DELAY } from '../limits';
import type { Service, ServiceFunction, ServiceMood } from '../form/service';
import { deepFreeze, inWords, type Value } from '../form/value';
import { ScriptError, words } from '../wire/failures';
import { keepMap, type Restore } from './checkpoint';
import type { Scripts } from './scripts';
import type { State } from './state';
import type { CallResult } from './waiting';
import { SCALARS } from '../form/scalar';

export interface ServiceCall {
  /** `service.function`. */
  name: string;
  args: Value;
  /** Milliseconds until it answers; Infinity when somebody does by hand. */
  delay: number;
  outcome: () => CallResult;
}

export class Services {
  readonly #all: ReadonlyMap<string, Service>;
  /** Calls of each service in this session, for those that are slow at times. */
  readonly #calls = new Map<string, number>();

  constructor(
    services: readonly Service[],
    private readonly state: State,
    private readonly scripts: Scripts,
    private readonly moods: Readonly<Record<string, ServiceMood>>,
  ) {
    this.#all = new Map(services.map((service) => [service.name, service]));
  }

  /** Takes a call. Throws ScriptError for a service or function that is not there and for arguments it does not take. */
  ask(serviceName: string, called: string, offered: unknown): ServiceCall {
    const service = this.#all.get(serviceName);
    if (service === undefined)
      throw new ScriptError('wrong_use', words.noService(serviceName, null));
    const definition = Object.hasOwn(service.functions, called) ? service.functions[called]! : null;
    if (definition === null)
      throw new ScriptError(
        'wrong_use',
        words.noFunction(serviceName, called, Object.keys(service.functions)),
      );
    const name = `${serviceName}.${called}`;
    const args = readArguments(name, definition, offered);
    const calls = (this.#calls.get(service.name) ?? 0) + 1;
    this.#calls.set(service.name, calls);
    const mood = { ...this.moods[service.name], ...this.moods[name] };
    const usual = definition.delay ?? service.delay ?? USUAL_DELAY;
    const delay =
      service.slow !== undefined && calls % service.slow.every === 0 ? service.slow.delay : usual;
    const fails = mood.fails ?? service.fails;
    return {
      name,
      args: args as Value,
      delay: mood.byHand === true ? Infinity : (mood.delay ?? delay),
      outcome: () =>
        fails === undefined ? this.#answer(name, definition, args) : { ok: false, reason: fails },
    };
  }

  checkpoint(): Restore {
    return keepMap(this.#calls);
  }

  #answer(name: string, { answers }: ServiceFunction, args: Record<string, Value>): CallResult {
    if (answers.from === 'table') {
      const conditions = Object.entries(answers.where);
      const fits = (row: Readonly<Record<string, unknown>>) =>
        conditions.every(([column, parameter]) => row[column] === args[parameter]);
      const { rows } = this.state.offers.table(answers.table);
      return {
        ok: true,
        value: answers.many === true ? Object.freeze(rows.filter(fits)) : (rows.find(fits) ?? null),
      };
    }
    const came = this.scripts.answer(name, args as Value);
    if (came === null) return { ok: false, reason: 'its script does not run' };
    return came.ok
      ? { ok: true, value: deepFreeze(came.value) }
      : { ok: false, reason: `its script failed in ${lineInWords(came.line)}` };
  }
}

function readArguments(
  name: string,
  definition: ServiceFunction,
  offered: unknown,
): Record<string, Value> {
  const { parameters } = definition;
  const wrong = (says: string): never => {
    throw new ScriptError('wrong_value', words.wrongArguments(name, says));
  };
  const list = parameters.map((parameter) => parameter.name).join(', ');
  if (
    offered !== undefined &&
    (typeof offered !== 'object' || offered === null || Array.isArray(offered))
  )
    return wrong(`takes { ${list} }, not ${inWords(offered)}.`);
  const given = (offered ?? {}) as Record<string, unknown>;
  const unknown = Object.keys(given).find(
    (key) => !parameters.some((parameter) => parameter.name === key),
  );
  if (unknown !== undefined) return wrong(`has no parameter "${unknown}". It has ${list}.`);
  const args: Record<string, Value> = {};
  for (const { name: parameter, kind, optional } of parameters) {
    const value = (Object.hasOwn(given, parameter) ? given[parameter] : null) ?? null;
    const { takes, holds } = SCALARS[kind];
    if (value === null ? optional !== true : !holds(value))
      return wrong(`takes ${takes} as ${parameter}, not ${inWords(value)}.`);
    args[parameter] = value as Value;
  }
  return args;
}
