/**
 * A workspace in memory, and reading it from the texts of its folder. File access is the caller's: it hands over a
 * map of paths to texts and gets the workspace, or every error with its file, line and path.
 */
import { BEHAVIOURS_PER_FORM, BEHAVIOUR_CHARACTERS, SHARED_SCRIPTS } from '../limits';
import * as z from 'zod';
import { FormSchema, Name, type Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { definitionErrors } from '../form/integrity';
import { ServiceShape, type Service } from '../form/service';
import { oddIn } from '../form/plain-json';
import { repeatsIn } from '../form/repeats';
import { TableShape, type Table } from '../form/table';
import type { Source } from '../script/header';
import { FOR_SEVERAL, isBehaviourName, isModuleFile, MODULES } from '../script/script-name';
import { ScenarioSchema, type Scenario } from '../scenario/definition';
import { NoSuchOpening, openingOf, type Cast, type SampleRecord } from '../scenario/opening';
import { unknownNames } from '../scenario/naming';
import { beginningOf } from '../scenario/beginning';
import { variedOpenings } from '../scenario/inputs';
import { ValuesSchema } from '../session/schema';
import { readRows } from './csv';
import { HEAD_SHAPE, headOf, type Head } from './head';
import { placeFileError, readJson, type FileError } from './json';

export const WorkspaceFile = z.strictObject({
  $schema: z.string().optional(),
  ...HEAD_SHAPE,
  title: z.string().min(1),
});

export const RecordsFile = z.strictObject({
  $schema: z.string().optional(),
  records: z.array(z.strictObject({ id: z.string().min(1).max(60), values: ValuesSchema })),
});

export interface ScenarioFile {
  /** Without the ending. */
  name: string;
  scenario: Scenario;
}

export interface WorkspaceForm {
  form: Form;
  behaviours: Source[];
  scenarios: ScenarioFile[];
  records: SampleRecord[];
}

export interface Workspace extends Head {
  tables: Table[];
  services: Service[];
  forms: WorkspaceForm[];
  /** Behaviours for several forms (`behaviours/20-amounts.ts`) and shared modules (`shared/dates.ts`), by their paths. */
  shared: Source[];
}

/** Texts of a folder by their path below it, with `/` between the parts. */
export type Files = ReadonlyMap<string, string>;

export class BrokenWorkspace extends Error {
  constructor(
    readonly errors: FileError[],
    /** What stands beside the workspace and is not looked into, in words. */
    readonly odd: readonly string[] = [],
  ) {
    super(errors.map(fileErrorInWords).join('\n'));
  }
}

export function fileErrorInWords(error: FileError): string {
  const place = error.path.length === 0 ? '' : ` ${error.path.join('.')}:`;
  return `${error.file}:${error.line}:${place} ${error.says}`;
}

/** What files came to that were read before, by path: one that has not changed is not read again. */
export type FilesRead = Map<string, { text: string; content: unknown }>;

/** Reads a workspace. Throws BrokenWorkspace with all errors found. */
export function readWorkspace(files: Files, before: FilesRead = new Map()): Workspace {
  const errors: FileError[] = [];
  const read = <T>(path: string, schema: z.ZodType<T>): T | null => {
    const text = files.get(path);
    if (text === undefined) {
      errors.push({ file: path, line: 1, path: [], says: 'this file is missing' });
      return null;
    }
    const known = before.get(path);
    if (known?.text === text) return known.content as T;
    const content = readJson(path, text, schema, errors);
    if (content !== null) before.set(path, { text, content });
    return content;
  };
  const head = read('workspace.json', WorkspaceFile);
  if (head !== null) checkPeople(head, errors);
  const tables = [...names(files, /^tables\/([^/]+)\.json$/)].flatMap((name) =>
    readTable(name, files, read, errors),
  );
  const services = [...names(files, /^services\/([^/]+)\.json$/)].flatMap((name) =>
    readService(name, tables, read, errors),
  );
  const forms = [...new Set(names(files, /^forms\/([^/]+)\//))].flatMap((name) => {
    const form = readForm(name, files, tables, read, errors);
    return form === null ? [] : [form];
  });
  for (const form of forms) {
    checkChildren(form.form, forms, errors);
    checkScenarios(
      form,
      `forms/${form.form.name}`,
      { people: head?.people ?? [], records: form.records, forms, scenarios: form.scenarios },
      errors,
    );
  }
  const shared = readShared(files, errors);
  if (errors.length > 0 || head === null)
    throw new BrokenWorkspace(errors.map((error) => placeFileError(error, files.get(error.file))));
  return {
    ...headOf(head),
    tables,
    services,
    forms,
    shared,
  };
}

/** What several forms share of code. */
function readShared(files: Files, errors: FileError[]): Source[] {
  const shared = [
    ...readScripts(FOR_SEVERAL, /\.[jt]s$/, isBehaviourName, BEHAVIOUR_NAMED, files, errors),
    ...readScripts(
      MODULES,
      /\.ts$/,
      isModuleFile,
      'a shared module is named like dates.ts: lower-case letters, digits, - and _, at most 80 characters',
      files,
      errors,
    ),
  ].map(({ path: name, text }) => ({ name, text }));
  if (shared.length > SHARED_SCRIPTS)
    errors.push({
      file: MODULES,
      line: 1,
      path: [],
      says: `there are ${shared.length} shared modules and behaviours for several forms; a workspace has at most ${SHARED_SCRIPTS}`,
    });
  return shared;
}

const BEHAVIOUR_NAMED =
  'a behaviour is named like 10-start.ts: lower-case letters, digits, - and _, at most 80 characters';

/** The scripts right in a folder. */
function readScripts(
  folder: string,
  ending: RegExp,
  isName: (name: string) => boolean,
  named: string,
  files: Files,
  errors: FileError[],
): { path: string; name: string; text: string }[] {
  const scripts = [...filesIn(files, folder)]
    .filter((name) => ending.test(name) && !name.endsWith('.d.ts'))
    .map((name) => ({ path: `${folder}${name}`, name, text: files.get(`${folder}${name}`)! }));
  for (const { path, name, text } of scripts) {
    const error = (says: string) => errors.push({ file: path, line: 1, path: [], says });
    if (!isName(name)) error(named);
    if (text.length > BEHAVIOUR_CHARACTERS)
      error(`has ${text.length} characters; a script has at most ${BEHAVIOUR_CHARACTERS}`);
    const odd = oddIn(text);
    if (odd !== null) error(odd);
  }
  return scripts;
}

function* names(files: Files, pattern: RegExp): Iterable<string> {
  for (const path of [...files.keys()].sort()) {
    const match = pattern.exec(path);
    if (match !== null) yield match[1]!;
  }
}

/** The files right in a folder, by name. */
function* filesIn(files: Files, folder: string): Iterable<string> {
  for (const path of [...files.keys()].sort()) {
    if (path.startsWith(folder) && !path.slice(folder.length).includes('/'))
      yield path.slice(folder.length);
  }
}

type Reader = <T>(path: string, schema: z.ZodType<T>) => T | null;

function checkPeople(head: z.infer<typeof WorkspaceFile>, errors: FileError[]): void {
  for (const list of ['roles', 'people'] as const) {
    const keys = head[list].map(({ key }) => key);
    for (const i of repeatsIn(keys))
      errors.push({
        file: 'workspace.json',
        line: 1,
        path: [list, i, 'key'],
        says: `the key "${keys[i]}" is there twice`,
      });
  }
  const roles = new Set(head.roles.map((role) => role.key));
  head.people.forEach((person, i) => {
    person.roles.forEach((role, at) => {
      if (!roles.has(role))
        errors.push({
          file: 'workspace.json',
          line: 1,
          path: ['people', i, 'roles', at],
          says: `there is no role "${role}"`,
        });
    });
  });
}

function readTable(name: string, files: Files, read: Reader, errors: FileError[]): Table[] {
  const file = `tables/${name}.json`;
  const shape = read(file, TableShape);
  if (shape === null) return [];
  const error = (at: string, line: number, path: (string | number)[], says: string) =>
    errors.push({ file: at, line, path, says });
  if (!Name.safeParse(name).success)
    error(file, 1, [], 'a table is named by its file: lower-case letters, digits and _');
  const columns = shape.columns.map((column) => column.name);
  for (const i of repeatsIn(columns))
    error(file, 1, ['columns', i, 'name'], `the column "${columns[i]}" is there twice`);
  for (const role of ['key', 'label'] as const) {
    if (!columns.includes(shape[role]))
      error(file, 1, [role], `there is no column "${shape[role]}"`);
  }
  const csv = `tables/${name}.csv`;
  const text = files.get(csv);
  if (text === undefined) {
    error(csv, 1, [], 'this file is missing: it holds the rows of the table');
    return [];
  }
  const { $schema: _, ...rest } = shape;
  return [{ name, ...rest, rows: readRows(csv, text, shape, errors) }];
}

function readForm(
  name: string,
  files: Files,
  tables: readonly Table[],
  read: Reader,
  errors: FileError[],
): WorkspaceForm | null {
  const folder = `forms/${name}`;
  const form = read(`${folder}/form.json`, FormSchema);
  if (form === null) return null;
  const file = `${folder}/form.json`;
  if (form.name !== name)
    errors.push({
      file,
      line: 1,
      path: ['name'],
      says: `is "${form.name}", but its folder is called "${name}"`,
    });
  for (const error of definitionErrors(form, tables)) errors.push({ file, line: 1, ...error });
  const behaviours = readScripts(
    `${folder}/behaviours/`,
    /\.[jt]s$/,
    isBehaviourName,
    BEHAVIOUR_NAMED,
    files,
    errors,
  ).map(({ name: behaviour, text }) => ({ name: behaviour, text }));
  if (behaviours.length > BEHAVIOURS_PER_FORM)
    errors.push({
      file: `${folder}/behaviours`,
      line: 1,
      path: [],
      says: `there are ${behaviours.length} behaviours; a form has at most ${BEHAVIOURS_PER_FORM}`,
    });
  const scenarios = [...filesIn(files, `${folder}/scenarios/`)].flatMap((path) => {
    const scenario = path.replace(/\.json$/, '');
    const found = read(`${folder}/scenarios/${scenario}.json`, ScenarioSchema);
    return found === null ? [] : [{ name: scenario, scenario: found }];
  });
  const records = files.has(`${folder}/records.json`)
    ? read(`${folder}/records.json`, RecordsFile)
    : null;
  const ids = records?.records.map(({ id }) => id) ?? [];
  for (const i of repeatsIn(ids))
    errors.push({
      file: `${folder}/records.json`,
      line: 1,
      path: ['records', i, 'id'],
      says: `the id "${ids[i]}" is there twice`,
    });
  const { $schema: _, ...definition } = form;
  return { form: definition, behaviours, scenarios, records: records?.records ?? [] };
}

function readService(
  name: string,
  tables: readonly Table[],
  read: Reader,
  errors: FileError[],
): Service[] {
  const file = `services/${name}.json`;
  const shape = read(file, ServiceShape);
  if (shape === null) return [];
  const error = (path: (string | number)[], says: string) =>
    errors.push({ file, line: 1, path, says });
  if (!Name.safeParse(name).success)
    error([], 'a service is named by its file: lower-case letters, digits and _');
  for (const [called, { parameters, answers }] of Object.entries(shape.functions)) {
    if (answers.from !== 'table') continue;
    const path = ['functions', called, 'answers'];
    const table = tables.find((one) => one.name === answers.table);
    if (table === undefined) {
      error([...path, 'table'], `there is no table "${answers.table}"`);
      continue;
    }
    for (const [column, parameter] of Object.entries(answers.where)) {
      if (!table.columns.some((one) => one.name === column))
        error([...path, 'where', column], `table ${table.name} has no column "${column}"`);
      if (!parameters.some((one) => one.name === parameter))
        error([...path, 'where', column], `${called} has no parameter "${parameter}"`);
    }
  }
  const { $schema: _, ...rest } = shape;
  return [{ name, ...rest }];
}

/** Lists of records name another form and its fields. */
function checkChildren(form: Form, forms: readonly WorkspaceForm[], errors: FileError[]): void {
  form.children?.forEach((list, c) => {
    const error = (key: string, says: string) =>
      errors.push({
        file: `forms/${form.name}/form.json`,
        line: 1,
        path: ['children', c, key],
        says,
      });
    const child = forms.find((one) => one.form.name === list.form);
    if (child === undefined) return error('form', `there is no form "${list.form}"`);
    const known = new Set(fieldsOf(child.form).map((field) => field.name));
    for (const [key, names] of [
      ['field', [list.field]],
      ['columns', list.columns],
    ] as const) {
      for (const name of names)
        if (!known.has(name)) error(key, `the form ${list.form} has no field "${name}"`);
    }
  });
}

function checkScenarios(
  form: WorkspaceForm,
  folder: string,
  cast: Cast,
  errors: FileError[],
): void {
  for (const { name, scenario } of form.scenarios) {
    const file = `${folder}/scenarios/${name}.json`;
    for (const unknown of unknownNames(scenario, form.form))
      errors.push({ file, line: 1, ...unknown });
    if (cast.people.length === 0) continue;
    try {
      const { open } = beginningOf(scenario, cast.scenarios ?? []);
      for (const varied of variedOpenings(scenario, open)) openingOf(varied, form.form, cast);
    } catch (caught) {
      if (!(caught instanceof NoSuchOpening)) throw caught;
      errors.push({ file, line: 1, path: caught.path, says: caught.message });
    }
  }
}
