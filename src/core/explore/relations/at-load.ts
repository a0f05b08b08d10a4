/** What people see after entering something, and what whoever opens the form with it saved sees. */
import { nothingLaunched } from '../../form/launch';
import { isEmpty, equal, type Value } from '../../form/value';
import { savedValues } from '../../scenario/seen';
import type { Form } from '../../form/definition';
import type { Opening } from '../../session/step';
import type { Exploration } from '../exploration';
import { columnOf } from '../part-names';
import { isSound, withoutWaits, type Ran } from '../play';
import { differencesOf, metInWords } from '../state';

/** Opened with what a session would have saved. */
function reopened(form: Form, ran: Ran): Opening {
  const { opening, seen } = ran;
  const id = opening.record?.id ?? 'tried';
  return {
    ...opening,
    launch: nothingLaunched(form),
    record: { id, values: savedValues(seen, form) },
  };
}

export function atLoad(search: Exploration, ran: Ran): void {
  if (!isSound(ran) || ran.seen.replaced !== null) return;
  const { form } = search.ground;
  const untouched = search.quietly(ran.opening, []);
  const asSaved = reopened(form, untouched);
  // A saved form may well differ from a new one; what counts is what the steps add to that.
  const usual = new Set(differencesOf(form, untouched, search.quietly(asSaved, [])).map(nameOf));
  const loaded = search.play(reopened(form, ran), []);
  if (!isSound(loaded)) return;
  eachOpening(search, loaded);
  const differences = differencesOf(form, ran, loaded).filter((one) => !usual.has(nameOf(one)));
  if (differences.length === 0) return;
  // Once more by hand on the record as it is saved untouched, so that both are saved records.
  const byHand = search.quietly(asSaved, withoutWaits(ran.steps));
  const also = isSound(byHand)
    ? new Set(differencesOf(form, byHand, loaded).map(({ part, aspect }) => `${part}.${aspect}`))
    : null;
  const saved = savedValues(ran.seen, form);
  for (const { part, aspect, one, other } of differences) {
    if (also !== null && !also.has(`${part}.${aspect}`)) continue;
    const said = search.said(part, aspect, ran, loaded);
    // Filled in at load where nothing was saved; compared with what was saved; or done by pressing a button.
    const isMeant =
      (aspect === 'value' && isEmpty(saved[part] ?? null)) ||
      // A value taken from the form that opened this one may be taken again at each opening.
      (aspect === 'value' &&
        said.some(({ asked }) => asked.some((what) => what.startsWith('parent.')))) ||
      said.some(({ asked }) => asked.some((what) => /^(initial|isNew|record)\b/.test(what))) ||
      said.some(({ reads }) => reads.includes('form.changed')) ||
      ran.steps.some((step) => 'click' in step);
    search.report(
      'at-load',
      isMeant ? 'may' : 'wrong',
      { part, aspect },
      said,
      `${part} ${metInWords(aspect, one)} after this was entered, and ${metInWords(aspect, other)} when the form is opened with it saved`,
      ran,
      loaded,
      { one, other },
    );
  }
}

const nameOf = ({ part, aspect }: { part: string; aspect: string }) =>
  `${columnOf(part)}.${aspect}`;

/** Saved as opened and opened again, nothing goes on changing. */
function eachOpening(search: Exploration, loaded: Ran): void {
  const { form } = search.ground;
  const again = search.play(reopened(form, loaded), []);
  if (!isSound(again)) return;
  const saved = savedValues(loaded.seen, form);
  for (const { part, aspect, one, other } of differencesOf(form, loaded, again)) {
    if (aspect !== 'value' || isEmpty(saved[part] ?? null)) continue;
    search.report(
      'each-opening-changes',
      'wrong',
      { part, aspect },
      search.said(part, aspect, again),
      `${part} ${metInWords(aspect, one)} when it is opened and saved, and ${metInWords(aspect, other)} at the next opening`,
      again,
      null,
      { one: other, other: one },
    );
  }
}

/** A saved value that opening the record changes while it is on screen. */
export function overwrittenAtLoad(search: Exploration, opened: Ran): void {
  const { record } = opened.opening;
  if (record === null) return;
  for (const [name, part] of Object.entries(opened.parts)) {
    if (part.sort !== 'field' || !part.onScreen || (part.stray ?? null) !== null) continue;
    const was = (record.values[name] ?? null) as Value;
    if (isEmpty(was) || Array.isArray(was) || equal(was, (part.value ?? null) as Value)) continue;
    const said = search.said(name, 'value', opened);
    search.report(
      'load-overwrites',
      // What a rule computes is computed anew from what the record has, and may have been saved before the rule was.
      said.at(-1)?.sort === 'rule' ? 'may' : 'wrong',
      { part: name, aspect: 'value' },
      said,
      `${name} was saved as ${JSON.stringify(was)} and is ${JSON.stringify(part.value)} when the record is opened`,
      opened,
      null,
      { one: part.value ?? null, other: was },
    );
  }
}
