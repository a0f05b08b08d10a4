/** Making a release of the form, and what it would change. */
import { createStore } from 'zustand/vanilla';
import type { ReleaseChanges } from '@/core/workspace/release-changes';
import { call } from '../../api';
import type { Changes } from '../changes/changes';
import type { BenchCore } from '../common/core';
import type { Edited } from '../common/saving';
import type { Screen } from '../common/screen';

const NOT_SAVED: Record<Edited, string> = {
  structure: 'The structure is not saved yet, so no release can be made.',
  behaviours: 'Some behaviours are not saved yet, so no release can be made.',
  scenarios: 'Some scenarios are not saved yet, so no release can be made.',
};

export function benchRelease(core: BenchCore, screen: Screen, comparing: Changes) {
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
    comparing.released(reply.body.number);
    screen.say(`Release ${reply.body.number} is out.`);
    return null;
  }

  /** Has people fill in an earlier release again, as the next one; gives what is in the way. */
  async function putBack(again: number, reason: string): Promise<string | null> {
    const reply = await save<{ number: number }>('POST', pathOf('releases'), { again, reason });
    if (!reply.ok) return reply.says;
    store.setState({ newest: reply.body.number });
    comparing.released(reply.body.number);
    screen.say(`Release ${again} is back, as release ${reply.body.number}.`);
    return null;
  }

  return {
    store,
    putBack: changes(putBack, Promise.resolve(null)),
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
