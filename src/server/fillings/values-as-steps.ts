/** Clients that send values and no steps: the steps that a person would do to enter them. */
import type { FieldOf } from '../../core/form/definition';
import { fieldsOf } from '../../core/form/fields';
import { equal, isObject, type Value, type Values } from '../../core/form/value';
import type { TimedStep } from '../../core/session/step';
import type { Filling } from './handing-out';

/** The steps, in the order of the definition, or what is wrong with the values. */
export function stepsFrom(
  values: Values,
  filling: Pick<Filling, 'release' | 'opening'>,
): TimedStep[] | string {
  const { form } = filling.release.material;
  const before = filling.opening.record?.values ?? {};
  const fields = new Set(fieldsOf(form).map((field) => field.name));
  const unknown = Object.keys(values).find((name) => !fields.has(name));
  if (unknown !== undefined) return `The form has no field "${unknown.slice(0, 100)}".`;
  const sets: TimedStep[] = [];
  for (const field of fieldsOf(form)) {
    const value = values[field.name];
    const had = before[field.name] ?? null;
    if (value === undefined || equal(value, had)) continue;
    if (field.kind !== 'rows') sets.push({ set: field.name, to: value });
    else {
      const steps = rowSteps(field, value, had);
      if (typeof steps === 'string') return steps;
      sets.push(...steps);
    }
  }
  return [...sets, { submit: true }];
}

const isRow = (row: unknown): row is Values => isObject(row);

/** Rows as steps: cells by place, then rows added or removed at the end. */
function rowSteps(field: FieldOf<'rows'>, value: Value, before: Value): TimedStep[] | string {
  if (value !== null && !Array.isArray(value)) return `${field.label} takes a list of rows.`;
  const wanted = (value ?? []) as readonly unknown[];
  const had = (Array.isArray(before) ? before : []) as readonly Values[];
  const columns = new Set(field.fields.map(({ name }) => name));
  for (const [i, row] of wanted.entries()) {
    if (!isRow(row)) return `${field.label}: row ${i + 1} is no row.`;
    const unknown = Object.keys(row).find((name) => !columns.has(name));
    if (unknown !== undefined)
      return `${field.label}: row ${i + 1} has no column "${unknown.slice(0, 100)}".`;
  }
  const rows = wanted as readonly Values[];
  const cells = rows
    .slice(0, had.length)
    .flatMap((row, place) =>
      field.fields.flatMap(({ name }): TimedStep[] =>
        row[name] === undefined || equal(row[name], had[place]![name] ?? null)
          ? []
          : [{ set: `${field.name}[${place}].${name}`, to: row[name] }],
      ),
    );
  const removed = had
    .slice(rows.length)
    .map((_, i): TimedStep => ({ removeRow: `${field.name}[${had.length - 1 - i}]` }));
  const added = rows.slice(had.length);
  return [
    ...cells,
    ...removed,
    ...(added.length === 0 ? [] : [{ addRow: field.name, with: [...added] }]),
  ];
}
