/** Outcome grids tried on the bench: anew when asked, and again by themselves after an edit. */
import { untilDone } from '@/core/sandbox/cut-short';
import type { StoreApi } from 'zustand/vanilla';
import type { Value } from '@/core/form/value';
import type { Scenario } from '@/core/scenario/definition';
import {
  combinationsOf,
  folded,
  playGrid,
  sessionOf,
  type Combination,
} from '@/core/scenario/grid';
import { fieldAt } from '@/core/scenario/written';
import { spread } from '@/core/testing/spread';
import { mentionedIn, valuesFor } from '@/core/testing/values';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import type { GridOutcome, GridStart, GridState, TestsState } from './state';
import type { TestWorkers } from './workers';
import { isPicked } from '@/core/form/traits';

/** Combinations that one engine takes at a time. */
const AT_ONCE = 20;
/** Combinations that are tried again by themselves: about two seconds of work. */
const BY_ITSELF = 500;
/** Records that a grid varies at first. */
const RECORDS = 8;

export function gridRuns(
  { form, material, store: core }: BenchCore,
  { scripts }: Code,
  tests: StoreApi<TestsState>,
  { change, work, loaded, ground }: TestWorkers,
  { show }: FormRoom,
  keepOrReplace: (scenario: Scenario) => Promise<string | null>,
) {
  const setGrid = (more: Partial<GridState>) => change('grid', more);

  /** All that an input with few values can be; null where values are written. */
  function everyValue(input: string): Value[] | null {
    if (input === '@as') return material.people.map(({ key }) => key);
    if (input === '@record')
      return [
        null,
        ...core
          .getState()
          .material.records.slice(0, RECORDS)
          .map(({ id }) => id),
      ];
    if (input.startsWith('@fails.')) return [false, true];
    if (input.startsWith('@launch.')) {
      const parameter = form().launch?.find(({ name }) => `@launch.${name}` === input);
      return parameter?.kind === 'yes_no' ? [null, true, false] : null;
    }
    const field = fieldAt(form(), input);
    return field !== null && isPicked(field)
      ? valuesFor(field, material.tables, { numbers: [], texts: [] })
      : null;
  }

  /** Values worth trying where they are written: those that the scripts compare with, and their neighbours. */
  function suggestedValues(input: string): Value[] {
    const mentioned = mentionedIn(scripts.sources());
    const field = fieldAt(form(), input);
    if (field !== null) return valuesFor(field, material.tables, mentioned);
    return input.startsWith('@launch.') ? [...mentioned.texts, ...mentioned.numbers] : [];
  }

  const scenarioOf = (title: string, start: GridStart): Scenario => ({
    title,
    ...(start ?? { open: { as: material.people[0]!.key }, steps: [] }),
  });

  async function outcomeOf(
    { axes, start, parts, strength }: Pick<GridState, 'axes' | 'start' | 'parts' | 'strength'>,
    mine: () => boolean,
  ): Promise<GridOutcome | null> {
    const { all, tried, strength: thinned } = combinationsOf(axes, strength);
    const pieces = Array.from({ length: Math.ceil(tried.length / AT_ONCE) }, (_, i) =>
      tried.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
    );
    const hosts = await loaded(pieces.length);
    let done = 0;
    const scenario = scenarioOf('grid', start);
    const played = await spread(hosts, pieces, async (engine, piece): Promise<Combination[]> =>
      mine()
        ? playGrid(
            scenario,
            { axes, parts },
            piece,
            ground(),
            (opening, steps) => untilDone(() => engine.play(opening, steps)),
            () => {
              if (mine()) change('grid', { underway: { done: ++done, of: tried.length } });
              return mine();
            },
          )
        : [],
    );
    if (!mine()) return null;
    return { axes, start, parts, accepted: folded(played.flat()), all, strength: thinned };
  }

  /** Tries the combinations; their outcomes are compared with `before`. */
  function tryGrid(
    plan: Pick<GridState, 'axes' | 'start' | 'parts' | 'strength'>,
    before: GridOutcome | null,
  ): Promise<void> {
    return work('grid', async (mine) => {
      change('grid', { underway: { done: 0, of: 0 } });
      const outcome = await outcomeOf(plan, mine);
      if (outcome !== null) change('grid', { outcome, before });
    });
  }

  return {
    plan: setGrid,
    everyValue,
    suggestedValues,
    run: () => tryGrid(tests.getState().grid, null),

    /** The code was edited: the outcomes from before stay beside those of now. */
    async codeChanged(): Promise<void> {
      const { outcome, before, underway } = tests.getState().grid;
      if (outcome === null || underway !== null || outcome.accepted.rows.length > BY_ITSELF) return;
      await tryGrid(outcome, before ?? outcome);
    },

    /** Opens a grid that a scenario keeps, tried with today's code beside what was accepted. */
    async open({ title, open, startsAs, steps, grid }: Scenario): Promise<void> {
      if (grid === undefined) return;
      const start = startsAs === undefined ? { open, steps } : { startsAs, steps };
      const { axes, parts = null, strength = null } = grid;
      const of = { axes, start, parts, strength };
      const { all } = combinationsOf(of.axes, of.strength);
      tests.setState({ tab: 'grid' });
      setGrid({ ...of, title, outcome: null, before: null });
      await tryGrid(of, { ...of, all, accepted: grid.accepted });
    },

    async showCombination({ axes, start, accepted }: GridOutcome, row: number): Promise<void> {
      const { open, steps } = sessionOf(scenarioOf('grid', start), axes, accepted.rows[row]![0], {
        form: form(),
        cast: ground().cast,
      });
      await show(open, steps);
    },

    /** Keeps the grid as a scenario that later differences fail. */
    async accept(title: string): Promise<boolean> {
      const { outcome } = tests.getState().grid;
      if (outcome === null) return false;
      const name = await keepOrReplace({
        ...scenarioOf(title, outcome.start),
        grid: {
          axes: outcome.axes,
          ...(outcome.strength === null ? {} : { strength: outcome.strength }),
          ...(outcome.parts === null ? {} : { parts: [...outcome.parts] }),
          accepted: outcome.accepted,
        },
      });
      if (name !== null) setGrid({ before: null, title: '' });
      return name !== null;
    },
  };
}
