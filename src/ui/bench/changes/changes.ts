/**
 * What changed for people since a former version: after each edit both versions are used beside the page. A difference is
 * opened with both versions side by side, accepted as meant, or kept as a scenario of either version.
 */
import { createStore } from 'zustand/vanilla';
import type { AcceptedBy, SourcesOfBoth } from '@/core/compare/accepted';
import type { Difference } from '@/core/compare/difference';
import type { Scenario } from '@/core/scenario/definition';
import type { KeptFilling } from '@/core/scenario/kept-steps';
import type { FormerVersion } from '@/core/workspace/release-changes';
import type { FormVersions } from '@/core/workspace/versions';
import { get as ask } from '../../api';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { Screen } from '../common/screen';
import type { SpareTime } from '../common/spare-time';
import type { FormRoom } from '../form/form';
import type { Beside } from './beside';
import type { ComparedSoFar, ReplayedSoFar } from './comparing';

/** How far a comparison after an edit goes, and one before a release. */
const AFTER_EDIT = { sessions: 600, milliseconds: 8000 };
const BEFORE_RELEASE = { sessions: 1200, milliseconds: 20_000 };

/** The version that the form is compared with. */
export type Since =
  | { is: 'release'; number: number }
  /** Everything as it was saved at some moment. */
  | { is: 'moment'; at: string }
  /** When all scenarios passed last. */
  | { is: 'right'; at: string };

export interface ChangesState extends ComparedSoFar {
  /** Null where there is nothing to compare with, until somebody chooses. */
  since: Since | null;
  underway: boolean;
  /** What is shown was found in the code before the edit. */
  isOld: boolean;
  says: string | null;
  accepted: readonly AcceptedBy[];
  /** Both versions stand side by side. */
  beside: Beside | null;
}

const NOTHING = {
  differences: [],
  sessions: 0,
  compared: null,
  underway: false,
  isOld: false,
  says: null,
};

/** As the server is asked for it. */
const versionName = (since: Since) =>
  since.is === 'release' ? `release-${since.number}` : `at-${since.at}`;

export type Changes = ReturnType<typeof benchChanges>;

