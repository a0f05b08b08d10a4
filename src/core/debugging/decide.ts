/**
 * Answers why an aspect of a part is what it is at a moment. What a script said is had by running it again in detail
 * and following what it depends on (`slice.ts`); what is made up of other things leads to those; and everything that a
 * decision depends on can be asked about in turn, down to the step of a person, the opening or the definition.
 */
import { FORM } from '../session/tree';
import type { Effect, Run } from '../tape/tape';
import type { Entry } from '../session/entries';
import { explained } from './explained';
import { nobodys, type Cause, type Decision } from './decision';
import { aboutChanged, aboutMessages, aboutPage } from './form-asked';
import { ownOf, type Ground } from './ground';
import { followsFrom, isFollowing } from './nesting';
import { aboutInvariant } from './invariant-asked';
import { hasRows, inRow, invariantIn, SUBMISSION, type Question } from './question';
import { aboutRow, cellWithRow, madeOfCells, madeOfRows } from './rows-asked';
import { placed, saidByHandler, saidByRule, saidIn, type Saying } from './saying';
import { silenced } from './silenced';
import { definedAs, effectBefore, openedRecord, openedWith, partsAround } from './standing';
import { aboutFault, aboutSubmission } from './submission-asked';
import { failedSince, refusedSince, takenBackSince } from './taken-back';

/** Answers why an aspect is what it is. */
export async function decide(ground: Ground, question: Question): Promise<Decision> {
  const { part, aspect } = question;
  const row = inRow(part);
  if (part === SUBMISSION) return aboutSubmission(ground, question);
  if (invariantIn(aspect) !== null) return aboutInvariant(ground, question);
  if (aspect === 'fault') return aboutFault(ground, question);
  if (part === FORM && aspect === 'page') return aboutPage(ground, question);
  if (part === FORM && aspect === 'messages') return aboutMessages(ground, question);
  if (part === FORM && aspect === 'changed') return aboutChanged(ground, question);
  if (isFollowing(aspect)) return followsFrom(ground, question);
  if (row !== null && (aspect === 'there' || aspect === 'place')) return aboutRow(ground, question);
  if (row !== null && row.cell === null && (aspect === 'value' || aspect === 'values'))
    return madeOfCells(ground, question);
  if (hasRows(ground.form, part) && /^(?:value|order|count|sum:)/.test(aspect))
    return madeOfRows(ground, question);
  return aboutSaid(ground, question);
}

/** How a cause is asked about in turn; null for what has no cause of its own. */
export function questionOf(cause: Cause, { asOf }: Pick<Decision, 'asOf'>): Question | null {
  // What is typed is no value yet, and a press is none at all.
  if (cause.is === 'event' && cause.part !== null && cause.event === 'change')
    return { part: cause.part, aspect: 'value', before: cause.entry };
  if (cause.is !== 'read' && cause.is !== 'row') return null;
  const before = cause.entry === null ? asOf : cause.entry + 1;
  if (cause.is === 'read') return { part: cause.part, aspect: cause.aspect, before };
  return { part: cause.part, aspect: cause.did === 'moved' ? 'place' : 'there', before };
}

/** About what scripts, people and the definition say. */
async function aboutSaid(ground: Ground, question: Question): Promise<Decision> {
  const { tape } = ground;
  const effect = effectBefore(tape, question);
  const cause = effect === null ? null : tape.causeOf(effect);
  const taken = takenBackSince(ground, question, effect);
  const refused = refusedSince(ground, question, effect);
  const answered = (decision: Decision): Decision => ({
    ...decision,
    takenBack: decision.takenBack ?? taken,
    refused,
  });
  if (effect !== null && cause?.type !== 'run' && cause?.type !== 'superseded')
    return answered(byNoScript(ground, effect, cause));
  const run = cause?.type === 'run' ? (cause as Run) : null;
  if (effect !== null && run !== null) {
    const found = await sayingOf(ground, question, effect, run);
    if (found !== null) return answered(saidBy(ground, question, found, effect));
  }
  const standing = await standingWord(ground, question);
  if (standing !== null) return answered(saidBy(ground, question, standing, effect));
  if (effect !== null && run !== null) {
    // A value stays when its rule falls silent: what the rule said then is still what decided it.
    const then =
      question.aspect === 'value' ? await saidIn(ground, run, question, effect.line) : null;
    return answered(
      then === null
        ? await silenced(ground, question, effect, run)
        : saidBy(ground, question, { ...then, isPast: true }, effect),
    );
  }
  return answered((await cellWithRow(ground, question)) ?? byNobody(ground, question));
}

