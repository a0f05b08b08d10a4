/** What can be asked about a form in use: an aspect of a part at a moment, and what is asked about first. */
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { isToldName, SAID } from '../wire/aspects';
import type { PartState } from '../session/step';
import { FORM } from '../session/tree';
import type { Tape } from '../tape/tape';

/** An aspect of a part, before an entry of the tape; at its end when that is null. */
export interface Question {
  /** As the tape names it: rows by their id, such as `cargo#1.weight`. */
  part: string;
  aspect: string;
  before: number | null;
}

/** What submitting came to is asked of this, as scenarios spell it. */
export const SUBMISSION = '@submit';

/** What scripts can say of a part, in the order in which it is offered. */
const OF_PART = SAID.filter(isToldName);

/** What follows for a part from what was said of it and of what is around it, or from a check. */
const FOLLOWING = ['onScreen', 'editable', 'fault'] as const;

/** What can be asked of the form as a whole. */
const OF_FORM = ['message', 'messages', 'page', 'replaced'] as const;

/** Everything that can be asked of any part. */
export const ASKED_ABOUT: readonly string[] = [...OF_PART, ...FOLLOWING, ...OF_FORM, 'outcome'];

/** What can be asked of a part in this state; of the form or a submission where there is none. */
export function askedOf(part: string, state: PartState | undefined): readonly string[] {
  if (part === SUBMISSION) return ['outcome'];
  if (part === FORM) return OF_FORM;
  return [...OF_PART, ...FOLLOWING].filter((aspect) => state?.[aspect] !== undefined);
}

/** The aspect asked about first: of a hidden part why it is, else what a script decided last, else whether it is shown, or its value. */
export function usualAspect(tape: Tape, part: string, state: PartState | undefined): string {
  if (part === SUBMISSION) return 'outcome';
  if (part === FORM) return 'messages';
  if (state?.shown === false) return 'shown';
  if (state?.onScreen === false) return 'onScreen';
  if (state?.fault != null) return 'fault';
  const last = tape
    .lifeOf(part)
    // That there is no hint, or nothing wrong, is seldom what somebody wonders about.
    .findLast(
      ({ by, aspect, to }) =>
        by === 'script' &&
        OF_PART.includes(aspect as 'shown') &&
        (to !== null || aspect === 'value'),
    );
  if (last !== undefined) return last.aspect;
  return state?.value === undefined ? 'shown' : 'value';
}

/** A part that stands in rows, by the id of the row; null for any other. `cell` is null for the row itself. */
export function inRow(part: string): { rows: string; id: string; cell: string | null } | null {
  const [, rows, id, cell = null] = /^(\w+)#(\d+)(?:\.(\w+))?$/.exec(part) ?? [];
  return rows === undefined || id === undefined ? null : { rows, id, cell };
}

/** The column that an aspect sums; null for any other aspect. */
export function summedIn(aspect: string): string | null {
  return /^sum:(\w+)$/.exec(aspect)?.[1] ?? null;
}

/**
 * The title of the invariant that an aspect asks about, as in `always:no fee without a tariff`; null for any other aspect.
 * The part is the form, or the row that the invariant is asked for.
 */
export function invariantIn(aspect: string): string | null {
  return /^always:([^]+)$/.exec(aspect)?.[1] ?? null;
}

/** Whether a part is a field with rows. */
export function hasRows(form: Form, part: string): boolean {
  return fieldsOf(form).some(({ name, kind }) => name === part && kind === 'rows');
}
