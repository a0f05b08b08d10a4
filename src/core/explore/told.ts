/** A finding told to people: what happens to whom, and what they would meet otherwise, in the labels of the form. */
import type { Option } from '../form/definition';
import { indexOf } from '../form/table-index';
import { isEmpty, type Value } from '../form/value';
import { kindOfStep, type Step } from '../session/step';
import { stepInWords, valueInWords, type Names } from '../tape/words';
import { opensOwnRecord, type Finding, type Kind, type Way } from './finding';
import type { Ground } from './ground';
import { definitionOf } from './part-names';
import { metInWords, type Met } from './state';

/** Begins the second sentence, on the session that a finding is compared with. */
const OTHERWISE: Partial<Record<Kind, string>> = {
  'not-back': 'If that is left alone,',
  'over-another': 'If the last value is set straight away,',
  order: 'In the other order,',
  'gone-leaves': 'If that is not filled in first,',
  'at-load': 'When the form is opened with the same saved,',
  'each-opening-changes': 'It was saved when',
  'load-overwrites': 'It was saved when',
  'launched-differs': 'When the same is typed,',
  'former-record': 'When that record is opened by itself,',
  'same-roles-differ': 'For somebody else with the same roles,',
  zone: 'In UTC at the same time of day,',
  'removed-row': 'Without that row,',
  'row-touches-row': 'With the rows the other way,',
  'order-of-rows': 'With the rows in the other order,',
  'order-of-answers': 'When only the last answer comes,',
  'failure-keeps': 'When the call fails at once,',
  'late-answer': 'When that is entered before the call,',
  'late-answer-overwrites': 'What was entered is lost:',
  'left-waiting': 'When the call is answered,',
  'written-after-saving': 'It was saved when',
  'page-turn': 'Before the page was turned,',
};

/** What somebody meets in kinds that compare nothing. */
const MEETS: Partial<Record<Kind, string>> = {
  throws: 'meets a script that fails',
  cycle: 'meets scripts that go round in circles',
  'dead-end': 'cannot submit the form, whatever is entered',
  'stopped-off-screen': 'is stopped by something that is off screen',
  'silent-stop': 'cannot submit the form and is not told why',
};

/** What the labels of parts and values are taken from. */
export type Known = Pick<Ground, 'form' | 'tables'>;

/** One or two sentences. `quoted` spells a value of a field as people read it. */
export function told(finding: Finding, known: Known, names: Names): string {
  const { kind, part, aspect, met, says, way } = finding;
  const who = whoIn(way, known, names);
  const label = names.part(part);
  if (met !== null) {
    const otherwise = OTHERWISE[kind];
    const first = `${who} ${meets(aspect as Met, met.one, label, part, known)}.`;
    if (otherwise === undefined) return first;
    const then = `${label} ${inLabels(aspect as Met, met.other, part, known)}`;
    return `${first} ${otherwise} ${then}.`;
  }
  const what = MEETS[kind];
  if (what !== undefined) return sentence(`${who} ${what}: ${says}`);
  if (kind === 'submits-hidden') return `${who} saves ${label} though it is off screen.`;
  if (kind === 'never-shown') return sentence(`Nobody ever sees ${label}: ${says}`);
  return sentence(`${label}: ${says.replace(`${part}: `, '').replace(`${part} `, '')}`);
}

export const sentence = (text: string) => (/[.!?]”?$/.test(text) ? text : `${text}.`);

/** `Whoever sets Pilot to Own pilot, then presses Send`. */
export function whoIn({ opening, steps }: Way, known: Known, names: Names): string {
  const done = steps
    .filter((step) => !('wait' in step))
    .map((step) => doneInWords(step, known, names));
  const opened =
    opening.record === null
      ? 'opens the form'
      : opensOwnRecord(opening)
        ? 'opens a record that was saved before'
        : `opens record ${opening.record.id}`;
  if (done.length === 0) return `Whoever ${opened}`;
  return `Whoever ${opening.record === null ? '' : `${opened} and `}${done.join(', then ')}`;
}

/** A step by its own verb, without whoever does it. */
function doneInWords(step: Step, known: Known, names: Names): string {
  if ('set' in step)
    return isEmpty(step.to)
      ? `empties ${names.part(step.set)}`
      : definitionOf(known.form, step.set)?.kind === 'file'
        ? `adds a file to ${names.part(step.set)}`
        : `sets ${names.part(step.set)} to ${valueOf(step.set, step.to, known)}`;
  if ('answer' in step)
    return `gets ${step.fails === undefined ? 'the' : 'no'} answer of ${step.answer}`;
  const text = stepInWords(step, names, '').trim();
  const [verb, ...rest] = text.split(' ');
  return kindOfStep(step) === 'fromChild' ? text : [PRESENT[verb!] ?? verb, ...rest].join(' ');
}

const PRESENT: Readonly<Record<string, string>> = {
  typed: 'types',
  went: 'goes',
  left: 'leaves',
  pressed: 'presses',
  turned: 'turns',
  added: 'adds',
  removed: 'removes',
  moved: 'moves',
  submitted: 'submits',
};

/** What somebody meets at a part, behind `Whoever …`. */
export function meets(
  aspect: Met,
  value: unknown,
  label: string,
  part: string,
  known: Known,
): string {
  switch (aspect) {
    case 'required':
      return value === true ? `has to fill in ${label}` : `does not have to fill in ${label}`;
    case 'onScreen':
      return value === true ? `sees ${label}` : `does not see ${label}`;
    case 'editable':
      return value === true ? `can change ${label}` : `cannot change ${label}`;
    case 'value':
      return value === null
        ? `finds ${label} empty`
        : `finds ${valueOf(part, value as Value, known)} in ${label}`;
    case 'hiddenValue':
      return `saves ${valueOf(part, value as Value, known)} in ${label}, which is off screen`;
    case 'hint':
    case 'warning':
    case 'problem':
      return value === null
        ? `is given no ${aspect} at ${label}`
        : `reads the ${aspect} “${valueInWords(value)}” at ${label}`;
    default:
      return `finds that ${label} ${metInWords(aspect, value)}`;
  }
}

/** What a part is, behind its label. */
export function inLabels(aspect: Met, value: unknown, part: string, known: Known): string {
  return aspect === 'value' && value !== null
    ? `is ${valueOf(part, value as Value, known)}`
    : metInWords(aspect, value);
}

/** A value as people read it: the labels of keys, Yes and No. */
function valueOf(part: string, value: Value, known: Known): string {
  const options = optionsOf(part, known);
  const read = (one: Value): string => {
    if (one === true) return 'Yes';
    if (one === false) return 'No';
    return options.find(({ key }) => key === one)?.label ?? valueInWords(one);
  };
  return Array.isArray(value) && value.every((one) => typeof one === 'string')
    ? value.length === 0
      ? 'nothing'
      : value.map(read).join(' and ')
    : read(value);
}

/** The keys that a field takes, with their labels; none where it takes other values. */
function optionsOf(part: string, { form, tables }: Known): readonly Option[] {
  const field = definitionOf(form, part);
  if (field?.kind === 'reference') {
    const table = tables.find(({ name }) => name === field.table);
    return table === undefined ? [] : indexOf(table).options;
  }
  return field !== undefined && 'options' in field ? field.options : [];
}
