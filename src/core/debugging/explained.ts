/** A slice of a run in terms of the form: what it depends on, the conditions and comparisons on the way, near misses. */
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import type { Run, Tape } from '../tape/tape';
import type { Comparison } from './comparison';
import { runMet, type Cause, type ConditionMet, type Decision } from './decision';
import { stretchesOf } from './ground';
import type { Instance, Instances, Read } from './instances';
import { nearMisses, type NearMiss } from './near-miss';
import type { Saying } from './saying';
import { sliceOf, type Slice } from './slice';
import { effectBefore, wasOnScreen } from './standing';

/** What a slice depends on; `before` is the moment at which the run saw the form. */
export function causesOf(tape: Tape, slice: Slice, run: Run, before: number | null): Cause[] {
  const causes: Cause[] = slice.reads.map((read) => causeOfRead(tape, read, before));
  for (const { what, value } of slice.asked)
    causes.push(what === 'random' ? { is: 'random' } : { is: 'opening', what, value });
  for (const mark of slice.marks)
    if (mark !== 'previous' && !causes.some(({ is }) => is === mark)) causes.push({ is: mark });
  for (const { script, name } of slice.variables) causes.push({ is: 'variable', script, name });
  causes.push(...runCauses(tape, run, slice));
  return causes;
}

/** An aspect with its value before a moment as a cause, with the effect that made it so. */
export function causeOfRead(
  tape: Tape,
  { part, aspect, value }: Pick<Read, 'part' | 'aspect' | 'value'>,
  before: number | null,
): Cause & { is: 'read' } {
  const entry = effectBefore(tape, { part, aspect, before })?.n ?? null;
  return { is: 'read', part, aspect, value, entry };
}

/** That a handler ran at all is due to its event, and what it waited for. */
export function runCauses(
  tape: Tape,
  run: Run,
  slice: Pick<Slice, 'answers' | 'marks'> | null = null,
): Cause[] {
  if (run.sort === 'rule') return [];
  const [first, ...later] = stretchesOf(tape, run);
  const event = tape.causeOf(first!);
  const causes: Cause[] = [];
  if (event?.type === 'event') {
    const { n: entry, part, value, previous } = event;
    causes.push({ is: 'event', event: event.event, part, value, entry });
    const effect = tape.causeOf(event);
    if (slice?.marks.has('previous') === true && part !== null && effect?.type === 'effect')
      causes.push(causeOfRead(tape, { part, aspect: 'value', value: previous }, effect.n));
  }
  for (const stretch of later) {
    const answered = tape.causeOf(stretch);
    if (
      answered?.type !== 'answered' ||
      // One that failed goes on in a catch, whatever of its answer is used.
      (slice !== null &&
        slice.answers.length === 0 &&
        answered.name !== 'after' &&
        answered.fails === null)
    )
      continue;
    causes.push({
      is: 'answer',
      name: answered.name,
      value: answered.with,
      fails: answered.fails,
      entry: answered.n,
    });
  }
  return causes;
}

/** At most so many places with comparisons are named. */
const MOST_PLACES = 20;

/** The conditions of a slice, and the statements in it that compare something besides, in the order in which they were met. */
function metIn(instances: Instances, slice: Slice, told: Instance): ConditionMet[] {
  // A part of a condition is told with the whole.
  const whole = slice.conditions
    .filter(({ within }) => !slice.conditions.some(({ index }) => index === within))
    // That something is there, so that what stands behind ?? is not needed, decides nothing.
    .filter(({ site, value = null }) => site.op !== '??' || value === null)
    .map((one) => ({ at: one.index, met: conditionMet(instances, one) }));
  const comparing = slice.statements
    .filter((one) => one !== told && !CONTROLS.test(one.site.text))
    .map((one) => ({
      at: one.index,
      met: { ...conditionMet(instances, one), comparisons: ownComparisons(instances, one) },
    }))
    .filter(({ met }) => met.comparisons.length > 0);
  const met = [...whole, ...comparing].sort((a, b) => a.at - b.at).map((one) => one.met);
  const places = [...new Set(met.map(({ script, site }) => `${script} ${site}`))];
  const kept = new Set(places.slice(-MOST_PLACES));
  return met.filter(({ script, site }) => kept.has(`${script} ${site}`));
}

/** Statements whose conditions are told by themselves. */
const CONTROLS = /^(?:if|for|while|do|switch)\b/;

