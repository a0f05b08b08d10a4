'use client';
/**
 * The bench's one store, put together of its rooms: the live session, checking, drafts, scenarios, structure, the set of
 * behaviours, and what is looked at. Everything that happens on the bench is a method here; components show and say
 * what was done.
 */
import { createStore } from 'zustand/vanilla';
import { usualAspect } from '@/core/debugging/question';
import { addressNow, nameOnTape, partSeen, seenAt } from '@/core/scenario/seen';
import { readHeader } from '@/core/script/header';
import { Tape } from '@/core/tape/tape';
import type { FormMap } from '@/core/language/map';
import type { Fix } from '@/core/language/mistakes/mistake';
import type { Diagnostic } from '@/core/language/language-service';
import type { Open } from '@/core/scenario/definition';
import { placeOf } from '@/core/structure/edit';
import { begin } from '@/core/structure/history';
import { call } from '../api';
import { behaviourSet } from './behaviour-set';
import { checking } from './checking';
import { benchCore } from './core';
import { debugging } from './debugging/debugging';
import { benchDrafts } from './drafts';
import { liveSession } from './live';
import { outside } from './outside';
import { benchView } from './view';
import { benchScenarios } from './scenarios';
import type { Behaviour, BenchMaterial, BenchPlace, BenchState, TakenOver } from './state';
import { benchTesting } from './testing/testing';
import { structureEdits } from './structure-edits';
import { trying } from './trying';

export type BenchStore = ReturnType<typeof createBench>;

