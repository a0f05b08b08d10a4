/** What answers stand on: a tape, the sites of its scripts, and the means to run the session again in detail. */
import type { Form } from '../form/definition';
import type { Place } from '../session/detail';
import type { DetailedRun } from '../session/detail';
import type { Run, Tape } from '../tape/tape';
import { Instances, type SitesOf } from './instances';

export interface Ground {
  form: Form;
  tape: Tape;
  sites: SitesOf;
  /** Runs the session again and gives these runs in detail, by the numbers of their entries. */
  inspect(runs: readonly number[], turned?: readonly Place[]): Promise<readonly DetailedRun[]>;
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
  turned: readonly Place[] = [],
): Promise<{ instances: Instances; detailed: readonly DetailedRun[] }> {
  const wanted = stretchesOf(tape, run).map(({ n }) => n);
  const detailed = await inspect(wanted, turned);
  const details = wanted.flatMap((n) => detailed.find(({ entry }) => entry === n)?.details ?? []);
  return { instances: new Instances(details, sites), detailed };
}
