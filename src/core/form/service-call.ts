/** What a function of a service is called with, as somebody types it. */
import type { ServiceFunction } from './service';
import type { Values } from './value';
import { isDate } from './formats';

/** Typed texts by parameter as values; what is left empty is not given. */
export function readGiven(
  parameters: ServiceFunction['parameters'],
  typed: Readonly<Record<string, string>>,
): { values: Values } | { says: string } {
  const values: Values = {};
  for (const { name, kind, optional } of parameters) {
    const text = Object.hasOwn(typed, name) ? typed[name]!.trim() : '';
    if (text === '') {
      if (optional !== true && kind !== 'text')
        return { says: `Give a ${KINDS[kind]} for ${name}.` };
      if (optional !== true) values[name] = '';
      continue;
    }
    const value = kind === 'number' ? Number(text) : kind === 'yes_no' ? YES_NO.get(text) : text;
    if (
      value === undefined ||
      (typeof value === 'number' && !Number.isFinite(value)) ||
      (kind === 'date' && !isDate(text))
    )
      return { says: `${name} is to be a ${KINDS[kind]}, not “${text}”.` };
    values[name] = value;
  }
  return { values };
}

const YES_NO: ReadonlyMap<string, boolean> = new Map([
  ['yes', true],
  ['no', false],
  ['true', true],
  ['false', false],
]);

const KINDS: Readonly<Record<ServiceFunction['parameters'][number]['kind'], string>> = {
  text: 'text',
  number: 'number',
  date: 'date such as 2031-05-02',
  yes_no: 'yes or no',
};
