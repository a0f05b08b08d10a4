/** What is often wrong with a comparison that did not come out as somebody expected: near misses, named. */
import type { Form, Option } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Value } from '../form/value';
import type { Comparison } from './comparison';

export type NearMiss =
  /** A label was compared where a key belongs. */
  | { is: 'label'; label: string; key: string }
  | { is: 'case' }
  | { is: 'spaces' }
  /** A text that reads like the number, or the other way round. */
  | { is: 'kind' }
  /** A list was compared with one of its items. */
  | { is: 'list' }
  /** One side is empty. */
  | { is: 'empty' }
  /** No option has this key. */
  | { is: 'unknown key'; key: string; keys: string[] }
  /** A value was read of a part that is off screen, where nobody sees it. */
  | { is: 'hidden'; part: string };

const EQUALITIES = new Set(['===', '==', '!==', '!=', 'includes']);

/** The near misses of a comparison; `parts` are those that the condition read. */
export function nearMisses(
  { op, left, right }: Pick<Comparison, 'op' | 'left' | 'right'>,
  form: Form,
  parts: readonly string[],
): NearMiss[] {
  if (!EQUALITIES.has(op))
    return left.value === null || right.value === null ? [{ is: 'empty' }] : [];
  const [a, b] = [left.value, right.value];
  const found: NearMiss[] = [];
  if (op !== 'includes' && Array.isArray(a) !== Array.isArray(b) && a !== null && b !== null) {
    const [list, item] = Array.isArray(a) ? [a, b] : [b as readonly Value[], a];
    if (list.includes(item)) return [{ is: 'list' }];
  }
  const pairs: [Value, Value][] = Array.isArray(a) ? a.map((item) => [item, b]) : [[a, b]];
  for (const [one, other] of pairs) found.push(...ofPair(one, other));
  found.push(...ofOptions(pairs, form, parts, Array.isArray(a)));
  if (found.length === 0 && (a === null || b === null)) found.push({ is: 'empty' });
  return unique(found);
}

function ofPair(a: Value, b: Value): NearMiss[] {
  if (typeof a === 'string' && typeof b === 'string' && a !== b) {
    if (a.trim() === b.trim()) return [{ is: 'spaces' }];
    if (a.toLowerCase() === b.toLowerCase()) return [{ is: 'case' }];
    if (a.trim().toLowerCase() === b.trim().toLowerCase())
      return [{ is: 'case' }, { is: 'spaces' }];
  }
  const plain = (value: Value) => typeof value === 'number' || typeof value === 'boolean';
  return (plain(a) && typeof b === 'string' && String(a) === b) ||
    (plain(b) && typeof a === 'string' && String(b) === a)
    ? [{ is: 'kind' }]
    : [];
}

/** Labels for keys, and keys that nothing has, among the options of the fields that were read. */
function ofOptions(
  pairs: readonly [Value, Value][],
  form: Form,
  parts: readonly string[],
  ofList: boolean,
): NearMiss[] {
  const options = parts.flatMap((part) => optionsOf(form, part));
  if (options.length === 0) return [];
  const keys = new Set(options.map(({ key }) => key));
  const labelOf = (key: string) => options.find((option) => option.key === key)?.label;
  return pairs.flatMap(([a, b]): NearMiss[] => {
    if (typeof a !== 'string' || typeof b !== 'string' || a === b) return [];
    // Of a list only what was nearly the value is of interest.
    if (ofList && labelOf(b) !== a && labelOf(a) !== b && keys.has(b)) return [];
    return [a, b].flatMap((text): NearMiss[] => {
      if (keys.has(text)) return [];
      const meant = options.find(({ label }) => label === text);
      return meant === undefined
        ? [{ is: 'unknown key', key: text, keys: [...keys].slice(0, 8) }]
        : [{ is: 'label', label: text, key: meant.key }];
    });
  });
}

function optionsOf(form: Form, part: string): readonly Option[] {
  const [name, column] = part.replace(/#\d+/, '').split('.');
  const field = fieldsOf(form).find((one) => one.name === name);
  const cell =
    column === undefined || field === undefined
      ? field
      : cellsOf(field).find((one) => one.name === column);
  return cell !== undefined && 'options' in cell ? (cell.options as readonly Option[]) : [];
}

function unique(found: NearMiss[]): NearMiss[] {
  const seen = new Set<string>();
  return found.filter((one) => {
    const text = JSON.stringify(one);
    return seen.has(text) ? false : (seen.add(text), true);
  });
}
