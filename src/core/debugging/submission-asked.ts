/** About submitting: what it came to, who stopped it, and what a check or a handler left on a field. */
import { isEmpty, type Value } from '../form/value';
import { nameOnTape } from '../scenario/seen';
import type { Entry } from '../session/entries';
import type { Run } from '../tape/tape';
import { nobodys, runMet, type Cause, type Decision } from './decision';
import { causeOfRead, explained } from './explained';
import { inDetail, ownOf, type Ground } from './ground';
import { inRow, type Question } from './question';
import { hiddenAround, lastEntry, standingBefore } from './standing';
import { failureOf } from './taken-back';

/** What the last submission came to. */
export async function aboutSubmission(ground: Ground, question: Question): Promise<Decision> {
  const { tape } = ground;
  const { part, before } = question;
  const outcome = lastEntry(tape, 'outcome', before);
  const refused = lastEntry(tape, 'refused', before);
  if (refused !== null && refused.n > (outcome?.n ?? -1) && isSubmission(ground, refused))
    return {
      ...nobodys(part, 'outcome', refused.why, 'refused'),
      entry: refused.n,
      step: tape.stepOf(refused),
    };
  if (outcome === null) return nobodys(part, 'outcome', null, 'never');
  const { saved, id, stoppedBy, stops, without } = outcome;
  const look = await ground.lookBefore(outcome.n);
  const onTape = (address: string) => (look === null ? address : nameOnTape(look, address));
  const value = { saved, id, stoppedBy, stops, without } as unknown as Value;
  const base = {
    ...nobodys(part, 'outcome', value, saved ? 'saved' : 'checked'),
    entry: outcome.n,
    step: tape.stepOf(outcome),
    asOf: outcome.n,
  } as const;
  if (saved)
    return {
      ...base,
      causes: without.flatMap((field) =>
        hiddenAround(ground, onTape(field), outcome.n).map((one) =>
          readOf(ground, one, 'shown', outcome.n),
        ),
      ),
    };
  const byHandler = await stoppedIn(ground, outcome, null);
  if (byHandler !== null) return { ...base, ...byHandler };
  return {
    ...base,
    causes: stops.flatMap((stop) =>
      stop.part === null ? [] : behindFault(ground, onTape(stop.part), stop.says, outcome.n),
    ),
  };
}

/** The text that a check or a handler left on a field. */
export async function aboutFault(ground: Ground, question: Question): Promise<Decision> {
  const { tape } = ground;
  const { part, aspect, before } = question;
  const now = await ground.lookBefore(before);
  const row = inRow(part);
  const left =
    (row === null
      ? ownOf(now?.parts, part)?.fault
      : ownOf(now?.rows, row.rows)?.byId[row.id]?.cells[row.cell ?? '']?.fault) ?? null;
  if (left === null) return nobodys(part, aspect, null, 'never');
  const checked = tape.entries.findLast(
    (entry): entry is Extract<Entry, { type: 'checked' }> =>
      entry.type === 'checked' &&
      (before === null || entry.n < before) &&
      entry.faults.some(
        // Rows may have moved since; what it says of the field is the same.
        (one) => one.says === left && nameOnTape(now!, one.part) === part,
      ),
  );
  const outcome = lastEntry(tape, 'outcome', before);
  const stopped = await stoppedIn(ground, outcome, { part, says: left });
  if (stopped !== null)
    return { ...nobodys(part, aspect, left, 'stopped'), step: tape.stepOf(outcome!), ...stopped };
  return {
    ...nobodys(part, aspect, left, 'checked'),
    entry: checked?.n ?? null,
    step: checked === undefined ? null : tape.stepOf(checked),
    asOf: checked?.n ?? before,
    causes: checked === undefined ? [] : behindFault(ground, part, left, checked.n),
  };
}

/** What a fault comes from: a problem that a script set, else the value, and that one is required. */
export function behindFault(ground: Ground, part: string, says: string, before: number): Cause[] {
  const read = (aspect: string) => readOf(ground, part, aspect, before);
  if (standingBefore(ground, { part, aspect: 'problem', before }) === says)
    return [read('problem')];
  const required = standingBefore(ground, { part, aspect: 'required', before }) === true;
  const value = read('value');
  return required && isEmpty(value.value) ? [read('required'), value] : [value];
}

function readOf(
  ground: Ground,
  part: string,
  aspect: string,
  before: number,
): Cause & { is: 'read' } {
  const value = standingBefore(ground, { part, aspect, before });
  return causeOfRead(ground.tape, { part, aspect, value }, before);
}

/** Where a handler stopped what a step wanted: the first of those that did, or the one that left this on a part. */
export async function stoppedIn(
  ground: Ground,
  until: Entry | null,
  wanted: { part: string; says: string } | null,
): Promise<Partial<Decision> | null> {
  const { tape } = ground;
  if (until === null) return null;
  const root = tape.rootOf(until).n;
  const runs = tape.entries.filter((entry): entry is Run => {
    if (entry.type !== 'run' || entry.sort !== 'handler') return false;
    return tape.rootOf(entry).n === root && canStop(ground, entry as Run);
  });
  for (const run of runs) {
    const { instances } = await inDetail(ground, run);
    const instance = instances.all.find(({ stopped }) =>
      stopped.some(
        (one) => wanted === null || (one.part === wanted.part && one.says === wanted.says),
      ),
    );
    if (instance !== undefined) {
      const saying = { run, instances, instance, line: instance.site.line };
      return { decided: 'stopped', entry: run.n + 1, ...explained(ground, saying, run.n + 1) };
    }
    const failure = wanted === null && run.outcome === 'failed' ? failureOf(tape, run) : null;
    if (failure !== null)
      return {
        decided: 'stopped',
        entry: run.n,
        run: runMet(run),
        line: failure.line,
        takenBack: {
          why: 'failed',
          run: runMet(run),
          said: null,
          says: failure.says,
          failedAt: failure.line,
        },
      };
  }
  return null;
}

/** Whether a run is of a handler that may stop its event. */
function canStop({ tape }: Ground, run: Run): boolean {
  const cause = tape.causeOf(run);
  if (cause?.type === 'event') return cause.event === 'submit' || cause.event === 'pageChange';
  // A stretch after a wait.
  return cause?.type === 'answered' && /submit|pageChange/.test(run.title);
}

function isSubmission({ tape }: Ground, entry: Entry): boolean {
  const step = tape.causeOf(entry);
  return step?.type === 'step' && 'submit' in step.step;
}
