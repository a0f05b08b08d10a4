/** Scenarios beside the live form, and what is made of a form that stands: samples and releases. */
import type { Scenario } from '@/core/scenario/definition';
import type { SampleRecord } from '@/core/scenario/opening';
import { recordScenario } from '@/core/scenario/record';
import { openingOf } from '@/core/scenario/opening';
import { runScenario, sessionAt, type Miss } from '@/core/scenario/run-scenario';
import { readHeader } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import type { Run } from '@/core/tape/tape';
import { namesFor } from '@/core/tape/words';
import { whyMissed } from '@/core/testing/why-missed';
import { untilDone, wasCutShort } from '@/core/sandbox/cut-short';
import type { Engine } from '@/core/sandbox/engine';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { ReleaseChanges } from '@/core/workspace/release-changes';
import { call } from '../api';
import type { BenchCore } from './core';

/** Milliseconds until scenarios that were cut short are run again by themselves. */
const CUT_SHORT_AGAIN = 10_000;

type Kept = { name: string; scenario: Scenario; revision: number };

export interface ScenariosWork {
  replay(): Promise<void>;
  takeRecord(record: SampleRecord): Promise<void>;
  isSaved(): Promise<'all' | 'structure' | 'behaviours'>;
}

export function benchScenarios(
  { get, set, material, form, cast, engineMaterial, pathOf, complain }: BenchCore,
  { replay, takeRecord, isSaved }: ScenariosWork,
) {
  let engine: Engine | null = null;
  /** Asked for while they run: what they run against may have changed meanwhile. */
  let wantedAgain = false;
  let laterAgain: ReturnType<typeof setTimeout> | undefined;

  async function runScenarios(): Promise<void> {
    if (get().runningScenarios) {
      wantedAgain = true;
      return;
    }
    wantedAgain = false;
    clearTimeout(laterAgain);
    set({ runningScenarios: true });
    engine ??= engineInWorker();
    const { results } = get();
    // What failed last is looked at first, since somebody may be mending it.
    // Then come those that the behaviour being edited has a part in.
    const weight = (name: string) =>
      results.get(name)?.passed !== true
        ? 0
        : touched.get(name)?.has(baseName(get().active))
          ? 1
          : 2;
    const scenarios = get().scenarios.toSorted((a, b) => weight(a.name) - weight(b.name));
    try {
      await engine.load({ ...engineMaterial(), traced: false });
      for (const { name, scenario } of scenarios) {
        const result = await runScenario(scenario, form(), material, cast(), (opening, steps) =>
          untilDone(() => engine!.play(opening, steps)),
        );
        set((state) => ({ results: new Map(state.results).set(name, result) }));
      }
      await sayWhy();
    } catch (caught) {
      if (!wasCutShort(caught)) throw caught;
      // Nothing is known of them, whatever they came to before.
      set({ results: new Map() });
      clearTimeout(laterAgain);
      laterAgain = setTimeout(() => void runScenarios(), CUT_SHORT_AGAIN);
      return;
    } finally {
      // Whatever went wrong, they can be run again.
      set({ runningScenarios: false });
    }
    if (wantedAgain) return runScenarios();
    await keepRun();
    await learnTouched();
  }

  /** Misses told of with their reason. */
  const EXPLAINED = 5;

  /** The behaviours that ran in each scenario, once each scenario was played traced. */
  const touched = new Map<string, ReadonlySet<string>>();

  /** Plays scenarios that are new to it once, traced, when nothing else waits. */
  async function learnTouched(): Promise<void> {
    const fresh = get().scenarios.filter(({ name }) => !touched.has(name));
    if (fresh.length === 0) return;
    await engine!.load({ ...engineMaterial(), traced: true });
    for (const { name, scenario } of fresh) {
      if (get().runningScenarios) return;
      const ran = new Set<string>();
      await runScenario(scenario, form(), material, cast(), async (opening, steps) => {
        const answers = await engine!.play(opening, steps);
        for (const { tape } of answers)
          for (const entry of tape) if (entry.type === 'run') ran.add((entry as Run).behaviour);
        return answers;
      });
      touched.set(name, ran);
    }
  }

  /** Plays what failed once more, traced, and says of each miss who said what it is instead. */
  async function sayWhy(): Promise<void> {
    const { scenarios, results, behaviours } = get();
    const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false);
    if (failed.length === 0) return;
    await engine!.load({ ...engineMaterial(), traced: true });
    const titles = behaviours.map((one) => ({ name: one.name, title: readHeader(one).title }));
    const names = namesFor(form(), titles, material.people);
    for (const { name, scenario } of failed) {
      const result = results.get(name)!;
      const misses: Miss[] = [];
      for (const [i, miss] of result.misses.entries()) {
        if (i >= EXPLAINED || miss.part === '@open') {
          misses.push(miss);
          continue;
        }
        const { open, steps } = sessionAt(scenario, miss.at, { form: form(), cast: cast() });
        const answers = await engine!.play(openingOf(open, form(), cast()), steps);
        const why = whyMissed(miss, answers, names);
        misses.push(why === null ? miss : { ...miss, why });
      }
      // It may have been run again meanwhile.
      if (get().results.get(name) === result)
        set((state) => ({ results: new Map(state.results).set(name, { ...result, misses }) }));
    }
  }

  /** The outcome of the scenarios is kept for the page of forms, once all that they depend on is saved. */
  async function keepRun(coverage?: number): Promise<void> {
    const { scenarios, results, behaviours, structure } = get();
    if (
      structure.saving.state !== 'saved' ||
      behaviours.some(({ saving, broken }) => saving.state !== 'saved' || broken !== null)
    )
      return;
    const passed = scenarios.filter(({ name }) => results.get(name)?.passed === true).length;
    const failing = scenarios
      .filter(({ name }) => results.get(name)?.passed !== true)
      .map(({ scenario }) => scenario.title);
    await call('PUT', pathOf('scenario-run'), {
      passed,
      failed: failing.length,
      failing,
      ...(coverage === undefined ? {} : { coverage }),
    });
  }

  /** Opens a scenario in the live form, at the step that first fails. */
  async function openScenario(name: string): Promise<void> {
    const { scenario } = get().scenarios.find((entry) => entry.name === name)!;
    const miss = get().results.get(name)?.misses[0];
    const { open, steps } = sessionAt(scenario, miss?.at ?? null, { form: form(), cast: cast() });
    const at = miss === undefined ? steps.length : miss.after;
    set({
      open,
      steps: [...steps],
      answers: [],
      at,
      replayed: null,
      asked:
        miss === undefined || miss.part.startsWith('@')
          ? null
          : { part: miss.part, aspect: miss.aspect },
    });
    await replay();
    set({ at });
  }

  /** Keeps a scenario, or what was done in the live form, and runs it; gives its name, null where it could not be kept. */
  async function keepScenario(
    title: string,
    scenario?: Scenario,
    runs = true,
  ): Promise<string | null> {
    const { open, steps, answers } = get();
    const reply = await call<Kept>(
      'POST',
      pathOf('scenarios'),
      scenario ?? recordScenario(title, open, form(), steps, answers),
    );
    if (!reply.ok) {
      complain(reply.says);
      return null;
    }
    set((state) => ({
      scenarios: [...state.scenarios, reply.body],
      notice: { tone: 'info', text: `Kept as the scenario “${title}”.` },
    }));
    if (runs) await runScenarios();
    return reply.body.name;
  }

  /** Saving goes on one after the other, each from the revision that the one before gave. */
  let saving: Promise<unknown> = Promise.resolve();

  /** Changes a scenario, or brings back one that was removed; what it was can be undone. */
  function editScenario(name: string, scenario: Scenario): Promise<void> {
    const before = get().scenarios.find((entry) => entry.name === name)?.scenario ?? null;
    touched.delete(name);
    set((state) => ({
      scenarios:
        before === null
          ? [...state.scenarios, { name, scenario, revision: 0 }]
          : state.scenarios.map((entry) => (entry.name === name ? { ...entry, scenario } : entry)),
    }));
    const saved = saving.then(async () => {
      const now = get().scenarios.find((entry) => entry.name === name);
      // It was changed again meanwhile, or removed.
      if (now?.scenario !== scenario) return;
      const reply = await call<Kept>('PUT', pathOf(`scenarios/${name}`), {
        scenario,
        from: now.revision,
      });
      if (!reply.ok) return complain(`The scenario is not saved: ${reply.says}`);
      const { revision } = reply.body;
      set((state) => ({
        scenarios: state.scenarios.map((entry) =>
          entry.name === name ? { ...entry, revision } : entry,
        ),
      }));
    });
    saving = saved.catch(() => undefined);
    return saved.then(runScenarios);
  }

  async function removeScenario(name: string): Promise<boolean> {
    await saving;
    const from = get().scenarios.find((entry) => entry.name === name)?.revision ?? 1;
    const reply = await call('DELETE', pathOf(`scenarios/${name}?from=${from}`));
    if (!reply.ok) {
      complain(reply.says);
      return false;
    }
    set((state) => ({ scenarios: state.scenarios.filter((entry) => entry.name !== name) }));
    void runScenarios();
    return true;
  }

  /** Keeps what the last submission would save as a sample record, and opens the form with it. */
  async function keepSample(): Promise<void> {
    const submit = get().answers.findLast((answer) => answer.submit !== null)?.submit;
    if (submit?.saved !== true) return;
    await isSaved();
    const reply = await call<SampleRecord>('POST', pathOf('records'), { values: submit.values });
    if (!reply.ok) return complain(reply.says);
    await takeRecord(reply.body);
    set({ notice: { tone: 'info', text: `Kept as record ${reply.body.id}, which is open now.` } });
  }

  /** Saves all; says what is in the way where something is not saved. */
  async function readyToRelease(): Promise<string | null> {
    // What is not saved yet would be missing from the release.
    const saved = await isSaved();
    await saving;
    if (saved === 'structure') return 'The structure is not saved yet, so no release can be made.';
    if (saved === 'behaviours')
      return 'Some behaviours are not saved yet, so no release can be made.';
    return null;
  }

  /** What the next release would change, and what fails. */
  async function releaseChanges(): Promise<ReleaseChanges | { says: string }> {
    const says = await readyToRelease();
    if (says !== null) return { says };
    const reply = await call<ReleaseChanges>('GET', pathOf('releases'));
    return reply.ok ? reply.body : { says: reply.says };
  }

  /** Makes the next release; gives what is in the way. */
  async function makeRelease(reason: string | null): Promise<string | null> {
    const says = await readyToRelease();
    if (says !== null) return says;
    const reply = await call<{ number: number }>('POST', pathOf('releases'), { reason });
    if (!reply.ok) return reply.says;
    set({
      release: reply.body.number,
      notice: { tone: 'info', text: `Release ${reply.body.number} is out.` },
    });
    return null;
  }

  return {
    runScenarios,
    keepRun,
    openScenario,
    keepScenario,
    editScenario,
    removeScenario,
    keepSample,
    releaseChanges,
    makeRelease,
    end: () => {
      clearTimeout(laterAgain);
      engine?.close();
    },
  };
}
