/**
 * The language of one form: a declaration file in which every field, option key, table column and role is a type, so
 * that a label in place of a key is an error while typing. Describes what `guest/faces.ts` makes.
 */
import type { Field, FieldOf, Form } from '../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../form/fields';
import { kindOf } from '../form/kinds';
import { SCALARS } from '../form/scalar';
import type { Service, ServiceFunction } from '../form/service';
import type { Role, Table } from '../form/table';
import type { EventType } from '../wire/layout';
import { isList, kindInWords } from '../form/traits';

/** Longer lists of keys would slow the checker down and help nobody; such keys are plain texts. */
const MOST_KEYS = 300;

export interface Surface {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  roles: readonly Role[];
}

/** The text of the form's `.d.ts`. */
export function typingsOf({ form, tables, services, roles }: Surface): string {
  return [
    `// The language of the form "${form.title}" (${form.name}). Made by Tavro; do not edit.`,
    BASE,
    `interface TableRows {\n${tables.map((t) => `  ${t.name}: ${rowType(t)};`).join('\n')}\n}`,
    `interface TableKeys {\n${tables.map((t) => `  ${t.name}: ${keyType(t)};`).join('\n')}\n}`,
    `type RoleKey = ${roles.map((role) => JSON.stringify(role.key)).join(' | ') || 'string'};`,
    `interface LaunchParameters {\n${(form.launch ?? []).map((p) => `${p.label === undefined ? '' : `  /** ${comment(p.label)} */\n`}  readonly ${p.name}: ${SCALARS[p.kind].type} | null;`).join('\n')}\n}`,
    ...fieldsOf(form).flatMap((field) => (field.kind === 'rows' ? [rowTypes(field)] : [])),
    `/** The fields of the form, by name. */\ndeclare const fields: {\n${form.pages.flatMap((page) => page.sections.flatMap((section) => section.fields.map((field) => fieldEntry(field, form.pages.length === 1 ? section.title : `${page.title} › ${section.title}`)))).join('\n')}\n};`,
    frames('sections', sectionsOf(form), 'Section'),
    frames('pages', form.pages, 'Page'),
    frames(
      'buttons',
      (form.buttons ?? []).map((b) => ({ name: b.name, title: b.label })),
      'Button',
    ),
    `/** The tracks of the form, by name. */\ndeclare const tracks: {\n${(form.tracks ?? []).map((track) => `  /** ${comment(track.title)}: ${track.stages.map((stage) => `\`${stage.key}\` ${comment(stage.label)}`).join(', ')}. */\n  readonly ${track.name}: Track<${keys(track.stages)}>;`).join('\n')}\n};`,
    `/** What scripts can call. */\ndeclare const services: {\n${services.map(serviceEntry).join('\n')}\n};`,
    `/** The reference data of the workspace, by name. */\ndeclare const tables: { readonly [T in keyof TableRows]: Table<TableRows[T], TableKeys[T]> };`,
  ].join('\n\n');
}

function frames(
  constant: string,
  parts: readonly { name: string; title: string }[],
  type: string,
): string {
  const entries = parts.map(
    (part) => `  /** ${comment(part.title)} */\n  readonly ${part.name}: ${type};`,
  );
  return `/** The ${constant} of the form, by name. */\ndeclare const ${constant}: {\n${entries.join('\n')}\n};`;
}

function fieldEntry(field: Field, standsIn: string | null = null): string {
  const notes = [`${comment(field.label)} — ${kindInWords(field)}.`];
  if (field.kind === 'choice' || field.kind === 'choices')
    notes.push(...field.options.map((o) => `- \`${o.key}\` ${comment(o.label)}`));
  if (standsIn !== null) notes.push(`Stands in ${comment(standsIn)}.`);
  if (field.required === true) notes.push('Required.');
  if (field.help !== undefined) notes.push(comment(field.help));
  return `  /**\n${notes.map((note) => `   * ${note}`).join('\n')}\n   */\n  readonly ${field.name}: ${fieldType(field)};`;
}

function fieldType(field: Field): string {
  switch (field.kind) {
    case 'choice':
      return `ChoiceField<${kindOf(field).type(field)}>`;
    case 'choices':
      return `ChoicesField<${keys(field.options)}>`;
    case 'reference':
      return `ReferenceField<${JSON.stringify(field.table)}>`;
    case 'file':
      return 'Field<readonly FileValue[], never>';
    case 'rows':
      return `RowsField<Row_${field.name}, Cells_${field.name}>`;
    default:
      return `Field<${kindOf(field).type(field)}>`;
  }
}

