/**
 * Where a part or an option key of a form is used: in behaviours, by what their names mean and not by how they read; in
 * scenarios; in other forms that list this one's records or were opened from it.
 */
import ts from 'typescript-classic';
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Service } from '../form/service';
import type { Role, Table } from '../form/table';
import type { Source } from '../script/header';
import { parse } from '../language/parse';
import { readHeader } from '../script/header';
import { scriptsOf } from '../script/of-form';
import { FormLanguage } from '../language/language-service';
import { typingsOf } from '../language/typings';
import { isExpect } from '../scenario/beginning';
import { readColumn } from '../scenario/cases';
import { namedBy } from '../scenario/naming';
import type { Scenario } from '../scenario/definition';
import { addresses } from './in-scenario';
import { placeOf, type PartName, type PartSort } from './edit';

export interface FormSources {
  form: Form;
  /** Its own; those for several forms stand in `Reach.shared`. */
  behaviours: readonly Source[];
  scenarios: readonly { name: string; scenario: Scenario }[];
}

/** All that a name can reach. */
export interface Reach {
  forms: readonly FormSources[];
  /** Behaviours for several forms and shared modules. */
  shared: readonly Source[];
  tables: readonly Table[];
  services: readonly Service[];
  roles: readonly Role[];
  /** The texts of the ECMAScript library's declarations. */
  libs: Record<string, string>;
}

/** A stretch of a behaviour that names a part, and what it reads when the part has another name. */
export interface Spot {
  from: number;
  to: number;
  /** The text to write before and after a new name, such as `old: ` where a name is destructured from an object. */
  before: string;
  after: string;
}

export interface CodeUse {
  form: string;
  behaviour: string;
  title: string;
  /** 1-based, each once. */
  lines: number[];
  spots: Spot[];
  /** The text that uses it, line by line. */
  text: string[];
}

export interface Uses {
  code: CodeUse[];
  /** Texts in behaviours that read like the name and may mean it; nothing can tell. */
  mentions: { form: string; behaviour: string; line: number; text: string }[];
  scenarios: { form: string; name: string; title: string; steps: number[] }[];
  /** Lists of records of other forms that show or follow a field. */
  lists: { form: string; list: string }[];
}

const CONSTANTS: Readonly<Record<Exclude<PartSort, 'cell' | 'list'>, string>> = {
  page: 'pages',
  section: 'sections',
  field: 'fields',
  button: 'buttons',
  track: 'tracks',
};

/** Everything that uses a part of a form. */
export function usesOf(reach: Reach, formName: string, part: PartName): Uses {
  const own = reach.forms.find(({ form }) => form.name === formName)!;
  const place = placeOf(own.form, part);
  if (place === null) return { code: [], mentions: [], scenarios: [], lists: [] };
  // Scripts do not name lists of records.
  if (place.sort === 'list') return { code: [], mentions: [], scenarios: [], lists: [] };
  const spots = spotsIn(reach, own, part, place.sort);
  const bare = part.split('.').at(-1)!;
  const code: CodeUse[] = [];
  const mentions: Uses['mentions'] = [];
  for (const source of scriptsOf(own.form, own.behaviours, reach.shared)) {
    const literals = literalsOf(source, bare);
    const meant = literals
      .filter(({ call }) => place.sort === 'cell' && call === 'sum')
      .map(({ from, to }): Spot => ({ from: from + 1, to: to - 1, before: '', after: '' }));
    push(code, formName, source, [...(spots.get(source.name) ?? []), ...meant]);
    for (const { line, text, call } of literals)
      if (call !== 'sum' || place.sort !== 'cell')
        mentions.push({ form: formName, behaviour: source.name, line, text });
  }
  const isParentOf = new Set((own.form.children ?? []).map((list) => list.form));
  for (const child of reach.forms) {
    if (place.sort !== 'field' || !isParentOf.has(child.form.name)) continue;
    for (const source of child.behaviours) {
      const asked = literalsOf(source, bare)
        .filter(({ of }) => of === 'parent')
        .map(({ from, to }): Spot => ({ from: from + 1, to: to - 1, before: '', after: '' }));
      push(code, child.form.name, source, asked);
    }
  }
  return {
    code,
    mentions,
    scenarios: scenariosWith(own, part, place.sort),
    lists: place.sort === 'field' ? listsWith(reach, formName, part) : [],
  };
}

