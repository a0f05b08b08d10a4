/** Plays a session on two versions of a form. */
import type { Checkpoints } from '../explore/checkpoints';
import { Player, type HeldStep, type Ran } from '../explore/play';
import type { Opening } from '../session/step';
import {
  decidingIn,
  differing,
  keyOf,
  stoppedAt,
  type Decided,
  type Difference,
  type Differing,
} from './difference';
import {
  renamedOpening,
  renamedPart,
  renamedStep,
  turned,
  type Renames,
} from '../scenario/renamed';
import type { Version } from './version';

/** A session as the later version names what is in it. */
export interface Shared {
  opening: Opening;
  steps: readonly HeldStep[];
}

export interface Played {
  before: Ran;
  after: Ran;
}

export class Both {
  readonly #players: { before: Player; after: Player };
  readonly #back: Renames;

  constructor(
    private readonly versions: { before: Version; after: Version },
    /** From the former names to the later ones. */
    readonly renames: Renames,
    checkpoints: { before: Checkpoints; after: Checkpoints },
  ) {
    const playerOf = (which: 'before' | 'after') => {
      const { ground, stage } = versions[which];
      const nothing = () => undefined;
      return new Player(ground.form, stage, checkpoints[which], nothing, nothing);
    };
    this.#players = { before: playerOf('before'), after: playerOf('after') };
    this.#back = turned(renames);
  }

  play({ opening, steps }: Shared): Played {
    return {
      before: this.#players.before.play(
        this.#opened(opening),
        steps.map((step) => renamedStep(step, this.#back)),
      ),
      after: this.#players.after.play(opening, steps),
    };
  }

  /** What differs at the end of a session. */
  differing({ before, after }: Played): Differing[] {
    return differing(before, after, this.versions.after.ground.form, this.renames);
  }

  /** The lines that decide what differs. */
  linesOf(differing: Differing, played: Played): Difference['lines'] {
    return linesOf(this.#deciding(played, differing));
  }

  /** What differs at the end of a session, where `all` does. */
  difference(
    differing: Differing,
    opening: Opening,
    played: Played,
    all: readonly Differing[],
  ): Difference {
    const deciding = this.#deciding(played, differing);
    return {
      ...differing,
      way: { opening, steps: played.after.steps },
      lines: linesOf(deciding),
      follows: followed(differing, deciding, all),
      also: [],
    };
  }

  #deciding({ before, after }: Played, differing: Differing): Deciding {
    const formerly = { ...differing, part: renamedPart(differing.part, this.#back) };
    const was = decidingIn(before, formerly, this.versions.before.ground.form);
    return {
      before:
        was === null
          ? null
          : { ...was, reads: was.reads.map((read) => renamedRead(read, this.renames)) },
      after: decidingIn(after, differing, this.versions.after.ground.form),
    };
  }

  /** A record that both versions have is opened as each of them has it. */
  #opened(opening: Opening): Opening {
    const renamed = renamedOpening(opening, this.#back);
    const { records } = this.versions.before.ground;
    const own = records.find(({ id }) => id === opening.record?.id);
    const theirs = this.versions.after.ground.records.find(({ id }) => id === opening.record?.id);
    const isAsSaved = theirs !== undefined && opening.record?.values === theirs.values;
    if (own === undefined || !isAsSaved) return renamed;
    return { ...renamed, record: { id: own.id, values: own.values } };
  }
}

interface Deciding {
  before: Decided | null;
  after: Decided | null;
}

const linesOf = ({ before, after }: Deciding): Difference['lines'] => ({
  before: before?.at ?? null,
  after: after?.at ?? null,
});

/** The key of the difference that another one follows from: the scripts that decide it had read that, or it is stopped there. */
function followed(
  one: Differing,
  { before, after }: Deciding,
  all: readonly Differing[],
): string | null {
  const reads = new Set([...(before?.reads ?? []), ...(after?.reads ?? [])]);
  const stopped = new Set([...stoppedAt(one.before), ...stoppedAt(one.after)]);
  const from = all.find(
    (other) =>
      keyOf(other) !== keyOf(one) &&
      (reads.has(keyOf(other)) || (one.aspect === 'submit' && stopped.has(other.part))),
  );
  return from === undefined ? null : keyOf(from);
}

/** `goods.weight.value` by the later name. */
function renamedRead(read: string, renames: Renames): string {
  const dot = read.lastIndexOf('.');
  return `${renamedPart(read.slice(0, dot), renames)}${read.slice(dot)}`;
}
