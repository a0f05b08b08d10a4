/** Parts as findings compare them: a cell by its column, whatever row it is in. */
import type { Field, Form } from '../form/definition';
import { fieldAt } from '../form/outline';

/** `goods.weight` for `goods[0].weight` and `goods#7.weight`, `goods` for the row `goods[0]`. */
export function columnOf(part: string): string {
  return part.replace(/\[\d+\]|#\d+/g, '');
}

/** The field that a part stands in: `goods` for `goods[0].weight`. */
export function wholeOf(part: string): string {
  return columnOf(part).split('.')[0]!;
}

export function definitionOf(form: Form, part: string): Field | undefined {
  return fieldAt(form, columnOf(part));
}
