/** About the form as a whole: which page is open, and the last message. */
import { nameOnTape } from '../scenario/seen';
import type { Entry } from '../session/entries';
import { FORM } from '../session/tree';
import type { Run } from '../tape/tape';
import { nobodys, runMet, type Decision } from './decision';
import { causeOfRead, explained, runCauses } from './explained';
import type { Ground } from './ground';
import type { Question } from './question';
import { placed } from './saying';
import { lastEntry } from './standing';
import { behindFault, stoppedIn } from './submission-asked';

/** The page that is open: who turned to it. */
export async function aboutPage(ground: Ground, { aspect, before }: Question): Promise<Decision> {
  const { tape } = ground;
  const turned = lastEntry(ground.tape, 'page', before);
  const inVain = await turnInVain(ground, turned, before);
  if (inVain !== null) return inVain;
  // The opening turns to the first page that is shown.
  const cause = turned === null ? null : tape.causeOf(turned);
  if (turned === null || cause === null || cause.type === 'opened') {
    const page = turned?.to ?? ground.form.pages[0]?.name ?? null;
    return nobodys(FORM, aspect, page, 'definition');
  }
  const decision = { ...nobodys(FORM, aspect, turned.to, 'entered'), ...at(ground, turned) };
  if (cause.type === 'run') return byScript(ground, decision, turned, cause as Run);
  const byPerson = cause.type === 'step' && 'turnTo' in cause.step;
  if (byPerson) return decision;
  const hidden = turned.from;
  return {
    ...decision,
    decided: 'corrected',
    asOf: turned.n,
    causes:
      hidden === null
        ? []
        : [{ is: 'read', part: hidden, aspect: 'shown', value: false, entry: null }],
  };
}

/** A turn of the page since the last one that was done, which a check or a handler stopped; null where there is none. */
async function turnInVain(
  ground: Ground,
  turned: (Entry & { type: 'page' }) | null,
  before: number | null,
): Promise<Decision | null> {
  const { tape, form } = ground;
  const step = tape.entries.findLast(
    (entry) =>
      entry.type === 'step' &&
      'turnTo' in entry.step &&
      entry.n > (turned?.n ?? -1) &&
      (before === null || entry.n < before),
  );
  if (step === undefined) return null;
  const page = turned?.to ?? form.pages[0]?.name ?? null;
  const decision = {
    ...nobodys(FORM, 'page', page, 'checked'),
    entry: step.n,
    step: tape.stepOf(step),
    asOf: step.n,
  };
  const refused = tape.childrenOf(step).find(({ type }) => type === 'refused');
  if (refused?.type === 'refused')
    return { ...decision, decided: 'refused', refused: { entry: step.n, why: refused.why } };
  const stopped = await stoppedIn(ground, step, null);
  if (stopped !== null) return { ...decision, ...stopped };
  const checked = tape.childrenOf(step).find(({ type }) => type === 'checked');
  if (checked?.type !== 'checked' || checked.faults.length === 0) return null;
  const look = await ground.lookBefore(checked.n);
  return {
    ...decision,
    causes: checked.faults
      .slice(0, MOST_FAULTS)
      .flatMap(({ part, says }) =>
        behindFault(ground, look === null ? part : nameOnTape(look, part), says, checked.n),
      ),
  };
}

/** At most so many faults are named. */
const MOST_FAULTS = 10;

/** The last message that a handler gave. */
export async function aboutMessages(
  ground: Ground,
  { aspect, before }: Question,
): Promise<Decision> {
  const message = lastEntry(ground.tape, 'message', before);
  if (message === null) return nobodys(FORM, aspect, null, 'never');
  const decision = { ...nobodys(FORM, aspect, message.text, 'said'), ...at(ground, message) };
  const cause = ground.tape.causeOf(message);
  return cause?.type === 'run'
    ? byScript(ground, decision, message, cause as Run)
    : { ...decision, decided: 'corrected' };
}

/** Whether anything differs from what was opened or saved: the fields that do. */
export async function aboutChanged(
  ground: Ground,
  { aspect, before }: Question,
): Promise<Decision> {
  const { tape } = ground;
  const look = await ground.lookBefore(before);
  const differing = Object.keys(look?.initial ?? {});
  return {
    ...nobodys(FORM, aspect, differing.length > 0, 'derived'),
    asOf: before,
    causes: differing.map((part) =>
      causeOfRead(tape, { part, aspect: 'value', value: look!.parts[part]?.value ?? null }, before),
    ),
  };
}

function at({ tape }: Ground, entry: Entry): Pick<Decision, 'entry' | 'step'> {
  return { entry: entry.n, step: tape.stepOf(entry) };
}

async function byScript(
  ground: Ground,
  decision: Decision,
  entry: Extract<Entry, { type: 'page' | 'message' }>,
  run: Run,
): Promise<Decision> {
  const found = await placed(ground, run, { entry: entry.n, line: entry.line });
  const said = { ...decision, decided: 'said' as const, run: runMet(run), line: entry.line };
  if (found === null) return { ...said, causes: runCauses(ground.tape, run) };
  return { ...said, ...explained(ground, found, entry.n), line: entry.line };
}
