/** Each option and back again, tried on the bench. */
import { untilDone } from '@/core/sandbox/cut-short';
import type { Scenario } from '@/core/scenario/definition';
import {
  bothWays,
  contextsOf,
  drivingFields,
  findingAsScenario,
  grouped,
  type BothWaysFinding,
} from '@/core/testing/both-ways';
import { spread } from '@/core/testing/spread';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import type { TestWorkers } from './workers';

export function bothWaysRuns(
  { material, form }: BenchCore,
  { scripts }: Code,
  { change, work, loaded, ground }: TestWorkers,
  { openingFor }: FormRoom,
  keepAs: (scenario: Scenario) => Promise<void>,
) {
  return {
    run: (): Promise<void> =>
      work('bothWays', async (mine) => {
        change('bothWays', { findings: null });
        const sources = scripts.sources();
        const pieces = drivingFields(form(), sources).flatMap((field) =>
          contextsOf(ground().cast, field).map((open) => ({ field, open })),
        );
        const hosts = await loaded(pieces.length);
        let done = 0;
        const found = await spread(hosts, pieces, async (engine, { field, open }) => {
          if (!mine()) return [];
          const findings = await bothWays(
            field,
            open,
            { ...ground(), tables: material.tables, sources },
            (opening, steps) => untilDone(() => engine.play(opening, steps)),
          );
          if (mine()) change('bothWays', { underway: { done: ++done, of: pieces.length } });
          return findings;
        });
        if (mine()) change('bothWays', { findings: grouped(found.flat()) });
      }),

    async keep(finding: BothWaysFinding): Promise<void> {
      const [engine] = await loaded(1);
      const answers = await engine!.play(openingFor(finding.open), finding.steps);
      await keepAs(findingAsScenario(finding, form(), answers));
    },
  };
}
