/** A submission or a turn of the page that is stopped where nobody can see it, or without a word. */
import type { Exploration } from '../exploration';
import { stopLines, type Ran } from '../play';

export function stops(search: Exploration, ran: Ran): void {
  const last = ran.steps.at(-1);
  if (last === undefined) return;
  if ('submit' in last) submission(search, ran);
  if ('turnTo' in last) turn(search, ran, last.turnTo);
}

/** Nothing happens when the page is turned, and nothing on it says why. */
function turn(search: Exploration, ran: Ran, page: string): void {
  const { seen, parts, failures, refused, lastMessages } = ran;
  if (seen.page === page || failures.length > 0 || refused.length > 0) return;
  const isTold =
    lastMessages.some((text) => text.trim() !== '') ||
    Object.values(parts).some(
      ({ onScreen, fault, problem }) => onScreen && ((fault ?? problem ?? '') as string) !== '',
    );
  if (isTold || ran.stopRuns.length === 0) return;
  search.report(
    'silent-stop',
    'wrong',
    { part: page, aspect: 'stop' },
    stopLines(ran),
    `the page cannot be turned to ${page}, and nothing on the form says why`,
    ran,
  );
}

function submission(search: Exploration, ran: Ran): void {
  const { submit } = ran.seen;
  if (submit === null || submit.saved) return;
  const lines = stopLines(ran);
  for (const { part, says } of submit.stops) {
    if (part !== null && ran.parts[part]?.onScreen === false)
      search.report(
        'stopped-off-screen',
        'wrong',
        { part, aspect: 'stop' },
        lines,
        `submitting is stopped at ${part}, which is off screen: ${says}`,
        ran,
      );
    if (says.trim() === '')
      search.report(
        'silent-stop',
        'wrong',
        { part: part ?? '@form', aspect: 'stop' },
        lines,
        'submitting is stopped without a word',
        ran,
      );
  }
}
