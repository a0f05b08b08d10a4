/** About rows: what a sum, a count and the rows themselves are made of, how a row came, and what it brought. */
import type { Value, Values } from '../form/value';
import type { Entry } from '../session/entries';
import type { Look } from '../session/looking';
import type { Run } from '../tape/tape';
import { causeOfRead, explained } from './explained';
import { nobodys, runMet, type Cause, type Decision } from './decision';
import { ownOf, type Ground } from './ground';
import { inRow, summedIn, type Question } from './question';
import { placed, saidByRule } from './saying';

type RowsEntry = Entry & { type: 'rows' };

/** So many rows are named as causes; there may be ten thousand. */
const MOST_ROWS = 30;

type SeenRows = Look['rows'][string];

const NO_ROWS: SeenRows = { order: [], byId: {} };

/** A sum, a count, the order of rows, or the value of the field: the rows that it is made of, and their cells. */
export async function madeOfRows(ground: Ground, question: Question): Promise<Decision> {
  const { part, aspect, before } = question;
  const rows = ownOf((await ground.lookBefore(before))?.rows, part) ?? NO_ROWS;
  const summed = summedIn(aspect);
  const gone = entriesOf(ground, part, before).filter(({ did }) => did === 'removed');
  const told = rows.order.slice(0, MOST_ROWS);
  const causes: Cause[] = [
    ...(summed === null
      ? told.flatMap((id) => rowCauses(ground, part, id, aspect, before))
      : told.map((id) => cellCause(ground, part, id, summed, rows, before))),
    ...(aspect === 'value'
      ? told.flatMap((id) =>
          Object.keys(rows.byId[id]!.values)
            .map((cell) => cellCause(ground, part, id, cell, rows, before))
            .filter(({ entry }) => entry !== null),
        )
      : []),
    ...gone.slice(-MOST_ROWS).map(({ row, n }): Cause => ({
      is: 'row',
      part: `${part}#${row}`,
      did: 'removed',
      entry: n,
    })),
  ];
  return {
    ...nobodys(part, aspect, valueOf(rows, aspect, summed), 'derived'),
    causes,
    asOf: before,
  };
}

function valueOf({ order, byId }: SeenRows, aspect: string, summed: string | null): Value {
  if (aspect === 'count') return order.length;
  if (aspect === 'order') return order;
  if (summed === null) return order.map((id) => byId[id]!.values as Value);
  return order.reduce((sum, id) => sum + ((byId[id]!.values[summed] as number | null) ?? 0), 0);
}

/** How a row came, and for their order where it was moved to. */
function rowCauses(
  ground: Ground,
  part: string,
  id: string,
  aspect: string,
  before: number | null,
): Cause[] {
  const all = entriesOf(ground, part, before).filter(({ row }) => row === id);
  const [added, moved] = [all.findLast(came), all.findLast(({ did }) => did === 'moved')];
  const name = `${part}#${id}`;
  return [
    {
      is: 'row',
      part: name,
      did: added === undefined ? 'brought' : 'added',
      entry: added?.n ?? null,
    },
    ...(moved === undefined || aspect === 'count'
      ? []
      : [{ is: 'row', part: name, did: 'moved', entry: moved.n } as const]),
  ];
}

function cellCause(
  { tape }: Ground,
  part: string,
  id: string,
  cell: string,
  rows: SeenRows,
  before: number | null,
): Cause & { is: 'read' } {
  const value = rows.byId[id]!.values[cell] ?? null;
  return causeOfRead(tape, { part: `${part}#${id}.${cell}`, aspect: 'value', value }, before);
}

/** What was done to the rows of a field before a moment, without what was taken back. */
function entriesOf({ tape }: Ground, part: string, before: number | null): RowsEntry[] {
  return tape.entries.filter(
    (entry): entry is RowsEntry =>
      entry.type === 'rows' &&
      entry.part === part &&
      entry.n > tape.since &&
      (before === null || entry.n < before) &&
      !tape.isStruck(entry),
  );
}

const came = ({ did }: RowsEntry): boolean => did === 'added';

/** A row as a value: its cells. */
export async function madeOfCells(ground: Ground, question: Question): Promise<Decision> {
  const { part, aspect, before } = question;
  const { rows: field, id } = inRow(part)!;
  const rows = ownOf((await ground.lookBefore(before))?.rows, field) ?? NO_ROWS;
  const values = rows.byId[id]?.values ?? {};
  return {
    ...nobodys(part, aspect, values as Value, 'derived'),
    asOf: before,
    causes: [
      ...rowCauses(ground, field, id, 'count', before),
      ...Object.keys(values).map((cell) => cellCause(ground, field, id, cell, rows, before)),
    ],
  };
}

/** Whether a row is there, or at its place: who added, moved or removed it. */
export async function aboutRow(ground: Ground, question: Question): Promise<Decision> {
  const { part, aspect, before } = question;
  const { rows, id } = inRow(part)!;
  const entry = entriesOf(ground, rows, before).findLast(
    ({ row, did }) => row === id && (aspect === 'there' ? did !== 'moved' : did === 'moved'),
  );
  if (entry === undefined) return nobodys(part, aspect, true, 'record');
  const value = aspect === 'place' ? entry.place : entry.did === 'added';
  return byRowsEntry(ground, nobodys(part, aspect, value, 'row'), entry);
}

/** A cell that holds what its row brought: from a person, a script, or the record. */
export async function cellWithRow(ground: Ground, question: Question): Promise<Decision | null> {
  const { part, aspect, before } = question;
  const within = inRow(part);
  if (within === null || within.cell === null || aspect !== 'value') return null;
  const look = await ground.lookBefore(before);
  const values: Values = ownOf(look?.rows, within.rows)?.byId[within.id]?.values ?? {};
  const value = values[within.cell] ?? null;
  const entry = entriesOf(ground, within.rows, before).findLast(
    (one) => one.row === within.id && came(one),
  );
  return entry === undefined
    ? nobodys(part, aspect, value, 'record')
    : byRowsEntry(ground, nobodys(part, aspect, value, 'row'), entry);
}

/** Who did it, with all that led there where a script did. */
async function byRowsEntry(
  ground: Ground,
  decision: Decision,
  entry: RowsEntry,
): Promise<Decision> {
  const { tape } = ground;
  const told = { ...decision, entry: entry.n, step: tape.stepOf(entry) };
  const cause = tape.causeOf(entry);
  if (cause?.type !== 'run') return told;
  const run = cause as Run;
  const found =
    run.sort === 'rule'
      ? await saidByRule(ground, run, { part: entry.part, aspect: 'value', before: entry.n })
      : await placed(ground, run, { entry: entry.n, line: entry.line });
  if (found === null) return { ...told, run: runMet(run), line: entry.line };
  return { ...told, ...explained(ground, found, run.sort === 'rule' ? run.n : entry.n) };
}
