/** Making a release of the form, and what it would change. */
import { createStore } from 'zustand/vanilla';
import type { Compared } from '@/core/compare/compare';
import type { Difference } from '@/core/compare/difference';
import { parentsOf } from '@/core/explore/ground';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { Material } from '@/core/session/material';
import type { FormerVersion, ReleaseChanges } from '@/core/workspace/release-changes';
import type { CompareRequest } from '@/workers/compare-calls';
import { call } from '../../api';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { Edited } from '../common/saving';
import type { Screen } from '../common/screen';

const NOT_SAVED: Record<Edited, string> = {
  structure: 'The structure is not saved yet, so no release can be made.',
  behaviours: 'Some behaviours are not saved yet, so no release can be made.',
  scenarios: 'Some scenarios are not saved yet, so no release can be made.',
};

/** Sessions played on both versions before a release, and real milliseconds after which it has to do with fewer. */
const SESSIONS = 1200;
const AT_MOST = 20_000;

/** What changes for people, as far as it is known. */
export interface ComparedSoFar {
  differences: readonly Difference[];
  sessions: number;
  /** What it came to; null while it goes on. */
  compared: Compared | null;
}

export function benchRelease(core: BenchCore, screen: Screen, code: Code) {
  const { material, saving, save, pathOf, changes } = core;
  /** The number of the newest release; null where there is none. */
  const store = createStore<{ newest: number | null }>(() => ({ newest: material.release }));

  /** Saves all, since what is not saved yet would be missing from the release; says what is in the way. */
  async function ready(): Promise<string | null> {
    const unsaved = await saving.notSaved();
    return unsaved === null ? null : NOT_SAVED[unsaved];
  }

  /** Makes the next release; gives what is in the way. */
  async function make(reason: string | null): Promise<string | null> {
    const says = await ready();
    if (says !== null) return says;
    const reply = await save<{ number: number }>('POST', pathOf('releases'), { reason });
    if (!reply.ok) return reply.says;
    store.setState({ newest: reply.body.number });
    screen.say(`Release ${reply.body.number} is out.`);
    return null;
  }

  /** Plays the last release and the form as it is side by side. Throws WorkFailed, also when it is stopped. */
  async function compare(
    former: FormerVersion,
    hear: (so: ComparedSoFar) => void,
    stop: AbortSignal,
  ): Promise<void> {
    const language = core.languageWorker();
    const sources = code.scripts.sources();
    const compiled = (some: readonly Source[]) =>
      Promise.all(some.map((source) => language.compile(source)));
    const [scripts, modules, mentionsBefore, mentionsAfter, change] = await Promise.all([
      compiled(takingPart(former.sources)),
      compiled(modulesUsed(former.sources)),
      language.mentions(takingPart(former.sources)),
      language.mentions(takingPart(sources)),
      language.change(takingPart(former.sources), takingPart(sources)),
    ]);
    const versionOf = (
      its: Material,
      mentions: typeof mentionsBefore,
      of: readonly Source[],
    ): CompareRequest['before'] => ({
      material: its,
      people: [...core.people],
      records: core.cast().records.map(({ id, values }) => ({ id, values })),
      parents: parentsOf(its.form.name, core.cast().forms ?? []),
      clock: Date.parse(DEFAULT_CLOCK),
      mentions,
      sources: of.map(({ name, text }) => ({ name, text })),
    });
    const { form, tables, services, answering } = former;
    const then = { form, tables, services, answering, scripts, modules, traced: true };
    const { compareInWorker } = await import('@/workers/compare-in-browser');
    const done = await compareInWorker(
      {
        before: versionOf(then, mentionsBefore, former.sources),
        after: versionOf(code.scripts.material(), mentionsAfter, sources),
        change,
        seed: 1,
        sessions: SESSIONS,
        until: Date.now() + AT_MOST,
      },
      (sessions, differences) => hear({ sessions, differences, compared: null }),
      stop,
    );
    hear({ sessions: done.sessions, differences: done.differences, compared: done });
  }

  return {
    store,
    compare,
    make: changes(make, Promise.resolve(null)),
    /** What the next release would change, and what fails. */
    async changes(): Promise<ReleaseChanges | { says: string }> {
      const says = await ready();
      if (says !== null) return { says };
      const reply = await call<ReleaseChanges>('GET', pathOf('releases'));
      return reply.ok ? reply.body : { says: reply.says };
    },
  };
}
