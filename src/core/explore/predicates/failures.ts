/** A run that failed, but for the failure of a service, which a search brings about itself; and a step that did not settle. */
import type { Exploration } from '../exploration';
import type { Ran } from '../play';

export function failures(search: Exploration, ran: Ran): void {
  for (const { code, behaviour, line, says } of ran.failures) {
    if (code === 'service') continue;
    search.report(
      code === 'cycle' ? 'cycle' : 'throws',
      'wrong',
      { part: `${behaviour}:${line}`, aspect: code },
      [{ behaviour, line }],
      says,
      ran,
    );
  }
}
