/** The acts of scripts (`wire/acts.ts`) as the session does them: read with a schema, parts looked up, done. */
import * as z from 'zod';
import { cutText } from '../wire/failures';
import type { Value } from '../form/value';
import { wallClock } from '../form/zone';
import type { Desk } from '../session/desk';
import type { Part } from '../session/parts';
import { columnKey, keyOf } from '../session/ties';
import type { Behaviour, Tied } from '../session/tie';
import type { ActName, AnswerTo, AskedOf } from '../wire/acts';
import { TIED_TO, type EventType } from '../wire/layout';
import type { Line } from '../wire/line';
import type { Numbers } from './numbers';
import { Untrue } from './wire';

const number = z
  .int()
  .min(0)
  .max(2 ** 31);
const line = number;
/** Whatever a script handed over; the session says what it takes. */
const offered = z.unknown() as unknown as z.ZodType<Value>;
const name = z.string().max(1000);
const nothing = z.null();

const SCHEMAS = {
  tie: z.strictObject({
    event: z.enum(Object.keys(TIED_TO) as [EventType, ...EventType[]]),
    to: z.array(z.union([number, z.tuple([number, name])])).max(10_000),
    tie: number,
    line,
    overlap: z.enum(['supersede', 'all']),
  }),
  untie: z.strictObject({ tie: number }),
  keep: z.strictObject({
    sort: z.enum(['rule', 'invariant']),
    tie: number,
    title: z.string(),
    line,
    field: number.nullable(),
  }),
  rows: z.strictObject({ field: number }),
  addRow: z.strictObject({ field: number, values: offered }),
  removeRow: z.strictObject({ field: number, row: number }),
  call: z.strictObject({ service: name, function: name, args: offered }),
  after: z.strictObject({ milliseconds: z.number().min(0).max(86_400_000) }),
  parent: nothing,
  parentGet: z.strictObject({ name }),
  parentSet: z.strictObject({ name, to: offered }),
  message: z.strictObject({
    text: z.string().transform(cutText),
    tone: z.enum(['info', 'warning', 'error']),
  }),
  clear: nothing,
  reset: nothing,
  submit: nothing,
  openPage: z.strictObject({ page: number }),
  log: z.strictObject({ values: z.array(offered) }),
  stop: z.strictObject({
    event: number,
    says: z.string().min(1).transform(cutText),
    part: number.nullable(),
  }),
  zone: z.strictObject({ zone: name, at: z.number() }),
} satisfies Record<ActName, z.ZodType>;

const Envelope = z.tuple([z.enum(Object.keys(SCHEMAS) as [ActName, ...ActName[]]), z.unknown()]);

/** The act that was asked, or an untruth. */
export function readAct(
  told: unknown,
): { [A in ActName]: { name: A; asked: AskedOf<A> } }[ActName] {
  const envelope = Envelope.safeParse(told);
  if (!envelope.success) throw new Untrue();
  const [act, asked] = envelope.data;
  const read = (SCHEMAS as Record<ActName, z.ZodType>)[act].safeParse(asked);
  if (!read.success) throw new Untrue();
  return { name: act, asked: read.data } as never;
}

/** What scripts can tie at their top level, before any form is open, and while a record is loaded. */
export interface Tying {
  tie(tied: Tied): void;
  untie(number: number): void;
  /** The behaviour in whose name ties are made. */
  behaviour(): Behaviour;
  /** The line that a number of the machine's stands for. */
  line(place: number): Line;
  nextOrder(): number;
}

type Doers = { [A in ActName]: (asked: AskedOf<A>, line: Line) => AnswerTo<A> };

const TYINGS: ReadonlySet<ActName> = new Set(['tie', 'untie', 'keep', 'zone']);

/** Whether an act can be done while no form is open. */
export function isTying(act: ActName): boolean {
  return TYINGS.has(act);
}

