/**
 * Goes over a form in phases, each with its share of the sessions, so that none starves the others. What a phase leaves goes
 * to the walks at the end. The same seed and number of sessions play the same in every host.
 */
import { nothingLaunched } from '../form/launch';
import { equal, isEmpty, type Value, type Values } from '../form/value';
import { coveringArray } from '../scenario/covering';
import { onePerRoles } from '../scenario/opening';
import type { Opening } from '../session/step';
import { isValid } from './drivers';
import { Enough, Exploration, isOpen, offeredIn, type MoreOfIt } from './exploration';
import type { Way } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import type { Checkpoints } from './checkpoints';
import { isSound, withoutWaits, type HeldStep } from './play';
import { aroundAnswers } from './relations/answers';
import { atLoad, overwrittenAtLoad } from './relations/at-load';
import { aroundFields, bothOrders, canonical, inOrder } from './relations/fields';
import { aroundPages, throughPages, toPageOf } from './relations/pages';
import { formerRecord, launched, launchesOf, sameRoles, zones } from './relations/openings';
import { aroundRows } from './relations/rows';
import { sameEnd } from './relations/same-end';
import { submitting } from './relations/submitting';

export interface ExploreOptions extends MoreOfIt {
  /** The same seed goes the same way. */
  seed: number;
  /** Sessions played at most. */
  sessions: number;
  /** Asked before each session; false ends it with what there is. */
  goOn?: (sessions: number, run: Exploration) => boolean;
}

export interface Explored {
  run: Exploration;
  /** As a new form is opened by the first person. */
  start: Opening;
  /** It was ended before its sessions were used up. */
  cut: boolean;
}

/** Shares of the sessions; the walks take what is left. */
const SHARES = {
  openings: 0.08,
  /** Only where what scripts mention is little. */
  combined: 0.5,
  launch: 0.03,
  pages: 0.12,
  singles: 0.2,
  services: 0.25,
  full: 0.14,
  pairs: 0.12,
  rows: 0.1,
  submit: 0.12,
} as const;

const PERSONS = 5;
const RECORDS = 5;
/** Records between which everything is turned. */
const FORMER = 3;
const WALKS = 400;
const PARENTS = 3;

