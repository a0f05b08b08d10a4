/** What a function of a service is called with, as somebody types it. */
import type { NumberStyle } from './number-style';
import { SCALARS } from './scalar';
import type { ServiceFunction } from './service';
import type { Values } from './value';

/** Typed texts by parameter as values; what is left empty is not given. */
export function readGiven(
  parameters: ServiceFunction['parameters'],
  typed: Readonly<Record<string, string>>,
  numbers: NumberStyle = 'point',
): { values: Values } | { says: string } {
  const values: Values = {};
  for (const { name, kind, optional } of parameters) {
    const text = Object.hasOwn(typed, name) ? typed[name]!.trim() : '';
    if (text === '') {
      if (optional !== true && kind !== 'text')
        return { says: `Fill in ${name}: ${SCALARS[kind].typed}.` };
      if (optional !== true) values[name] = '';
      continue;
    }
    const value = SCALARS[kind].read(text, numbers);
    if (value === undefined)
      return { says: `${name} takes ${SCALARS[kind].typed}, not “${text}”.` };
    values[name] = value;
  }
  return { values };
}
