/** The values of a session: all of them, and those that a submission saves. */
import type { Value, Values } from '../form/value';
import type { Part } from './parts';
import type { State } from './state';
import { emptyOf } from '../form/traits';

/** Every field as it stands. */
export function valuesOf(state: State): Values {
  return Object.fromEntries(state.parts.fields.map((part) => [part.name, part.value]));
}

/** What is saved: every field, empty where an off-screen field omits its value. */
export function submittedValues(state: State): { values: Values; without: string[] } {
  const values: Values = {};
  const without: string[] = [];
  for (const part of state.parts.fields) {
    const omitted = part.field.whenHidden === 'omit' && !part.onScreen;
    if (omitted) without.push(part.name);
    values[part.name] = omitted
      ? emptyOf(part.field)
      : (state.strays.get(part) ?? (part.rows === null ? part.value : rowsOut(part, without)));
  }
  return { values, without };
}

function rowsOut(part: Part, without: string[]): Value {
  const rows = part.rows!;
  const omitting = [...rows.columns].filter(([, { field }]) => field.whenHidden === 'omit');
  if (omitting.length === 0) return rows.value;
  return rows.list.map((row) => {
    const left = omitting.filter(([name]) => !rows.cell(row, name).onScreen);
    for (const [name] of left) without.push(rows.cell(row, name).address);
    return {
      ...row.values,
      ...Object.fromEntries(left.map(([name, { field }]) => [name, emptyOf(field)])),
    };
  });
}
