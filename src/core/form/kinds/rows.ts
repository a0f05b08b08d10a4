/** Rows: a list of objects with a cell for each of the field's own fields, `null` or empty where nothing is given. */
import { counted } from '../../counted';
import { ROWS_PER_FIELD } from '../../limits';
import type { Field, FieldOf } from '../definition';
import { inWords, type Value } from '../value';
import type { ReadingContext } from '../reading';
import type { Accepted, Kind } from './kind';

/** Reads one row; needs the kinds of its cells, which the table in `index.ts` has. */
export type ReadCell = (offered: unknown, field: Field, around: ReadingContext) => Accepted;

export function rowsKind(readCell: ReadCell): Kind<FieldOf<'rows'>> {
  return {
    accept(offered, field, around) {
      if (!Array.isArray(offered)) return { ok: false, takes: 'a list of rows' };
      if (offered.length > ROWS_PER_FIELD)
        return { ok: false, takes: `at most ${ROWS_PER_FIELD} rows` };
      const rows: Value[] = [];
      for (const [i, row] of (offered as unknown[]).entries()) {
        const read = readRow(row, field, around, readCell);
        if (typeof read === 'string')
          return { ok: false, takes: `rows of its own cells; in row ${i + 1} ${read}` };
        rows.push(read);
      }
      return { ok: true, value: rows };
    },
    check(value, field) {
      const { length } = value as readonly Value[];
      if (length < (field.minRows ?? 0))
        return { code: 'tooFew', says: `At least ${counted(field.minRows!, 'row')}.` };
      if (length > (field.maxRows ?? ROWS_PER_FIELD))
        return {
          code: 'tooMany',
          says: `At most ${counted(field.maxRows ?? ROWS_PER_FIELD, 'row')}.`,
        };
      return null;
    },
    type: (field) => `readonly Row_${field.name}[]`,
  };
}

/** A row with every cell, or what is wrong with it. */
export function readRow(
  offered: unknown,
  field: FieldOf<'rows'>,
  around: ReadingContext,
  readCell: ReadCell,
): Readonly<Record<string, Value>> | string {
  if (typeof offered !== 'object' || offered === null || Array.isArray(offered))
    return `stands ${inWords(offered)}`;
  const given = offered as Record<string, unknown>;
  const unknown = Object.keys(given).find(
    (name) => !field.fields.some((cell) => cell.name === name),
  );
  if (unknown !== undefined)
    return `"${unknown}" is no cell; there are ${field.fields.map(({ name }) => name).join(', ')}`;
  const row: Record<string, Value> = {};
  for (const cell of field.fields) {
    const offered = Object.hasOwn(given, cell.name) ? given[cell.name] : null;
    const accepted = readCell(offered, cell, { ...around, options: null });
    if (!accepted.ok) return `${cell.name} is ${inWords(offered)}, but takes ${accepted.takes}`;
    row[cell.name] = accepted.value;
  }
  return row;
}