/** `first` says how the form is opened at first; `before` is what is taken over from a bench before it. */
export function createBench(
  material: BenchMaterial,
  first: Partial<Open> = {},
  before?: TakenOver,
) {
  const store = createStore<BenchState>(() => firstState(material, first, before));
  const core = benchCore(material, store);
  const { get, set, languageWorker, pathOf, behaviourOf } = core;

  const live = liveSession(core, {
    replayed: () => looks.replayedAgain(),
    stepped: () => void looks.refreshNow(),
  });
  // Each asks the others only once something happens, when all are there.
  const prove = benchScenarios(core, {
    replay: live.replay,
    takeRecord: live.takeRecord,
    isSaved: () => drafts.isSaved(),
  });
  const testing = benchTesting(core, {
    replay: live.replay,
    keepScenario: prove.keepScenario,
    editScenario: prove.editScenario,
    removeScenario: prove.removeScenario,
    runScenarios: prove.runScenarios,
    keepRun: prove.keepRun,
  });
  const checks = checking(core, {
    replay: live.replay,
    runScenarios: async () => {
      await prove.runScenarios();
      void testing.codeChanged();
    },
  });
  const drafts = benchDrafts(core, {
    textChanged: checks.textChanged,
    takeForm: (form) => structure.takeForm(form),
  });
  const structure = structureEdits(core, {
    draft: drafts.structure,
    isSaved: drafts.isSaved,
    doAllAgain,
  });
  const look = benchView(core, drafts);
  const looks = debugging(
    core,
    { replay: live.replay, lookAt: live.lookAt, step: live.step },
    // Whoever travels by arrow keys goes on with them.
    (script, line) => look.goTo(script, line, false),
  );
  const inSet = behaviourSet(store, {
    edit: drafts.edit,
    saveAll: drafts.saveAll,
    begin: drafts.begin,
    forget: (name) => {
      checks.forget(name);
      drafts.forget(name);
    },
    renamed: drafts.renamed,
    languageWorker,
    pathOf,
    pathOfScript: core.pathOfScript,
    afterSetChanged: doAllAgain,
  });
  const away = outside(core, {
    adopt: (name, text, revision) => {
      if (drafts.adopt(name, text, revision)) checks.textChanged(name);
    },
    renew: structure.renew,
    structureRevision: () => drafts.structure.revision,
  });
  const starters = trying({
    languageWorker,
    material: core.engineMaterial,
    cast: core.cast,
    source: material,
  });

  /** Opens the form, then starts the language worker: that keeps a core busy for seconds, and the form should not wait. */
  async function start(): Promise<void> {
    await live.begin();
    void prove.runScenarios();
    if (!core.isReleased) void drafts.findLeft();
    await checks.start();
    if (material.live) away.begin();
  }

  /** Saves what waits to be saved, without waiting for the answer. */
  function flush(): void {
    void drafts.saveAll();
  }

  function stop(): void {
    flush();
    core.closeLanguageWorker();
    live.end();
    looks.endDebug();
    prove.end();
    testing.endTests();
    starters.stop();
    checks.end();
    away.end();
  }

  /** Replays, runs the scenarios and checks, since one behaviour's words depend on the others and on the form. */
  async function doAllAgain(): Promise<void> {
    await live.replay();
    void prove.runScenarios();
    await checks.checkAll();
  }

  /** Ends a conflict with one of the two texts. One that somebody removed or renamed meanwhile goes, or becomes a new one. */
  function settleConflict(name: string, take: 'mine' | 'theirs'): void {
    const { saving, text } = behaviourOf(name);
    if (saving.state !== 'conflict') return;
    if (saving.theirs.revision === 0) {
      void inSet.leave(name);
      if (take === 'mine') inSet.addBehaviour(readHeader({ name, text }).title, text);
      return;
    }
    drafts.settle(name, take);
    if (take === 'theirs') checks.textChanged(name);
  }

  /**
   * Gives what a shared module exports another name, in every script of the workspace. The bench is made again, since
   * any of its scripts may be among them.
   */
  async function renameExport(module: string, position: number, to: string): Promise<void> {
    if ((await drafts.isSaved()) !== 'all')
      return core.complain(
        'Something is not saved yet. Renaming reaches every form, so all has to be saved first.',
      );
    const reply = await call<{ scripts: { form: string; name: string }[] }>(
      'POST',
      `${core.pathOfScript(module)}/rename`,
      { position, to, apply: true },
    );
    if (!reply.ok) return core.complain(reply.says);
    const { open, steps, active } = get();
    const { scripts } = reply.body;
    structure.renew({
      open,
      steps,
      active,
      pane: 'code',
      renamed: null,
      says: `Renamed in ${scripts.length === 1 ? '1 script' : `${scripts.length} scripts`}${
        scripts.some(({ form }) => form !== '' && form !== material.form.name)
          ? ', of other forms too'
          : ''
      }.`,
    });
  }

  function goToPlace(place: BenchPlace): void {
    if (place === null) return;
    if (place.is === 'line') return look.goTo(place.behaviour, place.line);
    if (place.is === 'part') {
      structure.select(
        placeOf(core.form(), place.part) === null ? null : place.part,
        place.atLabel === true,
      );
      return set({ pane: 'structure' });
    }
    if (get().scenarios.some(({ name }) => name === place.name))
      void prove.openScenario(place.name);
  }

  const { begin: _begin, end: _liveEnds, ...ofLive } = live;
  const { end: _proofEnds, ...ofProofs } = prove;
  const { endTests: _testsEnd, codeChanged: _changed, ...ofTests } = testing;
  const { endDebug: _looksEnd, replayedAgain: _replayed, ...ofLooks } = looks;
  const bench = {
    store,
    isReleased: core.isReleased,
    start,
    stop,
    flush,
    languageWorker,
    pathOfScript: core.pathOfScript,
    cast: core.cast,
    has: (name: string) => get().behaviours.some((one) => one.name === name),
    renameExport,
    ...inSet,
    ...ofLive,
    ...ofProofs,
    ...ofTests,
    ...structure,
    ...look,
    ...ofLooks,
    ask: (part: string, aspect: string | null = null): void => {
      const { answers, at } = get();
      const tape = new Tape(answers.slice(0, at + 1).flatMap((answer) => answer.tape));
      const seen = seenAt(answers, at);
      const name = nameOnTape(seen, part);
      looks.showDrawer(true);
      // The form as a whole and a submission are no part that entries are of.
      looks.filterTape({ part: name.startsWith('@') ? null : name });
      void looks.askWhy({
        part: name,
        aspect:
          aspect ?? usualAspect(tape, name, partSeen(seen, core.form(), addressNow(seen, name))),
        before: null,
      });
    },
    tryOut: starters.tryOut,
    saveAll: drafts.saveAll,
    unsaved: drafts.unsaved,
    takeLeft: drafts.takeLeft,
    edit: drafts.edit,
    settleConflict,
    goToPlace,
    map: (): Promise<FormMap> => languageWorker().map(),
    /** Opens a part under Structure, where it gets another name. */
    renamePart: (part: string) => {
      structure.select(part);
      set({ pane: 'structure' });
    },
    /** Makes the edits of a fix, provided that the text is still the one it was found in. */
    mend: (name: string, found: Diagnostic, fix: Fix) => {
      const text = checks.mended(name, found, fix);
      if (text !== null) drafts.edit(name, text);
    },
  };
  return core.isReleased ? unchangeable(bench, core.complain) : bench;
}

