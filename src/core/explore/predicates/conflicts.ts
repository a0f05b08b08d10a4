/** Two rules say different things of one aspect. Which of them wins may well be meant. */
import type { Exploration } from '../exploration';
import type { Ran } from '../play';

export function conflicts(search: Exploration, ran: Ran): void {
  for (const { part, aspect, between } of ran.conflicts)
    search.report(
      'conflict',
      'may',
      { part, aspect },
      search.said(part, aspect, ran),
      `${between.join(' and ')} say different things of ${part}`,
      ran,
    );
}
