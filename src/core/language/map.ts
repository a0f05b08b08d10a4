/**
 * The form as a map of who reads and steers what, from the sources: an arrow from a part to each behaviour that reads it,
 * and from a behaviour to each part it steers. Circles and conflicts are found here so that they can stand out.
 */
import { alg, Graph } from '@dagrejs/graphlib';
import { actsOf, type Flow } from './acts';

export interface MapBehaviour {
  name: string;
  title: string;
  flow: Flow;
}

export interface MapArrow {
  behaviour: string;
  part: string;
  /** What is read or steered of the part. */
  aspects: string[];
}

export interface FormMap {
  behaviours: { name: string; title: string }[];
  reads: MapArrow[];
  steers: MapArrow[];
  /** An aspect that several behaviours steer. */
  conflicts: { part: string; aspect: string; behaviours: string[] }[];
  /**
   * What comes round to itself: each circle as what is said and the behaviours that say it in turn, from a part back to
   * it. A value goes by its part, as `total`; another aspect of rules by part and aspect, as `stay:shown`.
   */
  circles: string[][];
}

/** `behaviours` are those that are on, in their order. */
export function mapOf(behaviours: readonly MapBehaviour[]): FormMap {
  const reads: MapArrow[] = [];
  const steers: MapArrow[] = [];
  for (const { name, flow } of behaviours) {
    const read = new Map<string, Set<string>>();
    const steered = new Map<string, Set<string>>();
    const add = (to: Map<string, Set<string>>, part: string, aspect: string) =>
      to.set(part, (to.get(part) ?? new Set()).add(aspect));
    for (const block of flow.blocks) {
      for (const part of block.tied) add(read, part, block.event === 'click' ? 'click' : 'value');
      for (const { access } of actsOf(block, 'read'))
        if (access.part !== '@form') add(read, access.part, access.aspect);
      for (const { part, aspect } of actsOf(block, 'write')) add(steered, part, aspect);
    }
    for (const [part, aspects] of read)
      reads.push({ behaviour: name, part, aspects: [...aspects].sort() });
    for (const [part, aspects] of steered)
      steers.push({ behaviour: name, part, aspects: [...aspects].sort() });
  }
  return {
    behaviours: behaviours.map(({ name, title }) => ({ name, title })),
    reads,
    steers,
    conflicts: conflictsIn(steers),
    circles: circlesIn(behaviours),
  };
}

function conflictsIn(steers: readonly MapArrow[]): FormMap['conflicts'] {
  const by = new Map<string, { part: string; aspect: string; behaviours: string[] }>();
  for (const { behaviour, part, aspects } of steers) {
    for (const aspect of aspects) {
      const key = `${part} ${aspect}`;
      const known = by.get(key) ?? { part, aspect, behaviours: [] };
      known.behaviours.push(behaviour);
      by.set(key, known);
    }
  }
  // That several handlers enter a value is no conflict; that several say whether it shows is.
  return [...by.values()].filter(
    ({ aspect, behaviours }) => behaviours.length > 1 && aspect !== 'value',
  );
}

/** What is read and said of a part, as a place in a circle. Whether it is on screen or editable follows from what is said. */
function placeOf(part: string, aspect: string): string {
  const said = aspect === 'onScreen' ? 'shown' : aspect === 'editable' ? 'locked' : aspect;
  return said === 'value' ? part : `${part}:${said}`;
}

/**
 * Circles: a block that reads one thing and says another leads from the one to the other. A rule runs again when
 * anything it read differs, a handler when the value it is tied to changes.
 */
function circlesIn(behaviours: readonly MapBehaviour[]): string[][] {
  const leads = new Graph();
  for (const { name, flow } of behaviours) {
    for (const block of flow.blocks) {
      const places = (acts: readonly { part: string; aspect: string }[]) =>
        new Set(
          acts
            .filter(({ part }) => part !== '@form')
            .map(({ part, aspect }) => placeOf(part, aspect)),
        );
      // What sets a handler off is what it is tied to; what else it reads starts nothing.
      const from =
        block.sort === 'rule'
          ? places(actsOf(block, 'read').map(({ access }) => access))
          : block.event === 'change'
            ? block.tied
            : [];
      for (const source of new Set(from)) {
        for (const target of places(actsOf(block, 'write'))) {
          // A rule is not set off by its own writes.
          if (source === target && block.sort === 'rule') continue;
          leads.setEdge(source, target, name);
        }
      }
    }
  }
  return alg.findCycles(leads).map((parts) => asRound(parts, leads));
}

/** The shortest way round through one of the parts of a circle, with the behaviour that leads from each part to the next. */
function asRound(parts: readonly string[], leads: Graph): string[] {
  // The part that the code names first.
  const start = leads.nodes().find((part) => parts.includes(part))!;
  const paths = alg.dijkstra(leads, start);
  const [last] = (leads.predecessors(start) ?? [])
    .filter((part) => parts.includes(part))
    .sort((a, b) => paths[a]!.distance - paths[b]!.distance) as [string];
  const way = [start];
  for (let part = last; part !== start; part = paths[part]!.predecessor!) way.splice(1, 0, part);
  return way
    .flatMap((part, i) => [part, leads.edge(part, way[i + 1] ?? start) as string])
    .concat(start);
}