export function explored(
  ground: Ground,
  mentions: Mentions,
  stage: Stage,
  options: ExploreOptions,
  checkpoints: Checkpoints,
): Explored {
  let phaseEnd = Infinity;
  let cut = false;
  const mayGoOn = (sessions: number) => {
    if (sessions >= options.sessions) throw new Enough();
    if (options.goOn?.(sessions, run) === false) {
      cut = true;
      throw new Enough();
    }
    if (sessions >= phaseEnd) throw new Enough();
  };
  const run = new Exploration(ground, mentions, stage, options.seed, mayGoOn, checkpoints, options);
  const phase = (share: number, work: () => void) => {
    if (cut) return;
    phaseEnd = run.sessions + share * options.sessions;
    try {
      work();
    } catch (caught) {
      if (!(caught instanceof Enough)) throw caught;
    }
  };

  const persons = onePerRoles(ground.people).slice(0, PERSONS);
  const records = ground.records.slice(0, RECORDS).map(({ id, values }) => ({ id, values }));
  const nothing = nothingLaunched(ground.form);
  const openedBy = (
    person: Opening['person'],
    record: Opening['record'] = null,
    launch: Values = nothing,
  ): Opening => ({
    person,
    record,
    launch,
    clock: ground.clock,
    seed: 1,
    newId: 'new',
    records,
  });
  const first = persons[0]!;
  const fromParents = run.mentions.words.includes('parent')
    ? ground.parents.slice(0, PARENTS).map((parent): Opening => ({ ...openedBy(first), parent }))
    : [];
  const launches = launchesOf(run);
  const starts = [
    openedBy(first),
    ...fromParents,
    ...persons.slice(1).map((person) => openedBy(person)),
    ...records.slice(0, 2).map((record) => openedBy(first, record)),
  ];

  phase(SHARES.openings, () => {
    const all = [
      ...persons.map((person) => openedBy(person)),
      ...persons.flatMap((person) => records.map((record) => openedBy(person, record))),
    ];
    for (const opening of all) {
      const opened = run.play(opening, []);
      overwrittenAtLoad(run, opened);
      atLoad(run, opened);
      sameRoles(run, opened);
      zones(run, opening, []);
    }
    for (const opening of fromParents) atLoad(run, run.play(opening, []));
    for (const record of [null, ...records.slice(0, 1)])
      run.play({ ...openedBy(first, record), viewing: true }, []);
    for (const from of records.slice(0, FORMER))
      for (const to of records.slice(0, FORMER))
        if (from !== to) formerRecord(run, openedBy(first), from, to);
  });
  if (run.isFocused)
    phase(SHARES.combined, () => {
      for (const opening of starts) combined(run, opening);
    });
  phase(SHARES.launch, () => {
    for (const launch of launches) launched(run, openedBy(first), launch);
  });
  phase(SHARES.singles, () => {
    for (const [nth, opening] of starts.entries()) singles(run, opening, [], nth === 0 ? 9 : 4);
  });
  if (run.mentions.asks.calls && ground.services.length > 0)
    phase(SHARES.services, () => aroundAnswers(run, openedBy(first), []));
  if (run.mentions.words.includes('pageChange'))
    phase(SHARES.pages, () => {
      const filledIn = (opening: Opening) => {
        const steps = full(run, opening, 0);
        throughPages(run, opening, steps);
        aroundPages(run, opening, steps);
      };
      // What can be turned only once a page is filled in, a short search would not come to.
      if (run.isFocused) for (const opening of starts) filledIn(opening);
      for (const opening of starts) {
        aroundPages(run, opening, []);
        for (const driver of run.inOrder(run.settable(run.quietly(opening, []))))
          for (const to of driver.values.slice(0, 3))
            aroundPages(run, opening, [
              ...toPageOf(run, opening, driver),
              { set: driver.address, to },
            ]);
        if (!run.isFocused) filledIn(opening);
      }
    });
  phase(SHARES.full, () => {
    for (const nth of [0, 1, 2]) fromFull(run, openedBy(persons[nth % persons.length]!), nth);
  });
  phase(SHARES.pairs, () => {
    for (let i = 0; i < 120; i++) pair(run, openedBy(first), [], 5);
  });
  if (run.rowsDrivers.length > 0)
    phase(SHARES.rows, () => {
      for (let i = 0; i < 10; i++)
        for (const rows of run.rowsDrivers) {
          const start = openedBy(first);
          const before = i % 2 === 0 ? [] : setup(run, start).filter((step) => !('addRow' in step));
          aroundRows(run, start, before, rows, i);
        }
    });
  phase(SHARES.submit, () => {
    for (const opening of starts) submitting(run, run.play(opening, []), 25);
  });
  phase(1, () => {
    for (let i = 0; i < WALKS; i++) walk(run, openedBy, persons, records, launches, i);
  });
  return { run, start: openedBy(first), cut };
}

/** Fields, and values of each, that are tried in every combination of two. */
const COMBINED = 8;
const COMBINED_VALUES = 6;
const COMBINATIONS = 200;

/** What scripts mention, entered together: every two values of two fields in some session. */
function combined(run: Exploration, opening: Opening): void {
  const { words } = run.mentions;
  const drivers = run.drivers
    .filter(({ address }) => words.includes(address))
    .slice(0, COMBINED)
    .map(({ address, values }) => ({ address, values: someValues(values) }));
  const buttons = run.buttons.filter((name) => words.includes(name));
  if (drivers.length < 2) return;
  const rows = coveringArray(
    drivers.map(({ values }) => values.length),
    2,
    COMBINATIONS,
  );
  const all = rows.map((row) => {
    const entered = drivers.flatMap(({ address, values }, i): HeldStep[] => {
      const to = values[row[i]!]!;
      return isEmpty(to) ? [] : [{ set: address, to }];
    });
    const steps = withoutRefused(run, opening, entered);
    return { steps, end: run.play(opening, steps) };
  });
  for (const [nth, { steps, end }] of all.entries()) {
    for (const button of buttons)
      if (isOpen(end.parts[button])) run.play(opening, [...steps, { click: button }]);
    const back = steps[nth % Math.max(steps.length, 1)];
    if (back !== undefined && 'set' in back)
      run.play(opening, [...steps, { set: back.set, to: emptied(drivers, back.set) }]);
  }
}

