/**
 * Starters: for a need that comes up daily, what a developer picks from the real form, and the behaviour, explanation and
 * scenarios that come of it. What comes out is plain TypeScript; nothing stays tied to the starter.
 */
import type { Field, FieldKind, FieldOf, Form } from '../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../form/fields';
import type { Service } from '../form/service';
import type { Person, Role, Table } from '../form/table';
import { indexOf } from '../form/table-index';
import type { Value } from '../form/value';
import type { Expectation, Open, Scenario, ScenarioStep } from '../scenario/definition';
import type { FormRecords, SampleRecord } from '../scenario/opening';
import type { Step } from '../session/step';
import { isPicked, KINDS } from '../form/traits';

export interface StarterSetting {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  roles: readonly Role[];
  people: readonly Person[];
  /** Saved samples of the form itself. */
  records: readonly SampleRecord[];
  /** Forms that this one can be opened from, with their records. */
  forms: readonly FormRecords[];
}

export interface Choice {
  key: string;
  label: string;
}

/** One thing to pick. `choices` is what there is to pick from; without it a text is written. */
export interface Pick<C extends 'one' | 'many' = 'one' | 'many'> {
  label: string;
  /** How many have to be picked; `many` takes one or more, in order. */
  count: C;
  choices: readonly Choice[] | null;
  /** What stands there before anybody picks. */
  initial: string[];
}

/** What there is to pick, by name, in the order in which it is asked. */
export type Picks = Readonly<Record<string, Pick>>;

export type Picked = Readonly<Record<string, readonly string[]>>;

/** What is shown of one way to fill the form in. */
export interface Way {
  when: string;
  open: Open;
  steps: Step[];
}

export interface StarterResult {
  title: string;
  purpose: string;
  code: string;
  /** What it does and why it is written so, a sentence each. */
  explanation: string[];
  ways: Way[];
  /** The parts whose state the ways differ in. */
  watched: string[];
  /** Prove it both ways. */
  scenarios: Scenario[];
}

export interface Starter {
  id: string;
  /** The need, as a developer would say it. */
  need: string;
  group: 'Showing' | 'Options' | 'Computing' | 'Opening' | 'Checking' | 'Rows' | 'Beyond the form';
  /** What to pick, given what has been picked so far; or why the form has nothing to pick from. */
  picks(setting: StarterSetting, picked: Picked): Picks | Missing;
  make(setting: StarterSetting, picked: Picked): StarterResult;
}

/** Why a form has nothing to pick from. */
export type Missing = string;

/** A starter whose `make` has what was picked by the names and counts of its picks. */
export function starter<P extends Picks>(
  given: Omit<Starter, 'picks' | 'make'> & {
    picks(setting: StarterSetting, picked: Picked): P | Missing;
    make(
      setting: StarterSetting,
      picked: { readonly [K in keyof P]: P[K] extends Pick<'one'> ? string : readonly string[] },
    ): StarterResult;
  },
): Starter {
  return {
    ...given,
    make(setting, picked) {
      const picks = given.picks(setting, picked);
      const all = Object.entries<Pick>(isMissing(picks) ? {} : picks).map(([name, { count }]) => {
        const keys = picked[name] ?? [];
        return [name, count === 'one' ? (keys[0] ?? '') : keys];
      });
      return given.make(setting, Object.fromEntries(all) as Parameters<typeof given.make>[1]);
    },
  };
}

export const isMissing = (picks: Picks | Missing): picks is Missing => typeof picks === 'string';

/** Keys of one pick; the first choice, or what it begins with, where nothing was picked. */
export function pickedIn(picks: Picks, picked: Picked, name: string): string[] {
  const pick = Object.hasOwn(picks, name) ? picks[name] : undefined;
  const given = (picked[name] ?? []).filter(
    (key) => pick?.choices == null || pick.choices.some((choice) => choice.key === key),
  );
  if (given.length > 0 || pick === undefined) return [...given];
  if (pick.initial.length > 0) return pick.initial;
  return pick.choices?.[0] === undefined ? [] : [pick.choices[0].key];
}

/** Everything picked, with what stands there where nothing was. */
export function filledIn(starter: Starter, setting: StarterSetting, picked: Picked): Picked | null {
  // What can be picked depends on what was picked before it; a few rounds settle it.
  let now = picked;
  for (let round = 0; round < 4; round++) {
    const picks = starter.picks(setting, now);
    if (isMissing(picks)) return null;
    const before = now;
    now = Object.fromEntries(
      Object.keys(picks).map((name) => [name, pickedIn(picks, before, name)]),
    );
  }
  return now;
}

/** The choices of a pick: a list, or labels by key. */
type Offered = readonly Choice[] | Readonly<Record<string, string>>;

const choicesOf = (offered: Offered): readonly Choice[] =>
  Array.isArray(offered)
    ? (offered as readonly Choice[])
    : Object.entries(offered as Readonly<Record<string, string>>).map(([key, label]) => ({
        key,
        label,
      }));

