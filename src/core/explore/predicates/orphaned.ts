/** A saved value that the definition knows, and that the form as opened does not offer. */
import { isEmpty, type Value } from '../../form/value';
import type { Exploration } from '../exploration';
import { definitionOf } from '../part-names';
import type { Ran } from '../play';

export function orphaned(search: Exploration, ran: Ran): void {
  if (ran.opening.record === null) return;
  for (const [name, { orphan, onScreen, value }] of Object.entries(ran.parts)) {
    if (orphan !== true || !onScreen || isEmpty((value ?? null) as Value)) continue;
    const field = definitionOf(search.ground.form, name);
    const isKnown =
      field?.kind === 'reference' ||
      (field !== undefined &&
        'options' in field &&
        [value].flat().every((key) => field.options.some((option) => option.key === key)));
    if (isKnown)
      search.report(
        'orphaned',
        'wrong',
        { part: name, aspect: 'options' },
        search.said(name, 'options', ran),
        `${name}: the saved value ${JSON.stringify(value)} is not among the options that are offered`,
        ran,
      );
  }
}
