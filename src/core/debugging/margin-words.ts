/** What the margin of a form in use says of a part: what scripts said of it, and where. */
import type { Line } from '../wire/line';
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { DateStyle } from '../form/date-style';
import { indexOf } from '../form/table-index';
import type { Value } from '../form/value';
import type { Difference } from './differences';
import type { Claim } from '../tape/tape';
import type { Table } from '../form/table';
import type { SaidName } from '../wire/aspects';
import { becameInWords } from '../tape/words';
import { textOf } from '../form/traits';

/** What a replay changed at the end, in short; empty where there is nothing to compare it with. */
export function replayedInWords(replayed: readonly Difference[] | null): string {
  if (replayed === null) return '';
  const parts = [...new Set(replayed.map(({ part }) => part))];
  if (parts.length === 0) return 'replayed: nothing changed';
  const shown = parts.slice(0, 3).join(', ');
  return `replayed: ${shown}${parts.length > 3 ? ` and ${parts.length - 3} more` : ''} changed`;
}

/** Where each of several words was said, by behaviour: `Pilot details, 7, 8; Dues, 12`. */
export function linesInWords(
  said: readonly Claim[],
  titleOf: (behaviour: string) => string,
): string {
  const lines = new Map<string, Set<Line>>();
  for (const { behaviour, line } of said)
    lines.set(behaviour, (lines.get(behaviour) ?? new Set()).add(line));
  return [...lines]
    .map(([behaviour, of]) => `${titleOf(behaviour)}, ${[...of].sort(byLine).join(', ')}`)
    .join('; ');
}

/** What scripts said in the rows of a field, where nothing was said of the field itself. */
export function cellsSaid(words: ReadonlyMap<string, Claim[]>, part: string): Claim[] | undefined {
  const said = [...words].flatMap(([name, ofPart]) => (name.startsWith(`${part}#`) ? ofPart : []));
  return said.length === 0 ? undefined : said;
}

/** What the margin has room for. */
export function shortWord(
  aspect: SaidName,
  to: unknown,
  part: string,
  material: { form: Form; tables: readonly Table[] },
  dates: DateStyle,
): string {
  const field = fieldsOf(material.form).find(({ name }) => name === part);
  if (aspect === 'value' && field !== undefined && to !== null) {
    return textOf(to as Value, field, {
      options: null,
      table: (name) => indexOf(material.tables.find((table) => table.name === name)!),
      dates,
    });
  }
  if (aspect !== 'options')
    return (aspect === 'hint' || aspect === 'warning' || aspect === 'problem') && to !== null
      ? aspect
      : becameInWords(aspect, to);
  if (!Array.isArray(to)) return '';
  const all =
    field?.kind === 'reference'
      ? material.tables.find((table) => table.name === field.table)?.rows.length
      : field?.kind === 'choice'
        ? field.options.length
        : undefined;
  return all === undefined ? `${to.length} options` : `${to.length} of ${all} offered`;
}

/** Lines of the behaviour itself first. */
function byLine(a: Line, b: Line): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return typeof a === 'number' ? -1 : typeof b === 'number' ? 1 : a.localeCompare(b, 'en');
}
