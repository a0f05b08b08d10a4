/** Why a rule no longer says what it said: the condition in its last run that kept it from the line. */
import type { Effect, Run } from '../tape/tape';
import { holds } from './comparison';
import { nobodys, runMet, type Decision } from './decision';
import { causesOf, conditionMet, nearIn, runCauses } from './explained';
import { inDetail, type Ground } from './ground';
import type { Instance, Instances } from './instances';
import type { Question } from './question';
import { saidByRule } from './saying';
import { sliceOf } from './slice';

/** The rule of a run is silent about it, and what stands below shows. */
export async function silenced(
  ground: Ground,
  { part, aspect, before: asOf }: Question,
  effect: Effect,
  run: Run,
): Promise<Decision> {
  const { tape } = ground;
  const silent: Decision = {
    ...nobodys(part, aspect, effect.to, 'withdrawn'),
    entry: effect.n,
    step: tape.stepOf(effect),
    run: runMet(run),
    causes: runCauses(tape, run),
    asOf,
  };
  if (run.sort !== 'rule') return silent;
  // Where it said it before, and what is in the way of that line now.
  const before = await saidByRule(ground, run, { part, aspect, before: run.n });
  if (before === null) return silent;
  const { instances } = await inDetail(ground, run);
  const blocking = inTheWay(instances, before.instance);
  if (blocking === null) return { ...silent, line: before.line };
  const slice = sliceOf(instances, blocking);
  const met = conditionMet(instances, blocking);
  return {
    ...silent,
    line: before.line,
    statement: before.instance.site.text,
    conditions: [met],
    near: nearIn(ground, met.comparisons, slice, asOf),
    causes: causesOf(tape, slice, run, asOf),
  };
}

/** The innermost condition around a statement, or before it, that did not come out as it would have had to. */
export function inTheWay(instances: Instances, { place, site }: Instance): Instance | null {
  const sites = instances.sites.get(place.script)!;
  for (let at = site; ; at = sites[at.under.site]!) {
    const controls = at.under === null ? at.leaves : [at.under, ...at.leaves];
    for (const control of controls) {
      if (control.holds === null) continue;
      const met = instances.all.findLast(
        (one) => one.place.script === place.script && one.place.site === control.site,
      );
      if (met?.value !== undefined && holds(met.value) !== control.holds) return met;
    }
    if (at.under === null) return null;
  }
}
