/** What stood right before a moment, as far as the tape and the definition tell. */
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../form/fields';
import type { Value } from '../form/value';
import type { Entry } from '../session/entries';
import { basesOf, ROW_BASES } from '../session/parts';
import { FORM } from '../session/tree';
import type { Effect, Tape } from '../tape/tape';
import { inRow, type Question } from './question';

/** The last effect on an aspect before a moment that shows; null when there was none since the record was opened. */
export function effectBefore(tape: Tape, { part, aspect, before }: Question): Effect | null {
  return (
    tape
      .lifeOf(part)
      .findLast(
        (effect) =>
          effect.aspect === aspect &&
          effect.covered !== true &&
          (before === null || effect.n < before),
      ) ?? null
  );
}

/** The last entry of a type since the record was opened and before a moment, without what was taken back. */
export function lastEntry<T extends Entry['type']>(
  tape: Tape,
  type: T,
  before: number | null,
): Extract<Entry, { type: T }> | null {
  const found = tape.entries.findLast(
    (entry) =>
      entry.type === type &&
      entry.n > tape.since &&
      (before === null || entry.n < before) &&
      !tape.isStruck(entry),
  );
  return (found as Extract<Entry, { type: T }> | undefined) ?? null;
}

/** What was said of an aspect, or what the definition or the record has where nobody said anything. */
export function standingBefore(
  { tape, form }: { tape: Tape; form: Form },
  question: Question,
): Value {
  const effect = effectBefore(tape, question);
  if (effect !== null) return effect.to;
  const { part, aspect } = question;
  return aspect === 'value' ? (openedWith(tape, part) ?? null) : definedAs(form, part, aspect);
}

/** What the record brought, or the definition gave, to a field when it was opened; undefined for what has no value. */
export function openedWith(tape: Tape, part: string): Value | undefined {
  const opened = tape.entries.findLast((entry) => entry.type === 'opened');
  if (opened?.type !== 'opened') return undefined;
  return Object.hasOwn(opened.values, part) ? opened.values[part] : undefined;
}

/** Whether a record was open, and not a new entry. */
export function openedRecord(tape: Tape): boolean {
  const opened = tape.entries.findLast((entry) => entry.type === 'opened');
  return opened?.type === 'opened' && opened.record !== null;
}

/** What the definition says of an aspect. */
export function definedAs(form: Form, part: string, aspect: string): Value {
  const within = inRow(part);
  const name = within?.rows ?? part;
  const field = fieldsOf(form).find((one) => one.name === name);
  const bases =
    within === null
      ? basesIn(form, name, field)
      : within.cell === null || field === undefined
        ? ROW_BASES
        : basesOf(
            'field',
            cellsOf(field).find((one) => one.name === within.cell)!,
          );
  return (bases as Readonly<Record<string, Value>> | null)?.[aspect] ?? null;
}

function basesIn(form: Form, name: string, field: Field | undefined): object | null {
  const named = <T extends { name: string }>(all: readonly T[] | undefined) =>
    all?.find((one) => one.name === name);
  if (name === FORM) return basesOf('form', form);
  if (field !== undefined) return basesOf('field', field);
  const [page, section] = [named(form.pages), named(sectionsOf(form))];
  const [button, track] = [named(form.buttons), named(form.tracks)];
  if (page !== undefined) return basesOf('page', page);
  if (section !== undefined) return basesOf('section', section);
  if (button !== undefined) return basesOf('button', button);
  return track === undefined ? null : basesOf('track', track);
}

/** A part and what is around it, from the inside: its row and rows field, its section, its page, the form. */
export function partsAround(form: Form, part: string): string[] {
  const within = inRow(part);
  const inside =
    within === null
      ? [part]
      : within.cell === null
        ? [part, within.rows]
        : [part, `${within.rows}#${within.id}`, within.rows];
  const name = inside.at(-1)!;
  for (const page of form.pages) {
    if (page.name === name) return [...inside, FORM];
    for (const section of page.sections) {
      if (section.name === name) return [...inside, page.name, FORM];
      if (section.fields.some((field) => field.name === name))
        return [...inside, section.name, page.name, FORM];
    }
  }
  return [...inside, FORM];
}

/** Whether a part was on screen before a moment: it and all around it were shown. */
export function wasOnScreen(
  on: { tape: Tape; form: Form },
  part: string,
  before: number | null,
): boolean {
  return hiddenAround(on, part, before).length === 0;
}

/** Which of a part and those around it were hidden before a moment. */
export function hiddenAround(
  on: { tape: Tape; form: Form },
  part: string,
  before: number | null,
): string[] {
  return partsAround(on.form, part).filter(
    (one) => one !== FORM && standingBefore(on, { part: one, aspect: 'shown', before }) === false,
  );
}
