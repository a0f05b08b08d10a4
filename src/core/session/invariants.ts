/**
 * Invariants: conditions that a behaviour declares with `always`. An invariant reads as a rule does and changes nothing.
 * After a step has settled, those whose reads differ run once. So none sees a state that does not last, and a step that
 * touches nothing they read costs nothing. People meet no difference whether one holds or not.
 */
import { keepMap, type Restore } from './checkpoint';
import { differing } from './rule-claims';
import type { Running } from './running';
import type { Settling } from './settling';
import type { State } from './state';
import type { Broken } from './step';
import type { Rule } from './tie';

export class Invariants {
  readonly #broken = new Map<Rule, Broken>();

  constructor(
    private readonly state: State,
    private readonly running: Running,
    private readonly settling: Settling,
  ) {}

  /** Asks those that read something which differs now. Nothing else may wait for its turn. */
  check(cause: number | null): void {
    const { invariants } = this.state.outdated;
    for (let one = invariants.first(); one !== null; one = invariants.first()) {
      const trigger = differing(one);
      const due = one.state !== 'stirred' || trigger !== null;
      invariants.delete(one);
      if (due) this.#ask(one, trigger, cause);
    }
  }

  #ask(one: Rule, trigger: ReturnType<typeof differing>, cause: number | null): void {
    const { row, title, behaviour, line } = one;
    const { failure, broken } = this.running.run(
      one,
      row === null ? { is: 'nothing' } : { is: 'row', row },
      {
        title,
        part: trigger?.part ?? null,
        row,
        before: trigger?.changedBy ?? null,
        cause,
        stops: false,
      },
    );
    this.settling.noteFailure(one, failure);
    if (broken)
      this.#broken.set(one, {
        title,
        behaviour: behaviour.name,
        line,
        row: row?.part.name ?? null,
      });
    else this.#broken.delete(one);
  }

  /** Those that do not hold, in the order in which they last began not to; what a removed row was asked for is gone with it. */
  get broken(): Broken[] {
    for (const one of this.#broken.keys()) if (one.row?.removed === true) this.#broken.delete(one);
    return [...this.#broken.values()];
  }

  /** Another record is opened. */
  forget(): void {
    this.#broken.clear();
  }

  checkpoint(): Restore {
    return keepMap(this.#broken);
  }
}
