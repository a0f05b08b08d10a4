/** A field set there and back, over another value, and in the other order than a second one. */
import { equal, type Value } from '../../form/value';
import { fieldsOf } from '../../form/fields';
import { isPicked } from '../../form/traits';
import type { Opening } from '../../session/step';
import { someOf, type Driver } from '../drivers';
import { isOpen, offeredIn, othersIn, valueIn, type Exploration } from '../exploration';
import { columnOf, wholeOf } from '../part-names';
import { isSound, withoutWaits, type HeldStep, type Ran } from '../play';
import { differencesOf } from '../state';
import { atLoad } from './at-load';
import { sameEnd } from './same-end';

/** Fields that came up are filled in, at most so many. */
const FILLED = 4;

/**
 * Each field set from a state, `width` values of each. Round by round, so that a search that ends early has tried some of
 * every field rather than all of one.
 */
export function aroundFields(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  width: number,
): void {
  const base = search.play(opening, before);
  const around = search.inOrder(search.settable(base)).map((driver) => ({
    driver,
    values: othersIn(base, driver).slice(0, width),
  }));
  for (let round = 0; round < width; round++)
    for (const { driver, values } of around) {
      // What no script mentions has its turn every other time.
      const isMentioned = search.mentions.words.includes(driver.address);
      const value =
        isMentioned || round % 2 === 1 ? values[isMentioned ? round : (round - 1) / 2] : undefined;
      if (value === undefined) continue;
      aroundValue(search, opening, before, driver, value);
      overAnother(search, opening, before, driver, values);
    }
}

function aroundValue(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  driver: Driver,
  value: Value,
): void {
  const base = search.play(opening, before);
  const from = valueIn(base, driver.address);
  const set: HeldStep = { set: driver.address, to: value };
  const there = search.play(opening, [...before, set]);
  if (!isSound(there)) return;
  noteInfluence(search, driver, base, there);
  atLoad(search, there);
  thereAndBack(search, opening, before, { base, there, set, from });
  leftBehind(search, opening, before, there, set);
  if (isPicked(driver.field)) search.play(opening, [...before, set, { submit: true }]);
}

function overAnother(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  { address }: Driver,
  values: readonly Value[],
): void {
  const [first, second] = [search.pick(values), search.pick(values)];
  if (first === undefined || second === undefined || equal(first, second)) return;
  sameEnd(
    search,
    'over-another',
    search.play(opening, [...before, { set: address, to: first }, { set: address, to: second }]),
    search.play(opening, [...before, { set: address, to: second }]),
    `${address} set to ${JSON.stringify(first)} and then to ${JSON.stringify(second)}`,
  );
}

interface There {
  base: Ran;
  there: Ran;
  set: Extract<HeldStep, { set: string }>;
  from: Value;
}

function thereAndBack(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  { base, there, set, from }: There,
): void {
  const back: HeldStep = { set: set.set, to: from };
  const way = `${set.set} set to ${JSON.stringify(set.to)} and back`;
  const straight = search.play(opening, [...before, set, back]);
  sameEnd(search, 'not-back', straight, base, way);
  const cameUp = search
    .settable(there)
    .filter(({ address }) => !isOpen(base.parts[address]))
    .slice(0, FILLED);
  const fill = cameUp.map((one): HeldStep => ({ set: one.address, to: someOf(one, 1)[0] ?? null }));
  const rowsUp = search.rowsDrivers.filter(
    ({ name }) => isOpen(there.parts[name]) && !isOpen(base.parts[name]),
  );
  const filled = [
    ...fill,
    ...rowsUp.map((rows) => search.newRow(rows, true, opening, [...before, set, ...fill])),
  ];
  if (filled.length === 0) return;
  const end = search.play(opening, [...before, set, ...filled, back]);
  // What is still on screen is an input, and no leftover.
  const names = [...cameUp.map(({ address }) => address), ...rowsUp.map(({ name }) => name)];
  if (names.every((name) => end.parts[name]?.onScreen === false))
    sameEnd(search, 'not-back', end, base, `${way}, with what came up filled in`);
}

/** What was entered and is off screen now leaves nothing behind. */
function leftBehind(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  there: Ran,
  set: Extract<HeldStep, { set: string }>,
): void {
  const partOf = (step: HeldStep) =>
    'set' in step ? wholeOf(step.set) : 'addRow' in step ? step.addRow : null;
  const gone = new Set(
    before.flatMap((step) => {
      const part = partOf(step);
      return part !== null && there.parts[part]?.onScreen === false ? [part] : [];
    }),
  );
  if (gone.size === 0) return;
  const without = before.filter((step) => !gone.has(partOf(step) ?? ''));
  sameEnd(
    search,
    'gone-leaves',
    there,
    search.play(opening, [...without, set]),
    `${[...gone].join(', ')} filled in before ${set.set} takes it off the screen`,
  );
}

