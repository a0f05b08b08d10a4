/** What scripts cost: the fuel their runs used, by behaviour, by handler or rule and by step, the heaviest first. */
import { FUEL_PER_RUN, RUNS_PER_STEP } from '../limits';
import type { Entry } from '../session/entries';
import type { Line } from '../wire/line';

export interface Cost {
  behaviour: string;
  /** The handler or rule; null for a behaviour as a whole. */
  title: string | null;
  line: Line | null;
  runs: number;
  fuel: number;
  /** The most that one run used, and how much of what a run may use that is. */
  most: number;
  share: number;
  /** The most runs within one step. */
  runsInStep: number;
  /** One run, or the runs of one step, came near their limit. */
  near: boolean;
}

/** From half of a limit on it is said. */
const NEAR = 0.5;

export interface Costs {
  behaviours: Cost[];
  ties: Cost[];
  /** The fuel of each step, the opening first. */
  steps: number[];
}

/** `limit` is how often a handler or rule may run in one step. */
export function costsOf(tapes: readonly (readonly Entry[])[], limit = RUNS_PER_STEP): Costs {
  const behaviours = new Map<string, Cost>();
  const ties = new Map<string, Cost>();
  const steps = tapes.map(() => 0);
  tapes.forEach((tape, step) => {
    const inStep = new Map<string, number>();
    for (const entry of tape) {
      if (entry.type !== 'run') continue;
      const { behaviour, title, line, fuel, sort } = entry;
      steps[step]! += fuel;
      const key = `${behaviour} ${line} ${sort}`;
      inStep.set(key, (inStep.get(key) ?? 0) + 1);
      add(behaviours, behaviour, { behaviour, title: null, line: null }, fuel);
      const tie = add(ties, key, { behaviour, title, line }, fuel);
      tie.runsInStep = Math.max(tie.runsInStep, inStep.get(key)!);
    }
  });
  for (const cost of [...behaviours.values(), ...ties.values()]) {
    cost.share = cost.most / FUEL_PER_RUN;
    cost.near = cost.share >= NEAR || cost.runsInStep >= NEAR * limit;
  }
  const heaviest = (all: Iterable<Cost>) => [...all].sort((a, b) => b.fuel - a.fuel);
  return { behaviours: heaviest(behaviours.values()), ties: heaviest(ties.values()), steps };
}

function add(
  to: Map<string, Cost>,
  key: string,
  of: Pick<Cost, 'behaviour' | 'title' | 'line'>,
  fuel: number,
): Cost {
  const cost = to.get(key) ?? {
    ...of,
    runs: 0,
    fuel: 0,
    most: 0,
    share: 0,
    runsInStep: 0,
    near: false,
  };
  to.set(key, cost);
  cost.runs++;
  cost.fuel += fuel;
  cost.most = Math.max(cost.most, fuel);
  return cost;
}
