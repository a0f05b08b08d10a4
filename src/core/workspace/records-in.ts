/**
 * Records as others write them: CSV as offices spell it, JSON, JSON Lines, as `records-out.ts` writes them or with the
 * values alone. What cannot be read is named by its line; whether the values can be is the form's to say.
 */
import { parseTree, getNodeValue, type Node, type ParseError } from 'jsonc-parser';
import { RECORDS_BROUGHT } from '../limits';
import type { Field, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { oddIn } from '../form/plain-json';
import { isObject, type Value, type Values } from '../form/value';
import { linesOf } from './csv';
import { cellsInWords, delimiterOf, readCell, spellingOf, type Spelling } from './csv-spelling';
import type { FileError } from './json';
import type { RecordFormat } from './records-out';
import { emptyOf, traitsOf } from '../form/traits';

export interface RecordIn {
  /** Where it begins in the file, 1-based. */
  line: number;
  /** Of the record it changes; null for a new one. */
  id: string | null;
  values: Values;
}

export interface RecordsIn {
  records: RecordIn[];
  /** What cannot be read. */
  errors: { line: number; says: string }[];
  /** Columns that are left out, since only scripts write them. */
  leftOut: string[];
}

export function readRecords(form: Form, text: string, format: RecordFormat): RecordsIn {
  const fields = fieldsOf(form);
  const known = new Map(fields.map((field) => [field.name, field]));
  const found: RecordsIn = { records: [], errors: [], leftOut: [] };
  const refuse = (line: number, says: string) => void found.errors.push({ line, says });
  if (format === 'csv') fromCsv(known, text, found, refuse);
  else fromJson(known, text, format, found, refuse);
  if (found.records.length > RECORDS_BROUGHT) {
    refuse(
      found.records[RECORDS_BROUGHT]!.line,
      `is left out with all behind it: at most ${RECORDS_BROUGHT} records are brought in at once`,
    );
    found.records.length = RECORDS_BROUGHT;
  }
  // Computed again from the rest, as in an entry by hand.
  const computed = new Set(
    fields.flatMap(({ name, scriptOnly }) => (scriptOnly === true ? [name] : [])),
  );
  const left = new Set<string>();
  for (const record of found.records)
    record.values = Object.fromEntries(
      Object.entries(record.values).filter(([name]) => !computed.has(name) || void left.add(name)),
    );
  found.leftOut = [...left];
  return found;
}

type Refuse = (line: number, says: string) => void;

function fromCsv(
  known: ReadonlyMap<string, Field>,
  text: string,
  found: RecordsIn,
  refuse: Refuse,
): void {
  const errors: FileError[] = [];
  const delimiter = delimiterOf(text);
  const lines = linesOf('csv', text, delimiter, errors);
  for (const { line, says } of errors) refuse(line, says);
  const [head, ...body] = lines ?? [];
  if (head === undefined)
    return lines === null ? undefined : refuse(1, 'the first line has to name the fields');
  const spelling = spellingOf(
    delimiter,
    body.map(({ record }) => record),
  );
  const unknown = head.record.filter((name) => name !== 'id' && !known.has(name));
  if (unknown.length > 0)
    return refuse(
      1,
      `the form has no field ${unknown
        .slice(0, 5)
        .map((name) => `"${name.slice(0, 60)}"`)
        .join(', ')}`,
    );
  const twice = head.record.find((name, i, all) => all.indexOf(name) !== i);
  if (twice !== undefined) return refuse(1, `"${twice}" is there twice`);
  for (const { record, info } of body) {
    const values: Record<string, Value> = {};
    let id: string | null = null;
    let wrong: string | null = null;
    record.forEach((cell, i) => {
      const name = head.record[i]!;
      if (name === 'id') return void (id = cell === '' ? null : withoutMark(cell));
      const field = known.get(name)!;
      const value = cellValue(cell, field, spelling);
      if ('says' in value)
        wrong ??= `${field.label}: ${JSON.stringify(cell.slice(0, 60))} ${value.says}`;
      else values[name] = value.value;
    });
    if (wrong === null) found.records.push({ line: info.lines, id, values });
    else refuse(info.lines, wrong);
  }
}

/** What stands before a text that a spreadsheet would run (`write.ts`). */
const withoutMark = (cell: string) => cell.replace(/^'(?=[=+\-@\t\r])/, '');

function cellValue(
  cell: string,
  field: Field,
  spelling: Spelling,
): { value: Value } | { says: string } {
  if (cell === '') return { value: emptyOf(field) };
  const { column, holdsKeys } = traitsOf(field);
  if (column === 'text') return { value: withoutMark(cell) };
  if (column !== null) {
    const value = readCell(cell, column, spelling);
    return value === undefined ? { says: `is not ${cellsInWords(column, spelling)}` } : { value };
  }
  if (holdsKeys)
    return {
      value: cell
        .split(';')
        .map((key) => key.trim())
        .filter(Boolean),
    };
  try {
    const value: unknown = JSON.parse(cell);
    return Array.isArray(value) && oddIn(value) === null
      ? { value: value as Value }
      : { says: 'is no list' };
  } catch {
    return { says: 'is not JSON, in which rows and files stand' };
  }
}

function fromJson(
  known: ReadonlyMap<string, Field>,
  text: string,
  format: 'json' | 'jsonl',
  found: RecordsIn,
  refuse: Refuse,
): void {
  const take = (line: number, given: unknown) => {
    if (!isObject(given)) return refuse(line, 'is no record: an object is expected');
    const odd = oddIn(given);
    if (odd !== null) return refuse(line, odd);
    const record = given as Record<string, unknown>;
    // As it went out, or the values alone.
    const whole =
      isObject(record.values) &&
      Object.keys(record).every((key) => key === 'id' || key === 'values');
    const values = (whole ? record.values : record) as Values;
    const id = whole ? record.id : undefined;
    const unknown = Object.keys(values).find((name) => !known.has(name));
    if (unknown !== undefined)
      return refuse(line, `the form has no field "${unknown.slice(0, 60)}"`);
    found.records.push({
      line,
      id: typeof id === 'string' || typeof id === 'number' ? String(id) : null,
      values: { ...values },
    });
  };
  if (format === 'jsonl') {
    text.split(/\r\n|\n/).forEach((line, i) => {
      if (line.trim() === '') return;
      try {
        take(i + 1, JSON.parse(line));
      } catch {
        refuse(i + 1, 'is not JSON');
      }
    });
    return;
  }
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
  const lineAt = lineCounter(text);
  const [first] = errors;
  if (first !== undefined || tree === undefined)
    return refuse(lineAt(first?.offset ?? 0), 'is not JSON');
  if (tree.type !== 'array') return refuse(1, 'is no list of records');
  for (const node of tree.children ?? []) take(lineAt(node.offset), getNodeValue(node as Node));
}

/** The line of an offset; offsets are asked for in their order. */
function lineCounter(text: string): (offset: number) => number {
  let [line, at] = [1, 0];
  return (offset) => {
    for (; at < offset; at++) if (text[at] === '\n') line++;
    return line;
  };
}