function push(code: CodeUse[], form: string, source: Source, spots: readonly Spot[]): void {
  const use = codeUse(form, source, spots);
  if (use !== null) code.push(use);
}

/** What a behaviour's spots come to, line by line; null where it has none. */
export function codeUse(form: string, source: Source, spots: readonly Spot[]): CodeUse | null {
  if (spots.length === 0) return null;
  const lines = source.text.split('\n');
  const lineAt = (offset: number) => source.text.slice(0, offset).split('\n').length;
  const numbers = [...new Set(spots.map(({ from }) => lineAt(from)))].sort((a, b) => a - b);
  const sorted = spots.toSorted((a, b) => a.from - b.from);
  return {
    form,
    behaviour: source.name,
    title: readHeader(source).title,
    lines: numbers,
    spots: sorted,
    text: numbers.map((line) => lines[line - 1]!.trim()),
  };
}

/** What the language service finds of the part's declarations, by behaviour. */
function spotsIn(
  reach: Reach,
  { form, behaviours }: FormSources,
  part: PartName,
  sort: PartSort,
): Map<string, Spot[]> {
  const language = new FormLanguage(reach.libs);
  const surface = { ...reach, form };
  const typings = typingsOf(surface);
  language.surround(surface);
  for (const source of scriptsOf(form, behaviours, reach.shared)) language.put(source);
  const spots = new Map<string, Spot[]>();
  for (const offset of declarationsOf(typings, part, sort)) {
    for (const { file, ...spot } of language.namings(offset))
      spots.set(file, [...(spots.get(file) ?? []), spot]);
  }
  return spots;
}

/** Where the typings declare a part. A cell stands there twice: as a part, and among the values of its row. */
function declarationsOf(typings: string, part: PartName, sort: PartSort): number[] {
  const [owner, name] = sort === 'cell' ? (part.split('.') as [string, string]) : ['', part];
  const heads =
    sort === 'cell'
      ? [`interface Cells_${owner} {`, `interface Row_${owner} {`]
      : [`declare const ${CONSTANTS[sort as keyof typeof CONSTANTS]}: {`];
  return heads.flatMap((head) => {
    const from = typings.indexOf(head);
    const at = from < 0 ? -1 : typings.indexOf(`\n  readonly ${name}:`, from);
    return at < 0 ? [] : [at + '\n  readonly '.length];
  });
}

interface Literal {
  from: number;
  to: number;
  line: number;
  text: string;
  /** The method it is given to, and of what. */
  call: string | null;
  of: string | null;
}

