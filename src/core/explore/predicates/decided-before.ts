/** Something was read before a call, changed by a person while the call was open, and what follows still goes by the old value. */
import type { Exploration } from '../exploration';
import type { Ran } from '../play';

export function decidedBefore(search: Exploration, ran: Ran): void {
  for (const { part, said } of ran.decidedBefore)
    search.report(
      'decided-before',
      'wrong',
      { part, aspect: 'value' },
      said,
      `${part} was changed while a call was open; what is said after the answer (${said[0]!.part}, ${said[0]!.aspect}) goes by what it was before`,
      ran,
    );
}
