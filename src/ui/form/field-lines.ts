/** How the fields of a section stand beside and below each other. */
import type { Field, Section } from '@/core/form/definition';
import type { Seen } from '@/core/scenario/seen';

/** The columns that the fields of a section stand in. */
export function columnsOf(section: Section): number {
  return section.columns ?? 2;
}

/** The lines a section is set in: full fields by themselves, half ones as many as there are columns; hidden ones close up. */
export function linesOf(section: Section, seen: Seen): Field[][] {
  const lines: Field[][] = [];
  for (const field of section.fields) {
    if (!seen.parts[field.name]?.onScreen && !field.keepsSpace) continue;
    const last = lines.at(-1);
    if (
      field.width === 'half' &&
      last !== undefined &&
      last.length < columnsOf(section) &&
      last[0]!.width === 'half'
    )
      last.push(field);
    else lines.push([field]);
  }
  return lines;
}
