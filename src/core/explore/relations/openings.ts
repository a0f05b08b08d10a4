/** The same form opened by somebody else, from a launch, after another record, in another time zone. */
import { equal, type Value, type Values } from '../../form/value';
import type { Opening } from '../../session/step';
import type { Line } from '../../wire/line';
import type { Level } from '../finding';
import { dayAt } from '../drivers';
import { isOpen, valueIn, type Exploration } from '../exploration';
import { isSound, type HeldStep, type Ran } from '../play';
import { differencesOf, metInWords, type Difference } from '../state';
import { atLoad } from './at-load';

/** Whoever has the same roles meets the same; their names may stand in texts. */
export function sameRoles(search: Exploration, opened: Ran): void {
  const { person } = opened.opening;
  const stranger = { key: 'somebody_else', name: 'Somebody Else', roles: person.roles };
  const other = search.quietly({ ...opened.opening, person: stranger }, []);
  if (!isSound(opened) || !isSound(other)) return;
  const named = (value: unknown, { key, name }: Opening['person']) =>
    JSON.stringify(value ?? null)
      .replaceAll(name, '@')
      .replaceAll(key, '@');
  for (const difference of differencesOf(search.ground.form, opened, other)) {
    const { part, aspect, one, other: theirs } = difference;
    if (named(one, person) === named(theirs, stranger)) continue;
    tell(
      search,
      'same-roles-differ',
      difference,
      `${part} ${metInWords(aspect, one)} for ${person.name}, and ${metInWords(aspect, theirs)} for somebody else with the same roles`,
      opened,
      other,
    );
  }
}

/** What a launch brings does what the same values do when they are typed. */
export function launched(search: Exploration, opening: Opening, launch: Values): void {
  const start = search.play({ ...opening, launch }, []);
  if (!isSound(start)) return;
  atLoad(search, start);
  const plain = search.quietly(opening, []);
  const sets = search.settable(plain).flatMap(({ address }): HeldStep[] => {
    const to = valueIn(start, address);
    return equal(to, valueIn(plain, address)) ? [] : [{ set: address, to }];
  });
  // What cannot be typed is the launch's alone, and so is what follows from it.
  const brought = search.drivers.filter(
    ({ address }) => !equal(valueIn(start, address), valueIn(plain, address)),
  );
  if (sets.length === 0 || brought.length > sets.length) return;
  const typed = search.play(opening, sets);
  if (!isSound(typed)) return;
  const saidAsLaunched = ({ part, aspect }: Difference, ran: Ran) =>
    search
      .said(part, aspect, ran)
      .flatMap(({ asked, to }) => (asked.includes('launch') ? [to] : []));
  for (const difference of differencesOf(search.ground.form, start, typed)) {
    const { part, aspect, one, other } = difference;
    // A launched value is often locked, and its value may be of another field's making.
    if (aspect === 'value' || aspect === 'editable' || aspect === 'hiddenValue') continue;
    // A run that says this only when the form is launched may well mean it.
    const [launchedSays, plainSays] = [start, plain].map((ran) => saidAsLaunched(difference, ran));
    const level = equal(launchedSays!, plainSays!) ? 'wrong' : 'may';
    tell(
      search,
      'launched-differs',
      difference,
      `${part} ${metInWords(aspect, one)} when it is launched with ${JSON.stringify(launch)}, and ${metInWords(aspect, other)} when the same is typed`,
      start,
      typed,
      level,
    );
  }
}

type Saved = NonNullable<Opening['records']>[number];

/** A record reached from another one is the record as it is opened by itself. */
export function formerRecord(search: Exploration, opening: Opening, from: Saved, to: Saved): void {
  const driver = search.pick(search.drivers);
  const base = search.quietly({ ...opening, record: from, records: [from, to] }, []);
  const value = driver === undefined ? undefined : search.pick(driver.values);
  const steps: HeldStep[] =
    driver !== undefined && value !== undefined && isOpen(base.parts[driver.address])
      ? [{ set: driver.address, to: value }]
      : [];
  movedOn(search, opening, from, to, steps);
}

/** The same, with these steps in the former record. */
export function movedOn(
  search: Exploration,
  opening: Opening,
  from: Saved,
  to: Saved,
  steps: readonly HeldStep[],
): void {
  const records = [from, to];
  const direct = search.play({ ...opening, record: to, records }, []);
  const start = { ...opening, record: from, records };
  const moved = search.play(start, [...steps, { next: true }]);
  if (!isSound(direct) || !isSound(moved)) return;
  for (const difference of differencesOf(search.ground.form, moved, direct)) {
    const { part, aspect, one, other } = difference;
    tell(
      search,
      'former-record',
      difference,
      `${part} ${metInWords(aspect, one)} after another record, and ${metInWords(aspect, other)} when the record is opened by itself`,
      moved,
      direct,
    );
  }
}

