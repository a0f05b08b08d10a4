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
import { Both, type Played, type Shared } from './both';
import { changedLines } from './changed-lines';
import { byCause } from './causes';
import { keyOf, type Difference, type Differing } from './difference';
import { mentionsOfBoth } from './mentions-of-both';
import { renamedOpening, renamedStep, renamesBetween, type Renames } from '../scenario/renamed';
import { shortened } from './shorten';
import type { Change, ChangedLine, Version } from './version';

export interface CompareOptions {
  /** The same seed plays the same sessions. */
  seed: number;
  change: Change;
  /** Sessions played on both versions at most. */
  sessions: number;
  /** Asked before each session; false ends it with what there is. */
  goOn?: (sessions: number, found: () => readonly Difference[]) => boolean;
}

export interface Compared {
  differences: readonly Difference[];
  /** Sessions that were played on both versions, or on one of them without coming near what changed. */
  sessions: number;
  /** Lines that changed and run, in the later version or, where they are gone, in the former one. */
  lines: readonly (ChangedLine & { in: 'before' | 'after'; isReached: boolean })[];
  /** It was ended before its sessions were used up. */
  cut: boolean;
}

/**
 * Shares of the sessions: what is new is gone over first, since it was just written; soon the former version too, so that a
 * short comparison sees what is gone.
 */
const ROUNDS: readonly { which: 'after' | 'before'; share: number }[] = [
  { which: 'after', share: 0.05 },
  { which: 'before', share: 0.05 },
  { which: 'after', share: 0.15 },
  { which: 'before', share: 0.15 },
  { which: 'after', share: 0.3 },
  { which: 'before', share: 0.3 },
];

/** So many of one part and aspect, by different lines, are kept. */
const PER_PART = 4;

export function compare(
  before: Version,
  after: Version,
  { seed, sessions, change: { words, running }, goOn }: CompareOptions,
): Compared {
  const versions = { before, after };
  const renames = renamesBetween(before.ground.form, after.ground.form);
  const changed = changedLines(before.sources, after.sources);
  const isSame = isSameGround(before, after);
  if (isSame && changed.before.length + changed.after.length === 0)
    return { differences: [], sessions: 0, lines: [], cut: false };
  const checkpoints = { before: new Checkpoints(), after: new Checkpoints() };
  const both = new Both(versions, renames, checkpoints);
  const found = new Found(both);
  const reached = new Set<string>();
  const everywhere =
    !isSame || [...changed.before, ...changed.after].some(({ script }) => isModule(`${script}.ts`));
  let played = 0;
  let cut = false;
  for (const [round, { which, share }] of ROUNDS.entries()) {
    const most = Math.min(Math.ceil(share * sessions), sessions - played);
    if (most <= 0 || cut) break;
    const other = which === 'after' ? 'before' : 'after';
    const scripts = new Set(changed[which].map(({ script }) => script));
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
      if (everywhere || runs.some(({ behaviour }) => scripts.has(behaviour)))
        found.look(
          which === 'after' ? { opening, steps } : inLaterNames({ opening, steps }, renames),
        );
    };
    const so = played;
    const done = explored(
      versions[which].ground,
      mentionsOfBoth(versions[which].mentions, versions[other].mentions, words),
      versions[which].stage,
      {
        seed: seed * ROUNDS.length + round,
        sessions: most,
        isFocused: words.length > 0,
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
    lines: [...running.after.map(isReached('after')), ...running.before.map(isReached('before'))],
    cut,
  };
}

function inLaterNames({ opening, steps }: Shared, renames: Renames): Shared {
  return {
    opening: renamedOpening(opening, renames),
    steps: steps.map((step) => renamedStep(step, renames)),
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

  /** Plays a session on both versions; what differs at its end and is not known is found where it differs first. */
  look({ opening, steps }: Shared): void {
    const end = this.both.play({ opening, steps });
    if (this.#unknown(end, this.both.differing(end)).length === 0) return;
    for (let count = 0; count <= steps.length; count++) {
      const start = { opening, steps: steps.slice(0, count) };
      const played = this.both.play(start);
      const all = this.both.differing(played);
      const unknown = this.#unknown(played, all);
      if (unknown.length === 0) continue;
      for (const one of unknown) this.#note(one, start, played, all);
      return;
    }
  }

  /** What differs, but for what a session that was as short has shown, by the same lines. */
  #unknown(played: Played, all: readonly Differing[]): Differing[] {
    return all.filter((one) => {
      const known = this.#found.get(keyOf(one));
      if (known === undefined) return true;
      const same = known.get(JSON.stringify(this.both.linesOf(one, played)));
      return same === undefined && known.size < PER_PART;
    });
  }

  #note(one: Differing, way: Shared, played: Played, all: readonly Differing[]): void {
    const known = this.#found.get(keyOf(one)) ?? new Map<string, Difference>();
    this.#found.set(keyOf(one), known);
    const found = this.both.difference(one, way.opening, played, all);
    known.set(JSON.stringify(found.lines), found);
  }
}