/** Notes which choices make a difference to what is computed from them. */
function noteInfluence(search: Exploration, driver: Driver, base: Ran, there: Ran): void {
  if (driver.field.kind !== 'choice' && driver.field.kind !== 'reference') return;
  if (valueIn(base, driver.address) === null || valueIn(there, driver.address) === null) return;
  const changed = new Set(
    differencesOf(search.ground.form, there, base).map(
      ({ part, aspect }) => `${columnOf(part)}.${aspect}`,
    ),
  );
  for (const { part, aspect, to, reads, behaviour, line } of there.said)
    if (aspect === 'value' && to !== null && reads.includes(`${driver.address}.value`))
      search.covered.noteInfluence(
        { from: driver.address, part, behaviour, line },
        changed.has(`${part}.value`),
      );
}

/** Two fields, mostly ones that some run asks together. */
function pairOf(search: Exploration, open: readonly Driver[]): (Driver | undefined)[] {
  const at = (name: string) => open.find(({ address }) => address === name);
  const known = [...search.covered.together.values()]
    .map((pair) => pair.map(at))
    .filter((pair) => !pair.includes(undefined));
  const pair = search.random() < 0.75 ? search.pick(known) : undefined;
  return pair === undefined
    ? [search.pick(open), search.pick(open)]
    : search.random() < 0.5
      ? pair
      : pair.toReversed();
}

/** Two fields in both orders. */
export function bothOrders(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  width: number,
): Ran | null {
  const base = search.play(opening, before);
  if (!isSound(base)) return null;
  const open = search.settable(base);
  const [a, b] = pairOf(search, open);
  if (a === undefined || b === undefined || a === b) return null;
  const valueOf = (driver: Driver) => search.pick(offeredIn(base, driver).slice(0, width));
  const [v, w] = [valueOf(a), valueOf(b)];
  if (v === undefined || w === undefined) return null;
  if (equal(v, valueIn(base, a.address)) || equal(w, valueIn(base, b.address))) return null;
  const [first, second]: HeldStep[] = [
    { set: a.address, to: v },
    { set: b.address, to: w },
  ];
  const one = search.play(opening, [...before, first!, second!]);
  const other = search.play(opening, [...before, second!, first!]);
  writtenAgain(search, one, b, w);
  writtenAgain(search, other, a, v);
  sameEnd(search, 'order', one, other, `${a.address} before ${b.address}, or after it`);
  if (isSound(one)) overwritten(search, one, other, a.address, v);
  return one;
}

/**
 * The field set last gets another value, where scripts have written: what they write over again is theirs and no input, of
 * which nobody knows before. Each field is tried a few times.
 */
function writtenAgain(search: Exploration, ran: Ran, driver: Driver, last: Value): void {
  const written = ran.said.filter(({ aspect }) => aspect === 'value');
  const to = search.pick(othersIn(ran, driver));
  if (to === undefined || equal(to, last)) return;
  if (!written.some(({ part }) => search.triesToOwn(part))) return;
  search.quietly(ran.opening, [...withoutWaits(ran.steps), { set: driver.address, to }]);
}

/** What was typed in one field is written over by what another one brings. */
function overwritten(
  search: Exploration,
  one: Ran,
  other: Ran,
  address: string,
  typed: Value,
): void {
  const over = one.said.find(
    ({ part, aspect, from, to, sort }) =>
      part === address &&
      aspect === 'value' &&
      sort === 'handler' &&
      typed !== null &&
      to !== null &&
      equal(from, typed) &&
      !equal(to, typed),
  );
  if (over === undefined) return;
  search.report(
    'overwrites-typed',
    'may',
    { part: address, aspect: 'value' },
    [over],
    `${JSON.stringify(typed)} was entered, and ${JSON.stringify(over.to)} is written over it`,
    one,
    other,
  );
}

/** What was entered last in each field, in the order of the definition; rows at the end. */
export function canonical(search: Exploration, steps: readonly HeldStep[]): HeldStep[] {
  const last = new Map<string, HeldStep>();
  const rows: HeldStep[] = [];
  for (const step of steps) {
    if ('set' in step) last.set(step.set, { set: step.set, to: step.to });
    else if ('addRow' in step) rows.push(step);
  }
  const order = fieldsOf(search.ground.form).map(({ name }) => name);
  const placeOf = (address: string) => order.indexOf(wholeOf(address));
  return [
    ...[...last].sort(([a], [b]) => placeOf(a) - placeOf(b)).map(([, step]) => step),
    ...rows,
  ];
}

/** A walk, and the same entered in the order of the definition. */
export function inOrder(search: Exploration, opening: Opening, steps: readonly HeldStep[]): void {
  sameEnd(
    search,
    'order',
    search.play(opening, steps),
    search.play(opening, canonical(search, steps)),
    'the same entered in another order',
  );
}
