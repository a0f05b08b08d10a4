/** What somebody did in a filling-in that was saved: kept for a while, to be done again on the next version of the form. */
import type { Opening, Step, TimedStep } from '../session/step';

export interface KeptSteps {
  opening: Opening;
  steps: TimedStep[];
}

export interface KeptFilling extends KeptSteps {
  id: number;
  record: string;
  /** The number of the release that it was done in. */
  release: number;
  masked: boolean;
  at: string;
}

export interface KeptFillingsPage {
  /** The newest first. */
  fillings: KeptFilling[];
  /** How many there are in all. */
  all: number;
}

/** What was done, as searches take it: they wait where they have to. */
export function withoutTimes({ opening, steps }: KeptSteps): { opening: Opening; steps: Step[] } {
  return {
    opening,
    steps: steps.map((timed) => {
      const { at: _, ...step } = timed;
      return step;
    }),
  };
}
