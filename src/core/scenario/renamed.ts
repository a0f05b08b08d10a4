/**
 * Which part of the later version is which of the former one, where it was given another name: a field that is gone and one
 * that is new are the same where they are of one kind and called the same, or stand in the same place.
 */
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { containersOf } from '../form/outline';
import type { Value, Values } from '../form/value';
import { kindOfStep, STEP_KINDS, type Opening, type Step } from '../session/step';

/** Names of the one version in those of the other, as they stand: `goods`, or `goods.weight` for a cell. */
export type Renames = ReadonlyMap<string, string>;

interface Placed {
  name: string;
  label: string;
  sort: string;
  /** Where it stands, in the names of its own version. */
  place: string;
}

function placed(form: Form): Placed[] {
  const fields = fieldsOf(form).flatMap((field, at): [Field, string, string][] => [
    [field, field.name, `${containersOf(form, field.name).join('/')}:${at}`],
    ...cellsOf(field).map((cell, nth): [Field, string, string] => [
      cell,
      `${field.name}.${cell.name}`,
      `${field.name}:${nth}`,
    ]),
  ]);
  return [
    ...fields.map(([{ label, kind }, name, place]) => ({ name, label, sort: kind, place })),
    ...(form.buttons ?? []).map(({ name, label, section = '' }, at) => ({
      name,
      label,
      sort: 'button',
      place: `${section}:${at}`,
    })),
  ];
}

/** From the former names to the later ones; only those that differ. */
export function renamesBetween(before: Form, after: Form): Renames {
  const [was, is] = [placed(before), placed(after)];
  const there = new Set(is.map(({ name }) => name));
  const known = new Set(was.map(({ name }) => name));
  const renames = new Map<string, string>();
  const free = new Set(is.filter(({ name }) => !known.has(name)));
  for (const isSame of [
    (a: Placed, b: Placed) => a.label === b.label,
    (a: Placed, b: Placed) => a.place === b.place,
  ])
    for (const one of was) {
      if (there.has(one.name) || renames.has(one.name)) continue;
      const now = [...free].find((other) => other.sort === one.sort && isSame(one, other));
      if (now === undefined) continue;
      free.delete(now);
      renames.set(one.name, now.name);
      // Its cells are the same though the name before the dot is another one.
      for (const cell of was)
        if (cell.name.startsWith(`${one.name}.`)) {
          const called = `${now.name}${cell.name.slice(one.name.length)}`;
          if (there.has(called)) renames.set(cell.name, called);
        }
    }
  return renames;
}

export const turned = (renames: Renames): Renames =>
  new Map([...renames].map(([from, to]) => [to, from]));

/** `goods[0].weight` in the other version's names. */
export function renamedPart(part: string, renames: Renames): string {
  if (renames.size === 0) return part;
  const [, whole, place = '', cell] = /^([^[#.]*)((?:\[\d+\]|#\d+)?)(?:\.(.*))?$/.exec(part) ?? [];
  if (whole === undefined) return part;
  const now = renames.get(whole) ?? whole;
  if (cell === undefined) return `${now}${place}`;
  const column = renames.get(`${whole}.${cell}`)?.split('.')[1] ?? cell;
  return `${now}${place}.${column}`;
}

export function renamedStep<S extends Step>(step: S, renames: Renames): S {
  if (renames.size === 0) return step;
  const now: Record<string, unknown> = { ...step };
  const kind = kindOfStep(step);
  if (STEP_KINDS[kind].namesPart) now[kind] = renamedPart(String(now[kind]), renames);
  if ('addRow' in step && step.with !== undefined) {
    const cells = (of: Values) => renamedCells(step.addRow, of, renames);
    now.with = Array.isArray(step.with) ? step.with.map(cells) : cells(step.with);
  }
  return now as S;
}

function renamedCells(rows: string, cells: Values, renames: Renames): Values {
  return Object.fromEntries(
    Object.entries(cells).map(([cell, value]) => [
      renames.get(`${rows}.${cell}`)?.split('.')[1] ?? cell,
      value,
    ]),
  );
}

/** Values of a record in the other version's names. */
export function renamedValues(values: Values, renames: Renames): Values {
  if (renames.size === 0) return values;
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      renames.get(name) ?? name,
      Array.isArray(value)
        ? (value.map((row) =>
            typeof row === 'object' && row !== null
              ? renamedCells(name, row as Values, renames)
              : row,
          ) as Value)
        : value,
    ]),
  );
}

export function renamedOpening(opening: Opening, renames: Renames): Opening {
  if (renames.size === 0) return opening;
  const of = <R extends { values: Values }>(record: R): R => ({
    ...record,
    values: renamedValues(record.values, renames),
  });
  const { record, records } = opening;
  return {
    ...opening,
    record: record === null ? null : of(record),
    ...(records === undefined ? {} : { records: records.map(of) }),
  };
}
