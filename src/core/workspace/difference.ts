/** What differs between two workspaces, in words that name the thing and not the line of JSON. */
import { diffArrays } from 'diff';
import { counted } from '../counted';
import type { Form } from '../form/definition';
import { equal, inWords, type Value } from '../form/value';
import type { Source } from '../script/header';
import { isModule } from '../script/script-name';
import { renamesBetween, type Renames } from '../scenario/renamed';
import { namesFor, type Names } from '../tape/words';
import type { KeptFillings } from './head';
import { listChanges, singular } from './list-changes';
import type { Workspace, WorkspaceForm } from './workspace';

export interface FileDifference {
  /** The file that it is in, such as `forms/berth_visit/form.json`. */
  file: string;
  /** Such as `Berth (berth): now required`. */
  says: string;
  /** Of a script that differs: its lines, in the order of the text. */
  lines?: readonly CodeLine[];
}

/** A line of a script that only one of two versions has. */
export interface CodeLine {
  in: 'before' | 'after';
  /** 1-based, in the version that has it. */
  line: number;
  text: string;
}

/** In the order of the files; none when both hold the same. */
export function differences(before: Workspace, after: Workspace): FileDifference[] {
  return [
    ...heads(before, after),
    ...things(
      'table',
      before.tables,
      after.tables,
      nameOf,
      (name) => `tables/${name}.json`,
      tables,
    ),
    ...things(
      'service',
      before.services,
      after.services,
      nameOf,
      (name) => `services/${name}.json`,
      plainly,
    ),
    ...scripts(before.shared, after.shared),
    ...things(
      'form',
      before.forms,
      after.forms,
      ({ form }) => form.name,
      (name) => `forms/${name}/form.json`,
      forms,
    ),
  ].toSorted((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : 0));
}

/** Behaviours for several forms and shared modules. */
function scripts(before: readonly Source[], after: readonly Source[]): FileDifference[] {
  const of = (all: readonly Source[], modules: boolean) =>
    all.filter(({ name }) => isModule(name) === modules);
  return [true, false].flatMap((modules) =>
    things(
      modules ? 'shared module' : 'behaviour',
      of(before, modules),
      of(after, modules),
      nameOf,
      (name) => name,
      textsDiffer,
    ),
  );
}

function textsDiffer(was: Source, is: Source, file: string): FileDifference[] {
  if (was.text === is.text) return [];
  const lines = codeLines(was.text, is.text);
  const count = (which: CodeLine['in']) =>
    counted(lines.filter((one) => one.in === which).length, 'line');
  return [{ file, says: `${count('after')} added, ${count('before')} removed`, lines }];
}

const nameOf = ({ name }: { name: string }) => name;
const same = (a: unknown, b: unknown) => equal((a ?? null) as Value, (b ?? null) as Value);