export const one = (label: string, from: Offered, initial: string[] = []): Pick<'one'> => ({
  label,
  count: 'one',
  choices: choicesOf(from),
  initial,
});
export const many = (label: string, from: Offered, initial: string[] = []): Pick<'many'> => ({
  label,
  count: 'many',
  choices: choicesOf(from),
  initial,
});
export const words = (label: string, initial: string): Pick<'one'> => ({
  label,
  count: 'one',
  choices: null,
  initial: [initial],
});

/** Which of the choices was picked, or the first; undefined where there is nothing to pick from. */
export function chosen<T extends { key: string } | { name: string }>(
  choices: readonly T[],
  picked: readonly string[] | undefined,
): T | undefined {
  const keyOf = (one: T): string => ('key' in one ? one.key : one.name);
  return choices.find((one) => keyOf(one) === picked?.[0]) ?? choices[0];
}

export const asChoice = ({ name, label }: { name: string; label: string }): Choice => ({
  key: name,
  label: `${label} (${name})`,
});

/** Fields of these kinds to pick from; those that people can fill in come first. */
export function fieldChoices(
  form: Form,
  kinds: readonly FieldKind[],
  not: readonly string[] = [],
): Choice[] {
  const fitting = fieldsOf(form).filter(
    ({ kind, name }) => kinds.includes(kind) && !not.includes(name),
  );
  return fitting.toSorted((a, b) => Number(isFillable(b)) - Number(isFillable(a))).map(asChoice);
}

function isFillable({ hidden, locked, scriptOnly }: Field): boolean {
  return hidden !== true && locked !== true && scriptOnly !== true;
}

/** Fields and sections, as things to show, lock or require. */
export function partChoices(form: Form, not: readonly string[] = []): Choice[] {
  return [
    ...fieldsOf(form)
      .filter(({ name }) => !not.includes(name))
      .map(({ name, label }) => ({ key: `fields.${name}`, label: `${label} (${name})` })),
    ...sectionsOf(form)
      .filter(({ fields }) => !fields.some(({ name }) => not.includes(name)))
      .map(({ name, title }) => ({ key: `sections.${name}`, label: `Section ${title} (${name})` })),
  ];
}

export const STEERABLE = { shown: 'show', required: 'require', locked: 'lock' };

/** What has this name. Picks are of the form at hand; throws for what is not there. */
export function named<T extends { name: string }>(all: readonly T[], name: string): T {
  const found = all.find((one) => one.name === name);
  if (found === undefined) throw new Error(`there is no "${name}"`);
  return found;
}

export function fieldNamed(form: Form, name: string): Field {
  const [owner, cell] = name.split('.');
  const field = named(fieldsOf(form), owner ?? '');
  return cell === undefined ? field : named(cellsOf(field), cell);
}

export function tableOf({ tables }: StarterSetting, field: Field): Table {
  return named(tables, (field as FieldOf<'reference'>).table);
}

/** What a driving field can be, to pick values from. */
export const DRIVERS = KINDS.filter((kind) => isPicked({ kind }));

export function valueChoices(setting: StarterSetting, field: Field): readonly Choice[] {
  if (field.kind === 'yes_no') return choicesOf({ true: 'yes', false: 'no' });
  if (field.kind === 'choice' || field.kind === 'choices')
    return field.options.map(({ key, label }) => ({ key, label: `${label} (${key})` }));
  return indexOf(tableOf(setting, field))
    .options.slice(0, 200)
    .map(({ key, label }) => ({ key, label: `${label} (${key})` }));
}

/** The condition that a field has one of these values, as code; and the values by which it holds and does not. */
export function conditionOn(
  setting: StarterSetting,
  field: Field,
  values: readonly string[],
  spelled = `fields.${field.name}`,
): { code: string; on: Value; off: Value; all: { label: string; value: Value; holds: boolean }[] } {
  const offered = valueChoices(setting, field);
  const literal = (key: string) => (field.kind === 'yes_no' ? key : JSON.stringify(key));
  const value = (key: string): Value =>
    field.kind === 'yes_no' ? key === 'true' : field.kind === 'choices' ? [key] : key;
  const single = (key: string) =>
    field.kind === 'choices'
      ? `${spelled}.value.includes(${literal(key)})`
      : `${spelled}.value === ${literal(key)}`;
  const other = offered.find(({ key }) => !values.includes(key));
  const all = [
    ...offered
      .slice(0, 12)
      .map(({ key, label }) => ({ label, value: value(key), holds: values.includes(key) })),
    { label: 'nothing', value: field.kind === 'choices' ? ([] as Value) : null, holds: false },
  ];
  return {
    code: values.map(single).join(' || '),
    on: values[0] === undefined ? null : value(values[0]),
    off: other === undefined ? (field.kind === 'choices' ? [] : null) : value(other.key),
    all,
  };
}

/** Lines that steer targets by a condition, without `required` where there is none. */
export function steerLines(
  targets: readonly string[],
  aspects: readonly string[],
  by: string,
): string[] {
  return targets.flatMap((target) =>
    aspectsFor(target, aspects).map((aspect) => `${target}.${aspect} = ${by};`),
  );
}

