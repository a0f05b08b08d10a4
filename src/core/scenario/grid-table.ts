/**
 * A grid as a table for people: a line for each outcome with the combinations that come to it, a column for each part
 * that differs. Also as CSV, and as a page that can be read, printed and signed.
 */
import { stringify } from 'csv-stringify/sync';
import type { FieldOf, Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Person, Table } from '../form/table';
import { equal, type Value } from '../form/value';
import type { Strength } from './covering';
import type { Axis, GridTest } from './definition';
import { unfolded, type Outcome } from './grid';
import { holdsKeys } from '../form/traits';

export interface GridColumn {
  part: string;
  aspect: string;
}

export interface GridRow {
  /** Of each axis, the values with which it comes to this outcome; several where the others are the same. */
  values: Value[][];
  /** Places of its combinations in the accepted rows. */
  rows: number[];
  outcome: Outcome;
}

export interface GridTable {
  columns: GridColumn[];
  rows: GridRow[];
  /** Columns that are the same as another one in every row, by that one's name. */
  sameAs: Map<string, GridColumn[]>;
}

export const columnName = ({ part, aspect }: GridColumn): string => `${part}.${aspect}`;

/** Folds equal rows and equal columns. `also` names columns that are shown though they are the same in all rows. */
export function gridTable(
  axes: readonly Axis[],
  accepted: GridTest['accepted'],
  also: readonly GridColumn[] = [],
): GridTable {
  const rows = foldedRows(axes, accepted);
  const all = accepted.outcomes.flatMap((outcome) =>
    Object.entries(outcome).flatMap(([part, aspects]) =>
      Object.keys(aspects).map((aspect): GridColumn => ({ part, aspect })),
    ),
  );
  const named = new Map([...all, ...also].map((column) => [columnName(column), column]));
  const bySame = new Map<string, GridColumn>();
  const sameAs = new Map<string, GridColumn[]>();
  const columns: GridColumn[] = [];
  for (const column of named.values()) {
    const key = JSON.stringify([
      column.aspect,
      rows.map(({ outcome }) => outcome[column.part]?.[column.aspect] ?? null),
    ]);
    const like = bySame.get(key);
    if (like === undefined) {
      bySame.set(key, column);
      columns.push(column);
    } else sameAs.set(columnName(like), [...(sameAs.get(columnName(like)) ?? []), column]);
  }
  return { columns, rows, sameAs };
}

/** Combinations of one outcome become one row where they differ in one axis only, again and again. */
function foldedRows(axes: readonly Axis[], accepted: GridTest['accepted']): GridRow[] {
  const folded: (GridRow & { at: number; places: number[][] })[] = [];
  accepted.rows.forEach(([places, at], row) =>
    folded.push({
      at,
      rows: [row],
      places: places.map((place) => [place]),
      values: [],
      outcome: unfolded(accepted, at),
    }),
  );
  // The last axis first, as it changes fastest.
  for (let axis = axes.length - 1; axis >= 0; axis--) {
    const byOthers = new Map<string, (typeof folded)[number]>();
    for (const row of folded.splice(0)) {
      const key = JSON.stringify([row.at, row.places.filter((_, i) => i !== axis)]);
      const like = byOthers.get(key);
      if (like === undefined) byOthers.set(key, row);
      else {
        like.rows.push(...row.rows);
        like.places[axis]!.push(...row.places[axis]!);
      }
    }
    folded.push(...byOthers.values());
  }
  return folded.map(({ rows, places, outcome }) => ({
    rows,
    outcome,
    values: places.map((some, axis) => some.map((place) => axes[axis]!.values[place]!)),
  }));
}

/** How inputs, values and aspects read. */
export interface GridWords {
  part(name: string): string;
  /** A value of an input or a part: a key by its label. */
  value(name: string, value: Value): string;
}

const INPUTS: Readonly<Record<string, string>> = { '@as': 'Opened by', '@record': 'Record' };

/** Words for people, from the form's labels. */
export function gridWords(
  form: Form,
  label: (part: string) => string,
  { tables, people }: { tables: readonly Table[]; people: readonly Person[] },
): GridWords {
  const options = new Map<string, ReadonlyMap<string, string>>([
    ['@as', new Map(people.map(({ key, name }) => [key, name]))],
    ...fieldsOf(form)
      .filter(holdsKeys)
      .map((field) => [field.name, labelsOf(field, tables)] as const),
  ]);
  return {
    part: (name) =>
      INPUTS[name] ??
      (name.startsWith('@launch.')
        ? `Handed over: ${name.slice(8)}`
        : name.startsWith('@fails.')
          ? `${name.slice(7)} fails`
          : name === '@form'
            ? 'The form'
            : label(name)),
    value: (name, value) => {
      if (value === null) return name === '@record' ? 'new' : '–';
      if (value === true) return 'yes';
      if (value === false) return 'no';
      const keys = options.get(name);
      if (Array.isArray(value))
        return value.length === 0
          ? '–'
          : value
              .map((one) =>
                typeof one === 'string' ? (keys?.get(one) ?? one) : JSON.stringify(one),
              )
              .join(', ');
      if (typeof value === 'string') return keys?.get(value) ?? value;
      return typeof value === 'object' ? JSON.stringify(value) : String(value);
    },
  };
}

