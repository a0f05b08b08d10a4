/** What a release that is about to be made changes, as the server says and the bench shows. */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import { inWords } from '../form/value';
import { combinationInWords, outcomeChanges, unfolded } from '../scenario/grid';
import type { NamedScenario } from '../scenario/opening';
import type { Source } from '../script/header';
import type { CompiledScript } from '../session/tie';
import type { FileDifference } from './difference';

/** Cells told of one by one for each grid. */
const TOLD = 5;

/** Cells of accepted grids that are not as they were, for combinations that both have. */
export function gridCellsChanged(
  form: string,
  before: readonly NamedScenario[],
  after: readonly NamedScenario[],
): FileDifference[] {
  return after.flatMap(({ name, scenario }): FileDifference[] => {
    const was = before.find((one) => one.name === name)?.scenario.grid;
    const { grid } = scenario;
    if (was === undefined || grid === undefined) return [];
    const old = new Map(
      was.accepted.rows.map(([places, at]) => [
        combinationInWords(was.axes, places),
        unfolded(was.accepted, at),
      ]),
    );
    const cells = grid.accepted.rows.flatMap(([places, at]) => {
      const combination = combinationInWords(grid.axes, places);
      const outcome = old.get(combination);
      return outcome === undefined
        ? []
        : outcomeChanges(outcome, unfolded(grid.accepted, at)).map(
            ({ part, aspect, before: from, now }) =>
              `with ${combination}: ${part}.${aspect} ${inWords(from)} → ${inWords(now)}`,
          );
    });
    const file = `forms/${form}/scenarios/${name}.json`;
    const told = cells.slice(0, TOLD).map((says) => ({ file, says: `grid ${name}, ${says}` }));
    return cells.length > TOLD
      ? [...told, { file, says: `grid ${name}: ${cells.length - TOLD} more cells` }]
      : told;
  });
}

/** The form as a release has it, to be used beside the form as it is now. */
export interface FormerVersion {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  /** The scripts by which its services answer, compiled. */
  answering: readonly CompiledScript[];
  sources: readonly Source[];
}

export interface ReleaseChanges {
  /** The number that the next release gets. */
  next: number;
  last: {
    number: number;
    madeBy: string | null;
    /** Why it was made although something failed, or why an earlier one was put back. */
    reason: string | null;
    failing: string[];
    /** The earlier release that it puts back; null for one that was made anew. */
    again: number | null;
  } | null;
  /** The last release's; null where there is none. */
  former: FormerVersion | null;
  differences: FileDifference[];
  /** Scripts whose text differs; null where there is none. */
  scripts: { name: string; before: string | null; after: string | null }[];
  /** Scenarios that fail now, in words. */
  failing: string[];
}