/** What is new, what is gone, and of what is in both what differs. */
function things<T>(
  what: string,
  before: readonly T[],
  after: readonly T[],
  name: (one: T) => string,
  file: (name: string) => string,
  within: (a: T, b: T, file: string) => FileDifference[],
): FileDifference[] {
  const was = new Map(before.map((one) => [name(one), one]));
  const is = new Map(after.map((one) => [name(one), one]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((key) => {
    const [a, b] = [was.get(key), is.get(key)];
    if (a === undefined) return [{ file: file(key), says: `new ${what} ${key}` }];
    if (b === undefined) return [{ file: file(key), says: `${what} ${key} removed` }];
    return within(a, b, file(key));
  });
}

function heads(before: Workspace, after: Workspace): FileDifference[] {
  const file = 'workspace.json';
  const says = [
    ...(before.title === after.title ? [] : [`title: "${before.title}" → "${after.title}"`]),
    ...(same(before.dates, after.dates)
      ? []
      : [`dates: ${before.dates ?? 'iso'} → ${after.dates ?? 'iso'}`]),
    ...(same(before.numbers, after.numbers)
      ? []
      : [`numbers: ${before.numbers ?? 'point'} → ${after.numbers ?? 'point'}`]),
    ...(same(before.fillings, after.fillings)
      ? []
      : [`filling-ins kept: ${keptInWords(before.fillings)} → ${keptInWords(after.fillings)}`]),
    ...(['roles', 'people'] as const).flatMap((list) =>
      things<{ key: string }>(
        list === 'roles' ? 'role' : 'person',
        before[list],
        after[list],
        ({ key }) => key,
        () => file,
        (a, b) =>
          propertiesIn(a, b, (b as { key: string }).key).map((one) => ({ file, says: one })),
      ).map((one) => one.says),
    ),
  ];
  return says.map((one) => ({ file, says: one }));
}

const keptInWords = (how: KeptFillings | undefined) =>
  how === undefined
    ? 'none'
    : `${how.most} of each form for ${counted(how.days, 'day')}${how.masked ? ', masked' : ''}`;

function tables(a: Workspace['tables'][number], b: typeof a, file: string): FileDifference[] {
  const { rows: before, columns: columnsBefore, ...shapeBefore } = a;
  const { rows: after, columns: columnsAfter, ...shapeAfter } = b;
  const byKey = (rows: typeof before, key: string) =>
    new Map(rows.map((row) => [String(row[key]), row]));
  const [was, is] = [byKey(before, a.key), byKey(after, b.key)];
  const csv = file.replace(/json$/, 'csv');
  const list = (keys: string[], word: string) =>
    keys.length === 0
      ? []
      : [
          {
            file: csv,
            says: `${keys.length === 1 ? 'row' : `${keys.length} rows`} ${word}: ${keys.slice(0, 8).join(', ')}${keys.length > 8 ? ' …' : ''}`,
          },
        ];
  return [
    ...propertiesIn(shapeBefore, shapeAfter, b.name).map((says) => ({ file, says })),
    ...things('column', columnsBefore, columnsAfter, nameOf, () => file, plainly),
    ...list(
      [...is.keys()].filter((key) => !was.has(key)),
      'added',
    ),
    ...list(
      [...was.keys()].filter((key) => !is.has(key)),
      'removed',
    ),
    ...list(
      [...is.keys()].filter((key) => was.has(key) && !same(was.get(key), is.get(key))),
      'changed',
    ),
    ...(before.length === after.length &&
    !same(before, after) &&
    same([...was].toSorted(), [...is].toSorted())
      ? [{ file: csv, says: 'rows stand in another order' }]
      : []),
  ];
}

function plainly(a: object, b: object, file: string): FileDifference[] {
  return propertiesIn(a, b, (b as { name: string }).name).map((says) => ({ file, says }));
}

function forms(a: WorkspaceForm, b: WorkspaceForm, file: string): FileDifference[] {
  const folder = file.slice(0, -'form.json'.length);
  return [
    ...structure(a.form, b.form).map((says) => ({ file, says })),
    ...things(
      'behaviour',
      a.behaviours,
      b.behaviours,
      nameOf,
      (name) => `${folder}behaviours/${name}`,
      textsDiffer,
    ),
    ...things(
      'scenario',
      a.scenarios,
      b.scenarios,
      nameOf,
      (name) => `${folder}scenarios/${name}.json`,
      (was, is, at) =>
        propertiesIn(
          was.scenario,
          is.scenario,
          `scenario ${is.name}`,
          namesFor(b.form, [], []),
        ).map((says) => ({
          file: at,
          says,
        })),
    ),
    ...things(
      'record',
      a.records,
      b.records,
      ({ id }) => id,
      () => `${folder}records.json`,
      (was, is, at) =>
        propertiesIn(was.values, is.values, `record ${is.id}`).map((says) => ({ file: at, says })),
    ),
  ];
}

/** The lines that only one of two texts has. */
function codeLines(before: string, after: string): CodeLine[] {
  const found: CodeLine[] = [];
  const at = { before: 0, after: 0 };
  for (const { added, removed, value } of diffArrays(before.split('\n'), after.split('\n')))
    for (const text of value) {
      if (!added) at.before++;
      if (!removed) at.after++;
      if (removed) found.push({ in: 'before', line: at.before, text });
      if (added) found.push({ in: 'after', line: at.after, text });
    }
  return found;
}

/** Parts that came, went, moved, were renamed or differ. */
function structure(former: Form, after: Form): string[] {
  const renames = renamesBetween(former, after);
  const before = withNames(former, renames);
  const { pages: _, ...restBefore } = before;
  const { pages: __, ...restAfter } = after;
  const [was, is] = [placed(before), placed(after)];
  const called = (name: string, { own }: Placed) => {
    const label =
      (own as { label?: string; title?: string }).label ?? (own as { title?: string }).title;
    return label === undefined ? name : `${label} (${name})`;
  };
  return [
    ...[...renames].map(([from, to]) => `${to}: renamed, was ${from}`),
    ...propertiesIn(restBefore, restAfter, 'form'),
    ...[...new Set([...was.keys(), ...is.keys()])].flatMap((name) => {
      const [a, b] = [was.get(name), is.get(name)];
      if (a === undefined) return [`${called(name, b!)}: new ${b!.what}`];
      if (b === undefined) return [`${called(name, a)}: removed`];
      return [
        ...(a.below === b.below ? [] : [`${called(name, b)}: moved from ${a.below} to ${b.below}`]),
        ...propertiesIn(a.own, b.own, called(name, b)),
      ];
    }),
    ...(same([...was.keys()].toSorted(), [...is.keys()].toSorted()) &&
    !same([...was.keys()], [...is.keys()])
      ? ['parts stand in another order']
      : []),
  ];
}

/** A former form with its fields, columns and buttons under their later names. */
function withNames(form: Form, renames: Renames): Form {
  if (renames.size === 0) return form;
  const named = <P extends { name: string }>(part: P, within = ''): P => ({
    ...part,
    name: renames.get(`${within}${part.name}`)?.split('.').at(-1) ?? part.name,
  });
  return {
    ...form,
    ...(form.buttons === undefined ? {} : { buttons: form.buttons.map((one) => named(one)) }),
    pages: form.pages.map((page) => ({
      ...page,
      sections: page.sections.map((section) => ({
        ...section,
        fields: section.fields.map((field) => {
          const now = named(field);
          return now.kind === 'rows'
            ? { ...now, fields: now.fields.map((cell) => named(cell, `${field.name}.`)) }
            : now;
        }),
      })),
    })),
  };
}

interface Placed {
  what: string;
  below: string;
  own: object;
}

function placed(form: Form): Map<string, Placed> {
  const parts = new Map<string, Placed>();
  for (const page of form.pages) {
    const { sections, ...own } = page;
    parts.set(page.name, { what: 'page', below: '', own });
    for (const section of sections) {
      const { fields, ...rest } = section;
      parts.set(section.name, { what: 'section', below: page.name, own: rest });
      for (const field of fields)
        parts.set(field.name, { what: `${field.kind} field`, below: section.name, own: field });
    }
  }
  return parts;
}

const ON: Readonly<Record<string, [string, string]>> = {
  required: ['now required', 'no longer required'],
  locked: ['now locked', 'no longer locked'],
  hidden: ['now hidden', 'no longer hidden'],
};

/** What differs between two objects, property by property. */
function propertiesIn(
  before: object,
  after: object,
  of: string,
  names: Names | null = null,
): string[] {
  const [was, is] = [before, after] as Record<string, unknown>[];
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) => {
    if (same(was![key], is![key])) return [];
    const turned = ON[key];
    if (
      turned !== undefined &&
      (was![key] ?? is![key]) !== undefined &&
      typeof (is![key] ?? was![key]) === 'boolean'
    )
      return [`${of}: ${turned[is![key] === true ? 0 : 1]}`];
    if (isKeyed(was![key] ?? []) && isKeyed(is![key] ?? []))
      return keyed((was![key] ?? []) as Keyed[], (is![key] ?? []) as Keyed[]).map(
        (says) => `${of}: ${singular(key)} ${says}`,
      );
    if (Array.isArray(was![key] ?? []) && Array.isArray(is![key] ?? []))
      return listChanges(
        key,
        (was![key] ?? []) as unknown[],
        (is![key] ?? []) as unknown[],
        names,
      ).map((says) => `${of}: ${says}`);
    if (is![key] === undefined) return [`${of}: ${key} removed (${short(was![key])})`];
    if (was![key] === undefined) return [`${of}: ${key} is ${short(is![key])}`];
    return [`${of}: ${key} ${short(was![key])} → ${short(is![key])}`];
  });
}

type Keyed = { key?: string; name?: string };
const keyOf = ({ key, name }: Keyed) => key ?? name ?? '';

/** A list of things that are distinguished by a key, such as options. */
function isKeyed(value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.every((one) => typeof one === 'object' && one !== null && keyOf(one as Keyed) !== '')
  );
}

function keyed(before: readonly Keyed[], after: readonly Keyed[]): string[] {
  const was = new Map(before.map((one) => [keyOf(one), one]));
  const is = new Map(after.map((one) => [keyOf(one), one]));
  const said = [...new Set([...was.keys(), ...is.keys()])].flatMap((key) =>
    !was.has(key)
      ? [`${key} added`]
      : !is.has(key)
        ? [`${key} removed`]
        : propertiesIn(was.get(key)!, is.get(key)!, key),
  );
  return said.length > 0 ? said : ['order changed'];
}

/** A value in words, cut where nobody reads on. */
function short(value: unknown): string {
  const words = inWords(value as Value);
  return words.length <= 60 ? words : `${words.slice(0, 59)}…`;
}
