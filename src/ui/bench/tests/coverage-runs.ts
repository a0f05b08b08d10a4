/** What the scenarios reach, measured on the bench, and random sessions that reach more. */
import { recordScenario } from '@/core/scenario/record';
import { runScenario } from '@/core/scenario/run-scenario';
import type { Engine } from '@/core/sandbox/engine';
import type { Wanted } from '@/core/sandbox/inspector';
import type { Site } from '@/core/script/sites';
import { Coverage } from '@/core/testing/coverage';
import { randomSessions } from '@/core/testing/random-session';
import { mentionedIn } from '@/core/testing/values';
import type { StoreApi } from 'zustand/vanilla';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import type { TestsState } from './state';
import type { TestWorkers } from './workers';

/** Random sessions that are looked through, and how many of them are offered. */
const LOOKED_THROUGH = 100;
const MOST_OFFERED = 8;
const EVERYTHING: Wanted = { runs: 'all', moments: [], turned: [], asks: false, answers: true };

export function coverageRuns(
  { form, material, languageWorker }: BenchCore,
  { scripts: ofCode }: Code,
  tests: StoreApi<TestsState>,
  { change, work, some, compiled, ground }: TestWorkers,
  { openingFor }: FormRoom,
  keepRun: (coverage: number) => Promise<void>,
) {
  function cover(): Promise<void> {
    return work('coverage', async (mine) => {
      const sites = new Map<string, readonly Site[]>();
      const { scripts, modules } = await compiled(async (source) => {
        const made = await languageWorker().compileDetailed(source, []);
        sites.set(made.script.name, made.sites);
        return made.script;
      });
      const [engine] = some(1);
      await engine!.load({ ...ofCode.material(), scripts, modules, traced: true });
      const coverage = new Coverage(sites);
      const { scenarios } = tests.getState();
      for (const [i, { scenario }] of scenarios.entries()) {
        if (!mine()) return;
        change('coverage', { underway: { done: i, of: scenarios.length } });
        await runScenario(scenario, form(), material, ground().cast, async (opening, steps) => {
          const { answers, runs } = await engine!.inspect(opening, steps, EVERYTHING);
          coverage.add(runs);
          return answers;
        });
      }
      if (!mine()) return;
      change('coverage', {
        scripts: coverage.scripts.map((name) => ({
          name,
          coverage: coverage.of(name),
          shares: coverage.sharesOf(name),
        })),
        keys: coverage.keysMissing(form()),
        offers: [],
      });
      await keepRun(percentOf(coverage));
      await offerMore(engine!, coverage, mine);
    });
  }

  /** Looks among random sessions for some that reach what no scenario reaches. */
  async function offerMore(engine: Engine, coverage: Coverage, mine: () => boolean): Promise<void> {
    const plans = randomSessions(
      {
        form: form(),
        tables: material.tables,
        cast: ground().cast,
        mentioned: mentionedIn(ofCode.sources()),
      },
      LOOKED_THROUGH,
    );
    const offers: TestsState['coverage']['offers'] = [];
    for (const [i, { open, steps }] of plans.entries()) {
      if (!mine() || offers.length >= MOST_OFFERED) return;
      change('coverage', { underway: { done: i, of: plans.length } });
      const { answers, runs } = await engine.inspect(openingFor(open), steps, EVERYTHING);
      const places = coverage.reachesAnew(runs);
      if (places.length === 0) continue;
      // What it reaches is offered once.
      coverage.add(runs);
      const [first] = places;
      const title = `Gets to line ${first!.line} of ${first!.script}`;
      offers.push({ scenario: recordScenario(title, open, form(), steps, answers), places });
      if (mine()) change('coverage', { offers: [...offers] });
    }
  }

  return { run: cover };
}

/** Statements reached, of all scripts, in whole percent rounded down. */
function percentOf(coverage: Coverage): number {
  const shares = coverage.scripts.map((name) => coverage.sharesOf(name).statements);
  const of = shares.reduce((sum, share) => sum + share.of, 0);
  const reached = shares.reduce((sum, share) => sum + share.reached, 0);
  return of === 0 ? 100 : Math.floor((reached / of) * 100);
}