/** What changes the workspace, which nothing may while a former release is looked at. */
const CHANGES = [
  'edit',
  'mend',
  'renameExport',
  'renamePart',
  'takeStarter',
  'addBehaviour',
  'addShared',
  'askForBehaviour',
  'duplicate',
  'describe',
  'remove',
  'leave',
  'restore',
  'reorder',
  'move',
  'turn',
  'editStructure',
  'rename',
  'keepScenario',
  'keepWitnesses',
  'editScenario',
  'changeScenario',
  'dropScenario',
  'undoScenario',
  'acceptGrid',
  'keepFinding',
  'keepOffered',
  'keepOrReplace',
  'removeScenario',
  'keepSample',
  'makeRelease',
] as const;

/** The same bench, in which each of these only says that it cannot be done. */
function unchangeable<B extends Record<(typeof CHANGES)[number], unknown>>(
  bench: B,
  complain: (says: string) => void,
): B {
  const refuse = () => {
    complain('A former release cannot be changed. Open the recording with today’s code.');
    return Promise.resolve(false);
  };
  return { ...bench, ...Object.fromEntries(CHANGES.map((name) => [name, refuse])) };
}

function firstState(
  material: BenchMaterial,
  first: Partial<Open>,
  before: TakenOver | undefined,
): BenchState {
  const behaviours = material.behaviours.map((behaviour): Behaviour => ({
    name: behaviour.name,
    text: behaviour.text,
    revision: behaviour.revision,
    saving: { state: 'saved' },
    diagnostics: [],
    running: behaviour.compiled,
    broken: behaviour.compiled.failure,
  }));
  return {
    material,
    pane: before?.pane ?? 'code',
    side: 'form',
    handbook: 'language',
    structure: {
      history: begin(material.form),
      selected: before?.renamed?.part ?? null,
      saving: { state: 'saved' },
      says: null,
      atLabel: false,
      renamed: before?.renamed ?? null,
    },
    behaviours,
    active: before?.active ?? behaviours[0]?.name ?? '',
    open: { as: material.people[0]!.key, record: null, ...first },
    steps: before?.steps ?? material.recording?.content.steps ?? [],
    answers: [],
    at: before?.steps.length ?? material.recording?.content.steps.length ?? 0,
    listens: { input: [], focus: [], blur: [] },
    replayed: null,
    busy: true,
    cannotStart: false,
    asked: null,
    names: true,
    scenarios: material.scenarios,
    results: new Map(),
    runningScenarios: false,
    release: material.release,
    notice: before?.says === undefined ? null : { tone: 'info', text: before.says },
    goTo: null,
    folder: null,
    checked: false,
    idle: [],
    adding: false,
    deleted: null,
    left: null,
    uses: null,
  };
}
