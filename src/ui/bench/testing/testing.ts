/** The tests of a form on the bench: what is done there, with engines of their own, so that the live form goes on. */
import { createStore } from 'zustand/vanilla';
import type { Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { Value } from '@/core/form/value';
import type { Axis, Open, Scenario } from '@/core/scenario/definition';
import {
  combinationsOf,
  folded,
  playGrid,
  sessionOf,
  type Combination,
} from '@/core/scenario/grid';
import { recordScenario } from '@/core/scenario/record';
import { runScenario, sessionAt } from '@/core/scenario/run';
import { TookTooLong, type Engine } from '@/core/sandbox/engine';
import type { Wanted } from '@/core/sandbox/inspector';
import { isModule } from '@/core/script/script-name';
import { takingPart } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { Mutant } from '@/core/script/mutants';
import type { Site } from '@/core/script/sites';
import type { CompiledScript } from '@/core/session/ties';
import type { Step } from '@/core/session/step';
import {
  bothWays,
  contextsOf,
  drivingFields,
  findingAsScenario,
  grouped,
  type BothWaysFinding,
} from '@/core/testing/both-ways';
import { Coverage } from '@/core/testing/coverage';
import {
  CHANCES,
  inTrialOrder,
  judge,
  prepare,
  type MutantHost,
  type Verdict,
} from '@/core/testing/mutation';
import { randomSessions } from '@/core/testing/random-session';
import { spread } from '@/core/testing/spread';
import { mentionedIn, valuesFor } from '@/core/testing/values';
import { engineInWorker } from '@/workers/engine-in-browser';
import { isForThis, type BenchCore } from '../core';
import { NO_TESTS, type GridOutcome, type TestsState, type TestsTab } from './state';

export interface TestingWork {
  replay(): Promise<void>;
  keepScenario(title: string, scenario: Scenario): Promise<string | null>;
  editScenario(name: string, scenario: Scenario): Promise<void>;
  removeScenario(name: string): Promise<boolean>;
  keepRun(coverage?: number): Promise<void>;
}

/** Changes of scenarios that can be undone. */
const UNDOABLE = 30;

/** Combinations, or sessions, that one engine takes at a time. */
const AT_ONCE = 20;
const MOST_ENGINES = 4;
/** Sessions by chance that are looked through for what scenarios do not reach, and how many of them are offered. */
const LOOKED_THROUGH = 100;
const MOST_OFFERED = 8;
const EVERYTHING: Wanted = { runs: 'all', moments: [], turned: [], asks: false, answers: true };
/** Combinations that are tried again by themselves after an edit: about two seconds of work. */
const BY_ITSELF = 500;

export function benchTesting(
  core: BenchCore,
  { replay, keepScenario, editScenario, removeScenario, keepRun }: TestingWork,
) {
  const { get, set, form, cast, engineMaterial, material, languageWorker, complain } = core;
  const tests = createStore<TestsState>(() => NO_TESTS);
  const engines: Engine[] = [];
  /** Counts up when work is stopped, so that what is still under way ends. */
  let round = 0;

  const change = <K extends keyof TestsState>(part: K, more: Partial<TestsState[K]>) =>
    tests.setState(
      (state) => ({ [part]: { ...(state[part] as object), ...more } }) as Partial<TestsState>,
    );

  /** As many engines as there are cores to spare. */
  function some(pieces: number): Engine[] {
    const cores = Math.max(1, Math.min(MOST_ENGINES, navigator.hardwareConcurrency || 2, pieces));
    while (engines.length < cores) engines.push(engineInWorker());
    return engines.slice(0, cores);
  }

  const ground = () => ({ form: form(), source: material, cast: cast() });

  /** Does long work that can be stopped; says what went wrong. */
  async function work(
    part: 'grid' | 'bothWays' | 'changes' | 'coverage',
    does: (mine: () => boolean) => Promise<void>,
  ): Promise<void> {
    const own = ++round;
    tests.setState({ says: null });
    try {
      await does(() => own === round);
    } catch (caught) {
      if (own === round)
        tests.setState({ says: caught instanceof Error ? caught.message : String(caught) });
    } finally {
      if (own === round) change(part, { underway: null });
    }
  }

  /** Ends what is under way; what is done by then stays. */
  function stopTests(): void {
    round++;
    for (const part of ['grid', 'bothWays', 'changes', 'coverage'] as const)
      change(part, { underway: null });
  }

  function showTests(tab: TestsTab, scenario: string | null = null): void {
    set({ pane: 'tests' });
    tests.setState({ tab, ...(scenario === null ? {} : { scenario }) });
  }

  /** Opens a session in the live form, at one of its steps. */
  async function showSession(open: Open, steps: readonly Step[], at = steps.length): Promise<void> {
    set({ open, steps: [...steps], answers: [], at, replayed: null, asked: null });
    await replay();
    set({ at });
  }

  /** Opens a scenario, a row of its table or a combination of its grid in the live form. */
  async function showScenario(name: string, at: number | null, after?: number): Promise<void> {
    const found = get().scenarios.find((one) => one.name === name);
    if (found === undefined) return;
    const { open, steps } = sessionAt(found.scenario, at, { form: form(), cast: cast() });
    await showSession(open, steps, after ?? steps.length);
  }

  const scenarioOf = (name: string) =>
    get().scenarios.find((one) => one.name === name)?.scenario ?? null;

  function remember(name: string, says: string): void {
    const before = scenarioOf(name);
    tests.setState(({ undoable }) => ({
      undoable: [...undoable, { name, before, says }].slice(-UNDOABLE),
    }));
  }

  /** Changes a scenario so that it can be undone. */
  function changeScenario(name: string, scenario: Scenario, says: string): Promise<void> {
    remember(name, says);
    return editScenario(name, scenario);
  }

  async function dropScenario(name: string): Promise<void> {
    const title = scenarioOf(name)?.title;
    remember(name, `“${title}” was removed`);
    // One that could not be removed is still there.
    if (!(await removeScenario(name)))
      tests.setState(({ undoable }) => ({ undoable: undoable.slice(0, -1) }));
  }

  async function undoScenario(): Promise<void> {
    const last = tests.getState().undoable.at(-1);
    if (last === undefined) return;
    tests.setState(({ undoable }) => ({ undoable: undoable.slice(0, -1) }));
    if (last.before === null) await removeScenario(last.name);
    else await editScenario(last.name, last.before);
  }

  // Grid.

  function setGrid(more: Partial<TestsState['grid']>): void {
    change('grid', more);
  }

  /** All that an input can be: options, people, records. */
  function usualValues(input: string): Value[] {
    if (input === '@as') return material.people.map(({ key }) => key);
    if (input === '@record')
      return [
        null,
        ...get()
          .material.records.slice(0, 8)
          .map(({ id }) => id),
      ];
    if (input.startsWith('@fails.')) return [false, true];
    if (input.startsWith('@launch.')) return [null];
    const field = fieldsOf(form()).find(({ name }) => name === input);
    return field === undefined ? [] : valuesFor(field, material.tables, { numbers: [], texts: [] });
  }

  const scenarioOfGrid = (title: string, startsAs: string | null): Scenario => ({
    title,
    ...(startsAs === null ? { open: { as: material.people[0]!.key } } : { startsAs }),
    steps: [],
  });

  async function outcomeOf(
    axes: Axis[],
    startsAs: string | null,
    strength: GridOutcome['strength'],
    told: (done: number, of: number) => void,
    mine: () => boolean,
  ): Promise<GridOutcome | null> {
    const { all, tried, strength: thinned } = combinationsOf(axes, strength);
    const pieces = Array.from({ length: Math.ceil(tried.length / AT_ONCE) }, (_, i) =>
      tried.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
    );
    const hosts = some(pieces.length);
    await Promise.all(hosts.map((engine) => engine.load({ ...engineMaterial(), traced: false })));
    let done = 0;
    told(0, tried.length);
    const scenario = scenarioOfGrid('grid', startsAs);
    const played = await spread(hosts, pieces, async (engine, piece): Promise<Combination[]> =>
      mine()
        ? playGrid(
            scenario,
            { axes, parts: null },
            piece,
            ground(),
            (opening, steps) => engine.play(opening, steps),
            () => {
              told(++done, tried.length);
              return mine();
            },
          )
        : [],
    );
    if (!mine()) return null;
    return { axes, startsAs, accepted: folded(played.flat()), all, strength: thinned };
  }

  function runGrid(): Promise<void> {
    return work('grid', async (mine) => {
      const { axes, startsAs, strength } = tests.getState().grid;
      const outcome = await outcomeOf(
        axes,
        startsAs,
        strength,
        (done, of) => change('grid', { underway: { done, of } }),
        mine,
      );
      if (outcome !== null && mine()) change('grid', { outcome, before: null });
    });
  }

  /** The code was edited: what came of the grid before stays beside what comes of it now. */
  async function codeChanged(): Promise<void> {
    const { outcome, before, underway } = tests.getState().grid;
    if (outcome === null || underway !== null || outcome.accepted.rows.length > BY_ITSELF) return;
    await work('grid', async (mine) => {
      const now = await outcomeOf(
        outcome.axes,
        outcome.startsAs,
        outcome.strength,
        (done, of) => change('grid', { underway: { done, of } }),
        mine,
      );
      if (now !== null && mine()) change('grid', { outcome: now, before: before ?? outcome });
    });
  }

  async function showCombination(outcome: GridOutcome, row: number): Promise<void> {
    const scenario = scenarioOfGrid('grid', outcome.startsAs);
    const { open, steps } = sessionOf(scenario, outcome.axes, outcome.accepted.rows[row]![0], {
      form: form(),
      cast: cast(),
    });
    await showSession(open, steps);
  }

  /** Keeps the grid as a scenario that later differences fail. */
  async function acceptGrid(title: string): Promise<boolean> {
    const { outcome } = tests.getState().grid;
    if (outcome === null) return false;
    const name = await keepScenario(title, {
      ...scenarioOfGrid(title, outcome.startsAs),
      grid: {
        axes: outcome.axes,
        ...(outcome.strength === null ? {} : { strength: outcome.strength }),
        accepted: outcome.accepted,
      },
    });
    if (name !== null) change('grid', { before: null });
    return name !== null;
  }

  // Both ways.

  function tryBothWays(): Promise<void> {
    return work('bothWays', async (mine) => {
      change('bothWays', { findings: null });
      const contexts = contextsOf(cast());
      const pieces = drivingFields(form()).flatMap((field) =>
        contexts.map((open) => ({ field, open })),
      );
      const hosts = some(pieces.length);
      await Promise.all(hosts.map((engine) => engine.load({ ...engineMaterial(), traced: false })));
      let done = 0;
      const found = await spread(hosts, pieces, async (engine, { field, open }) => {
        if (!mine()) return [];
        const findings = await bothWays(
          field,
          open,
          { ...ground(), tables: material.tables },
          (opening, steps) => engine.play(opening, steps),
        );
        if (mine()) change('bothWays', { underway: { done: ++done, of: pieces.length } });
        return findings;
      });
      if (mine()) change('bothWays', { findings: grouped(found.flat()) });
    });
  }

  async function keepFinding(finding: BothWaysFinding): Promise<void> {
    const [engine] = some(1);
    await engine!.load({ ...engineMaterial(), traced: false });
    const answers = await engine!.play(core.openingFor(finding.open), finding.steps);
    const scenario = findingAsScenario(finding, form(), answers);
    await keepScenario(scenario.title, scenario);
  }

  // Changes to the code.

  /** What the verdicts stand on. */
  const stateOfTests = () =>
    JSON.stringify([
      get().behaviours.map(({ name, text }) => [name, text]),
      get().scenarios.map(({ scenario }) => scenario),
      form(),
    ]);

  async function mutantsNow(): Promise<{
    mutants: Mutant[];
    scripts: CompiledScript[];
    modules: CompiledScript[];
  }> {
    const sources = get()
      .behaviours.filter((one) => isForThis(one, form()))
      .map(({ name, text }) => ({ name, text }));
    const mutants: Mutant[] = [];
    const compileAll = async (of: readonly { name: string; text: string }[]) => {
      const compiled: CompiledScript[] = [];
      for (const source of of) {
        const made = await languageWorker().compileMutants(source, form(), mutants.length + 1);
        mutants.push(...made.mutants);
        compiled.push(made.script);
      }
      return compiled;
    };
    const scripts = await compileAll(takingPart(sources.filter(({ name }) => !isModule(name))));
    const modules = await compileAll(modulesUsed(sources));
    return { mutants, scripts, modules };
  }

  /** Tries the mutants that were not tried yet; from the start where code or scenarios have changed. */
  function tryChanges(): Promise<void> {
    return work('changes', async (mine) => {
      const of = stateOfTests();
      const known =
        tests.getState().changes.of === of
          ? tests.getState().changes.verdicts
          : new Map<number, Verdict>();
      change('changes', { underway: { done: known.size, of: known.size }, verdicts: known });
      const { mutants, scripts, modules } = await mutantsNow();
      const material = { ...engineMaterial(), scripts, modules, traced: false };
      const hosts = some(mutants.length).map((engine): MutantHost => ({
        load: (mutant) => engine.load({ ...material, mutant }),
        play: async (opening, steps, mutant) => {
          try {
            return await engine.tryMutant(
              opening,
              steps,
              mutant,
              mutant === 0 ? mutants.length : 0,
            );
          } catch (caught) {
            if (caught instanceof TookTooLong) return null;
            throw caught;
          }
        },
      }));
      await Promise.all(hosts.map((host) => host.load(0)));
      const plans = randomSessions(
        {
          form: form(),
          tables: core.material.tables,
          cast: cast(),
          mentioned: mentionedIn(get().behaviours),
        },
        CHANCES,
      );
      const bench = await prepare(ground(), get().scenarios, plans, hosts[0]!);
      if (!mine()) return;
      const verdicts = new Map(known);
      change('changes', {
        of,
        mutants,
        failing: bench.failing,
        underway: { done: verdicts.size, of: mutants.length },
      });
      const left = inTrialOrder(mutants).filter(({ number }) => !verdicts.has(number));
      await spread(hosts, left, async (host, mutant) => {
        if (!mine()) return;
        const verdict = await judge(mutant, bench, host);
        if (!mine()) return;
        verdicts.set(mutant.number, verdict);
        change('changes', {
          verdicts: new Map(verdicts),
          underway: { done: verdicts.size, of: mutants.length },
        });
      });
    });
  }

  // Coverage.

  function cover(): Promise<void> {
    return work('coverage', async (mine) => {
      const sources = get()
        .behaviours.filter((one) => isForThis(one, form()))
        .map(({ name, text }) => ({ name, text }));
      const sites = new Map<string, readonly Site[]>();
      const compileAll = async (of: readonly { name: string; text: string }[]) => {
        const compiled: CompiledScript[] = [];
        for (const source of of) {
          const made = await languageWorker().compileDetailed(source, []);
          sites.set(made.script.name, made.sites);
          compiled.push(made.script);
        }
        return compiled;
      };
      const scripts = await compileAll(takingPart(sources.filter(({ name }) => !isModule(name))));
      const modules = await compileAll(modulesUsed(sources));
      const [engine] = some(1);
      await engine!.load({ ...engineMaterial(), scripts, modules, traced: true });
      const coverage = new Coverage(sites);
      const { scenarios } = get();
      for (const [i, { scenario }] of scenarios.entries()) {
        if (!mine()) return;
        change('coverage', { underway: { done: i, of: scenarios.length } });
        await runScenario(scenario, form(), material, cast(), async (opening, steps) => {
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
      const all = coverage.scripts.map((name) => coverage.sharesOf(name).statements);
      const [reached, of] = [all.map((one) => one.reached), all.map((one) => one.of)].map(
        (counts) => counts.reduce((sum, count) => sum + count, 0),
      ) as [number, number];
      await keepRun(of === 0 ? 100 : Math.floor((reached / of) * 100));
      await offerMore(engine!, coverage, mine);
    });
  }

  /** Looks among sessions by chance for some that reach what no scenario reaches. */
  async function offerMore(engine: Engine, coverage: Coverage, mine: () => boolean): Promise<void> {
    const plans = randomSessions(
      {
        form: form(),
        tables: material.tables,
        cast: cast(),
        mentioned: mentionedIn(get().behaviours),
      },
      LOOKED_THROUGH,
    );
    const offers: TestsState['coverage']['offers'] = [];
    for (const [i, { open, steps }] of plans.entries()) {
      if (!mine() || offers.length >= MOST_OFFERED) return;
      change('coverage', { underway: { done: i, of: plans.length } });
      const { answers, runs } = await engine.inspect(core.openingFor(open), steps, EVERYTHING);
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

  /** Keeps a scenario that was offered. */
  async function keepOffered(scenario: Scenario): Promise<void> {
    const name = await keepScenario(scenario.title, scenario);
    if (name !== null) showTests('scenarios', name);
  }

  /** Keeps the session in the live form, from its opening, as a scenario. */
  function asScenario(title: string): Scenario {
    const { open, steps, answers } = get();
    return recordScenario(title, open, form() as Form, steps, answers);
  }

  function endTests(): void {
    round++;
    for (const engine of engines.splice(0)) engine.close();
  }

  return {
    tests,
    showTests,
    showScenario,
    showSession,
    changeScenario,
    dropScenario,
    undoScenario,
    setGrid,
    usualValues,
    runGrid,
    acceptGrid,
    showCombination,
    codeChanged,
    tryBothWays,
    keepFinding,
    tryChanges,
    cover,
    keepOffered,
    asScenario,
    stopTests,
    complainOf: complain,
    endTests,
  };
}
