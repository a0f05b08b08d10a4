/** Submitting from a state, with what stops it put right, until it is saved or there is no way out. */
import { fieldsOf } from '../../form/fields';
import { isEmpty, equal, type Value } from '../../form/value';
import { isOffered } from '../../scenario/seen';
import { readRowAddress } from '../../session/address';
import type { Opening } from '../../session/step';
import { validOf, type Driver } from '../drivers';
import { isOpen, offeredIn, type Exploration } from '../exploration';
import { columnOf } from '../part-names';
import { isSound, stopLines, withoutWaits, type HeldStep, type Ran } from '../play';

/** A way out is looked for this often at least before there is said to be none. */
const ENOUGH = 6;
/** Steps of one session at most. */
const STEPS = 30;
/** Things more that are tried before there is said to be no way out. */
const WAYS_OUT = 80;
/** Of one field. */
const VALUES = 12;
/** Records that the search keeps of what it saved. */
const SAVED = 12;

interface Stop {
  says: string;
  /** Whether it could ever be put right where it stands. */
  open: boolean;
}

export function submitting(search: Exploration, from: Ran, tries: number): void {
  if (!isSound(from)) return;
  let steps: HeldStep[] = withoutWaits(from.steps);
  const submitted = () => search.play(from.opening, [...steps, { submit: true }]);
  const isBroken = (ran: Ran) => ran.failures.some(({ code }) => code !== 'service');
  let ran = submitted();
  /** Stops that were there each time. */
  let always: Map<string, Stop> | null = null;
  for (let i = 0; i < tries; i++) {
    if (isBroken(ran) || ran.seen.replaced !== null) return;
    const outcome = ran.seen.submit;
    if (outcome === null && ran.refused.length === 0) return;
    if (outcome?.saved === true) return saved(search, ran);
    always = stillStopping(always, ran);
    const next = [...steps, ...putRight(search, ran, i)];
    if (next.length === steps.length || next.length > from.steps.length + STEPS) break;
    steps = next;
    ran = submitted();
  }
  if (isBroken(ran)) return;
  if (ran.seen.submit?.saved === true) return saved(search, ran);
  if (always === null || tries < ENOUGH) return;
  for (const [part, { says, open }] of stillStopping(always, ran))
    if (!open && !search.deadEnds.has(part) && !hasWayOut(search, ran, part))
      search.deadEnds.set(part, { ran, says });
}

/** The same stop, which nobody can put right where it stands, after these steps; any way out is looked for once, at the end. */
export function stoppedAgain(
  search: Exploration,
  opening: Opening,
  steps: readonly HeldStep[],
  part: string,
  isLast: boolean,
): void {
  const ran = search.play(opening, [...steps, { submit: true }]);
  const stop = ran.seen.submit?.stops.find((one) => (one.part ?? '@form') === part);
  if (stop === undefined || isOpen(ran.parts[part])) return;
  if (isLast && hasWayOut(search, ran, part)) return;
  search.deadEnds.set(part, { ran, says: stop.says });
  deadEnds(search);
}

/** Any one thing more that a person can do, after which the stop can be put right or is gone. */
function hasWayOut(search: Exploration, ran: Ran, part: string): boolean {
  if (part === '@form') return false;
  const before = withoutWaits(ran.steps).filter((step) => !('submit' in step));
  const end = search.quietly(ran.opening, before);
  const more: HeldStep[] = [
    ...search.pressable(end).map((name) => ({ click: name })),
    ...search.settable(end).flatMap((driver) => {
      // A field that no script mentions can lift no other stop than its own.
      const isMentioned = search.mentions.words.includes(driver.address);
      return offeredIn(end, driver)
        .slice(0, isMentioned ? VALUES : 1)
        .map((to) => ({ set: driver.address, to }));
    }),
  ];
  return more.slice(0, WAYS_OUT).some((step) => {
    const { parts, seen } = search.quietly(ran.opening, [...before, step, { submit: true }]);
    const { submit } = seen;
    return isOpen(parts[part]) || submit?.stops.every((stop) => stop.part !== part) === true;
  });
}

