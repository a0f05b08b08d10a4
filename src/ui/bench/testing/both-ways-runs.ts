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
import type { BenchCore } from '../core';
import type { TestWorkers } from './workers';

export function bothWaysRuns(
  { get, material, form, cast, openingFor }: BenchCore,
  { change, work, loaded, ground }: TestWorkers,
  keep: (scenario: Scenario) => Promise<void>,
) {
  return {
    tryBothWays: (): Promise<void> =>
      work('bothWays', async (mine) => {
        change('bothWays', { findings: null });
        const sources = get().behaviours;
        const pieces = drivingFields(form(), sources).flatMap((field) =>
          contextsOf(cast(), field).map((open) => ({ field, open })),
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

    async keepFinding(finding: BothWaysFinding): Promise<void> {
      const [engine] = await loaded(1);
      const answers = await engine!.play(openingFor(finding.open), finding.steps);
      await keep(findingAsScenario(finding, form(), answers));
    },
  };
}
