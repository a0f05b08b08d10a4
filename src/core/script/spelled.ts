import type { Form } from '../form/definition';
import { fieldsOf, sectionsOf } from '../form/fields';

/** How a script spells a part. */
export function spelled(form: Form, part: string): string {
  const [owner, cell] = part.replace(/#\d+/, '').split('.');
  if (cell !== undefined) return `row.fields.${cell}`;
  if (fieldsOf(form).some(({ name }) => name === owner)) return `fields.${owner}`;
  if (sectionsOf(form).some(({ name }) => name === owner)) return `sections.${owner}`;
  if (form.pages.some(({ name }) => name === owner)) return `pages.${owner}`;
  return (form.tracks ?? []).some(({ name }) => name === owner)
    ? `tracks.${owner}`
    : `buttons.${owner}`;
}
