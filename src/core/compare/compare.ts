/**
 * What changes for people between two versions of a form: the same sessions are played on both, those that the search for
 * faults would play on the later one and on the former one. The same seed and number of sessions find the same.
 */
import { Checkpoints } from '../explore/checkpoints';
import { explored } from '../explore/phases';
import type { HeldStep, Ran } from '../explore/play';
import { equal } from '../form/value';
import { isModule } from '../script/script-name';
import { placeOf } from '../wire/line';
import type { RunEntry } from '../session/entries';
import { Both, type Shared } from './both';
import { changedLines } from './changed-lines';
import { byCause } from './causes';
import { keyOf, type Difference } from './difference';
import { mentionsOfBoth } from './mentions-of-both';
import { renamedOpening, renamedStep, renamesBetween } from './renamed';
import { shortened } from './shorten';
import type { ChangedLine, Version } from './version';

export interface CompareOptions {
  /** The same seed plays the same sessions. */
  seed: number;
  /** Sessions played on both versions at most. */
  sessions: number;
  /** Asked before each session; false ends it with what there is. */
  goOn?: (sessions: number, found: () => readonly Difference[]) => boolean;
}

export interface Compared {
  differences: readonly Difference[];
  /** Sessions that were played on both versions, or on one of them without coming near what changed. */
  sessions: number;
  /** Lines that changed, in the later version or, where they are gone, in the former one. */
  lines: readonly (ChangedLine & { in: 'before' | 'after'; isReached: boolean })[];
  /** It was ended before its sessions were used up. */
  cut: boolean;
}

/** So many of one part and aspect, by different lines, are kept. */
const PER_PART = 4;

export function compare(
  before: Version,
  after: Version,
  { seed, sessions, goOn }: CompareOptions,
): Compared {
  const versions = { before, after };
  const renames = renamesBetween(before.ground.form, after.ground.form);
  const changed = changedLines(before.sources, after.sources);
  if (isSameGround(before, after) && changed.before.length + changed.after.length === 0)
    return { differences: [], sessions: 0, lines: [], cut: false };
  const checkpoints = { before: new Checkpoints(), after: new Checkpoints() };
  const both = new Both(versions, renames, checkpoints);
  const found = new Found(both);
  const reached = new Set<string>();
  const everywhere =
    !isSameGround(before, after) ||
    [...changed.before, ...changed.after].some(({ script }) => isModule(`${script}.ts`));
  let played = 0;
  let cut = false;
  // What is new first: it is what was just written.
  for (const which of ['after', 'before'] as const) {
    const scripts = new Set(changed[which].map(({ script }) => script));
    const { ground, stage } = versions[which];
    const onPlayed = (
      { opening }: Ran,
      runs: readonly RunEntry[],
      steps: readonly HeldStep[],
    ): void => {
      for (const { behaviour, lines } of runs)
        for (const [line] of lines) {
          const place = placeOf(line, behaviour);
          reached.add(`${which} ${place.script}:${place.line}`);
        }
      if (!everywhere && !runs.some(({ behaviour }) => scripts.has(behaviour))) return;
      found.look(
        which === 'after'
          ? { opening, steps }
          : {
              opening: renamedOpening(opening, renames),
              steps: steps.map((step) => renamedStep(step, renames)),
            },
      );
    };
    const half = which === 'after' ? Math.ceil(sessions / 2) : Math.floor(sessions / 2);
    if (half === 0 || cut) continue;
    const so = played;
    const done = explored(
      ground,
      mentionsOfBoth(
        versions[which].mentions,
        versions[which === 'after' ? 'before' : 'after'].mentions,
      ),
      stage,
      {
        seed,
        sessions: half,
        goOn: (now) => goOn?.(so + now, () => byCause(found.all)) !== false,
        onPlayed,
      },
      checkpoints[which],
    );
    played += done.run.sessions;
    cut = done.cut;
  }
  const isReached =
    (which: 'before' | 'after') =>
    ({ script, line }: ChangedLine) => ({
      script,
      line,
      in: which,
      isReached: reached.has(`${which} ${script}:${line}`),
    });
  return {
    differences: byCause(found.all.map((one) => shortened(one, both, after.ground))),
    sessions: played,
    lines: [...changed.after.map(isReached('after')), ...changed.before.map(isReached('before'))],
    cut,
  };
}

/** The same definition, tables and services, so that nothing but scripts can make a difference. */
function isSameGround({ ground: one }: Version, { ground: other }: Version): boolean {
  const of = ({ form, tables, services }: Version['ground']) =>
    ({ form, tables, services }) as never;
  return equal(of(one), of(other));
}

/** What was found so far: of each part and aspect the shortest session for each pair of lines that decide it. */
class Found {
  readonly #found = new Map<string, Map<string, Difference>>();

  constructor(private readonly both: Both) {}

  get all(): Difference[] {
    return [...this.#found.values()].flatMap((lines) => [...lines.values()]);
  }

  /** Plays a session on both versions; what differs at its end is found where it differs first. */
  look({ opening, steps }: Shared): void {
    if (this.both.differing(this.both.play({ opening, steps })).length === 0) return;
    for (let count = 0; count <= steps.length; count++) {
      const start = { opening, steps: steps.slice(0, count) };
      const played = this.both.play(start);
      const differing = this.both.differing(played);
      if (differing.length === 0) continue;
      for (const one of differing) this.#note(one, start, played, differing);
      return;
    }
  }

  #note(
    one: Pick<Difference, 'part' | 'aspect' | 'before' | 'after'>,
    way: Shared,
    played: ReturnType<Both['play']>,
    all: readonly Pick<Difference, 'part' | 'aspect'>[],
  ): void {
    const deciding = this.both.deciding(played, one);
    // What follows from another difference is told with it.
    const reads = new Set([...(deciding.before?.reads ?? []), ...(deciding.after?.reads ?? [])]);
    const from = all.find((other) => keyOf(other) !== keyOf(one) && reads.has(keyOf(other)));
    const lines = { before: deciding.before?.at ?? null, after: deciding.after?.at ?? null };
    const made: Difference = {
      ...one,
      way: { opening: way.opening, steps: played.after.steps },
      lines,
      follows: from === undefined ? null : keyOf(from),
      also: [],
    };
    const known = this.#found.get(keyOf(one)) ?? new Map<string, Difference>();
    this.#found.set(keyOf(one), known);
    const name = JSON.stringify(lines);
    const shortest = known.get(name);
    if (shortest === undefined && known.size >= PER_PART) return;
    if (shortest === undefined || shortest.way.steps.length > made.way.steps.length)
      known.set(name, made);
  }
}
