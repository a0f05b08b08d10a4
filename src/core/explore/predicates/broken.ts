/** An invariant that does not hold after a step. */
import type { Exploration } from '../exploration';
import type { Ran } from '../play';

export function broken(search: Exploration, ran: Ran): void {
  for (const { title, behaviour, line, row } of ran.broken)
    search.report(
      'broken',
      'wrong',
      { part: `${behaviour}:${line}`, aspect: title },
      [{ behaviour, line }],
      `“${title}” does not hold${row === null ? '' : ' for a row'}.`,
      ran,
    );
}
