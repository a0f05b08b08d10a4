/** Turning to another page and back: what stood stays, and doing it twice is the same as once. */
import type { Opening } from '../../session/step';
import type { Exploration } from '../exploration';
import { containersOf } from '../../form/outline';
import { wholeOf } from '../part-names';
import { isSound, type HeldStep, type Ran } from '../play';
import { differencesOf, metInWords, type Met } from '../state';

/** Aspects that must not depend on whether the page has been turned. Scripts may well compute values and texts when it is. */
const STANDS: ReadonlySet<Met> = new Set(['onScreen', 'editable', 'required', 'options']);

/** Turns through the pages from a state, each time there and back. */
export function aroundPages(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
): void {
  const base = search.play(opening, before);
  const { page } = base.seen;
  if (!isSound(base) || page === null) return;
  for (const { name } of search.ground.form.pages)
    if (name !== page && base.parts[name]?.onScreen === true)
      thereAndBack(search, opening, before, base, { page, to: name });
}

/** The turn that brings somebody to the page of a field; none where that is the one they are on, or is not to be seen. */
export function toPageOf(
  search: Exploration,
  opening: Opening,
  { address }: { address: string },
): HeldStep[] {
  const { seen, parts } = search.quietly(opening, []);
  const page = containersOf(search.ground.form, address).at(-1);
  const isThere = page === undefined || page === seen.page;
  return isThere || parts[page]?.onScreen !== true ? [] : [{ turnTo: page }];
}

/** Every page after the other, as somebody fills them in. */
export function throughPages(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
): void {
  let steps = [...before];
  for (const { name } of search.ground.form.pages) {
    const now = search.quietly(opening, steps);
    if (now.seen.page === name || now.parts[name]?.onScreen !== true) continue;
    steps = [...steps, { turnTo: name }];
    const turned = search.play(opening, steps);
    if (turned.seen.page !== name) return;
  }
}

function thereAndBack(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  base: Ran,
  { page, to }: { page: string; to: string },
): void {
  const there: HeldStep = { turnTo: to };
  const back: HeldStep = { turnTo: page };
  if (search.play(opening, [...before, there]).seen.page !== to) return;
  const once = search.play(opening, [...before, there, back]);
  const twice = search.quietly(opening, [...before, there, back, there, back]);
  if (!isSound(once) || once.seen.page !== page) return;
  tell(search, page, once, base, (aspect) => STANDS.has(aspect));
  if (isSound(twice) && twice.seen.page === page) tell(search, null, twice, once, () => true);
}

/** `page` where only what stands on it counts. */
function tell(
  search: Exploration,
  page: string | null,
  turned: Ran,
  before: Ran,
  counts: (aspect: Met) => boolean,
): void {
  const { form } = search.ground;
  const isOnPage = (part: string) => {
    const on = containersOf(form, wholeOf(part)).at(-1);
    return on !== undefined && (page === null || on === page) && !search.buttons.includes(part);
  };
  for (const { part, aspect, one, other } of differencesOf(form, turned, before)) {
    if (!counts(aspect) || !isOnPage(part)) continue;
    search.report(
      'page-turn',
      'wrong',
      { part, aspect },
      search.said(part, aspect, turned),
      `${part} ${metInWords(aspect, one)} once the page was turned there and back, and ${metInWords(aspect, other)} before`,
      turned,
      before,
      { one, other },
    );
  }
}
