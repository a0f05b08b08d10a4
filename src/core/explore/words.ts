/** Findings in sentences, in the words of the form. */
import type { Opening } from '../session/step';
import { stepAtMarker, type Names } from '../tape/words';
import type { Kind, Way } from './finding';

/** What is wrong, in a few words: how lists name a kind. */
export const KIND_LABELS: Readonly<Record<Kind, string>> = {
  throws: 'A script fails',
  cycle: 'Does not settle',
  broken: 'Does not always hold',
  'dead-end': 'No way out',
  'not-back': 'Not taken back',
  'at-load': 'Differs when opened',
  'over-another': 'Left from another value',
  order: 'Depends on the order',
  'gone-leaves': 'Left from what is off screen',
  'never-shown': 'Never shown',
  'each-opening-changes': 'Changes at each opening',
  'load-overwrites': 'Overwritten when opened',
  'launched-differs': 'Differs when launched',
  'former-record': 'Left from another record',
  'same-roles-differ': 'Depends on the person',
  zone: 'Depends on the time zone',
  'order-of-rows': 'Depends on the order of rows',
  'row-touches-row': 'One row changes another',
  'removed-row': 'Left from a removed row',
  'order-of-answers': 'Depends on the order of answers',
  'late-answer': 'A late answer',
  'late-answer-overwrites': 'A late answer overwrites',
  'failure-keeps': 'Left after a failed call',
  'decided-before': 'Decided before the answer',
  'left-waiting': 'Still waiting after a failure',
  'overwrites-typed': 'Overwrites what was entered',
  orphaned: 'Saved value not offered',
  'submits-hidden': 'Saved though off screen',
  'stopped-off-screen': 'Stopped off screen',
  'silent-stop': 'Stopped without a word',
  'written-after-saving': 'Written after saving',
  'writes-invalid': 'Writes an invalid value',
  junk: 'Not for people to read',
  conflict: 'Rules disagree',
  'page-turn': 'Changed by turning the page',
  'never-shows': 'Never has an effect',
  'never-filled': 'Never filled',
  'never-offered': 'Never offered',
  'one-sided': 'Always the same',
  'no-difference': 'Makes no difference',
};

/** `new, as Ida Lund`, `record d1, as Per Holm`: how a session is opened. */
function openedInWords({ record, person, launch, zone, parent, viewing }: Opening): string {
  const given = Object.entries(launch).filter(([, value]) => value !== null);
  const launched =
    given.length === 0 ? '' : `, launched with ${JSON.stringify(Object.fromEntries(given))}`;
  const where = zone === undefined ? '' : `, in ${zone}`;
  const from = parent == null ? '' : `, from ${parent.form} ${parent.record}`;
  const looking = viewing === true ? ', to look at' : '';
  return `${record === null ? 'new' : `record ${record.id}`}, as ${person.name}${from}${looking}${launched}${where}`;
}

/** What is done, step by step, with what stands between the steps. */
export function wayInWords({ opening, steps }: Way, names: Names, between = '; '): string {
  const done = steps.map((step) => {
    const [what, how] = stepAtMarker(step, names);
    return how === '' ? what : `${what}: ${how}`;
  });
  return [openedInWords(opening), ...done].join(between);
}
