/**
 * The language of one form: a declaration file in which every field, option key, table column and role is a type, so
 * that a label in place of a key is an error while typing. Describes what `session/faces.ts` makes.
 */
import { fieldsOf, sectionsOf, type Field, type Form } from '../form/definition';
import { kindInWords } from '../form/in-words';
import { kindOf } from '../form/kinds';
import type { Role, Table } from '../form/table';

/** Longer lists of keys would slow the checker down and help nobody; such keys are plain texts. */
const MOST_KEYS = 300;

export interface Surface {
  form: Form;
  tables: readonly Table[];
  roles: readonly Role[];
}

/** The text of the form's `.d.ts`. */
export function typingsOf({ form, tables, roles }: Surface): string {
  return [
    `// The language of the form "${form.title}" (${form.name}). Made by Tavro; do not edit.`,
    BASE,
    `interface TableRows {\n${tables.map((t) => `  ${t.name}: ${rowType(t)};`).join('\n')}\n}`,
    `interface TableKeys {\n${tables.map((t) => `  ${t.name}: ${keyType(t)};`).join('\n')}\n}`,
    `type RoleKey = ${roles.map((role) => JSON.stringify(role.key)).join(' | ') || 'string'};`,
    `declare const fields: {\n${fieldsOf(form).map(fieldEntry).join('\n')}\n};`,
    frames('sections', sectionsOf(form), 'Section'),
    frames('pages', form.pages, 'Page'),
    frames('buttons', (form.buttons ?? []).map((b) => ({ name: b.name, title: b.label })), 'Button'),
    `declare const tables: { readonly [T in keyof TableRows]: Table<TableRows[T], TableKeys[T]> };`,
  ].join('\n\n');
}

function frames(constant: string, parts: readonly { name: string; title: string }[], type: string): string {
  const entries = parts.map((part) => `  /** ${comment(part.title)} */\n  readonly ${part.name}: ${type};`);
  return `declare const ${constant}: {\n${entries.join('\n')}\n};`;
}

function fieldEntry(field: Field): string {
  const notes = [`${comment(field.label)} — ${kindInWords(field)}.`];
  if (field.kind === 'choice') notes.push(...field.options.map((o) => `- \`${o.key}\` ${comment(o.label)}`));
  if (field.required === true) notes.push('Required.');
  if (field.help !== undefined) notes.push(comment(field.help));
  return `  /**\n${notes.map((note) => `   * ${note}`).join('\n')}\n   */\n  readonly ${field.name}: ${fieldType(field)};`;
}

function fieldType(field: Field): string {
  const value = kindOf(field).type(field);
  switch (field.kind) {
    case 'choice':
      return `ChoiceField<${value}>`;
    case 'reference':
      return `ReferenceField<${JSON.stringify(field.table)}>`;
    default:
      return `Field<${value}>`;
  }
}

