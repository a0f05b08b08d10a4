/** Answers of services that come late, in another order, or not at all. Calls are answered by hand here. */
import { emptyOf } from '../../form/traits';
import { equal, isEmpty, type Value } from '../../form/value';
import type { Opening, PartState } from '../../session/step';
import { offeredIn, othersIn, valueIn, type Exploration } from '../exploration';
import { isSound, type HeldStep, type Ran } from '../play';
import { differencesOf, metInWords } from '../state';
import { sameEnd } from './same-end';

/** What makes a call: a field and its values, or a button. */
interface Trigger {
  address: string;
  step(value: Value): HeldStep;
  values: readonly Value[];
}

/** Values of one field that are tried against each other. */
const VALUES = 6;
/** Pairs of values that are tried one after the other. */
const PAIRS = 8;
/** Values of another field that are entered while a call is open. */
const MEANWHILE = 3;

export function aroundAnswers(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
): void {
  const base = search.play(opening, before);
  const { services } = search.ground;
  if (!isSound(base) || services.length === 0) return;
  const moodOfAll = <M>(mood: M) => Object.fromEntries(services.map(({ name }) => [name, mood]));
  const byHand: Opening = { ...opening, services: moodOfAll({ byHand: true }) };
  // A call of the steps before has to be answered before anything can be said about later ones.
  if (search.quietly(byHand, before).seen.waiting.length > 0) return;
  for (const trigger of triggersOf(search, base))
    aroundTrigger(search, byHand, before, base, trigger);
  const failing: Opening = { ...opening, services: moodOfAll({ fails: 'unreachable' }) };
  for (const button of search.pressable(base)) search.play(failing, [...before, { click: button }]);
}

function triggersOf(search: Exploration, base: Ran): Trigger[] {
  return [
    ...search.settable(base).map((driver) => ({
      address: driver.address,
      step: (to: Value): HeldStep => ({ set: driver.address, to, hold: true }),
      values: offeredIn(base, driver).filter((value) => !isEmpty(value)),
    })),
    ...search.pressable(base).map((name) => ({
      address: name,
      step: (): HeldStep => ({ click: name, hold: true }),
      values: [true],
    })),
  ];
}

function aroundTrigger(
  search: Exploration,
  byHand: Opening,
  before: readonly HeldStep[],
  base: Ran,
  { address, step, values }: Trigger,
): void {
  const play = (...steps: HeldStep[]) => search.play(byHand, [...before, ...steps]);
  const calls = new Map<Value, string>();
  for (const value of values) {
    const open = search.quietly(byHand, [...before, step(value)]);
    const name = open.seen.waiting
      .flatMap(({ calls: made }) => made.map((call) => call.name))
      .find((one) => one.includes('.'));
    if (name !== undefined) calls.set(value, name);
    if (calls.size >= VALUES) break;
  }
  const answered = (value: Value, which = 0): HeldStep => ({
    answer: calls.get(value)!,
    usual: true,
    which,
    hold: true,
  });
  const failed = (value: Value): HeldStep => ({
    answer: calls.get(value)!,
    fails: 'unreachable',
    hold: true,
  });
  const isButton = search.buttons.includes(address);
  const from = valueIn(base, address);
  const field = search.drivers.find((driver) => driver.address === address)?.field;
  for (const v of calls.keys()) {
    const open = play(step(v));
    const done = play(step(v), answered(v));
    const lost = butServices(play(step(v), failed(v)));
    leftWaiting(search, base, open, done, lost);
    if (isButton) {
      play(step(v), step(v), answered(v));
      continue;
    }
    if (field === undefined) continue;
    const empty: HeldStep = { set: address, to: emptyOf(field), hold: true };
    // Set back before the answer comes, and never set at all.
    if (isEmpty(from))
      sameEnd(
        search,
        'order-of-answers',
        play(step(v), empty, answered(v)),
        base,
        `${address} set to ${JSON.stringify(v)} and emptied before the answer`,
      );
  }
  if (isButton) return;
  const tried = [...calls.keys()];
  for (let i = 0; i < PAIRS; i++) {
    const [v, w] = [search.pick(tried), search.pick(tried)];
    if (v === undefined || w === undefined || equal(v, w)) continue;
    const only = play(step(w), answered(w));
    const way = `${address} set to ${JSON.stringify(v)} and then to ${JSON.stringify(w)}`;
    const same = (kind: 'over-another' | 'order-of-answers', how: string, ...steps: HeldStep[]) =>
      sameEnd(search, kind, play(...steps), only, `${way}, ${how}`);
    same('over-another', 'each answered', step(v), answered(v), step(w), answered(w));
    const second = calls.get(v) === calls.get(w) ? 1 : 0;
    same(
      'order-of-answers',
      'the second answered first',
      step(v),
      step(w),
      answered(w, second),
      answered(v),
    );
    same('order-of-answers', 'the second answered', step(v), step(w), answered(w));
    same('order-of-answers', 'answered in order', step(v), step(w), answered(v), answered(w));
    sameEnd(
      search,
      'failure-keeps',
      butServices(play(step(v), answered(v), step(w), failed(w))),
      butServices(play(step(w), failed(w))),
      `${way}, found for the first and failed for the second`,
    );
  }
  // Many sessions each, so they come last.
  for (const v of tried)
    meanwhile(search, base, address, (set) => ({
      during: play(step(v), set, answered(v)),
      before: play(set, step(v), answered(v)),
      after: play(step(v), answered(v), set),
    }));
}

