/** Launch parameters: what whoever opens a form hands over. Declared ones have a kind; others are texts. */
import type { Form, LaunchParameter } from './definition';
import { readNumber } from './number-style';
import { SCALARS } from './scalar';
import { inWords, type Value, type Values } from './value';

/** Reads the value given for a parameter. Addresses hold texts, which are read as the parameter's kind. */
function readParameter(given: Value, kind: LaunchParameter['kind']): Value | undefined {
  if (SCALARS[kind].holds(given)) return given;
  if (typeof given !== 'string') return undefined;
  // Addresses are written by programs: decimals begin with a point, whatever the office types.
  if (kind === 'number') return readNumber(given, 'point') ?? undefined;
  return kind === 'yes_no' && /^(?:true|false)$/.test(given) ? given === 'true' : undefined;
}

/** The parameters as scripts have them: declared ones of their kind, null where nothing is given; others as texts. Or what is wrong with one. */
export function readLaunch(
  form: Pick<Form, 'launch'>,
  given: Readonly<Values>,
): { launch: Values } | { name: string; says: string } {
  const launch: Values = {};
  const declared = new Map((form.launch ?? []).map((parameter) => [parameter.name, parameter]));
  for (const { name, kind } of declared.values()) {
    const value = Object.hasOwn(given, name) ? given[name]! : null;
    const read = value === null || value === '' ? null : readParameter(value, kind);
    if (read === undefined)
      return {
        name,
        says: `the launch parameter ${name} takes ${SCALARS[kind].takes}, not ${inWords(value)}`,
      };
    launch[name] = read;
  }
  for (const [name, value] of Object.entries(given)) {
    if (declared.has(name) || value === null) continue;
    if (typeof value === 'object')
      return { name, says: `the launch parameter ${name} takes a text, not ${inWords(value)}` };
    launch[name] = String(value);
  }
  return { launch };
}

/** The parameters where nothing is handed over: declared ones are there, and empty. */
export function nothingLaunched({ launch = [] }: Pick<Form, 'launch'>): Values {
  return Object.fromEntries(launch.map(({ name }) => [name, null]));
}
