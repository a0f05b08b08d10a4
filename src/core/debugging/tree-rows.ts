/** The tape as the rows of a tree: entries, what a run did while it is stood in, and how much is left out. */
import type { Detail, DetailedRun } from '../session/detail';
import type { Entry } from '../session/entries';
import type { Run, Tape } from '../tape/tape';
import { valueInWords, type Names } from '../tape/words';
import { lineInWords } from '../wire/line';
import { comparisonInWords } from './comparison-words';
import { conditionMet } from './explained';
import type { Listed } from './filter';
import { Instances, type SitesOf } from './instances';
import type { Standing } from './travel';

export type TreeRow =
  | { is: 'entry'; key: string; listed: Listed }
  /** Something that a run did, while it is stood in. */
  | { is: 'detail'; key: string; depth: number; at: number; text: string; line: number | null }
  | { is: 'quiet'; key: string; depth: number; count: number };

/** The behaviours that ran, in the order in which they did first. */
export function behavioursOn(tape: Tape): string[] {
  return [
    ...new Set(
      tape.entries.flatMap((entry) => (entry.type === 'run' ? [(entry as Run).behaviour] : [])),
    ),
  ];
}

export function rowEntry(row: TreeRow): number | null {
  return row.is === 'entry' ? row.listed.entry.n : null;
}

/** The row of the moment that is stood on: of a run, the last that it did by then. */
export function placeAmong(rows: readonly TreeRow[], standing: Standing | null): number {
  if (standing === null) return -1;
  const { entry, detail } = standing;
  const run = rows.findIndex((row) => rowEntry(row) === entry);
  if (detail === null) return run;
  const done = rows.findLastIndex((row) => row.is === 'detail' && row.at <= detail);
  return done < 0 ? run : done;
}

export function rowsOf(
  all: readonly Listed[],
  closed: ReadonlySet<number>,
  standing: number | null,
  detailed: DetailedRun | null,
  sites: SitesOf,
  names: Names,
): TreeRow[] {
  const rows: TreeRow[] = [];
  let hiddenBelow = Infinity;
  for (const one of all) {
    const { entry, depth, quiet } = one;
    if (depth > hiddenBelow) continue;
    hiddenBelow = closed.has(entry.n) ? depth : Infinity;
    rows.push({ is: 'entry', key: `e${entry.n}`, listed: one });
    if (hiddenBelow < Infinity) continue;
    if (entry.n === standing && detailed?.entry === entry.n)
      rows.push(...detailRows(detailed, sites, depth + 1, names));
    if (quiet > 0) rows.push({ is: 'quiet', key: `q${entry.n}`, depth: depth + 1, count: quiet });
  }
  return rows;
}

/** What a run did one by one: conditions with both sides, reads, what was said. */
function detailRows(run: DetailedRun, sites: SitesOf, depth: number, names: Names): TreeRow[] {
  const all = new Instances(run.details, sites);
  const conditions = new Map(
    all.all
      .filter(({ site, value }) => site.kind === 'condition' && value !== undefined)
      .map((instance) => [instance.detail, instance]),
  );
  return run.details.flatMap((detail, at): TreeRow[] => {
    const text = detailInWords(detail, names);
    const line = 'site' in detail ? (sites.get(detail.script)?.[detail.site]?.line ?? null) : null;
    if (detail.is === 'begin') {
      const instance = conditions.get(at);
      if (instance === undefined) return [];
      const met = conditionMet(all, instance);
      const sides = met.comparisons.map(comparisonInWords).join(', ');
      const came = met.came === true ? 'yes' : met.came === false ? 'no' : valueInWords(met.came);
      return [
        {
          is: 'detail',
          key: `d${run.entry}:${at}`,
          depth,
          at,
          line: met.line,
          text: `${met.text}: ${came}${sides === '' ? '' : ` (${sides})`}`,
        },
      ];
    }
    return text === null
      ? []
      : [{ is: 'detail', key: `d${run.entry}:${at}`, depth, at, text, line }];
  });
}

function detailInWords(detail: Detail, names: Names): string | null {
  switch (detail.is) {
    case 'read':
      return `read ${names.part(detail.part)}${detail.aspect === 'value' ? '' : `, ${detail.aspect}`}: ${valueInWords(detail.value)}`;
    case 'said':
      return `said ${names.part(detail.part)}, ${detail.aspect}: ${valueInWords(detail.value)}`;
    case 'asked':
      return `asked ${detail.what}`;
    case 'suspend':
      return 'waited';
    case 'resume':
      return `went on with ${valueInWords(detail.value)}`;
    default:
      return null;
  }
}

/** What stands at the right of an entry: the line, the fuel of a run, the delay of a call. */
export function asideOf(entry: Entry): string {
  if (entry.type === 'run') return `${(entry as Run).fuel} fuel`;
  if (entry.type === 'call') return entry.due === null ? 'answered by hand' : '';
  const line = 'line' in entry ? entry.line : entry.type === 'error' ? entry.failure.line : null;
  return line === null || line === 0 || line === undefined ? '' : lineInWords(line);
}