function comment(text: string): string {
  return text.replace(/\*\//g, '* /').replace(/\s+/g, ' ');
}

const COLUMN_TYPES = { text: 'string', number: 'number', date: 'string', yes_no: 'boolean' } as const;

function rowType(table: Table): string {
  const columns = table.columns.map((column) => {
    const type = column.name === table.key ? `TableKeys[${JSON.stringify(table.name)}]` : COLUMN_TYPES[column.kind];
    const empty = table.rows.some((row) => (row[column.name] ?? null) === null) ? ' | null' : '';
    return `readonly ${column.name}: ${type}${empty}`;
  });
  return `{ ${columns.join('; ')} }`;
}

function keyType(table: Table): string {
  if (table.rows.length === 0 || table.rows.length > MOST_KEYS) return 'string';
  return table.rows.map((row) => JSON.stringify(String(row[table.key]))).join(' | ');
}

const BASE = `
type Key<T extends keyof TableKeys> = TableKeys[T];
type Json = string | number | boolean | null | readonly Json[] | { readonly [name: string]: Json };
interface Option<K extends string = string> { readonly key: K; readonly label: string }

interface Part {
  /** Its technical name. */
  readonly name: string;
  /** What people read. */
  readonly label: string;
  /** What was said of this part itself. Assign undefined in a handler to take back what it said. */
  get shown(): boolean;
  set shown(shown: boolean | undefined);
  /** Refuses people, not scripts. */
  get locked(): boolean;
  set locked(locked: boolean | undefined);
  /** Whether it is on screen: itself and all it stands in are shown. */
  readonly onScreen: boolean;
  /** Whether people can change it: neither itself nor what it stands in is locked. */
  readonly editable: boolean;
}
interface Section extends Part {}
interface Page extends Part {
  /** Turns the form to this page. */
  open(): void;
}
interface Button extends Part {
  get label(): string;
  set label(label: string | undefined);
}
interface Field<V> extends Part {
  /** The value; null when empty. */
  get value(): V | null;
  set value(value: V | null | undefined);
  /** The value before its last change. */
  readonly previous: V | null;
  /** The value as opened or last saved. */
  readonly initial: V | null;
  readonly empty: boolean;
  get required(): boolean;
  set required(required: boolean | undefined);
  /** A line below the field; null for none. */
  get hint(): string | null;
  set hint(hint: string | null | undefined);
  /** What is wrong with the value: shown at the field, and stops a submission while the field is on screen. */
  get problem(): string | null;
  set problem(problem: string | null | undefined);
}
interface ChoiceField<K extends string> extends Field<K> {
  get options(): readonly Option<K>[];
  set options(options: readonly (K | { readonly key: K; readonly label?: string })[] | undefined);
  /** The label of the chosen option. For reading: compare keys. */
  readonly optionLabel: string | null;
  /** The value came with the record and is no longer offered. */
  readonly orphan: boolean;
}
interface ReferenceField<T extends keyof TableRows> extends Field<TableKeys[T]> {
  get options(): readonly Option<TableKeys[T]>[];
  set options(options: readonly (TableKeys[T] | TableRows[T] | Option<TableKeys[T]>)[] | undefined);
  readonly optionLabel: string | null;
  readonly orphan: boolean;
  /** The whole row of the table; null when nothing is chosen. */
  readonly row: TableRows[T] | null;
}
interface Table<R, K extends string> {
  readonly rows: readonly R[];
  find(key: K | null): R | null;
}

type By = "person" | "script" | "form";
interface FieldEvent<V> { readonly part: Field<V>; readonly value: V | null; readonly previous: V | null; readonly by: By }
interface AnyFieldEvent { readonly part: Field<any>; readonly value: Json; readonly previous: Json; readonly by: By }
interface ClickEvent { readonly part: Button; readonly by: By }
interface LoadEvent { readonly by: By }
interface Stoppable {
  /** Stops it, and says why; at a part when one is named. */
  stop(says: string, part?: Field<any> | Section | Page): void;
}
interface PageEvent extends Stoppable { readonly from: string; readonly to: string; readonly by: By }
interface SubmitEvent extends Stoppable { readonly by: By }
interface SavedEvent { readonly id: string; readonly by: By }
interface TieToField {
  <V>(field: Field<V>, handler: (event: FieldEvent<V>) => void): () => void;
  (fields: readonly Field<any>[], handler: (event: AnyFieldEvent) => void): () => void;
}

/** Ties a handler to an event. Each call gives a function that unties it. */
declare const on: {
  /** Once per opened record, before the rules. */
  load(handler: (event: LoadEvent) => void): () => void;
  /** A committed new value, whoever wrote it. */
  change: TieToField;
  /** Each keystroke, before the value is committed. */
  input: TieToField;
  focus: TieToField;
  blur: TieToField;
  click(button: Button | readonly Button[], handler: (event: ClickEvent) => void): () => void;
  pageChange(handler: (event: PageEvent) => void): () => void;
  /** After the fields have been checked and before anything is saved. */
  submit(handler: (event: SubmitEvent) => void): () => void;
  saved(handler: (event: SavedEvent) => void): () => void;
};
/** A rule holds all the time; what it no longer says is taken back. */
declare function keep(title: string, rule: () => void): void;
declare function keep(rule: () => void): void;
declare const form: {
  readonly isNew: boolean;
  /** The id of the open record; null for a new entry. */
  readonly record: string | null;
  readonly person: { readonly key: string; readonly name: string; readonly role: RoleKey };
  readonly launch: { readonly [name: string]: Json | undefined };
  /** Whether any value differs from the record as opened or saved. */
  readonly changed: boolean;
  /** Sets every field to its default. */
  clear(): void;
  message(text: string, tone?: "info" | "warning" | "error"): void;
  /** Stands instead of the form's body; null ends it. */
  replaceWith(text: string | null): void;
  submit(): void;
};
/** Rounds half away from zero on the decimal digits: round(1.005, 2) is 1.01. */
declare function round(x: number, places?: number): number;
/** A line on the tape; values stay values. */
declare function log(...values: unknown[]): void;
`.trim();
