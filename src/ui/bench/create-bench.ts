/**
 * The bench, put together of its rooms. Each has a store and actions of its own, takes the rooms below it, and says by
 * signals what those above it may want to hear. Components ask a room and show what it knows.
 */
import type { Open } from '@/core/scenario/definition';
import { placeOf } from '@/core/structure/edit';
import { startLanguage } from '@/workers/language-client';
import { benchBehaviours } from './behaviours/behaviours';
import { benchChanges } from './changes/changes';
import { benchCode } from './code/code';
import { benchCore } from './common/core';
import { benchFaults } from './faults/faults';
import { benchFolder } from './folder';
import { benchForm } from './form/form';
import { benchLeft } from './common/left';
import type { BenchMaterial, BenchPlace, TakenOver } from './common/material';
import { benchRelease } from './release/release';
import { benchScreen } from './common/screen';
import { SpareTime } from './common/spare-time';
import { benchStructure } from './structure/structure';
import { benchTape } from './tape/tape';
import { benchTests } from './tests/tests';

export type Bench = ReturnType<typeof createBench>;

/** `first` says how the form is opened at first; `before` is what is taken over from a bench before it. */
export function createBench(
  material: BenchMaterial,
  first: Partial<Open> = {},
  before?: TakenOver,
  language = startLanguage,
) {
  const screen = benchScreen({
    pane: before?.pane ?? 'code',
    notice: before?.says === undefined ? null : { tone: 'info', text: before.says },
  });
  const core = benchCore(material, screen, language);
  const code = benchCode(core, screen, before);
  const form = benchForm(core, screen, code, first, before);
  const structure = benchStructure(core, form, before?.renamed ?? null);
  const tape = benchTape(core, code, form);
  const tests = benchTests(core, screen, code, form);
  const spare = new SpareTime();
  const changes = benchChanges(core, screen, code, form, spare, tests.keepOffered);
  const faults = benchFaults(core, screen, code, form, tape, spare, tests.keepOffered);
  const behaviours = benchBehaviours(core, screen, code, tests.drafts);
  const release = benchRelease(core, screen, changes);
  const folder = benchFolder(core, code, tests, structure);
  const left = benchLeft(core, code.texts, structure, tests.drafts);

  core.changed.listen(async (typed) => {
    await form.session.replay();
    if (typed === null) {
      void tests.run().then(begunAnew);
      await code.checks.checkAll();
      return;
    }
    void code.checks.checkAll(typed);
    await tests.run();
    void tests.grid.codeChanged();
    begunAnew();
  });

  /** What changed for people is known sooner than what is wrong, so it is looked for first. */
  function begunAnew(): void {
    changes.changed();
    faults.changed();
  }

  // A key is never answered later for the sake of what goes on beside the page.
  const deafen = code.store.subscribe(({ behaviours: now }, { behaviours: former }) => {
    if (now !== former && now.some(({ text }, i) => text !== former[i]?.text)) spare.giveWay();
  });
  form.stepped.listen(() => spare.giveWay());

  /** Goes where a link leads. */
  function goTo(place: BenchPlace): void {
    if (place === null) return;
    if (place.is === 'line') return code.goTo(place.behaviour, place.line);
    if (place.is === 'scenario') return void tests.showMiss(place.name);
    if (place.is === 'changes') return tests.open('changes');
    if (place.is === 'finding') {
      tests.open('faults');
      if (place.key !== null) faults.openNamed(place.key);
      return;
    }
    structure.select(
      placeOf(core.form(), place.part) === null ? null : place.part,
      place.atLabel === true,
    );
    screen.showPane('structure');
  }

  return {
    core,
    screen,
    code,
    form,
    structure,
    tape,
    tests,
    spare,
    changes,
    faults,
    behaviours,
    release,
    folder,
    left,
    goTo,
    /** Opens the form, then starts the language worker: that keeps a core busy for seconds, and the form should not wait. */
    async start(): Promise<void> {
      await form.begin();
      void tests.run();
      void left.find();
      await code.checks.start();
      spare.begin();
      changes.begin();
      faults.begin();
      if (material.live) folder.begin();
    },
    stop(): void {
      void core.saving.saveAll();
      core.closeLanguageWorker();
      form.end();
      tape.end();
      tests.end();
      deafen();
      changes.end();
      spare.end();
      behaviours.end();
      code.checks.end();
      folder.end();
    },
    /** What the next bench takes over from this one. */
    handedOver(): TakenOver {
      const { open, steps } = form.session.state;
      return {
        open,
        steps,
        active: code.store.getState().active,
        pane: screen.store.getState().pane,
        renamed: null,
        ...core.store.getState().handsOver,
      };
    },
  };
}