const emptied = (drivers: readonly { address: string; values: readonly Value[] }[], name: string) =>
  drivers.find(({ address }) => address === name)?.values.at(-1) ?? null;

/** The most telling values, and none. */
function someValues(values: readonly Value[]): Value[] {
  return [...values.slice(0, -1).slice(0, COMBINED_VALUES - 1), values.at(-1) ?? null];
}

/** Everything that single fields and buttons do from a state. */
function singles(
  run: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  width: number,
): void {
  const base = run.play(opening, before);
  if (!isSound(base)) return;
  for (const button of run.pressable(base)) run.play(opening, [...before, { click: button }]);
  for (const { address, values } of run.returned)
    for (const to of values.slice(0, 3)) run.play(opening, [...before, { fromChild: address, to }]);
  aroundFields(run, opening, before, width);
}

function pair(
  run: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  width: number,
): void {
  const end = bothOrders(run, opening, before, width);
  if (end === null) return;
  if (run.random() < 0.4) atLoad(run, end);
  if (run.random() < 0.25) submitting(run, end, 8);
}

/**
 * Every field that can be filled in is, and what a script fills in stays as it is; most faults that single fields do not
 * show need three of them.
 */
function full(run: Exploration, opening: Opening, nth: number): HeldStep[] {
  let steps: HeldStep[] = [];
  for (let round = 0; round < 3; round++) {
    const now = run.quietly(opening, steps);
    for (const driver of run.settable(now)) {
      if (steps.some((step) => 'set' in step && step.set === driver.address)) continue;
      const values = offeredIn(now, driver).filter((value) => isValid(driver.field, value));
      if (values.length > 0) steps.push({ set: driver.address, to: values[nth % values.length]! });
    }
    if (round === 0)
      for (const rows of run.rowsDrivers)
        if (isOpen(now.parts[rows.name]))
          for (let n = 0; n < 2; n++) steps.push(run.newRow(rows, true, opening, steps));
    steps = withoutWritten(run, opening, withoutRefused(run, opening, steps));
  }
  return steps;
}

function withoutRefused(run: Exploration, opening: Opening, steps: HeldStep[]): HeldStep[] {
  const { refused } = run.quietly(opening, steps);
  return steps.filter((step) => !refused.some((one) => equal(one, step)));
}

function withoutWritten(run: Exploration, opening: Opening, steps: HeldStep[]): HeldStep[] {
  const { said } = run.quietly(opening, steps);
  const written = new Set(
    said.flatMap(({ part, aspect, to }) => (aspect === 'value' && !isEmpty(to) ? [part] : [])),
  );
  return steps.filter((step) => !('set' in step && written.has(step.set)));
}

function fromFull(run: Exploration, opening: Opening, nth: number): void {
  const steps = full(run, opening, nth);
  const end = run.play(opening, steps);
  if (!isSound(end)) return;
  atLoad(run, end);
  for (const button of run.pressable(end)) {
    const pressed = run.play(opening, [...steps, { click: button }]);
    atLoad(run, pressed);
    run.play(opening, [...steps, { click: button }, { click: button }]);
    submitting(run, pressed, 6);
  }
  submitting(run, end, 6);
  zones(run, opening, steps);
  const isRow = (step: HeldStep) => 'addRow' in step;
  const ordered = canonical(run, steps);
  sameEnd(
    run,
    'order',
    run.play(opening, ordered),
    run.play(opening, [
      ...ordered.filter((step) => !isRow(step)).toReversed(),
      ...ordered.filter(isRow),
    ]),
    'the same entered in another order',
  );
  singles(run, opening, steps, 3);
}

