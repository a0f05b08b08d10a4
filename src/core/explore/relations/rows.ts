/** Rows that come and go, stand in another order, and should leave each other alone. */
import { isEmpty, type Values } from '../../form/value';
import type { Opening, PartState } from '../../session/step';
import { someOf, validOf, type Driver, type RowsDriver } from '../drivers';
import { isOpen, othersIn, valueIn, type Exploration } from '../exploration';
import { isSound, placesIn, type HeldStep, type Ran } from '../play';
import { differencesBetween, metInWords } from '../state';
import { atLoad } from './at-load';
import { sameEnd } from './same-end';

/** Aspects that scripts say of one row because of another with good reason. */
const BY_ANOTHER: readonly string[] = ['problem', 'warning', 'value'];

/** Aspects that name a place or a first one with good reason. */
const NAMES_PLACE: readonly string[] = ['hint', 'problem', 'warning', 'value'];

export function aroundRows(
  search: Exploration,
  opening: Opening,
  before: readonly HeldStep[],
  rows: RowsDriver,
  /** Which time it is: each time it is another column's turn, those first that scripts mention. */
  nth: number,
): void {
  const base = search.play(opening, before);
  if (!isSound(base) || !isOpen(base.parts[rows.name])) return;
  const { name } = rows;
  const count = placesIn(base, name);
  const a = search.newRow(rows, search.random() < 0.6, opening, before);
  const b = search.newRow(rows, search.random() < 0.6, opening, before);
  const play = (...steps: HeldStep[]) => search.play(opening, [...before, ...steps]);
  const remove = (place: number): HeldStep => ({ removeRow: `${name}[${place}]` });
  const one = play(a);
  sameEnd(search, 'removed-row', play(a, remove(count)), base, 'a row added and removed');
  sameEnd(
    search,
    'removed-row',
    play(b, a, remove(count + 1)),
    play(b),
    'a second row added and removed',
  );
  sameEnd(search, 'removed-row', play(b, a, remove(count)), one, 'a first row added and removed');
  enteredLater(search, rows, count, a, b, play);
  if (count === 0) {
    exchanged(search, rows, a, b, play);
    const [plain, special] = plainAndSpecial(search, rows, nth);
    exchanged(search, rows, special, plain, play);
  }
  if (!isSound(one)) return;
  atLoad(search, one);
  cells(search, rows, nth, count, one, (...steps) => play(a, ...steps));
}

/** The cells of a row, those alone that scripts mention where they mention any. */
function columnsOf(search: Exploration, { cells: all }: RowsDriver): readonly Driver[] {
  const mentioned = all.filter(({ address }) => search.mentions.words.includes(address));
  return mentioned.length > 0 ? mentioned : all;
}

/** A row with nothing but what it has to have, and the same with one cell more: what a script asks of one row alone. */
function plainAndSpecial(
  search: Exploration,
  rows: RowsDriver,
  nth: number,
): [plain: HeldStep, special: HeldStep] {
  const needed = rows.cells.filter(({ field }) => field.required === true);
  const plain = Object.fromEntries(needed.map((cell) => [cell.address, validOf(cell)[0] ?? null]));
  const columns = columnsOf(search, rows);
  const column = columns[nth % columns.length];
  const values = column === undefined ? [] : someOf(column, Infinity);
  const value = values[Math.floor(nth / columns.length) % values.length];
  const special = value === undefined ? plain : { ...plain, [column!.address]: value };
  return [
    { addRow: rows.name, with: plain },
    { addRow: rows.name, with: special },
  ];
}

/** Two rows, with a cell of the first filled in before the second is added, and afterwards. */
function enteredLater(
  search: Exploration,
  { name, cells: columns }: RowsDriver,
  count: number,
  first: HeldStep,
  second: HeldStep,
  play: (...steps: HeldStep[]) => Ran,
): void {
  const values = 'addRow' in first ? ((first.with ?? {}) as Values) : {};
  const cell = search.pick(columns.filter(({ address }) => !isEmpty(values[address] ?? null)));
  if (cell === undefined) return;
  const { [cell.address]: value, ...rest } = values;
  const set: HeldStep = { set: `${name}[${count}].${cell.address}`, to: value! };
  sameEnd(
    search,
    'row-touches-row',
    play({ addRow: name, with: rest }, second, set),
    play(first, second),
    `${cell.address} of a first row set after a second one was added`,
  );
}