function keys(options: readonly { key: string }[]): string {
  return options.map((option) => JSON.stringify(option.key)).join(' | ') || 'string';
}

/** The types of a rows field: what a row holds as values, and its cells as parts. */
function rowTypes(field: FieldOf<'rows'>): string {
  const values = field.fields.map((cell) => {
    const type = kindOf(cell).type(cell);
    return `  readonly ${cell.name}: ${isList(cell) ? type : `${type} | null`};`;
  });
  return `interface Row_${field.name} {\n${values.join('\n')}\n}\ninterface Cells_${field.name} {\n${cellsOf(
    field,
  )
    .map((cell) => fieldEntry(cell))
    .join('\n')}\n}`;
}

function serviceEntry(service: Service): string {
  const functions = Object.entries(service.functions).map(([name, made]) => {
    const parameters = made.parameters.map(
      (parameter) =>
        `${parameter.name}${parameter.optional ? '?' : ''}: ${typeOfParameter(parameter)}`,
    );
    return `    /** ${comment(made.title ?? service.title)} */\n    ${name}(${parameters.length === 0 ? '' : `given: { ${parameters.join('; ')} }`}): Promise<${answerType(made)}>;`;
  });
  return `  /** ${comment(service.title)} */\n  readonly ${service.name}: {\n${functions.join('\n')}\n  };`;
}

/** The type of a parameter of a service, as its function takes it and as its script has it. */
export function typeOfParameter({ kind, optional }: ServiceFunction['parameters'][number]): string {
  return `${SCALARS[kind].type}${optional ? ' | null' : ''}`;
}

function answerType({ answers }: ServiceFunction): string {
  if (answers.from === 'script') return answers.gives;
  const row = `TableRows[${JSON.stringify(answers.table)}]`;
  return answers.many === true ? `readonly ${row}[]` : `${row} | null`;
}

