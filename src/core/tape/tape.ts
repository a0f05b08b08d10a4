/** Reading a tape: what caused what. Entries come numbered, each with the number of its cause. */
import type { SaidName } from '../wire/aspects';
import type { EffectEntry, Entry, RunEntry } from '../session/entries';
import type { Line } from '../wire/line';

export type Run = Entry & RunEntry;
export type Effect = Entry & EffectEntry;

export class Tape {
  readonly #byNumber = new Map<number, Entry>();
  readonly #children = new Map<number, Entry[]>();
  /** Where all that scripts did in a step was taken back: the entry that says so, its step and why. */
  #takenBack: { n: number; root: number; error: Entry & { type: 'error' } }[] | null = null;
  /** The number of the entry that opened the record that is open: what came before is another record's. */
  readonly since: number;

  constructor(readonly entries: readonly Entry[]) {
    this.since = entries.findLast(({ type }) => type === 'opened')?.n ?? 0;
    for (const entry of entries) {
      this.#byNumber.set(entry.n, entry);
      if (entry.cause === null) continue;
      const siblings = this.#children.get(entry.cause);
      if (siblings === undefined) this.#children.set(entry.cause, [entry]);
      else siblings.push(entry);
    }
  }

  get roots(): Entry[] {
    return this.entries.filter((entry) => entry.cause === null);
  }

  entry(n: number): Entry | null {
    return this.#byNumber.get(n) ?? null;
  }

  childrenOf(entry: Entry): readonly Entry[] {
    return this.#children.get(entry.n) ?? [];
  }

  causeOf(entry: Entry): Entry | null {
    return entry.cause === null ? null : (this.#byNumber.get(entry.cause) ?? null);
  }

  /** The run an effect was made in, or null when a person or the form made it. */
  runOf(effect: Effect): Run | null {
    const cause = this.causeOf(effect);
    return cause?.type === 'run' ? (cause as Run) : null;
  }

  /** The step or opening in which it happened. */
  rootOf(entry: Entry): Entry {
    let root = entry;
    for (let cause = this.causeOf(root); cause !== null; cause = this.causeOf(root)) root = cause;
    return root;
  }

  /**
   * The number of the step in which it happened, as steps are counted by whoever does them: 0 for the opening. A
   * submission that a script asked for belongs to the step before it.
   */
  stepOf(entry: Entry): number {
    const root = this.rootOf(entry);
    let step = 0;
    for (const one of this.entries) {
      if (one.n > root.n) break;
      if (one.type === 'step' && (one.by !== 'script' || !('submit' in one.step))) step++;
    }
    return step;
  }

  /** Whether it was undone again: its run failed, or all that scripts did in its step was taken back. */
  isStruck(entry: Entry): boolean {
    if ('struck' in entry && entry.struck) return true;
    const run = this.#runAround(entry);
    if (run === null) return false;
    return run.outcome === 'failed' || this.takenBackAfter(run) !== null;
  }

  /** The error for which all that scripts did in the step of a run was taken back; null where nothing was. */
  takenBackAfter(run: Run): (Entry & { type: 'error' }) | null {
    this.#takenBack ??= this.entries.flatMap((entry) => {
      const error = entry.type === 'takenBack' ? this.causeOf(entry) : null;
      return error?.type === 'error' ? [{ n: entry.n, root: this.rootOf(entry).n, error }] : [];
    });
    if (this.#takenBack.length === 0) return null;
    const root = this.rootOf(run).n;
    return this.#takenBack.find((one) => one.n > run.n && one.root === root)?.error ?? null;
  }

  #runAround(entry: Entry): Run | null {
    for (let at: Entry | null = entry; at !== null; at = this.causeOf(at))
      if (at.type === 'run') return at as Run;
    return null;
  }

  /** All that happened to a part since its record was opened, in order, without what was taken back. */
  lifeOf(part: string): Effect[] {
    return this.entries.filter(
      (entry): entry is Effect =>
        entry.type === 'effect' &&
        entry.n > this.since &&
        entry.part === part &&
        !('struck' in entry),
    );
  }
}

/** What scripts say of a part at the end of a tape: each aspect with the run and line that said it last. */
export interface Claim {
  aspect: SaidName;
  to: unknown;
  behaviour: string;
  line: Line;
}

/** The standing words of scripts by part, for the margin of the live form. */
export function standingClaims(tape: Tape): Map<string, Claim[]> {
  const words = new Map<string, Map<string, Claim | null>>();
  for (const entry of tape.entries) {
    if (entry.type !== 'effect' || entry.n < tape.since || 'struck' in entry || 'covered' in entry)
      continue;
    const effect = entry as Effect;
    const run = tape.runOf(effect);
    const ofPart = words.get(effect.part) ?? new Map<string, Claim | null>();
    const { again } = effect;
    // A person's value, or a rule that fell silent, ends what a script said, unless an earlier rule's word shows again.
    const said =
      again !== undefined
        ? { aspect: effect.aspect, to: effect.to, behaviour: again.behaviour, line: again.line }
        : run === null || effect.line === null
          ? null
          : { aspect: effect.aspect, to: effect.to, behaviour: run.behaviour, line: effect.line };
    ofPart.set(effect.aspect, said);
    words.set(effect.part, ofPart);
  }
  return new Map(
    [...words].flatMap(([part, aspects]) => {
      const standing = [...aspects.values()].filter((word): word is Claim => word !== null);
      return standing.length === 0 ? [] : [[part, standing] as const];
    }),
  );
}