/** Where the script that an effect is of said it; the rule whose word shows again. */
async function sayingOf(
  ground: Ground,
  question: Question,
  effect: Effect,
  run: Run,
): Promise<Saying | null> {
  if (effect.again !== undefined) return saidByRule(ground, effect.again, question);
  if (effect.withdrawn === true) return null;
  const row = inRow(question.part);
  if (run.sort === 'rule')
    return (
      (await saidByRule(ground, run, question)) ??
      // A rule that gives a rows field its value gives it to the cells.
      (row === null || question.aspect !== 'value'
        ? null
        : saidByRule(ground, run, { part: row.rows, aspect: 'value', before: question.before }))
    );
  // What is not said of the part itself: `form.clear()`, the value of a rows field, what a row was added with.
  return (
    (await saidIn(ground, run, question, effect.line)) ??
    placed(ground, run, { entry: effect.n, line: effect.line })
  );
}

/** Who says what stands without having changed anything by it: no effect tells of that. */
async function standingWord(ground: Ground, question: Question): Promise<Saying | null> {
  if (question.aspect === 'value') return null;
  const look = await ground.lookBefore(question.before);
  const layers = ownOf(ownOf(look?.layers, question.part), question.aspect);
  const winner = layers?.rules.at(-1);
  if (winner !== undefined) return saidByRule(ground, winner, question);
  return layers?.handler === undefined ? null : saidByHandler(ground, question, layers.handler);
}

function saidBy(
  ground: Ground,
  { part, aspect, before }: Question,
  saying: Saying & { isPast?: true },
  effect: Effect | null,
): Decision {
  const { tape } = ground;
  const { run, instance, isPast } = saying;
  const said = instance.said.findLast((one) => one.part === part && one.aspect === aspect);
  const failed = run.sort === 'rule' ? failedSince(ground, run, run, before) : null;
  // A rule holds: what it read stands as it did, or it would have run again. A handler saw what stood before it spoke.
  const asOf =
    run.sort === 'handler'
      ? (effect?.n ?? run.n + 1)
      : failed === null && isPast !== true
        ? before
        : run.n;
  return {
    ...nobodys(part, aspect, effect?.to ?? said?.value ?? null, 'said'),
    entry: effect?.n ?? run.n,
    step: tape.stepOf(run),
    ...explained(ground, saying, asOf),
    takenBack: failed,
  };
}

function byNoScript(ground: Ground, effect: Effect, cause: Entry | null): Decision {
  const { tape } = ground;
  const { part, aspect, to, n } = effect;
  const base = {
    ...nobodys(part, aspect, to, 'entered'),
    entry: n,
    step: tape.stepOf(effect),
    asOf: n,
  };
  if (effect.by !== 'form') return base;
  const around = partsAround(ground.form, part);
  // What made the form correct it: options that changed, or something that was hidden, just before.
  const causes: Cause[] = tape.entries
    .filter(
      (entry): entry is Effect =>
        entry.type === 'effect' &&
        entry.n < n &&
        entry.n > (cause?.n ?? tape.since) &&
        !tape.isStruck(entry) &&
        ((entry.part === part && entry.aspect === 'options') ||
          (entry.aspect === 'shown' && around.includes(entry.part))),
    )
    .map((one) => ({
      is: 'read',
      part: one.part,
      aspect: one.aspect,
      value: one.to,
      entry: one.n,
    }));
  return { ...base, decided: 'corrected', causes: causes.slice(-3) };
}

/** Nobody said anything: the record brought it, or the definition holds. */
function byNobody({ tape, form }: Ground, { part, aspect }: Question): Decision {
  if (aspect !== 'value') return nobodys(part, aspect, definedAs(form, part, aspect), 'definition');
  const opened = openedWith(tape, part);
  return nobodys(
    part,
    aspect,
    opened ?? null,
    opened !== undefined && openedRecord(tape) ? 'record' : 'definition',
  );
}
