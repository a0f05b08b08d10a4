/** Parts that wait for a script and have none. A finding of the form, not of a line. */
import type { Form } from '../../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../../form/fields';
import { actsOf, type Flow } from '../acts';

export interface PartFinding {
  code: 'idle-part';
  part: string;
  says: string;
}

export const IDLE_PART = {
  code: 'idle-part',
  title: 'A part that no script steers',
  severity: 'warning',
} as const;

/** `flows` are those of all behaviours that are on. */
export function idleParts(form: Form, flows: readonly Flow[]): PartFinding[] {
  const blocks = flows.flatMap((flow) => flow.blocks);
  const said = new Set(
    blocks.flatMap((block) =>
      actsOf(block, 'write').map(({ part, aspect }) => `${part} ${aspect}`),
    ),
  );
  const clicked = new Set(
    blocks.filter(({ event }) => event === 'click').flatMap(({ tied }) => tied),
  );
  const found: PartFinding[] = [];
  const idle = (part: string, says: string) => found.push({ code: 'idle-part', part, says });
  for (const button of form.buttons ?? [])
    if (!clicked.has(button.name))
      idle(
        button.name,
        `The button ${button.label} (${button.name}) does nothing when it is pressed: no behaviour ties on.click to it.`,
      );
  const cells = fieldsOf(form).flatMap((field) =>
    cellsOf(field).map((cell) => ({
      part: `${field.name}.${cell.name}`,
      title: cell.label,
      hidden: cell.hidden,
    })),
  );
  const all = [
    ...form.pages.map(({ name, title, hidden }) => ({ part: name, title, hidden })),
    ...sectionsOf(form).map(({ name, title, hidden }) => ({ part: name, title, hidden })),
    ...fieldsOf(form).map(({ name, label, hidden }) => ({ part: name, title: label, hidden })),
    ...cells,
    ...(form.buttons ?? []).map(({ name, label, hidden }) => ({
      part: name,
      title: label,
      hidden,
    })),
    ...(form.tracks ?? []).map(({ name, title, hidden }) => ({ part: name, title, hidden })),
  ];
  for (const { part, title, hidden } of all)
    if (hidden === true && !said.has(`${part} shown`))
      idle(part, `${title} (${part}) is hidden from the start and no behaviour ever shows it.`);
  for (const field of fieldsOf(form)) {
    // A form opened from this one may write it.
    if (
      field.scriptOnly === true &&
      (form.children ?? []).length === 0 &&
      !said.has(`${field.name} value`)
    )
      idle(
        field.name,
        `${field.label} (${field.name}) is written by scripts only, and no behaviour writes it.`,
      );
  }
  return found;
}
