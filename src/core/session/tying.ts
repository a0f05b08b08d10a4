/** What a behaviour ties with: `on` and `keep`, and its `log`; made for each behaviour, since ties are made in its name. */
import { inWords } from '../form/value';
import type { EventType } from './entries';
import { ScriptFault, words } from './errors';
import { partOf } from './face';
import type { Faces } from './faces';
import type { Part } from './parts';
import type { Runs } from './runs';
import { columnKey, keyOf, type Event, type Settling } from './settling';
import { ruleOf, type Behaviour, type Handler } from './ties';

export interface Tying {
  on: object;
  keep: object;
  log: (...values: unknown[]) => void;
}

export function tyingFor(behaviour: Behaviour, runs: Runs, settling: Settling, faces: Faces, nextOrder: () => number): Tying {
  const fault = (says: string): never => runs.fault(new ScriptFault('wrong_use', says));
  const duringLoad = () => runs.running?.sort === 'handler' && runs.running.event === 'load';

  const mayTie = (call: string) => {
    if (runs.running !== null && !duringLoad()) fault(words.tieInside(call));
  };

  const tie = (event: EventType, call: string, keys: readonly string[], run: unknown, options: unknown) => {
    mayTie(call);
    if (typeof run !== 'function') return fault(words.wrongArguments(call, `takes a function to run, not ${inWords(run)}.`));
    return settling.tie({
      sort: 'handler',
      behaviour,
      event,
      keys,
      run: run as Handler['run'],
      line: behaviour.probe.l,
      order: nextOrder(),
      overlap: overlapOf(options, call),
      ofRecord: duringLoad(),
      rowRuns: null,
      step: 0,
      runs: 0,
    });
  };

  const overlapOf = (options: unknown, call: string): Handler['overlap'] => {
    if (options === undefined) return 'supersede';
    const { overlap } = (options ?? {}) as { overlap?: unknown };
    if (overlap === 'all' || overlap === 'supersede') return overlap;
    return fault(words.wrongArguments(call, 'takes { overlap: "all" } or { overlap: "supersede" } as its last argument.'));
  };

  /** Ties to fields and columns, one or several. */
  const tiedTo =
    (event: EventType, sort: 'field' | 'button' | 'rows') =>
    (given: unknown, run: unknown, options?: unknown): (() => void) => {
      const call = `on.${event}`;
      const list = Array.isArray(given) ? (given as unknown[]) : [given];
      const keys = list.map((item) => {
        const token = sort === 'field' ? faces.columnOf(item) : null;
        if (token !== null) return columnKey(event, token.rows.name, token.column);
        const part = partOf(item);
        const fits = part !== null && (sort === 'rows' ? part.rows !== null : part.sort === sort && part.row === null);
        if (!fits) return fault(words.wrongArguments(call, `takes ${SUCH[sort]}, not ${inWords(item)}.`));
        return keyOf(event, part);
      });
      return tie(event, call, keys, run, options);
    };

  const whole =
    (event: EventType) =>
    (run: unknown, options?: unknown): (() => void) =>
      tie(event, `on.${event}`, [keyOf(event, null)], run, options);

  const on = Object.freeze({
    load: whole('load'),
    submit: whole('submit'),
    saved: whole('saved'),
    pageChange: whole('pageChange'),
    change: tiedTo('change', 'field'),
    input: tiedTo('input', 'field'),
    focus: tiedTo('focus', 'field'),
    blur: tiedTo('blur', 'field'),
    click: tiedTo('click', 'button'),
    rowAdded: tiedTo('rowAdded', 'rows'),
    rowRemoved: tiedTo('rowRemoved', 'rows'),
  });

  const made = (call: string, title: unknown, run: unknown) => {
    const [name, body] = typeof title === 'function' ? [`rule in line ${behaviour.probe.l}`, title] : [title, run];
    mayTie(call);
    if (typeof name !== 'string' || typeof body !== 'function') fault(words.wrongArguments(call, 'takes a title and a function.'));
    return { behaviour, title: name as string, run: body as (row: unknown) => unknown, line: behaviour.probe.l, order: nextOrder(), ofRecord: duringLoad() };
  };

  const keep = Object.assign((title: unknown, run: unknown) => settling.keep(ruleOf(made('keep', title, run), null)), {
    each: (field: unknown, title: unknown, run: unknown) => {
      const rows = partOf(field)?.rows ?? null;
      if (rows === null) return fault(words.wrongArguments('keep.each', `takes a rows field such as fields.name, not ${inWords(field)}.`));
      settling.keepEach({ rows, ...made('keep.each', title, run) });
    },
  });
  Object.freeze(keep.each);
  return { on, keep: Object.freeze(keep), log: (...values) => runs.log(values) };
}

const SUCH = {
  field: 'a field such as fields.name, or a column such as fields.name.each.column',
  button: 'a button such as buttons.name',
  rows: 'a rows field such as fields.name',
} as const;

/** The event as a handler gets it. */
export function eventFor(event: Event, faces: Faces, runs: Runs): object {
  const { part, row, value, previous, by, extra, stop } = event;
  const given: Record<string, unknown> = { part: part === null ? null : faces.faceOf(part), value, previous, by, ...extra };
  if (row !== null) given.row = faces.rowFace(row);
  if (stop !== undefined) {
    given.stop = (says: unknown, at?: unknown) => {
      const fault = (wrong: string): never => runs.fault(new ScriptFault('wrong_use', wrong));
      if (typeof says !== 'string' || says === '') return fault(words.wrongAspect('event', 'stop()', 'a text that says why', says));
      stop(says, at === undefined || at === null ? null : stopPart(at, fault));
    };
  }
  return Object.freeze(given);
}

function stopPart(at: unknown, fault: (says: string) => never): Part {
  const part = partOf(at);
  if (part === null || part.sort === 'button' || part.sort === 'track') return fault(words.wrongArguments('event.stop', `takes a field, section, page or row as its second argument, not ${inWords(at)}.`));
  return part;
}
