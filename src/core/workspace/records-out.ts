/** Records as others read them: CSV (RFC 4180), JSON (RFC 8259) and JSON Lines, written piece by piece. */
import { stringify } from 'csv-stringify/sync';
import type { Field, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Value, Values } from '../form/value';
import { withoutFormula } from './write';

export const RECORD_FORMATS = {
  csv: { type: 'text/csv; charset=utf-8', ending: 'csv' },
  json: { type: 'application/json', ending: 'json' },
  jsonl: { type: 'application/jsonl', ending: 'jsonl' },
} as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;

export interface RecordOut {
  id: string;
  values: Values;
}

export interface RecordWriter {
  /** What stands before all records. */
  head: string;
  /** Some records; `first` when none were written before. */
  some(records: readonly RecordOut[], first: boolean): string;
  /** What stands behind them. */
  end: string;
}

/**
 * Writes records in a format. In JSON a record is its id and its values by the fields of the form, in their order; in
 * CSV a column is a field: several keys are parted by semicolons, yes/no is spelled so, rows and files are JSON.
 */
export function recordWriter(form: Form, format: RecordFormat): RecordWriter {
  const fields = fieldsOf(form);
  const json = ({ id, values }: RecordOut) =>
    JSON.stringify({
      id,
      values: Object.fromEntries(fields.map(({ name }) => [name, values[name] ?? null])),
    });
  switch (format) {
    case 'csv':
      return {
        head: stringify([['id', ...fields.map(({ name }) => name)]]),
        some: (records) =>
          stringify(
            records.map(({ id, values }) => [
              withoutFormula(id),
              ...fields.map((field) => cell(values[field.name] ?? null, field)),
            ]),
          ),
        end: '',
      };
    case 'json':
      return {
        head: '[',
        some: (records, first) =>
          records.map((record, i) => `${first && i === 0 ? '' : ','}\n${json(record)}`).join(''),
        end: '\n]\n',
      };
    case 'jsonl':
      return {
        head: '',
        some: (records) => records.map((record) => `${json(record)}\n`).join(''),
        end: '',
      };
  }
}

function cell(value: Value, field: Field): string {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(value);
  if (field.kind === 'choices' && Array.isArray(value)) return value.join(';');
  if (typeof value === 'string') return withoutFormula(value);
  return Array.isArray(value) && value.length === 0 ? '' : JSON.stringify(value);
}
