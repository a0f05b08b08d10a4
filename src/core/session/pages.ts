/** The page a person is on: turned to, and kept among those shown. Whether a person may turn is `page-steps.ts`. */
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Situation } from './situation';
import type { TapeWriter } from './tape-writer';
import type { Line } from '../wire/line';

export class Pages {
  constructor(
    /** In the order of the form. */
    readonly all: readonly Part[],
    private readonly situation: Situation,
    private readonly tape: TapeWriter,
    private readonly progress: Progress,
  ) {}

  turnTo(page: Part | null, cause: number | null, line: Line | null): void {
    const from = this.situation.page;
    if (from === page) return;
    this.situation.page = page;
    this.progress.journal.undoable(() => {
      this.situation.page = from;
    });
    this.tape.add(cause, { type: 'page', from: from?.name ?? null, to: page?.name ?? null, line });
  }

  /** The page one is on has been hidden: the form turns to the nearest shown one. */
  keep(cause: number | null): void {
    const { page } = this.situation;
    if (page?.onScreen === true) return;
    const at = page === null ? 0 : this.all.indexOf(page);
    const distance = (other: Part) => Math.abs(this.all.indexOf(other) - at);
    const nearest =
      this.all.filter((other) => other.onScreen).sort((a, b) => distance(a) - distance(b))[0] ??
      null;
    this.turnTo(nearest, cause, null);
  }
}
