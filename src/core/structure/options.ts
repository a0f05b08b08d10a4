/** Editing the options of a field or the stages of a track: each edit is made to them as they are when it is made. */
import { parse } from 'csv-parse/browser/esm/sync';
import type { Option } from '../form/definition';
import { nameFor } from './edit';

export type OptionsEdit = (now: readonly Option[]) => Option[];

/** A key made from a label, with a number where it is taken. */
export function keyFor(label: string, options: readonly Option[]): string {
  return nameFor(label, new Set(options.map(({ key }) => key)));
}

export function withOption(option: Option): OptionsEdit {
  return (now) => [...now, option];
}

export function withoutOption(key: string): OptionsEdit {
  return (now) => now.filter((other) => other.key !== key);
}

export function changedOption(key: string, changes: Partial<Option>): OptionsEdit {
  return (now) => now.map((other) => (other.key === key ? { ...other, ...changes } : other));
}

/** Moves an option up or down; at either end it stays. */
export function movedOption(key: string, by: number): OptionsEdit {
  return (now) => {
    const at = now.findIndex((other) => other.key === key);
    const next = [...now];
    if (at < 0 || at + by < 0 || at + by >= now.length) return next;
    const [taken] = next.splice(at, 1);
    next.splice(at + by, 0, taken!);
    return next;
  };
}

/** What a key looks like, as against what people read. */
const KEY_LIKE = /^[A-Za-z0-9_.\-/]+$/;

/** With commas between, which sentences have too, only what nobody would write in one. */
const SURELY_KEY = /^[a-z0-9]+(?:[_.-][a-z0-9]+)*$/;

/**
 * The options in a text of several lines: a label each, or a key and a label in either order, separated by tabs,
 * semicolons or commas. A first line that names the columns is left out. Keys that are there already, or come twice, get
 * a number.
 */
export function optionsIn(text: string, there: readonly Option[]): Option[] {
  const found: Option[] = [];
  for (const { key, label } of columnsIn(text)) {
    const all = [...there, ...found];
    const isFree = key !== null && all.every((other) => other.key !== key);
    found.push({ key: isFree ? key : keyFor(key ?? label, all), label });
  }
  return found;
}

function columnsIn(text: string): { key: string | null; label: string }[] {
  for (const delimiter of ['\t', ';', ',']) {
    const rows = rowsOf(text, delimiter);
    if (rows === null || rows.length === 0 || !rows.every((cells) => cells.length === 2)) continue;
    const [head, ...body] = rows;
    const named = head!.map((cell) => cell.toLowerCase());
    const isHead = named.includes('key') && named.some((cell) => cell !== 'key');
    const cells = isHead ? body : rows;
    const at = isHead
      ? named.indexOf('key')
      : delimiter === ','
        ? cells.every(([first]) => SURELY_KEY.test(first!)) && !text.includes(', ')
          ? 0
          : -1
        : [0, 1].findIndex((column) => cells.every((pair) => KEY_LIKE.test(pair[column]!)));
    if (at >= 0) return cells.map((pair) => ({ key: pair[at]!, label: pair[1 - at]! }));
  }
  return text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((label) => ({ key: null, label }));
}

/** The lines as cells; null where they are no CSV with this delimiter. */
function rowsOf(text: string, delimiter: string): string[][] | null {
  try {
    const rows = parse(text, {
      delimiter,
      trim: true,
      skip_empty_lines: true,
      relax_column_count: true,
    }) as string[][];
    return rows.every((cells) => cells.every((cell) => cell !== '')) ? rows : null;
  } catch {
    return null;
  }
}