/** The labels of a field's keys. */
function labelsOf(
  field: FieldOf<'choice' | 'choices' | 'reference'>,
  tables: readonly Table[],
): Map<string, string> {
  if (field.kind !== 'reference')
    return new Map(field.options.map(({ key, label }) => [key, label]));
  const table = tables.find(({ name }) => name === field.table);
  return new Map(
    table?.rows.map((row) => [String(row[table.key]), String(row[table.label])] as const) ?? [],
  );
}

/** All combinations, unfolded, as CSV (RFC 4180): a column for each axis and each aspect that differs. */
export function gridAsCsv(axes: readonly Axis[], accepted: GridTest['accepted']): string {
  const { columns, sameAs } = gridTable(axes, accepted);
  const all = columns.flatMap((column) => [column, ...(sameAs.get(columnName(column)) ?? [])]);
  const cell = (value: Value | undefined) =>
    value === null || value === undefined
      ? ''
      : typeof value === 'string'
        ? value
        : JSON.stringify(value);
  return stringify(
    [
      [...axes.map(({ input }) => input), ...all.map(columnName)],
      ...accepted.rows.map(([places, at]) => {
        const outcome = unfolded(accepted, at);
        return [
          ...places.map((place, axis) => cell(axes[axis]!.values[place])),
          ...all.map(({ part, aspect }) => cell(outcome[part]?.[aspect])),
        ];
      }),
    ],
    { escape_formulas: true },
  );
}

/** A page by itself, for people who read and sign. */
export function gridAsPage(
  title: string,
  axes: readonly Axis[],
  accepted: GridTest['accepted'],
  words: GridWords,
  notes: readonly string[],
): string {
  const { columns, rows, sameAs } = gridTable(axes, accepted);
  const heads = columns.map((column) => {
    const all = [column, ...(sameAs.get(columnName(column)) ?? [])];
    return `<th scope="col">${all.map(({ part }) => escaped(words.part(part))).join(', ')}<br><small>${escaped(column.aspect)}</small></th>`;
  });
  const body = rows.map(({ values, outcome }) => {
    const inputs = values.map((some, axis) => {
      const { input, values: every } = axes[axis]!;
      const text = equal(some, every)
        ? 'any'
        : some.map((value) => words.value(input, value)).join(' or ');
      return `<th scope="row">${escaped(text)}</th>`;
    });
    const cells = columns.map(
      ({ part, aspect }) =>
        `<td>${escaped(words.value(part, outcome[part]?.[aspect] ?? null))}</td>`,
    );
    return `<tr>${inputs.join('')}${cells.join('')}</tr>`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title>
<style>body{font:15px/1.45 system-ui,sans-serif;margin:2rem;color:#1d2733}table{border-collapse:collapse}th,td{border:1px solid #b9c2cc;padding:.3rem .55rem;text-align:left;vertical-align:top}thead th{background:#eef2f5}tbody th{font-weight:600;background:#f7f9fa}small{font-weight:400;color:#51606f}.sign{margin-top:3rem;display:flex;gap:4rem}.sign div{border-top:1px solid #1d2733;min-width:14rem;padding-top:.3rem}</style></head>
<body><h1>${escaped(title)}</h1>
${notes.map((note) => `<p>${escaped(note)}</p>`).join('\n')}
<table><thead><tr>${axes.map(({ input }) => `<th scope="col">${escaped(words.part(input))}</th>`).join('')}${heads.join('')}</tr></thead>
<tbody>${body.join('\n')}</tbody></table>
<div class="sign"><div>Read and agreed</div><div>Date</div></div>
</body></html>
`;
}

function escaped(text: string): string {
  return text.replace(/[<>&"']/g, (letter) => `&#${letter.charCodeAt(0)};`);
}

/** How many combinations of all were tried, and how they were chosen where not all were. */
export function triedInWords({
  all,
  accepted,
  strength,
}: {
  all: number;
  accepted: GridTest['accepted'];
  strength: Strength | null;
}): string {
  const tried = accepted.rows.length;
  return strength === null
    ? all === 1
      ? 'The one combination: tick or add more values.'
      : `All ${all} combinations.`
    : `${tried} of ${all} combinations: any ${strength === 2 ? 'two' : 'three'} values of different inputs meet, ${all - tried} combinations are left out.`;
}