/** Zones in which it is another day than in UTC: in the morning of the one, in the evening of the other. */
const ZONES = [
  { zone: 'Pacific/Kiritimati', hours: 14, at: '09:00' },
  { zone: 'Pacific/Honolulu', hours: -10, at: '21:00' },
] as const;

/** A moment as fields hold it. */
const isMoment = (value: unknown): value is string =>
  typeof value === 'string' && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value);

/** The moment at which the clock on the wall shows the same so many hours east of here. */
const eastwards = (value: Value, hours: number): Value =>
  isMoment(value)
    ? new Date(Date.parse(value) - hours * 3_600_000).toISOString().replace('.000Z', 'Z')
    : value;

/** The same entered by the clock on the wall. */
function enteredEast(step: HeldStep, hours: number): HeldStep {
  if ('set' in step) return { ...step, to: eastwards(step.to, hours) };
  if (!('addRow' in step) || step.with === undefined || Array.isArray(step.with)) return step;
  const cells = Object.entries(step.with).map(([cell, value]) => [cell, eastwards(value, hours)]);
  return { ...step, with: Object.fromEntries(cells) as Values };
}

/** At the same time by the clock on the wall everything is the same, with moments entered by that clock too. */
export function zones(search: Exploration, opening: Opening, steps: readonly HeldStep[]): void {
  if (!search.mentions.asks.clock) return;
  // A moment that was saved is another time of day there.
  if (Object.values(opening.record?.values ?? {}).some(isMoment)) return;
  const day = dayAt(search.ground.clock);
  for (const { zone, hours, at } of ZONES) {
    const utc = Date.parse(`${day}T${at}:00Z`);
    const here = search.quietly({ ...opening, clock: utc }, steps);
    const there = search.quietly(
      { ...opening, zone, clock: utc - hours * 3_600_000 },
      steps.map((step) => enteredEast(step, hours)),
    );
    if (!isSound(here) || !isSound(there)) continue;
    for (const difference of differencesOf(search.ground.form, here, there)) {
      const { part, aspect, one, other } = difference;
      // A moment is another one there.
      if (/T\d\d:|\dZ/.test(JSON.stringify([one, other]))) continue;
      tell(
        search,
        'zone',
        { ...difference, one: other, other: one },
        `${part} ${metInWords(aspect, other)} in ${zone} at ${at}, and ${metInWords(aspect, one)} in UTC at ${at} of the same day`,
        there,
        here,
      );
    }
  }
}

type Compared = 'same-roles-differ' | 'launched-differs' | 'former-record' | 'zone';

function tell(
  search: Exploration,
  kind: Compared,
  { part, aspect, ...met }: Difference,
  says: string,
  one: Ran,
  other: Ran,
  level: Level = 'wrong',
): void {
  const said: readonly { behaviour: string; line: Line }[] = search.said(part, aspect, one, other);
  search.report(kind, level, { part, aspect }, said, says, one, other, met);
}

/** What scripts may be launched with: fitting values for all names they mention, and the texts they mention. */
export function launchesOf(search: Exploration): Values[] {
  const { form, tables } = search.ground;
  const declared = new Map((form.launch ?? []).map(({ name, kind }) => [name, kind]));
  const names = [...new Set([...declared.keys(), ...search.mentions.launch])];
  if (names.length === 0) return [];
  const fitting = (name: string): Value => {
    const driver = search.drivers.find(({ address }) => address === name);
    switch (declared.get(name) ?? 'text') {
      case 'number':
        return 3;
      case 'yes_no':
        return true;
      case 'date':
        return dayAt(search.ground.clock, 8);
      default: {
        const value = driver?.values[0];
        const [table] = tables;
        const key = table?.rows[0]?.[table.key];
        return typeof value === 'string' ? value : typeof key === 'string' ? key : 'x';
      }
    }
  };
  const all = Object.fromEntries(names.map((name) => [name, fitting(name)]));
  const texts = search.mentions.texts
    .slice(0, 3)
    .map((text) =>
      Object.fromEntries(
        names.map((name) => [name, (declared.get(name) ?? 'text') === 'text' ? text : all[name]!]),
      ),
    );
  return [all, ...texts];
}
