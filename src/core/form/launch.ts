/** Launch parameters: what whoever opens a form hands over. Declared ones have a kind; others are texts. */
import type { Form, LaunchParameter } from './definition';
import { isDate } from './formats';
import { inWords, type Value, type Values } from './value';

type LaunchKind = LaunchParameter['kind'];

/** What a parameter of each kind takes; texts, as addresses have them, are read as what they say. */
const READ: Record<LaunchKind, { takes: string; read: (given: Value) => Value | undefined }> = {
  text: { takes: 'a text', read: (given) => (typeof given === 'string' ? given : undefined) },
  number: {
    takes: 'a finite number',
    read: (given) => {
      const number = typeof given === 'string' && given.trim() !== '' ? Number(given) : given;
      return typeof number === 'number' && Number.isFinite(number) ? number : undefined;
    },
  },
  date: {
    takes: 'a date spelled YYYY-MM-DD',
    read: (given) => (typeof given === 'string' && isDate(given) ? given : undefined),
  },
  yes_no: {
    takes: 'true or false',
    read: (given) =>
      typeof given === 'boolean'
        ? given
        : given === 'true'
          ? true
          : given === 'false'
            ? false
            : undefined,
  },
};

/** The parameters as scripts have them: declared ones of their kind, null where nothing is given; others as texts. Or what is wrong with one. */
export function readLaunch(
  form: Pick<Form, 'launch'>,
  given: Readonly<Values>,
): { launch: Values } | { name: string; says: string } {
  const launch: Values = {};
  const declared = new Map((form.launch ?? []).map((parameter) => [parameter.name, parameter]));
  for (const { name, kind } of declared.values()) {
    const value = Object.hasOwn(given, name) ? given[name]! : null;
    const read = value === null || value === '' ? null : READ[kind].read(value);
    if (read === undefined)
      return {
        name,
        says: `the launch parameter ${name} takes ${READ[kind].takes}, not ${inWords(value)}`,
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
