/**
 * What of a workspace is saved, compared and taken as one: each file of its folder, but a table's two together. A unit is
 * known by the path of its file, of a table by that of its JSON.
 */
import { headOf, type Head } from './head';
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import type { Scenario } from '../scenario/definition';
import type { SampleRecord } from '../scenario/opening';
import { isOwn } from '../script/script-name';
import type { Files, Workspace } from './workspace';

/** The document that a unit is in the app. `form` is empty for what all forms share; of records `name` is too. */
export type UnitContent =
  | { kind: 'head'; form: ''; name: 'head'; content: Head }
  | { kind: 'table'; form: ''; name: string; content: Table }
  | { kind: 'service'; form: ''; name: string; content: Service }
  | { kind: 'shared'; form: ''; name: string; content: string }
  | { kind: 'form'; form: ''; name: string; content: Form }
  | { kind: 'behaviour'; form: string; name: string; content: string }
  | { kind: 'scenario'; form: string; name: string; content: Scenario }
  | { kind: 'records'; form: string; name: ''; content: SampleRecord[] };

export type UnitPlace = {
  [K in UnitContent['kind']]: Omit<Extract<UnitContent, { kind: K }>, 'content'>;
}[UnitContent['kind']];

/** The unit that a file belongs to; null for a file that is none of a workspace's. */
export function unitOf(path: string): string | null {
  const table = /^(tables\/[^/]+)\.(?:json|csv)$/.exec(path);
  if (table !== null) return `${table[1]!}.json`;
  return placeOfUnit(path) === null ? null : path;
}

/** The document that a unit is; null where the path is none of a unit. */
export function placeOfUnit(unit: string): UnitPlace | null {
  if (unit === 'workspace.json') return { kind: 'head', form: '', name: 'head' };
  const shared = /^(tables|services)\/([^/]+)\.json$/.exec(unit);
  if (shared !== null)
    return { kind: shared[1] === 'tables' ? 'table' : 'service', form: '', name: shared[2]! };
  if (/^(?:shared|behaviours)\/[^/]+$/.test(unit)) return { kind: 'shared', form: '', name: unit };
  const [, form, rest] = /^forms\/([^/]+)\/(.+)$/.exec(unit) ?? [];
  if (form === undefined || rest === undefined) return null;
  if (rest === 'form.json') return { kind: 'form', form: '', name: form };
  if (rest === 'records.json') return { kind: 'records', form, name: '' };
  const [, behaviour] = /^behaviours\/([^/]+)$/.exec(rest) ?? [];
  if (behaviour !== undefined && isOwn(behaviour))
    return { kind: 'behaviour', form, name: behaviour };
  const [, scenario] = /^scenarios\/([^/]+)\.json$/.exec(rest) ?? [];
  return scenario === undefined ? null : { kind: 'scenario', form, name: scenario };
}

/** The files that a unit has or could have. */
export function filesOfUnit(unit: string): string[] {
  return unit.startsWith('tables/') ? [unit, unit.replace(/json$/, 'csv')] : [unit];
}

/** What each unit holds as text, by unit. */
export function unitsIn(files: Files): Map<string, string> {
  const units = new Map<string, string>();
  for (const path of [...files.keys()].toSorted()) {
    const unit = unitOf(path);
    if (unit !== null) units.set(unit, `${units.get(unit) ?? ''}${files.get(path)!}`);
  }
  return units;
}

/** What a unit holds in a workspace; null where the workspace has none of it. */
export function contentOfUnit(workspace: Workspace, unit: string): UnitContent | null {
  const place = placeOfUnit(unit);
  if (place === null) return null;
  const form = workspace.forms.find((one) => one.form.name === (place.form || place.name));
  const named = <T extends { name: string }>(all: readonly T[] | undefined) =>
    all?.find(({ name }) => name === place.name);
  const content = {
    head: () => headOf(workspace),
    table: () => named(workspace.tables),
    service: () => named(workspace.services),
    shared: () => named(workspace.shared)?.text,
    form: () => form?.form,
    behaviour: () => named(form?.behaviours)?.text,
    scenario: () => named(form?.scenarios)?.scenario,
    records: () => (form === undefined || form.records.length === 0 ? undefined : form.records),
  }[place.kind]();
  return content === undefined ? null : ({ ...place, content } as UnitContent);
}
