/** What holds of a part as a clause, the question why it does, and what a line said of it. */
import { counted } from '../counted';
import type { Value } from '../form/value';
import { isSaid, type SaidName } from '../wire/aspects';
import type { SubmitOutcome } from '../session/step';
import { FORM } from '../session/tree';
import { becameInWords, valueInWords, type Names } from '../tape/words';
import { capital, quotedValue } from './pieces';
import { invariantIn, summedIn, type Question } from './question';

/** What holds of a part, as a clause: `Pilot is hidden`, `Pilot has the hint “…”`. */
export function standsInWords(
  names: Names,
  { part, aspect }: Pick<Question, 'part' | 'aspect'>,
  value: Value,
): string {
  const name = capital(names.part(part));
  switch (aspect) {
    case 'hint':
    case 'warning':
    case 'problem':
      return value === null
        ? `${name} has no ${aspect}`
        : `${name} has the ${aspect} “${valueInWords(value)}”`;
    case 'label':
      return `${name} has the label “${valueInWords(value)}”`;
    case 'options':
      return Array.isArray(value)
        ? `${name} offers ${counted(value.length, 'option')}`
        : `${name} offers all its options`;
    case 'onScreen':
      return `${name} is ${value === true ? 'on' : 'off'} screen`;
    case 'editable':
      return `${name} ${value === true ? 'can' : 'cannot'} be edited`;
    case 'fault':
      return value === null
        ? `Nothing is marked as wrong with ${name}`
        : `${name} is marked “${valueInWords(value)}”`;
    case 'there':
      return `${name} is ${value === true ? 'there' : 'gone'}`;
    case 'place':
      return `${name} is at this place`;
    case 'count':
    case 'order':
      return `${name} has ${rowsOrNone(aspect === 'count' ? Number(value) : lengthOf(value))}`;
    case 'changed':
      return value === true ? `${name} has changes that are not saved` : `${name} has no changes`;
    case 'page':
      return value === null ? 'No page is open' : `${names.part(String(value))} is open`;
    case 'messages':
      return value === null
        ? 'No message was given'
        : `The last message is “${valueInWords(value)}”`;
    case 'message':
      return value === null
        ? `${name} has no message`
        : `${name} has ${becameInWords(aspect, value)}`;
    case 'outcome':
      return value === null
        ? 'Nobody has submitted the form'
        : typeof value === 'string'
          ? 'The form was not submitted'
          : (value as unknown as SubmitOutcome).saved
            ? `Saved as ${(value as unknown as SubmitOutcome).id}`
            : 'Not saved';
  }
  const invariant = invariantIn(aspect);
  if (invariant !== null)
    return value === null
      ? `“${invariant}” was never asked`
      : `“${invariant}” ${value === true ? 'holds' : 'does not hold'}${rowOf(names, part)}`;
  const summed = summedIn(aspect);
  if (summed !== null)
    return `The sum of ${names.part(`${part}.${summed}`)} in ${name} is ${valueInWords(value)}`;
  if (aspect === 'value' && isRows(value)) return `${name} has ${rowsOrNone(lengthOf(value))}`;
  if (aspect === 'value' || aspect === 'values')
    return `${name} is ${value === null ? 'empty' : valueInWords(value)}`;
  // A new aspect has no words yet, and is told all the same.
  return isSaid(aspect)
    ? `${name} is ${becameInWords(aspect, value)}`
    : `${name}, ${aspect}, is ${valueInWords(value)}`;
}

/** The row that an invariant is asked for; nothing where it is asked for the form. */
const rowOf = (names: Names, part: string) => (part === FORM ? '' : ` for ${names.part(part)}`);

export function isRows(value: Value): value is readonly Value[] {
  return Array.isArray(value) && typeof value[0] === 'object' && value[0] !== null;
}

const lengthOf = (value: Value): number => (Array.isArray(value) ? value.length : 0);

const rowsOrNone = (count: number): string => (count === 0 ? 'no rows' : counted(count, 'row'));

/** The question why it stands so. */
export function questionInWords(
  names: Names,
  about: Pick<Question, 'part' | 'aspect'>,
  value: Value,
): string {
  const clause = standsInWords(names, about, value);
  const invariant = invariantIn(about.aspect);
  if (invariant !== null)
    return value === null
      ? `Why was “${invariant}” never asked?`
      : `Why does “${invariant}” ${value === true ? 'hold' : 'not hold'}${rowOf(names, about.part)}?`;
  const verb = / (is|has|offers|can|cannot) /.exec(clause);
  if (about.aspect === 'outcome')
    return value === null || typeof value === 'string'
      ? 'Why was it not submitted?'
      : `Why was it ${clause.charAt(0).toLowerCase()}${clause.slice(1)}?`;
  if (verb === null) return `Why: ${clause}?`;
  const subject = clause.slice(0, verb.index);
  const rest = clause.slice(verb.index + verb[0].length);
  const asked = about.part === FORM || summedIn(about.aspect) !== null ? lowered(subject) : subject;
  switch (verb[1]) {
    case 'is':
      return `Why is ${asked} ${rest}?`;
    case 'can':
    case 'cannot':
      return `Why ${verb[1]} ${asked} ${rest}?`;
    default:
      return `Why does ${asked} ${verb[1] === 'has' ? 'have' : 'offer'} ${rest}?`;
  }
}

const lowered = (text: string): string => text.replace(/^The /, 'the ');

/** What a line said of an aspect: `set it empty`, `said "Long."`, `said that it is required`. */
export function saidInWords(aspect: string, value: Value): string {
  if (aspect === 'value')
    return value === null ? 'set it empty' : `set it to ${quotedValue(value)}`;
  if (value === null)
    return aspect === 'options' ? 'gave it all its options' : `took its ${aspect} away`;
  if (typeof value === 'boolean')
    return `said that it is ${becameInWords(aspect as SaidName, value)}`;
  if (aspect === 'options') return `gave it ${becameInWords('options', value)}`;
  return `said ${quotedValue(value)}`;
}