/** A state as a covering array would give one: values for several fields, then for what came up, then rows. */
function setup(run: Exploration, opening: Opening): HeldStep[] {
  const start = run.quietly(opening, []);
  const settable = run.settable(start);
  const chosen = (run.isFocused ? run.inOrder(settable) : run.shuffled(settable)).slice(
    0,
    6 + Math.floor(run.random() * 6),
  );
  let steps: HeldStep[] = [];
  for (const driver of chosen) {
    const values = offeredIn(start, driver).filter((value) => !isEmpty(value));
    const to = run.pick(run.random() < 0.6 ? values.slice(0, 4) : values);
    if (to !== undefined && run.random() < 0.8) steps.push({ set: driver.address, to });
  }
  steps = withoutRefused(run, opening, steps);
  const now = run.quietly(opening, steps);
  for (const driver of run.settable(now)) {
    if (chosen.includes(driver) || run.random() > 0.6) continue;
    const values = offeredIn(now, driver).filter((value) => !isEmpty(value));
    const to = run.pick(values.slice(0, 4));
    if (to !== undefined) steps.push({ set: driver.address, to });
  }
  for (const rows of run.rowsDrivers) {
    if (!isOpen(now.parts[rows.name]) || run.random() < 0.5) continue;
    for (let n = 1 + Math.floor(run.random() * 2); n > 0; n--)
      steps.push(run.newRow(rows, run.random() < 0.7, opening, steps));
  }
  return steps;
}

/** Steps of a filling-in that walks take over: more would leave none for what comes after. */
const TAKEN_OVER = 40;

/** What somebody did in a filling-in, up to some moment of it. */
function upTo(run: Exploration, opening: Opening, { steps }: Way): HeldStep[] {
  const entered = withoutWaits(steps).filter((step) => !('submit' in step));
  const most = Math.min(entered.length, TAKEN_OVER);
  return withoutRefused(run, opening, entered.slice(0, Math.ceil(run.random() * most)));
}

type OpenedBy = (person: Opening['person'], record?: Opening['record'], launch?: Values) => Opening;

/** A state from anywhere, and the relations from there in small numbers. */
function walk(
  run: Exploration,
  openedBy: OpenedBy,
  persons: readonly Opening['person'][],
  records: NonNullable<Opening['records']>,
  launches: readonly Values[],
  nth: number,
): void {
  const { done = [] } = run.ground;
  // Where there are none, nothing is drawn, so that a seed goes the same way as ever.
  const filled = nth % 2 === 1 && done.length > 0 ? run.pick(done) : undefined;
  const person = filled?.opening.person ?? run.pick(persons)!;
  const all = [...records, ...run.saved];
  const opening =
    filled === undefined
      ? openedBy(
          person,
          run.random() < 0.3 ? (run.pick(all) ?? null) : null,
          run.random() < 0.2 ? run.pick(launches) : undefined,
        )
      : openedBy(person, filled.opening.record, filled.opening.launch);
  const before = filled === undefined ? setup(run, opening) : upTo(run, opening, filled);
  const end = run.play(opening, before);
  if (!isSound(end)) return;
  atLoad(run, end);
  zones(run, opening, before);
  inOrder(run, opening, before);
  submitting(run, end, 6);
  singles(run, opening, before, 2);
  for (let i = 0; i < 6; i++) pair(run, opening, before, 7);
  if (run.random() < 0.3)
    for (const rows of run.rowsDrivers)
      aroundRows(
        run,
        opening,
        before.filter((step) => !('addRow' in step)),
        rows,
        nth,
      );
  if (run.mentions.asks.calls && run.random() < 0.15) aroundAnswers(run, opening, before);
  if (all.length < 2) return;
  for (let i = 0; i < 3; i++) {
    const [from, to] = [run.pick(all)!, run.pick(all)!];
    if (from !== to) formerRecord(run, openedBy(person), from, to);
  }
}
