/** What scripts offer that is no JSON, as something that reads the same in messages: a function, a date of Temporal, `NaN`. */
import type { Value } from '../form/value';
import { Strange, STRANGE_KEY } from '../wire/layout';

const FUNCTION = (): void => undefined;
/** Reads as an object of Temporal's to whoever asks for its tag. */
const TEMPORAL: object = Object.freeze({ [Symbol.toStringTag]: 'Temporal.Object' });
const OBJECT: object = Object.freeze({ ['no value']: null });

export function strangeOf(number: number): unknown {
  return number === Strange.Function ? FUNCTION : number === Strange.Temporal ? TEMPORAL : OBJECT;
}

/** Finds rows of reference data by table and key. */
export type FindRow = (table: string, key: string) => object | null;

/** A value of the scripts' end, with what was meant where JSON has no words for it. */
export function revived(value: Value, findRow: FindRow): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value))
    return (value as readonly Value[]).map((item) => revived(item, findRow));
  const given = value as Readonly<Record<string, Value>>;
  if (Object.hasOwn(given, STRANGE_KEY)) return strangeIn(given[STRANGE_KEY]!, findRow);
  return Object.fromEntries(
    Object.entries(given).map(([name, item]) => [name, revived(item, findRow)]),
  );
}

function strangeIn(told: Value, findRow: FindRow): unknown {
  if (typeof told === 'number') return strangeOf(told);
  if (typeof told === 'string') return told === 'undefined' ? undefined : Number(told);
  if (Array.isArray(told) && typeof told[0] === 'string' && typeof told[1] === 'string')
    return findRow(told[0], told[1]) ?? OBJECT;
  return OBJECT;
}
