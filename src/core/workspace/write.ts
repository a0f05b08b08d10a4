/** Writes a workspace as the texts of its folder: one thing per file, stable order, made to be kept in git. */
import { stringify } from 'csv-stringify/sync';
import type { CellValue, Table } from '../form/table';
import type { Workspace } from './workspace';

export function writeWorkspace(workspace: Workspace): Map<string, string> {
  const files = new Map<string, string>();
  const json = (path: string, content: object) =>
    files.set(path, `${JSON.stringify(content, null, 2)}\n`);
  const { title, roles, people, dates } = workspace;
  json('workspace.json', { title, roles, people, ...(dates === undefined ? {} : { dates }) });
  for (const { name, rows, ...shape } of workspace.tables) {
    json(`tables/${name}.json`, shape);
    files.set(`tables/${name}.csv`, writeRows(shape.columns, rows, { formulas: true }));
  }
  for (const { name, ...shape } of workspace.services) json(`services/${name}.json`, shape);
  for (const { form, behaviours, scenarios, records } of workspace.forms) {
    const folder = `forms/${form.name}`;
    json(`${folder}/form.json`, form);
    for (const behaviour of behaviours)
      files.set(`${folder}/behaviours/${behaviour.name}`, behaviour.text);
    for (const { name, scenario } of scenarios) json(`${folder}/scenarios/${name}.json`, scenario);
    if (records.length > 0) json(`${folder}/records.json`, { records });
  }
  return files;
}

/** Spreadsheets read a cell that begins like this as a formula (OWASP, "CSV injection"). */
const FORMULA = /^[=+\-@\t\r]/;

/**
 * The rows of a table as CSV (RFC 4180), with the columns named in the first line. Without `formulas` an apostrophe
 * stands before texts that a spreadsheet would run.
 */
export function writeRows(
  columns: Table['columns'],
  rows: Table['rows'],
  { formulas }: { formulas: boolean },
): string {
  const text = (value: string) => (!formulas && FORMULA.test(value) ? `'${value}` : value);
  const cell = (value: CellValue | undefined) =>
    typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : typeof value === 'string'
        ? text(value)
        : (value ?? '');
  return stringify([
    columns.map((column) => column.name),
    ...rows.map((row) => columns.map((column) => cell(row[column.name]))),
  ]);
}