/** The failure of a service is no failure of the script here. */
export function butServices(ran: Ran): Ran {
  return { ...ran, failures: ran.failures.filter(({ code }) => code !== 'service') };
}

const WAITING = ['editable', 'hint', 'label', 'onScreen'] as const;

/** What a handler said before its call, there after it failed and gone after it came. */
export function leftWaiting(search: Exploration, base: Ran, open: Ran, done: Ran, lost: Ran): void {
  const of = (ran: Ran, part: string, aspect: (typeof WAITING)[number]) =>
    ((ran.parts[part] as PartState | undefined)?.[aspect] ?? null) as Value;
  for (const { part, aspect } of differencesOf(search.ground.form, lost, base)) {
    const waiting = WAITING.find((one) => one === aspect);
    if (waiting === undefined) continue;
    const [before, during, after, left] = [base, open, done, lost].map((ran) =>
      of(ran, part, waiting),
    ) as [Value, Value, Value, Value];
    // What rules hold cannot be left over.
    if (search.said(part, aspect, lost).at(-1)?.sort === 'rule') continue;
    if (!equal(during, left) || equal(during, before) || equal(after, during)) continue;
    if (aspect === 'editable' && left !== false) continue;
    search.report(
      'left-waiting',
      'wrong',
      { part, aspect },
      search.said(part, aspect, lost),
      `${part} still ${metInWords(aspect, left)} after the call has failed`,
      lost,
      done,
      { one: left, other: after },
    );
  }
}

/** Something else is entered while the call is open. */
function meanwhile(
  search: Exploration,
  base: Ran,
  address: string,
  played: (set: HeldStep) => Record<'during' | 'before' | 'after', Ran>,
): void {
  for (const driver of search.settable(base)) {
    if (driver.address === address) continue;
    for (const value of othersIn(base, driver).slice(0, MEANWHILE)) {
      enteredMeanwhile(
        search,
        driver.address,
        value,
        played({ set: driver.address, to: value, hold: true }),
      );
    }
  }
}

/** A value entered while a call is open, before it is made, and after it was answered. */
export function enteredMeanwhile(
  search: Exploration,
  address: string,
  value: Value,
  { during, before, after }: Record<'during' | 'before' | 'after', Ran>,
): void {
  if (!isSound(during)) return;
  const over = during.said.find(
    ({ part, aspect, from, sort }) =>
      part === address && aspect === 'value' && sort === 'handler' && equal(from, value),
  );
  if (over !== undefined && !isEmpty(value))
    search.report(
      'late-answer-overwrites',
      'wrong',
      { part: address, aspect: 'value' },
      [over],
      `${address}: ${JSON.stringify(value)} was entered while a call was open, and the answer writes ${JSON.stringify(over.to)} over it`,
      during,
      after,
      { one: over.to, other: value },
    );
  if (!isSound(before) || !isSound(after)) return;
  const fromAfter = new Set(
    differencesOf(search.ground.form, during, after).map(({ part, aspect }) => `${part}.${aspect}`),
  );
  for (const { part, aspect, one, other } of differencesOf(search.ground.form, during, before))
    if (fromAfter.has(`${part}.${aspect}`))
      search.report(
        'late-answer',
        'wrong',
        { part, aspect },
        search.said(part, aspect, during, before),
        `${address} entered while a call is open: ${part} ${metInWords(aspect, one)}; entered before, it ${metInWords(aspect, other)}`,
        during,
        before,
        { one, other },
      );
}