function stillStopping(before: Map<string, Stop> | null, ran: Ran): Map<string, Stop> {
  const now = new Map<string, Stop>();
  for (const { part, says } of ran.seen.submit?.stops ?? []) {
    const name = part ?? '@form';
    const known = before?.get(name);
    if (before !== null && known === undefined) continue;
    const open = part !== null && isOpen(ran.parts[part]);
    now.set(name, { says, open: open || (known?.open ?? false) });
  }
  return now;
}

/** Sets what stops it where that can be done; else presses a button, or changes something. */
function putRight(search: Exploration, ran: Ran, nth: number): HeldStep[] {
  const steps: HeldStep[] = [];
  for (const { part } of ran.seen.submit?.stops ?? []) {
    const state = part === null ? undefined : ran.parts[part];
    if (part === null || !isOpen(state)) continue;
    const rows = search.rowsDrivers.find(({ name }) => name === part);
    if (rows !== undefined) {
      steps.push(search.newRow(rows, true, ran.opening, withoutWaits(ran.steps)));
      continue;
    }
    const driver = driverAt(search, part);
    const values =
      driver === undefined ? [] : validOf(driver).filter((value) => isOffered(state, value));
    // Emptied at times: what is wrong may be that there is anything at all.
    const empties = nth % 3 === 2 && state.required !== true;
    const to = empties ? null : search.pick(values);
    if (to !== undefined) steps.push({ set: part, to });
  }
  if (steps.length > 0 && nth % 2 === 0) return steps;
  const buttons = search.pressable(ran);
  if (buttons.length > 0 && search.random() < (nth < 4 ? 0.8 : 0.3))
    return [...steps, { click: search.pick(buttons)! }];
  const driver = search.pick(search.settable(ran));
  if (driver === undefined) return steps;
  return [...steps, { set: driver.address, to: search.pick(offeredIn(ran, driver)) ?? null }];
}

function driverAt(search: Exploration, part: string): Pick<Driver, 'field' | 'values'> | undefined {
  const address = readRowAddress(part);
  if (address === null) return search.drivers.find((driver) => driver.address === part);
  return search.rowsDrivers
    .find(({ name }) => name === address.rows)
    ?.cells.find((cell) => cell.address === address.cell);
}

/**
 * Stops that no way out was found of in the whole search. Wrong where nobody can do anything about it: off screen, or
 * locked and either required and empty or with a value that no script changes. A problem on a locked sum may well be one
 * that other values would mend, which the search does not solve.
 */
export function deadEnds(search: Exploration): void {
  for (const [part, { ran, says }] of search.deadEnds) {
    const state = ran.parts[part];
    const isShut =
      state !== undefined &&
      !search.covered.wasOpen(ran, part) &&
      (!state.onScreen ||
        (!state.editable &&
          (!search.covered.written.has(columnOf(part)) ||
            (state.required === true && isEmpty((state.value ?? null) as Value)))));
    search.report(
      'dead-end',
      isShut ? 'wrong' : 'may',
      { part, aspect: 'stop' },
      [
        ...(['editable', 'required', 'problem', 'onScreen'] as const).flatMap((aspect) =>
          search.said(part, aspect, ran),
        ),
        ...stopLines(ran),
      ],
      `submitting stays refused whatever is entered: ${says}`,
      ran,
    );
  }
}

function saved(search: Exploration, ran: Ran): void {
  const { submit } = ran.seen;
  if (search.saved.length < SAVED)
    search.saved.push({ id: `saved ${search.saved.length + 1}`, values: submit!.values });
  for (const field of fieldsOf(search.ground.form)) {
    if (field.kind === 'rows') continue;
    const part = ran.parts[field.name];
    const now = (part?.value ?? null) as Value;
    const sent = (submit!.values[field.name] ?? null) as Value;
    if (part?.onScreen !== true || equal(now, sent) || (isEmpty(now) && isEmpty(sent))) continue;
    search.report(
      'written-after-saving',
      'wrong',
      { part: field.name, aspect: 'value' },
      search.said(field.name, 'value', ran),
      `${field.name}: ${JSON.stringify(sent)} was saved, and the form shows ${JSON.stringify(now)}`,
      ran,
      null,
      { one: now, other: sent },
    );
  }
}