export function benchChanges(
  core: BenchCore,
  screen: Screen,
  code: Code,
  form: FormRoom,
  spare: SpareTime,
  keepOffered: (scenario: Promise<Scenario | null>) => Promise<void>,
) {
  const { release } = core.material;
  const store = createStore<ChangesState>(() => ({
    ...NOTHING,
    since: release === null ? null : { is: 'release', number: release },
    accepted: [],
    beside: null,
  }));
  const { getState: get, setState: set } = store;
  /** Counts up with the code and with what it is compared with. */
  let version = 0;
  let going = false;
  const answering = { core, screen, code, form };
  const loaded = () => import('./answering');
  let former: { name: string; version: FormerVersion } | null = null;

  /** The version that is compared with. Throws Error where it cannot be read. */
  async function formerVersion(since: Since): Promise<FormerVersion> {
    const name = versionName(since);
    if (former?.name === name) return former.version;
    const reply = await ask<FormerVersion>(core.pathOf(`versions/${encodeURIComponent(name)}`));
    if (!reply.ok) throw new Error(reply.says);
    former = { name, version: reply.body };
    return reply.body;
  }

  async function compare(): Promise<void> {
    const { since } = get();
    if (since === null || spare.ended) return;
    const mine = version;
    const { signal } = spare;
    const hear = (so: ComparedSoFar) => {
      if (mine === version) set({ ...so, isOld: false });
    };
    set({ underway: true, says: null });
    try {
      const { bothVersions, compareBoth } = await import('./comparing');
      const versions = await bothVersions(core, code, await formerVersion(since));
      if (mine === version && !signal.aborted)
        await compareBoth(versions, AFTER_EDIT, hear, signal);
    } catch (caught) {
      // One that had to give way is begun again.
      if (mine === version && !signal.aborted)
        set({ says: caught instanceof Error ? caught.message : String(caught) });
    } finally {
      set({ underway: false });
    }
  }

  /** Compares once it is quiet, again where that had to give way. */
  async function go(): Promise<void> {
    if (going || core.isReleased) return;
    going = true;
    try {
      while (get().compared === null && get().since !== null && get().says === null && !spare.ended)
        await spare.inTurn(async () => {
          await spare.quiet();
          await compare();
        });
    } finally {
      going = false;
    }
  }

  /** The code, the form or a table is another. */
  function changed(): void {
    version++;
    set(({ differences }) => ({ compared: null, says: null, isOld: differences.length > 0 }));
    if (spare.goesOn) void go();
  }

  /** Compares with another version from now on. */
  function choose(since: Since): void {
    version++;
    closeBoth();
    set({ ...NOTHING, since });
    spare.hurry();
    void go();
  }

  async function readAccepted(): Promise<void> {
    const reply = await ask<AcceptedBy[]>(core.pathOf('accepted'));
    if (reply.ok) set({ accepted: reply.body });
  }

  function sources(): SourcesOfBoth {
    return { before: former?.version.sources ?? [], after: code.scripts.sources() };
  }

  async function accept(difference: Difference): Promise<void> {
    const made = await (await loaded()).accept(answering, difference, former?.version ?? null);
    if (made === null) return;
    set(({ accepted }) => ({
      accepted: [...accepted.filter(({ key }) => key !== made.key), made],
    }));
  }

  async function takeBack(one: AcceptedBy): Promise<void> {
    if (await (await loaded()).takeBack(answering, one))
      set(({ accepted }) => ({ accepted: accepted.filter(({ key }) => key !== one.key) }));
  }

  const keep = (difference: Difference, side: 'before' | 'after'): Promise<void> =>
    keepOffered(loaded().then(({ scenarioOf }) => scenarioOf(answering, difference, side)));

  /** Stands both versions side by side, with the same done in both. */
  async function openBoth(difference: Difference | null = null): Promise<void> {
    const { since } = get();
    if (since === null) return;
    try {
      const version = await formerVersion(since);
      closeBoth();
      const beside = await (await loaded()).standBeside(answering, version, difference);
      set({ beside });
      screen.showPane('beside');
      await beside.begin();
    } catch (caught) {
      screen.complain(caught instanceof Error ? caught.message : String(caught));
    }
  }

  function closeBoth(): void {
    get().beside?.end();
    if (get().beside !== null) set({ beside: null });
    if (screen.store.getState().pane === 'beside') screen.showPane('tests');
  }

  const openFilling = async (filling: KeptFilling) =>
    (await loaded()).openFilling(answering, filling);

  return {
    store,
    changed,
    choose,
    openBoth,
    closeBoth,
    openFilling: core.changes(openFilling, Promise.resolve()),
    /** Compares now. */
    go(): void {
      set({ compared: null, says: null });
      spare.hurry();
      void go();
    },
    begin(): void {
      if (core.isReleased) return;
      void readAccepted();
      changed();
    },
    end(): void {
      version++;
      get().beside?.end();
    },
    sources,
    accept: core.changes(accept, Promise.resolve()),
    takeBack: core.changes(takeBack, Promise.resolve()),
    keep: core.changes(keep, Promise.resolve()),
    /** What there is to compare with. */
    versions: () => ask<FormVersions>(core.pathOf('versions')),
    /** A release was made: it is what is compared with from now on. */
    released(number: number): void {
      set({ accepted: [] });
      choose({ is: 'release', number });
    },
    /** Plays the last release and the form as it is, then what people did. Throws WorkFailed, also when it is stopped. */
    async beforeRelease(
      last: { number: number; former: FormerVersion },
      hear: (so: ComparedSoFar) => void,
      hearReplayed: (so: ReplayedSoFar) => void,
      stop: AbortSignal,
    ): Promise<void> {
      former = { name: versionName({ is: 'release', number: last.number }), version: last.former };
      const { bothVersions, compareBoth, replayKept } = await import('./comparing');
      const versions = await bothVersions(core, code, last.former);
      await compareBoth(versions, BEFORE_RELEASE, hear, stop);
      await replayKept(core, versions, hearReplayed, stop);
    },
  };
}