/** Comparisons of a statement that stand in none of the conditions within it. */
function ownComparisons(instances: Instances, statement: Instance): Comparison[] {
  const inner = new Set(
    statement.conditions.flatMap((index) =>
      conditionMet(instances, instances.all[index]!).comparisons.map((one) => JSON.stringify(one)),
    ),
  );
  return conditionMet(instances, statement).comparisons.filter(
    (one) => !inner.has(JSON.stringify(one)),
  );
}

/** What is nearly right of comparisons that came out as they did, and of what a slice read. */
export function nearIn(
  on: { tape: Tape; form: Form },
  comparisons: readonly Comparison[],
  slice: Slice,
  before: number | null,
): NearMiss[] {
  const parts = slice.reads.map(({ part }) => part);
  const near = comparisons
    .filter(({ came, op }) => came === (op === '!==' || op === '!='))
    .flatMap((comparison) => nearMisses(comparison, on.form, parts))
    // That a side is empty is seen as it is.
    .filter(({ is }) => is !== 'empty');
  for (const { part, aspect, value } of slice.reads)
    if (aspect === 'value' && value !== null && !wasOnScreen(on, part, before))
      near.push({ is: 'hidden', part });
  return [...new Map(near.map((one) => [JSON.stringify(one), one])).values()];
}

/** Sides of comparisons in a condition and in those within it. */
function operandsOf(instances: Instances, instance: Instance): Map<number, Value> {
  const all = new Map(instance.operands);
  for (const index of instance.conditions)
    for (const [site, value] of operandsOf(instances, instances.all[index]!)) all.set(site, value);
  return all;
}

/** A condition or statement with both sides of each comparison in it, as they were. */
export function conditionMet(instances: Instances, instance: Instance): ConditionMet {
  const { place, site, value = null } = instance;
  const sites = instances.sites.get(place.script)!;
  const operands = operandsOf(instances, instance);
  const valueOf = (number: number) => operands.get(number);
  const comparisons = sites.flatMap((comparison, number): Comparison[] => {
    const came = valueOf(number);
    if (
      comparison.kind !== 'comparison' ||
      came === undefined ||
      comparison.start < site.start ||
      comparison.end > site.end
    )
      return [];
    const [left, right] = sites.flatMap((operand, at) =>
      operand.kind === 'operand' && operand.under?.site === number
        ? [{ text: operand.text, value: valueOf(at) ?? null }]
        : [],
    );
    return left === undefined || right === undefined
      ? []
      : [{ text: comparison.text, op: comparison.op!, left, right, came: came === true }];
  });
  return {
    script: place.script,
    site: place.site,
    line: site.line,
    text: site.text,
    is: site.kind === 'condition' || site.kind === 'switch' ? site.kind : 'statement',
    came: value,
    comparisons,
  };
}

/** The conditions and comparisons of a slice without those that stand in the place that is told itself. */
export function onTheWay(instances: Instances, told: Instance, slice: Slice): ConditionMet[] {
  const { comparisons } = conditionMet(instances, told);
  const there = new Set(comparisons.map((one) => JSON.stringify(one)));
  return metIn(instances, slice, told).filter(
    (condition) =>
      condition.comparisons.length === 0 ||
      condition.comparisons.some((one) => !there.has(JSON.stringify(one))),
  );
}

/**
 * What a script said, by the statement that said it: the run and the line, its comparisons, the conditions besides, what
 * is nearly right of both, and what all of it depends on; `asOf` is the moment at which the run saw the form.
 */
export function explained(
  on: { tape: Tape; form: Form },
  { run, instances, instance, line }: Saying,
  asOf: number | null,
): Pick<
  Decision,
  'run' | 'line' | 'statement' | 'comparisons' | 'conditions' | 'near' | 'causes' | 'asOf'
> {
  const slice = sliceOf(instances, instance);
  const { comparisons } = conditionMet(instances, instance);
  const conditions = onTheWay(instances, instance, slice);
  const all = [...comparisons, ...conditions.flatMap((one) => one.comparisons)];
  return {
    run: runMet(run),
    line,
    statement: instance.site.text,
    comparisons,
    conditions,
    near: nearIn(on, all, slice, asOf),
    causes: causesOf(on.tape, slice, run, asOf),
    asOf,
  };
}