/** The acts that need no form to be open. */
export function tyingDoers(
  numbers: Numbers,
  tying: Tying,
): Pick<Doers, 'tie' | 'untie' | 'keep' | 'zone'> {
  const field = (at: number): Part => partOf(numbers, at, 'field');
  return {
    tie({ event, to, tie, line: line_, overlap }) {
      const sort = TIED_TO[event];
      if ((sort === 'form') !== (to.length === 0)) {
        // A list without any part ties to nothing.
        if (sort === 'form' || to.length > 0) throw new Untrue();
      }
      const keys =
        sort === 'form'
          ? [keyOf(event, null)]
          : to.map((one) =>
              typeof one === 'number'
                ? keyOf(event, partOf(numbers, one, sort === 'button' ? 'button' : 'field'))
                : columnOf(event, field(one[0]), one[1]),
            );
      tying.tie({
        is: 'handler',
        number: tie,
        behaviour: tying.behaviour(),
        event,
        keys,
        overlap,
        line: tying.line(line_),
        order: tying.nextOrder(),
      });
      return null;
    },
    untie({ tie }) {
      tying.untie(tie);
      return null;
    },
    keep({ sort, tie, title, line: line_, field: at }) {
      const rows = at === null ? null : field(at);
      if (rows?.rows === null) throw new Untrue();
      tying.tie({
        is: 'rule',
        sort,
        number: tie,
        behaviour: tying.behaviour(),
        title,
        line: tying.line(line_),
        order: tying.nextOrder(),
        rows: rows?.name ?? null,
      });
      return null;
    },
    zone: ({ zone, at }) => wallClock(zone, at) ?? [],
  };
}

function columnOf(event: EventType, part: Part, column: string): string {
  if (part.rows === null || !part.rows.columns.has(column)) throw new Untrue();
  return columnKey(event, part.name, column);
}

function partOf(numbers: Numbers, at: number, sort: Part['sort']): Part {
  const part = numbers.part(at);
  if (part === null || part.sort !== sort || part.row !== null) throw new Untrue();
  return part;
}

/** What is done and has no answer. */
function done(act: () => void): null {
  act();
  return null;
}

/** The acts at the desk of an open form. */
export function deskDoers(
  numbers: Numbers,
  desk: Desk,
): Omit<Doers, 'tie' | 'untie' | 'keep' | 'zone'> {
  const rowsField = (at: number): Part => {
    const part = partOf(numbers, at, 'field');
    if (part.rows === null) throw new Untrue();
    return part;
  };
  return {
    rows: ({ field }) =>
      desk.rows(rowsField(field)).flatMap((row) => [numbers.numberOfRow(row), Number(row.id)]),
    addRow({ field, values }, at) {
      const row = desk.addRow(rowsField(field), values ?? undefined, at);
      return [numbers.numberOfRow(row), Number(row.id)];
    },
    removeRow({ field, row: at }, on) {
      const row = numbers.row(at);
      if (row === null) throw new Untrue();
      return done(() => desk.removeRow(rowsField(field), row, on));
    },
    call: ({ service, function: called, args }, at) => desk.callService(service, called, args, at),
    after: ({ milliseconds }, at) => desk.after(milliseconds, at),
    parent: () => desk.hasParent,
    parentGet: ({ name: of }) => {
      if (!desk.hasParent) throw new Untrue();
      return desk.parentValue(of);
    },
    parentSet: ({ name: of, to }, at) => {
      if (!desk.hasParent) throw new Untrue();
      return desk.setInParent(of, to ?? null, at);
    },
    message: ({ text, tone }, at) => done(() => desk.run.message(text, tone, at)),
    clear: (_, at) => done(() => desk.clear(at)),
    reset: (_, at) => done(() => desk.reset(at)),
    submit: () => done(() => desk.submit()),
    openPage: ({ page }, at) => done(() => desk.openPage(partOf(numbers, page, 'page'), at)),
    log: ({ values }, at) => done(() => desk.run.log(values, at)),
    stop({ event, says, part: at }) {
      const part = at === null ? null : numbers.part(at);
      if (part === null && at !== null) throw new Untrue();
      return done(() => desk.stop(event, says, part));
    },
  };
}
