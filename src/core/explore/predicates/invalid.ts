/** A value that a script writes and that the definition finds fault with, though everything that was entered is valid. */
import { isEmpty, type Value } from '../../form/value';
import { isValid } from '../drivers';
import type { Exploration } from '../exploration';
import { definitionOf } from '../part-names';
import type { Ran } from '../play';

export function invalid(search: Exploration, ran: Ran): void {
  const { form } = search.ground;
  const written = ran.said.filter(({ aspect, to }) => aspect === 'value' && !isEmpty(to));
  if (written.length === 0) return;
  const isSoundInput = ran.steps.every((step) => {
    if (!('set' in step)) return !('addRow' in step);
    const field = definitionOf(form, step.set);
    return isEmpty(step.to) || (field !== undefined && isValid(field, step.to));
  });
  if (!isSoundInput || ran.opening.record !== null) return;
  for (const said of written) {
    const field = definitionOf(form, said.part);
    const now = (ran.parts[said.part]?.value ?? null) as Value;
    if (field === undefined || field.kind === 'rows' || isEmpty(now) || isValid(field, now))
      continue;
    search.report(
      'writes-invalid',
      'wrong',
      { part: said.part, aspect: 'value' },
      [said],
      `${said.part}: a script writes ${JSON.stringify(now)}, which the definition refuses`,
      ran,
    );
  }
}