function aspectsFor(target: string, aspects: readonly string[]): string[] {
  return aspects.filter((aspect) => aspect !== 'required' || !target.startsWith('sections.'));
}

/** What the targets are expected to be. */
export function steerExpectation(
  targets: readonly string[],
  aspects: readonly string[],
  holds: boolean,
): ScenarioStep {
  return {
    expect: Object.fromEntries(
      targets.map((target) => [
        partName(target),
        Object.fromEntries(aspectsFor(target, aspects).map((aspect) => [aspect, holds])),
      ]),
    ) as Expectation,
  };
}

/** `fields.berth` names the part `berth`. */
export const partName = (target: string): string => target.replace(/^\w+\./, '');

export function labelOf(form: Form, part: string): string {
  const [owner, cell] = part.split('.');
  const field = fieldsOf(form).find(({ name }) => name === owner);
  if (cell !== undefined && field !== undefined)
    return cellsOf(field).find(({ name }) => name === cell)?.label ?? part;
  return (
    field?.label ??
    sectionsOf(form).find(({ name }) => name === part)?.title ??
    (form.tracks ?? []).find(({ name }) => name === part)?.title ??
    (form.buttons ?? []).find(({ name }) => name === part)?.label ??
    part
  );
}

/** `A, B and C`. */
export function listed(items: readonly string[]): string {
  return items.length < 2
    ? (items[0] ?? '')
    : `${items.slice(0, -1).join(', ')} and ${items.at(-1) ?? ''}`;
}

export const labelsOf = (form: Form, targets: readonly string[]): string =>
  listed(targets.map((target) => labelOf(form, partName(target))));

export function rule(title: string, lines: readonly string[]): string {
  return `keep(${JSON.stringify(title)}, () => {\n${indented(lines)}\n});\n`;
}

export function indented(lines: readonly string[]): string {
  return lines.map((line) => `  ${line}`).join('\n');
}

export const openAs = ({ people }: StarterSetting, more: Partial<Open> = {}): Open => ({
  as: people[0]?.key ?? '',
  record: null,
  ...more,
});

export const scenario = (
  setting: StarterSetting,
  title: string,
  steps: ScenarioStep[],
  more?: Partial<Open>,
): Scenario => ({ title, open: openAs(setting, more), steps });

export const way = (
  setting: StarterSetting,
  when: string,
  steps: Step[],
  more?: Partial<Open>,
): Way => ({ when, open: openAs(setting, more), steps });

/** A value that a field takes, and that another call gives another one. */
export function sampleValue(setting: StarterSetting, field: Field, n = 0): Value {
  switch (field.kind) {
    case 'text':
      return sampleText(field, n);
    case 'number':
    case 'money': {
      const from = Math.max(field.min ?? 0, 0) + 2 + n;
      return field.max !== undefined && from > field.max ? field.max - n : from;
    }
    case 'date':
      return `2031-05-${String(3 + n).padStart(2, '0')}`;
    case 'time':
      return `${String(9 + n).padStart(2, '0')}:00`;
    case 'datetime':
      return `2031-05-${String(3 + n).padStart(2, '0')}T09:00:00Z`;
    case 'yes_no':
      return n % 2 === 0;
    case 'choice':
      return field.options[n % Math.max(field.options.length, 1)]?.key ?? null;
    case 'choices':
      return field.options.slice(n, n + 1).map(({ key }) => key);
    case 'reference': {
      const { rows, key } = tableOf(setting, field);
      const row = rows[n % rows.length];
      return row === undefined ? null : String(row[key]);
    }
    case 'file':
      return [
        {
          name: `paper-${n + 1}.pdf`,
          size: 1000,
          type: field.types?.[0]?.replace('*', 'png') ?? 'application/pdf',
        },
      ];
    case 'rows':
      return [];
  }
}

/** Published examples of each format: RFC 2606 names, and numbers whose check digits are right. */
const FORMATTED = {
  email: 'somebody@ships.example',
  url: 'https://ships.example/',
  phone: '+43123456789',
  iban: 'GB82WEST12345698765432',
  imo: '9074729',
  container: 'CSQU3054383',
} as const;

function sampleText(field: FieldOf<'text'>, n: number): string {
  if (field.format !== undefined) return FORMATTED[field.format];
  if (field.mask !== undefined)
    return field.mask.replace(/9/g, String(1 + n)).replace(/[A*]/g, 'K');
  const text = ['Tern of Garrel', 'Halcyon Ore', 'Brightwater'][n % 3] ?? '';
  return field.maxLength === undefined ? text : text.slice(0, field.maxLength);
}

export function rowsWith(
  setting: StarterSetting,
  table: Table,
  column: string,
  flag: boolean,
): string | null {
  const row = table.rows.find((one) => (one[column] === true) === flag);
  return row === undefined ? null : String(row[table.key]);
}
