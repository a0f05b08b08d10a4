/** The parts that scenarios name. */
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { STEP_KINDS, type Step } from '../session/step';
import { addressesOf } from './addresses';
import { isExpect } from './beginning';
import { readColumn } from './cases';
import type { Scenario, ScenarioStep } from './definition';
import { fieldAt } from './written';

/** The parts that a scenario names and the form does not have, as paths into it. */
export function unknownNames(
  scenario: Scenario,
  form: Form,
): { path: (string | number)[]; says: string }[] {
  const known = addressesOf(form);
  const launch = new Set((form.launch ?? []).map(({ name }) => `@launch.${name}`));
  const unknown = (name: string) =>
    name.startsWith('@launch.')
      ? !launch.has(name)
      : !name.startsWith('@') && !known.has(name.replace(/\[\d+\]/, '[]'));
  const { cases, grid } = scenario;
  const inputs = (names: readonly string[], path: (string | number)[]) =>
    names.map((name, i): Named => ({ name, path: [...path, i] }));
  const named: Named[] = [
    ...namedInSteps(scenario.steps, ['steps']),
    ...inputs(cases?.inputs ?? [], ['cases', 'inputs']),
    ...namedInSteps(cases?.steps ?? [], ['cases', 'steps']),
    ...inputs(
      (cases?.expected ?? []).map((column) => readColumn(column, form).part),
      ['cases', 'expected'],
    ),
    ...inputs(grid?.axes.map(({ input }) => input) ?? [], ['grid', 'axes']),
    ...inputs(grid?.parts ?? [], ['grid', 'parts']),
  ];
  return named
    .filter(({ name }) => unknown(name))
    .map(({ name, path }) => ({
      path,
      says: name.startsWith('@launch.')
        ? `the form has no launch parameter "${name.slice('@launch.'.length)}"`
        : `the form has no part "${name}"`,
    }));
}

interface Named {
  name: string;
  path: (string | number)[];
}

function namedInSteps(steps: readonly ScenarioStep[], path: (string | number)[]): Named[] {
  return steps.flatMap((step, i) =>
    isExpect(step)
      ? Object.keys(step.expect)
          .filter((name) => !name.startsWith('@'))
          .map((name) => ({ name, path: [...path, i, 'expect', name] }))
      : namedBy(step).map(([key, name]) => ({ name, path: [...path, i, key] })),
  );
}

/** The keys of steps whose text names a part. */
export const NAMING_KEYS: ReadonlySet<string> = new Set(
  Object.entries(STEP_KINDS).flatMap(([kind, { namesPart }]) => (namesPart ? [kind] : [])),
);

/** The keys of a step that name a part, with the name. */
export function namedBy(step: Step): [string, string][] {
  return Object.entries(step).filter(
    (entry): entry is [string, string] => NAMING_KEYS.has(entry[0]) && typeof entry[1] === 'string',
  );
}

/** The name of a scenario's file, without its ending. */
export function isScenarioName(name: string): boolean {
  return /^[a-z0-9][a-z0-9_-]{0,79}$/.test(name);
}

/** The places of rows whose cells are named, from 0, by the name of their field. */
export type PlacesOf = (field: string) => readonly number[];

/** The parts of a form by label, to choose from: those with values, cells among them, or all. */
export function namedParts(
  form: Form,
  only: 'values' | 'all',
  placesOf: PlacesOf = () => [0],
): { key: string; label: string }[] {
  const fields = fieldsOf(form).flatMap((field) => [
    { key: field.name, label: field.label },
    ...(field.kind === 'rows' ? placesOf(field.name) : []).flatMap((place) =>
      cellsOf(field).map((cell) => ({
        key: `${field.name}[${place}].${cell.name}`,
        label: `${field.label}, row ${place + 1}: ${cell.label}`,
      })),
    ),
  ]);
  if (only === 'values') return fields;
  const sections = form.pages.flatMap((page) => page.sections);
  return [
    ...fields,
    ...sections.map(({ name, title }) => ({ key: name, label: title })),
    ...form.pages.map(({ name, title }) => ({ key: name, label: title })),
    ...(form.buttons ?? []).map(({ name, label }) => ({ key: name, label })),
    ...(form.tracks ?? []).map(({ name, title }) => ({ key: name, label: title })),
  ];
}

/** What cases and grids can vary, by label, to choose from: fields first, then how the form is opened. */
export function namedInputs(
  form: Form,
  services: readonly { name: string }[],
): { key: string; label: string }[] {
  return [
    ...namedParts(form, 'values').filter(({ key }) => isEntered(form, key)),
    { key: '@as', label: 'who opens it' },
    { key: '@record', label: 'new or which record' },
    ...(form.launch ?? []).map(({ name, label }) => ({
      key: `@launch.${name}`,
      label: `handed over: ${label ?? name}`,
    })),
    ...services.map(({ name }) => ({ key: `@fails.${name}`, label: `${name} fails` })),
  ];
}

/** Whether people enter it in one go: neither rows as a whole, nor files, nor what only scripts set. */
function isEntered(form: Form, address: string): boolean {
  const field = fieldAt(form, address);
  return (
    field !== null &&
    field.kind !== 'rows' &&
    field.kind !== 'file' &&
    !('scriptOnly' in field && field.scriptOnly === true)
  );
}
