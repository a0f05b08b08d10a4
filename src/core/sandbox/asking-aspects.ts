/** Reading and saying aspects by their numbers: which slot is what, and what of it scripts may say. */
import type { Line } from '../wire/line';
import type { Value } from '../form/value';
import type { AspectName } from '../session/aspects';
import type { Desk } from '../session/desk';
import type { Part } from '../session/parts';
import type { Row, Rows } from '../session/rows';
import { SAID } from '../wire/aspects';
import { SLOT_OF } from '../wire/slots';
import { Slot, SLOT_BITS, SLOTS } from '../wire/layout';
import type { Numbers } from './numbers';
import { Untrue } from './wire';

type Asker = (desk: Desk, part: Part, more: number) => unknown;

interface Meaning {
  name: AspectName | null;
  says: boolean;
  read: Asker | null;
  called: string;
}

const aspect = (name: AspectName, says: boolean): Meaning => ({
  name,
  says,
  read: null,
  called: name,
});
const derived = (called: string, read: Asker): Meaning => ({
  name: null,
  says: false,
  read,
  called,
});

const field = (part: Part): Part => (part.sort === 'field' ? part : untrue());
const rows = (part: Part): Rows => part.rows ?? untrue();
const row = (part: Part): Row => (part.sort === 'row' ? part.row! : untrue());
const ofForm =
  (read: (desk: Desk) => unknown): Asker =>
  (desk, part) =>
    part.sort === 'form' ? read(desk) : untrue();

function untrue(): never {
  throw new Untrue();
}

/** A number for each list of rows as it was, so that scripts know whether they have it. */
const versions = new WeakMap<readonly Row[], number>();
let lastVersion = 0;

function versionOf(list: readonly Row[]): number {
  let version = versions.get(list);
  if (version === undefined) versions.set(list, (version = ++lastVersion));
  return version;
}

/** What each slot means that is no aspect scripts say. */
const COMPUTED: Partial<Record<Slot, Meaning>> = {
  [Slot.OnScreen]: derived('onScreen', (desk, part) => desk.onScreen(part)),
  [Slot.Editable]: derived('editable', (desk, part) => desk.editable(part)),
  [Slot.Previous]: derived('previous', (desk, part) => desk.previous(field(part))),
  [Slot.Initial]: derived('initial', (desk, part) => desk.initial(field(part))),
  [Slot.Orphan]: derived('orphan', (desk, part) => desk.orphan(field(part))),
  [Slot.OptionLabel]: derived('optionLabel', (desk, part) => desk.optionLabel(field(part))),
  [Slot.Rows]: derived('rows', (desk, part) => versionOf((rows(part), desk.rows(part)))),
  [Slot.Count]: derived('count', (desk, part) => (rows(part), desk.count(part))),
  [Slot.Sum]: derived('sum', (desk, part, more) =>
    desk.sum(part, rows(part).columnNames[more] ?? untrue()),
  ),
  [Slot.Values]: aspect('values', false),
  [Slot.Index]: derived('index', (desk, part) => desk.index(row(part))),
  [Slot.Changed]: aspect('changed', false),
  [Slot.IsNew]: derived(
    'isNew',
    ofForm((desk) => desk.standing('isNew')),
  ),
  [Slot.Record]: derived(
    'record',
    ofForm((desk) => desk.standing('record')),
  ),
  [Slot.Person]: derived(
    'person',
    ofForm((desk) => desk.standing('person')),
  ),
  [Slot.Launch]: derived(
    'launch',
    ofForm((desk) => desk.standing('launch')),
  ),
  [Slot.Viewing]: derived(
    'viewing',
    ofForm((desk) => desk.standing('viewing')),
  ),
  [Slot.Zone]: derived(
    'the time zone',
    ofForm((desk) => desk.zone),
  ),
};

/** Options are read as they are offered, whether a script said them or the definition. */
const asOffered: Asker = (desk, part) => desk.options(field(part));

const SAID_BY_SLOT = new Map(
  SAID.map((name): [Slot, Meaning] => [
    SLOT_OF[name],
    name === 'options' ? { ...aspect(name, true), read: asOffered } : aspect(name, true),
  ]),
);

const MEANINGS: readonly (Meaning | undefined)[] = Array.from(
  { length: SLOTS },
  (_, slot) => SAID_BY_SLOT.get(slot) ?? COMPUTED[slot as Slot],
);

const SLOT_MASK = (1 << SLOT_BITS) - 1;

/** Reads an aspect by its number; `more` is a column where one is meant. Throws Untrue for a number that means nothing. */
export function readAspect(desk: Desk, numbers: Numbers, number: number, more: number): unknown {
  const part = numbers.part(number >> SLOT_BITS) ?? untrue();
  const meaning = MEANINGS[number & SLOT_MASK] ?? untrue();
  if (meaning.read !== null) {
    if (meaning.name === 'options') holdsKeysOrNone(part);
    return meaning.read(desk, part, more);
  }
  const name = meaning.name!;
  const known = part.aspects[name];
  if (known === undefined && !part.has(name)) untrue();
  return desk.read(part, name);
}

/** Parts without options read as having none. */
function holdsKeysOrNone(part: Part): void {
  if (part.sort !== 'field' || part.rows !== null) untrue();
}

/** How messages name what a number means. */
export function calledAspect(numbers: Numbers | null, number: number): string {
  const part = numbers?.part(number >> SLOT_BITS) ?? null;
  const meaning = MEANINGS[number & SLOT_MASK];
  const called = meaning?.called ?? 'something';
  return part === null
    ? called
    : part.sort === 'form'
      ? `form.${called}`
      : `${part.name}.${called}`;
}

/** Says an aspect by its number. */
export function sayAspect(
  desk: Desk,
  numbers: Numbers,
  number: number,
  said: unknown,
  line: Line,
): void {
  const part = numbers.part(number >> SLOT_BITS) ?? untrue();
  const meaning = MEANINGS[number & SLOT_MASK] ?? untrue();
  const { name } = meaning;
  if (name === null || !meaning.says || !part.has(name)) return untrue();
  desk.say(part, name, said as Value, line);
}