/** The same rows in the other order, each told apart by where it is then. */
export function exchanged(
  search: Exploration,
  { name }: RowsDriver,
  a: HeldStep,
  b: HeldStep,
  play: (...steps: HeldStep[]) => Ran,
): void {
  const [alone, ab, ba] = [play(a), play(a, b), play(b, a)];
  if (!isSound(ab) || !isSound(ba)) return;
  const { form } = search.ground;
  const turned = (part: string) =>
    part.startsWith(`${name}[0]`)
      ? part.replace('[0]', '[1]')
      : part.startsWith(`${name}[1]`)
        ? part.replace('[1]', '[0]')
        : part;
  const parts = Object.fromEntries(
    Object.entries(ba.parts).map(([part, state]) => [turned(part), state]),
  );
  for (const { part, aspect, one, other } of differencesBetween(
    form,
    ab.parts,
    parts,
    ab.seen,
    ba.seen,
  ))
    search.report(
      'order-of-rows',
      NAMES_PLACE.includes(aspect) ? 'may' : 'wrong',
      { part, aspect },
      search.said(part, aspect, ab, ba),
      `${part} ${metInWords(aspect, one)}, and with the rows in the other order it ${metInWords(aspect, other)}`,
      ab,
      ba,
      { one, other },
    );
  for (const [part, state] of Object.entries(alone.parts)) {
    const behind: PartState | undefined = ba.parts[part.replace('[0]', '[1]')];
    if (!part.startsWith(`${name}[0].`) || behind === undefined || !isSound(alone)) continue;
    for (const { aspect, one, other } of differencesBetween(
      form,
      { [part]: state },
      { [part]: behind },
      alone.seen,
      alone.seen,
    )) {
      if (BY_ANOTHER.includes(aspect)) continue;
      search.report(
        'row-touches-row',
        'wrong',
        { part, aspect },
        search.said(part, aspect, alone, ba),
        `${part} ${metInWords(aspect, one)} in a row by itself, and ${metInWords(aspect, other)} behind another row`,
        alone,
        ba,
        { one, other },
      );
    }
  }
  const [first, second] = [play(a, b, { submit: true }), play(b, a, { submit: true })];
  if (!isSound(first) || !isSound(second)) return;
  if (first.seen.submit?.saved !== second.seen.submit?.saved)
    search.report(
      'order-of-rows',
      'wrong',
      { part: name, aspect: 'submit' },
      [...first.stopRuns, ...second.stopRuns],
      `the form is ${first.seen.submit?.saved === true ? 'saved' : 'not saved'}, and with the rows in the other order it is ${second.seen.submit?.saved === true ? 'saved' : 'not saved'}`,
      first,
      second,
    );
}

/** A cell there and back, and two cells in both orders. */
function cells(
  search: Exploration,
  rows: RowsDriver,
  nth: number,
  place: number,
  one: Ran,
  play: (...steps: HeldStep[]) => Ran,
): void {
  const at = (cell: { address: string }) => `${rows.name}[${place}].${cell.address}`;
  const columns = columnsOf(search, rows);
  const first = columns[nth % columns.length];
  if (first === undefined || !isOpen(one.parts[at(first)])) return;
  const from = valueIn(one, at(first));
  const to = search.pick(othersIn(one, { address: at(first), values: first.values }));
  if (to === undefined) return;
  const set: HeldStep = { set: at(first), to };
  sameEnd(
    search,
    'not-back',
    play(set, { set: at(first), to: from }),
    one,
    `${at(first)} set to ${JSON.stringify(to)} and back`,
  );
  atLoad(search, play(set));
  const second = search.pick(rows.cells);
  if (second === undefined || second === first || !isOpen(one.parts[at(second)])) return;
  const other: HeldStep = { set: at(second), to: search.pick(second.values) ?? null };
  sameEnd(
    search,
    'order',
    play(set, other),
    play(other, set),
    `${at(first)} before ${at(second)}, or after it`,
  );
}