function comment(text: string): string {
  return text.replace(/\*\//g, '* /').replace(/\s+/g, ' ');
}

function rowType(table: Table): string {
  const columns = table.columns.map((column) => {
    const type =
      column.name === table.key
        ? `TableKeys[${JSON.stringify(table.name)}]`
        : SCALARS[column.kind].type;
    const empty = table.rows.some((row) => (row[column.name] ?? null) === null) ? ' | null' : '';
    return `readonly ${column.name}: ${type}${empty}`;
  });
  return `{ ${columns.join('; ')} }`;
}

function keyType(table: Table): string {
  if (table.rows.length === 0 || table.rows.length > MOST_KEYS) return 'string';
  return table.rows.map((row) => JSON.stringify(String(row[table.key]))).join(' | ');
}

/** What each event is tied with; one that is missing does not compile. */
const ON: Readonly<Record<EventType, { about?: string; type: string }>> = {
  load: {
    about: 'Once per opened record, before the rules.',
    type: '(handler: Handler<LoadEvent>, options?: TieOptions): () => void',
  },
  change: { about: 'A committed new value, whoever wrote it.', type: ': TieToField' },
  input: { about: 'Each keystroke, before the value is committed.', type: ': TieToField' },
  focus: { type: ': TieToField' },
  blur: { type: ': TieToField' },
  click: {
    type: '(button: Button | readonly Button[], handler: Handler<ClickEvent>, options?: TieOptions): () => void',
  },
  rowAdded: { type: ': TieToRows' },
  rowRemoved: { about: 'The row can still be read.', type: ': TieToRows' },
  pageChange: { type: '(handler: Handler<PageEvent>, options?: TieOptions): () => void' },
  submit: {
    about: 'After the fields have been checked and before anything is saved.',
    type: '(handler: Handler<SubmitEvent>, options?: TieOptions): () => void',
  },
  saved: { type: '(handler: Handler<SavedEvent>, options?: TieOptions): () => void' },
};

/** What is the same for every form. */
export const BASE = `
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
interface FileValue { readonly name: string; readonly size: number; readonly type: string; readonly digest?: string }
/** A field as it is whatever it holds. */
interface AnyField extends Part {
  readonly empty: boolean;
  get required(): boolean;
  set required(required: boolean | undefined);
  /** A line below the field; null for none. */
  get hint(): string | null;
  set hint(hint: string | null | undefined);
  /** A line at the field that stands out and stops nothing; null for none. */
  get warning(): string | null;
  set warning(warning: string | null | undefined);
  /** What is wrong with the value: shown at the field, and stops a submission while the field is on screen. */
  get problem(): string | null;
  set problem(problem: string | null | undefined);
}
/** N is null where empty is null, never where empty is an empty list. */
interface Field<V, N = null> extends AnyField {
  /** The value; null, or an empty list, when empty. */
  get value(): V | N;
  set value(value: V | null | undefined);
  /** The value before its last change. */
  readonly previous: V | N;
  /** The value as opened or last saved. */
  readonly initial: V | N;
}
interface ChoicesField<K extends string> extends Field<readonly K[], never> {
  get options(): readonly Option<K>[];
  set options(options: readonly (K | { readonly key: K; readonly label?: string })[] | undefined);
  /** The labels of the chosen options. For reading: compare keys. */
  readonly optionLabel: readonly string[];
  readonly orphan: boolean;
}
interface RowsField<V, C> extends AnyField {
  /** The values of all rows. */
  get value(): readonly V[];
  set value(value: readonly Partial<V>[] | null | undefined);
  readonly initial: readonly V[];
  readonly rows: readonly Row<V, C>[];
  readonly count: number;
  /** The columns, to tie handlers to. */
  readonly each: { readonly [N in keyof C]: Column<C[N], Row<V, C>> };
  /** Adds a row at the end and gives it. */
  add(values?: Partial<V>): Row<V, C>;
  remove(row: Row<V, C>): void;
  /** The sum of a column of numbers; empty cells count nothing. */
  sum(column: { [N in keyof V]: V[N] extends number | null ? N : never }[keyof V]): number;
}
declare const held: unique symbol;
interface Column<F, R> { readonly name: string; readonly [held]?: { field: F; row: R } }
interface Row<V, C> {
  /** The cells of this row, as parts. */
  readonly fields: C;
  /** The values of this row. */
  readonly values: V;
  /** Its place, from 0. */
  readonly index: number;
  get shown(): boolean;
  set shown(shown: boolean | undefined);
  get locked(): boolean;
  set locked(locked: boolean | undefined);
  /** A line at the row that stands out and stops nothing; null for none. */
  get warning(): string | null;
  set warning(warning: string | null | undefined);
  /** What is wrong with the row as a whole: shown at it, and stops a submission while it is on screen. */
  get problem(): string | null;
  set problem(problem: string | null | undefined);
  readonly onScreen: boolean;
  readonly editable: boolean;
}
interface Track<S extends string> {
  readonly name: string;
  readonly label: string;
  get shown(): boolean;
  set shown(shown: boolean | undefined);
  readonly onScreen: boolean;
  /** The stage it stands at; null for none. */
  get stage(): S | null;
  set stage(stage: S | null | undefined);
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
interface FieldEvent<F extends AnyField, V> { readonly part: F; readonly value: V; readonly previous: V; readonly by: By }
interface CellEvent<F extends AnyField, V, R> extends FieldEvent<F, V> { readonly row: R }
interface RowEvent<R> { readonly row: R; readonly by: By }
interface ClickEvent { readonly part: Button; readonly by: By }
interface LoadEvent { readonly by: By }
interface Stoppable {
  /** Stops it, and says why; at a part when one is named. */
  stop(says: string, part?: AnyField | Section | Page | Row<any, any>): void;
}
interface PageEvent extends Stoppable { readonly from: string; readonly to: string; readonly by: By }
interface SubmitEvent extends Stoppable { readonly by: By }
interface SavedEvent { readonly id: string; readonly by: By }
/** What happens when a handler starts again while an earlier run of it still waits: that one ends, or both go on. */
interface TieOptions { readonly overlap?: "supersede" | "all" }
type Handler<E> = (event: E) => void | Promise<void>;
type ValueOf<F> = F extends { readonly value: infer V } ? V : never;
type AnyRow = Row<any, any>;
interface TieToField {
  <F extends AnyField & { readonly value: any }>(field: F, handler: Handler<FieldEvent<F, ValueOf<F>>>, options?: TieOptions): () => void;
  <F extends AnyField & { readonly value: any }, R>(column: Column<F, R>, handler: Handler<CellEvent<F, ValueOf<F>, R>>, options?: TieOptions): () => void;
  (fields: readonly (AnyField | Column<any, any>)[], handler: Handler<{ readonly part: AnyField; readonly value: Json; readonly previous: Json; readonly by: By; readonly row?: AnyRow }>, options?: TieOptions): () => void;
}
interface TieToRows {
  <V, C>(field: RowsField<V, C>, handler: Handler<RowEvent<Row<V, C>>>, options?: TieOptions): () => void;
}

/** Ties a handler to an event. Each call gives a function that unties it. */
declare const on: {
${Object.entries(ON)
  .map(
    ([name, { about, type }]) =>
      `${about === undefined ? '' : `  /** ${about} */\n`}  ${name}${type};`,
  )
  .join('\n')}
};
/** A rule holds all the time; what it no longer says is taken back. */
declare const keep: {
  (title: string, rule: () => void): void;
  (rule: () => void): void;
  /** A rule for each row, which says something of its own row alone. */
  each<V, C>(field: RowsField<V, C>, title: string, rule: (row: Row<V, C>) => void): void;
  each<V, C>(field: RowsField<V, C>, rule: (row: Row<V, C>) => void): void;
};
/**
 * An invariant: a check of the form's behaviours. The function reads the form and returns true or false. It runs after
 * a step has settled, if something it read has changed. People who fill in the form do not see it.
 */
declare const always: {
  (title: string, holds: () => boolean): void;
  /** For each row. */
  each<V, C>(field: RowsField<V, C>, title: string, holds: (row: Row<V, C>) => boolean): void;
};
declare const form: {
  readonly isNew: boolean;
  /** The id of the open record; null for a new entry. */
  readonly record: string | null;
  readonly person: { readonly key: string; readonly name: string; /** The roles the person has, one or several. */ readonly roles: readonly RoleKey[] };
  /** What whoever opened the form handed over; parameters that the form does not declare are texts. */
  readonly launch: LaunchParameters & { readonly [name: string]: string | undefined };
  /** The record is only looked at: people can change nothing. */
  readonly viewing: boolean;
  /** Whether any value differs from the record as opened or saved. */
  readonly changed: boolean;
  /** Sets every field to its default; rules hold again at once. */
  clear(): void;
  /** Puts every field back to what stood when the form had been opened, prefills included. */
  reset(): void;
  message(text: string, tone?: "info" | "warning" | "error"): void;
  /** Stands instead of the form's body; null ends it. Unless it is final, people can change their last answer. */
  replaceWith(text: string | null, options?: { final: boolean }): void;
  submit(): void;
};
/** The form that opened this one, or null. */
declare const parent: {
  /** A value of the parent as it was when this form was opened. */
  get(field: string): Json;
  /** Asks for a value to be set in the parent. */
  set(field: string, value: Json): Promise<void>;
} | null;
/** A promise that ends after so many milliseconds of the session's clock. */
declare function after(milliseconds: number): Promise<void>;
/** What a service's promise rejects with. */
declare class ServiceError extends Error {
  readonly service: string;
  readonly function: string;
  readonly reason: string;
}
/** Published check digits and formats. */
declare const checks: {
  /** ISO 13616, with the check digits of ISO/IEC 7064 MOD 97-10. */
  iban(text: string): boolean;
  /** The check digit of ISO/IEC 7812. */
  luhn(text: string): boolean;
  /** A freight container's number, ISO 6346. */
  container(text: string): boolean;
  /** A ship's IMO number. */
  imo(text: string): boolean;
  /** An international telephone number, ITU-T E.164. */
  phone(text: string): boolean;
  /** An e-mail address as of the HTML standard. */
  email(text: string): boolean;
  /** Whether a text is spelled as a mask says: 9 a digit, A a capital letter, * either. */
  fits(text: string, mask: string): boolean;
  /** Spells a text as a mask says. */
  format(text: string, mask: string): string;
};
/** Rounds half away from zero on the decimal digits: round(1.005, 2) is 1.01. */
declare function round(x: number, places?: number): number;
/** A line on the tape; values stay values. */
declare function log(...values: unknown[]): void;
`.trim();
