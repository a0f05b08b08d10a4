/**
 * A value that a person entered, off screen now and saved all the same. A definition that says `whenHidden` itself has
 * decided about it; where it says nothing, nobody has.
 */
import type { Value } from '../../form/value';
import type { Exploration } from '../exploration';
import { definitionOf, wholeOf } from '../part-names';
import type { Ran } from '../play';
import { isUntouched } from '../state';

export function hiddenValues(search: Exploration, ran: Ran): void {
  const entered = new Set(
    ran.steps.flatMap((step) =>
      'set' in step ? [wholeOf(step.set)] : 'addRow' in step ? [step.addRow] : [],
    ),
  );
  for (const name of entered) {
    const part = ran.parts[name];
    const field = definitionOf(search.ground.form, name);
    if (part === undefined || part.onScreen || field?.whenHidden !== undefined) continue;
    const value = (part.value ?? null) as Value;
    const isNothing =
      field?.kind === 'rows'
        ? (ran.seen.rows[name]?.order.length ?? 0) === 0
        : isUntouched(search.ground.form, name, value);
    const lines = search.said(name, 'onScreen', ran);
    if (isNothing || lines.length === 0) continue;
    search.report(
      'submits-hidden',
      'wrong',
      { part: name, aspect: 'hiddenValue' },
      lines,
      `${name} is off screen and is saved with ${field?.kind === 'rows' ? 'its rows' : JSON.stringify(value)}`,
      ran,
    );
  }
}
