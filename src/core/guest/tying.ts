/** What a behaviour ties with, `on` and `keep`, made for each, since ties are made in its name; and the `log` of scripts. */
import { inWords } from '../form/value';
import { words } from '../wire/failures';
import { TIED_TO, type EventType, type RuleSort } from '../wire/layout';
import { GuestRun, type Current } from './current';
import { Face } from './face';
import type { Faces } from './faces';
import { plain, type ReadsAs } from './plain';
import type { Probe } from './probe';
import type { Wire } from './wire';

/** A function that a script handed over, with what its runs need. */
export interface Tie {
  readonly run: (argument: unknown) => unknown;
  readonly probe: Probe;
  /** Where it is tied, 1-based. */
  readonly line: number;
  /** Of a rule or an invariant: the run that all its runs are, since it never waits. */
  readonly ruleRun: GuestRun | null;
}

export interface Tying {
  on: object;
  keep: object;
  always: object;
}

const SUCH = {
  form: 'nothing',
  field: 'a field such as fields.name, or a column such as fields.name.each.column',
  button: 'a button such as buttons.name',
  rows: 'a rows field such as fields.name',
} as const satisfies Record<(typeof TIED_TO)[EventType], string>;

/** By what name scripts tie each. */
const CALLED = { rule: 'keep', invariant: 'always' } as const satisfies Record<RuleSort, string>;

export function logFor(
  current: Current,
  wire: Wire,
  readsAs: ReadsAs,
): (...values: unknown[]) => void {
  return (...values) => {
    current.demand('log() was called');
    wire.act('log', { values: values.map((value) => plain(value, readsAs)) });
  };
}

/** `ties` gets what is tied; its place there is its number. */
export function tyingFor(
  probe: Probe,
  ties: Tie[],
  wire: Wire,
  current: Current,
  faces: Faces,
): Tying {
  const wrong = (says: string): never => current.wrong(says);

  const overlapOf = (options: unknown, call: string): 'supersede' | 'all' => {
    if (options === undefined) return 'supersede';
    const { overlap } = (options ?? {}) as { overlap?: unknown };
    if (overlap === 'all' || overlap === 'supersede') return overlap;
    return wrong(
      words.wrongArguments(
        call,
        'takes { overlap: "all" } or { overlap: "supersede" } as its last argument.',
      ),
    );
  };

  const tie = (
    event: EventType,
    to: (number | [number, string])[],
    run: unknown,
    options: unknown,
  ): (() => void) => {
    const call = `on.${event}`;
    if (typeof run !== 'function')
      return wrong(words.wrongArguments(call, `takes a function to run, not ${inWords(run)}.`));
    const number = ties.length;
    const overlap = overlapOf(options, call);
    wire.act('tie', { event, to, tie: number, line: probe.l, overlap });
    ties.push({ run: run as Tie['run'], probe, line: probe.l, ruleRun: null });
    return () => void wire.act('untie', { tie: number });
  };

  const tiedTo =
    (event: EventType, sort: 'field' | 'button' | 'rows') =>
    (given: unknown, run: unknown, options?: unknown) => {
      const list = Array.isArray(given) ? (given as unknown[]) : [given];
      const to = list.map((item): number | [number, string] => {
        const column = sort === 'field' ? faces.columnOf(item) : null;
        if (column !== null) return [...column];
        const behind = Face.behind(item);
        const fits =
          behind !== null &&
          (sort === 'rows'
            ? behind.info.columns !== null && behind.row === null
            : behind.info.sort === sort && behind.row === null);
        return fits
          ? behind.number
          : wrong(
              words.wrongArguments(`on.${event}`, `takes ${SUCH[sort]}, not ${inWords(item)}.`),
            );
      });
      return tie(event, to, run, options);
    };

  const on: Record<string, unknown> = {};
  for (const event of Object.keys(TIED_TO) as EventType[]) {
    const sort = TIED_TO[event];
    on[event] =
      sort === 'form'
        ? (run: unknown, options?: unknown) => tie(event, [], run, options)
        : tiedTo(event, sort);
  }

  const holding = (sort: RuleSort, field: number | null, given: unknown[]): void => {
    const call = `${CALLED[sort]}${field === null ? '' : '.each'}`;
    // The title identifies an invariant, so it is required; a rule may omit it.
    const untitled = sort === 'rule' && typeof given[0] === 'function';
    const [title, body] = untitled ? [`rule in line ${probe.l}`, given[0]] : given;
    if (typeof title !== 'string' || typeof body !== 'function')
      return wrong(words.wrongArguments(call, 'takes a title and a function.'));
    wire.act('keep', { sort, tie: ties.length, title, line: probe.l, field });
    ties.push({
      run: body as Tie['run'],
      probe,
      line: probe.l,
      ruleRun: new GuestRun(-1, sort, probe, probe.l),
    });
  };

  /** `keep` or `always`, with its form for each row. */
  const holder = (sort: RuleSort): object => {
    const each = (field: unknown, title: unknown, run: unknown): void => {
      const behind = Face.behind(field);
      if (behind === null || behind.info.columns === null || behind.row !== null)
        return wrong(
          words.wrongArguments(
            `${CALLED[sort]}.each`,
            `takes a rows field such as fields.name, not ${inWords(field)}.`,
          ),
        );
      holding(sort, behind.number, [title, run]);
    };
    return Object.freeze(
      Object.assign((title: unknown, run: unknown) => holding(sort, null, [title, run]), {
        each: Object.freeze(each),
      }),
    );
  };

  return { on: Object.freeze(on), keep: holder('rule'), always: holder('invariant') };
}