/** Texts in a behaviour that equal a name. */
function literalsOf(source: Source, name: string): Literal[] {
  const { file } = parse(source);
  const found: Literal[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isStringLiteralLike(node) && node.text === name) {
      const { line } = file.getLineAndCharacterOfPosition(node.getStart(file));
      const call =
        ts.isCallExpression(node.parent) &&
        node.parent.arguments[0] === node &&
        ts.isPropertyAccessExpression(node.parent.expression)
          ? node.parent.expression
          : null;
      const owner =
        call === null
          ? null
          : ts.isNonNullExpression(call.expression)
            ? call.expression.expression
            : call.expression;
      found.push({
        from: node.getStart(file),
        to: node.getEnd(),
        line: line + 1,
        text: source.text.split('\n')[line]!.trim(),
        call: call?.name.text ?? null,
        of: owner?.getText(file) ?? null,
      });
    }
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function scenariosWith(
  { form, scenarios }: FormSources,
  part: PartName,
  sort: PartSort,
): Uses['scenarios'] {
  return scenarios.flatMap(({ name, scenario }) => {
    const steps = scenario.steps.flatMap((step, i) => {
      if (!isExpect(step)) {
        const cells =
          'addRow' in step && sort === 'cell'
            ? [step.with ?? {}]
                .flat()
                .flatMap((row) => Object.keys(row))
                .map((cell) => `${step.addRow}.${cell}`)
            : [];
        return namedBy(step).some(([, address]) => addresses(address, part, sort)) ||
          cells.includes(part)
          ? [i]
          : [];
      }
      const submit = step.expect['@submit'];
      const named = [
        ...Object.keys(step.expect).filter((key) => !key.startsWith('@')),
        ...Object.keys(submit?.values ?? {}),
        ...(submit?.without ?? []),
        ...(submit?.stoppedBy ? [submit.stoppedBy] : []),
        ...(step.expect['@page'] ? [step.expect['@page']] : []),
      ];
      return named.some((address) => addresses(address, part, sort)) ? [i] : [];
    });
    if (namedBesides(scenario, form).some((address) => addresses(address, part, sort)))
      steps.push(scenario.steps.length);
    return steps.length === 0 ? [] : [{ form: form.name, name, title: scenario.title, steps }];
  });
}

/** What the table and the grid of a scenario name. */
function namedBesides({ cases, grid }: Scenario, form: Form): string[] {
  const outcomes = grid === undefined ? [] : [grid.accepted.base, ...grid.accepted.outcomes];
  return [
    ...(cases?.inputs ?? []),
    ...(cases?.expected ?? []).map((column) => readColumn(column, form).part),
    ...(cases?.steps ?? []).flatMap((step) => namedBy(step).map(([, address]) => address)),
    ...(grid?.axes.map(({ input }) => input) ?? []),
    ...(grid?.parts ?? []),
    ...outcomes.flatMap((outcome) => Object.keys(outcome)),
  ].filter((name) => !name.startsWith('@'));
}

function listsWith(reach: Reach, formName: string, field: string): Uses['lists'] {
  return reach.forms.flatMap(({ form }) =>
    (form.children ?? []).flatMap((list) =>
      list.form === formName && (list.field === field || list.columns.includes(field))
        ? [{ form: form.name, list: list.title }]
        : [],
    ),
  );
}

/** Whether the table or the grid of a scenario holds a value, wherever it stands there. */
function hasInTables({ cases, grid }: Scenario, has: (value: unknown) => boolean): boolean {
  return (
    (cases?.rows.some(({ inputs, expected }) => [...inputs, ...expected].some(has)) ?? false) ||
    (grid?.axes.some(({ values }) => values.some(has)) ?? false) ||
    (grid !== undefined &&
      [grid.accepted.base, ...grid.accepted.outcomes].some((outcome) =>
        Object.values(outcome).some((aspects) => Object.values(aspects).some(has)),
      ))
  );
}

/** Where an option key is used: texts in behaviours that equal it, and scenarios that set or expect it for that field. */
export function usesOfKey(
  reach: Reach,
  formName: string,
  part: PartName,
  key: string,
): { mentions: Uses['mentions']; scenarios: string[] } {
  const own = reach.forms.find(({ form }) => form.name === formName)!;
  const sort: PartSort = part.includes('.')
    ? 'cell'
    : fieldsOf(own.form).some((field) => field.name === part)
      ? 'field'
      : 'track';
  const has = (value: unknown): boolean =>
    value === key || (Array.isArray(value) && value.includes(key));
  const mentions = scriptsOf(own.form, own.behaviours, reach.shared).flatMap((source) =>
    literalsOf(source, key).map(({ line, text }) => ({
      form: formName,
      behaviour: source.name,
      line,
      text,
    })),
  );
  const scenarios = own.scenarios.flatMap(({ scenario }) => {
    const used = scenario.steps.some((step) => {
      if (!isExpect(step)) return 'set' in step && addresses(step.set, part, sort) && has(step.to);
      return Object.entries(step.expect).some(
        ([address, wanted]) =>
          !address.startsWith('@') &&
          addresses(address, part, sort) &&
          Object.values(wanted as object).some(has),
      );
    });
    return used || hasInTables(scenario, has) ? [scenario.title] : [];
  });
  return { mentions, scenarios };
}
