/** A submission that is stopped where nobody can see it, or without a word. */
import type { Exploration } from '../exploration';
import { submitLines, type Ran } from '../play';

export function stops(search: Exploration, ran: Ran): void {
  const { submit } = ran.seen;
  if (submit === null || submit.saved || !('submit' in (ran.steps.at(-1) ?? {}))) return;
  const lines = submitLines(ran);
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
