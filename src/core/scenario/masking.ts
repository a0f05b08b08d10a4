/**
 * Masking what somebody typed, before a recording is kept: each letter becomes an x and each digit a 0, so that lengths
 * and patterns stay as they were. What was chosen, dates and numbers stay, since behaviours decide by them.
 */
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Value, Values } from '../form/value';
import type { Opening, TimedStep } from '../session/step';

const isTyped = ({ kind }: Pick<Field, 'kind'>): boolean => kind === 'text';

/** Masks a text; anything else is given back. */
function maskedText(value: Value): Value {
  return typeof value === 'string'
    ? value
        .replace(/\p{L}/gu, (letter) => (letter === letter.toLowerCase() ? 'x' : 'X'))
        .replace(/\p{Nd}/gu, '0')
    : value;
}

/** What masks the values of a form's fields, cells of rows included. */
class Mask {
  /** The typed fields, as `field` or `rows.column`. */
  readonly #typed: ReadonlySet<string>;

  constructor(fields: readonly Field[]) {
    this.#typed = new Set(
      fields.flatMap((field) => [
        ...(isTyped(field) ? [field.name] : []),
        ...cellsOf(field).flatMap((cell) =>
          isTyped(cell as Field) ? [`${field.name}.${cell.name}`] : [],
        ),
      ]),
    );
  }

  /** `part` as a step names it: a field, or a cell such as `cargo[0].name`. */
  value(part: string, value: Value): Value {
    return this.#typed.has(part.replace(/\[\d+\]/, '')) ? maskedText(value) : value;
  }

  values(values: Values): Values {
    return Object.fromEntries(
      Object.entries(values).map(([field, value]) => [
        field,
        Array.isArray(value)
          ? value.map((row) => this.row(field, row as Value))
          : this.value(field, value),
      ]),
    );
  }

  row(field: string, row: Value): Value {
    if (typeof row !== 'object' || row === null || Array.isArray(row)) return row;
    return Object.fromEntries(
      Object.entries(row as Values).map(([cell, value]) => [
        cell,
        this.value(`${field}.${cell}`, value),
      ]),
    );
  }

  step(step: TimedStep): TimedStep {
    if ('set' in step) return { ...step, to: this.value(step.set, step.to) };
    if ('input' in step) return { ...step, to: this.value(step.input, step.to) };
    if ('fromChild' in step) return { ...step, to: this.value(step.fromChild, step.to) };
    if ('addRow' in step && step.with !== undefined) {
      const row = (one: Values) => this.row(step.addRow, one) as Values;
      return { ...step, with: Array.isArray(step.with) ? step.with.map(row) : row(step.with) };
    }
    return step;
  }
}

export interface Masked {
  opening: Opening;
  steps: TimedStep[];
  ended: Values | null;
}

/** A filling-in with all that was typed in it, and all that its record brought as typed, masked. */
export function masked({ opening, steps, ended }: Masked, form: Form): Masked {
  const mask = new Mask(fieldsOf(form));
  const { record, records, parent } = opening;
  return {
    opening: {
      ...opening,
      record: record === null ? null : { ...record, values: mask.values(record.values) },
      ...(records === undefined
        ? {}
        : { records: records.map((one) => ({ ...one, values: mask.values(one.values) })) }),
      ...(parent == null
        ? {}
        : { parent: { ...parent, values: new Mask(parent.fields).values(parent.values) } }),
    },
    steps: steps.map((step) => mask.step(step)),
    ended: ended === null ? null : mask.values(ended),
  };
}
