/** What answers stand on: a tape, the sites of its scripts, and the means to run the session again in detail. */
import type { Form } from '../form/definition';
import type { SitePlace } from '../session/detail';
import type { DetailedRun } from '../session/detail';
import type { Look } from '../session/looking';
import type { Run, Tape } from '../tape/tape';
import { Instances, type SitesOf } from './instances';

export interface Ground {
  form: Form;
  tape: Tape;
  sites: SitesOf;
  /** Runs the session again and gives these runs in detail, by the numbers of their entries. */
  inspect(runs: readonly number[], turned?: readonly SitePlace[]): Promise<readonly DetailedRun[]>;
  /** Runs it again and gives all that stood right before this entry; at the end of the tape for null. */
  lookBefore(entry: number | null): Promise<Look | null>;
}

/** A moment of a session that runs again: right after an entry, or after so many details of its run; nulls for the end. */
interface Moment {
  entry: number | null;
  detail: number | null;
}

/** Runs a session again and says what is wanted of it. */
export type RunAgain = (wanted: {
  runs?: readonly number[];
  turned?: readonly SitePlace[];
  moments?: readonly Moment[];
}) => Promise<{ runs: readonly DetailedRun[]; looks: readonly (Look | null)[] }>;

/** What answers stand on, by whoever can run the session again; `end` is where the tape ends, if not at its last step. */
export function groundOver(
  on: Pick<Ground, 'form' | 'tape' | 'sites'>,
  again: RunAgain,
  end: Moment = { entry: null, detail: null },
): Ground {
  const looks = new Map<number | null, Promise<Look | null>>();
  return {
    ...on,
    inspect: async (runs, turned = []) => (await again({ runs, turned })).runs,
    lookBefore(entry) {
      const known = looks.get(entry);
      if (known !== undefined) return known;
      // Right before an entry is right after the one before.
      const moment = entry === null ? end : { entry: Math.max(0, entry - 1), detail: null };
      const made = again({ moments: [moment] }).then((found) => found.looks[0] ?? null);
      looks.set(entry, made);
      return made;
    },
  };
}

/** A run with the stretches before it, where it went on after a wait. Their entries, in order. */
export function stretchesOf(tape: Tape, run: Run): Run[] {
  const stretches = [run];
  for (let first = run; ; first = stretches[0]!) {
    const came = tape.causeOf(first);
    const call = came?.type === 'answered' && came.call !== null ? tape.entry(came.call) : null;
    const asking = call === null ? null : tape.causeOf(call);
    if (asking?.type !== 'run') return stretches;
    stretches.unshift(asking as Run);
  }
}

/** What a run did from its start, over all its waits, with its details in one list. */
export async function inDetail(
  { tape, sites, inspect }: Ground,
  run: Run,
  turned: readonly SitePlace[] = [],
): Promise<{ instances: Instances; detailed: readonly DetailedRun[] }> {
  const wanted = stretchesOf(tape, run).map(({ n }) => n);
  const detailed = await inspect(wanted, turned);
  const details = wanted.flatMap((n) => detailed.find(({ entry }) => entry === n)?.details ?? []);
  return { instances: new Instances(details, sites), detailed };
}

/** What a look has of this name; a part may be called `constructor`. */
export function ownOf<T>(
  all: Readonly<Record<string, T>> | undefined,
  name: string,
): T | undefined {
  return all !== undefined && Object.hasOwn(all, name) ? all[name] : undefined;
}
