/** Where the map's parts and behaviours stand: three columns, ordered so that few arrows cross. */
import type { Line } from '@/core/wire/line';
import type { FormMap } from '@/core/language/map';
import type { Effect, Tape } from '@/core/tape/tape';

export interface Drawn {
  nodes: {
    id: string;
    sort: 'read' | 'behaviour' | 'steered';
    label: string;
    x: number;
    y: number;
    bad: boolean;
    says: string;
  }[];
  links: { source: string; target: string; bad: boolean; says: string }[];
}

export const WIDTH = 1000;
export const HEIGHT = 1000;
export const COLUMNS = { read: 250, behaviour: 500, steered: 750 } as const;

export function layOut(
  { behaviours, reads, steers, conflicts, circles }: FormMap,
  nameOf: (part: string) => string,
): Drawn {
  const at = new Map(behaviours.map(({ name }, i) => [name, i]));
  // A part is drawn at the mean of the behaviours it belongs to. With these in the order in which they run that leaves
  // fewer arrows crossing than a layered layout by a library (@dagrejs/dagre), which was tried.
  const inOrder = (arrows: FormMap['reads']) => {
    const parts = new Map<string, number[]>();
    for (const { part, behaviour } of arrows)
      parts.set(part, [...(parts.get(part) ?? []), at.get(behaviour)!]);
    const mean = (places: number[]) => places.reduce((a, b) => a + b) / places.length;
    return [...parts].toSorted((a, b) => mean(a[1]) - mean(b[1])).map(([part]) => part);
  };
  const round = new Set(circles.flat().map((step) => step.split(':')[0]!));
  const inConflict = new Set(conflicts.map(({ part }) => part));
  const spread = (count: number, i: number) => (HEIGHT * (i + 0.5)) / count;
  const column = (sort: 'read' | 'steered', arrows: FormMap['reads']) => {
    const parts = inOrder(arrows);
    return parts.map((part, i) => ({
      id: `${sort}:${part}`,
      sort,
      label: nameOf(part),
      x: COLUMNS[sort],
      y: spread(parts.length, i),
      bad: sort === 'steered' && (inConflict.has(part) || round.has(part)),
      says: part,
    }));
  };
  return {
    nodes: [
      ...column('read', reads),
      ...behaviours.map(({ name, title }, i) => ({
        id: `behaviour:${name}`,
        sort: 'behaviour' as const,
        label: title,
        x: COLUMNS.behaviour,
        y: spread(behaviours.length, i),
        bad: false,
        says: title,
      })),
      ...column('steered', steers),
    ],
    links: [
      ...reads.map(({ part, behaviour, aspects }) => ({
        source: `read:${part}`,
        target: `behaviour:${behaviour}`,
        bad: round.has(part) && round.has(behaviour),
        says: `reads ${aspects.join(', ')}`,
      })),
      ...steers.map(({ part, behaviour, aspects }) => ({
        source: `behaviour:${behaviour}`,
        target: `steered:${part}`,
        bad:
          (round.has(part) && round.has(behaviour)) ||
          conflicts.some(
            (conflict) => conflict.part === part && conflict.behaviours.includes(behaviour),
          ),
        says: `steers ${aspects.join(', ')}`,
      })),
    ],
  };
}

/** What behaviours steered on a tape, by part; rows and cells under their columns. */
export function steeredOnTape(
  tape: Tape,
): Map<string, { behaviour: string; aspects: string[]; line: Line }[]> {
  const found = new Map<string, Map<string, { aspects: Set<string>; line: Line }>>();
  for (const entry of tape.entries) {
    if (entry.type !== 'effect' || 'struck' in entry || entry.line === null) continue;
    const run = tape.runOf(entry as Effect);
    if (run === null) continue;
    const part = entry.part.replace(/#\d+$/, '#').replace(/#\d+\./, '.');
    const ofPart = found.get(part) ?? new Map<string, { aspects: Set<string>; line: Line }>();
    const known = ofPart.get(run.behaviour) ?? { aspects: new Set<string>(), line: entry.line };
    known.aspects.add(entry.aspect);
    ofPart.set(run.behaviour, { ...known, line: entry.line });
    found.set(part, ofPart);
  }
  return new Map(
    [...found].map(([part, by]) => [
      part,
      [...by].map(([behaviour, { aspects, line }]) => ({ behaviour, aspects: [...aspects], line })),
    ]),
  );
}
