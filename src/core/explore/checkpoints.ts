/**
 * Checkpoints of sessions that a search has played, so that the next session goes on from the last one that it shares with
 * another instead of being played from its opening. Only the latest are kept: each holds a copy of the machine.
 */
import type { Seen } from '../scenario/seen';
import type { Answer, Step } from '../session/step';
import type { Checkpoint } from '../session/checkpoint';

/** The steps of a session up to a checkpoint, with their answers. */
export interface Played {
  /** That of the opening, then one for each step done. */
  answers: readonly Answer[];
  /** Waits among them. */
  done: readonly Step[];
  refused: readonly Step[];
  opened: Seen;
  seen: Seen;
}

/** A copy of a machine is one to three megabytes. */
const KEPT = 32;

export class Checkpoints {
  /** The latest last. */
  readonly #kept = new Map<string, { checkpoint: Checkpoint; played: Played }>();

  /** Goes back to the last of these checkpoints that is still kept, named from the opening on; null where none is. */
  nearest(names: readonly string[]): { at: number; played: Played } | null {
    for (let at = names.length - 1; at >= 0; at--) {
      const known = this.#kept.get(names[at]!);
      if (known === undefined) continue;
      known.checkpoint.restore();
      this.#kept.delete(names[at]!);
      this.#kept.set(names[at]!, known);
      return { at, played: known.played };
    }
    return null;
  }

  keep(name: string, checkpoint: Checkpoint | null, played: Played): void {
    if (checkpoint === null) return;
    for (const [oldest, { checkpoint: unused }] of this.#kept) {
      if (this.#kept.size < KEPT) break;
      this.#kept.delete(oldest);
      unused.release();
    }
    this.#kept.set(name, { checkpoint, played });
  }
}
