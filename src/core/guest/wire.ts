/**
 * The scripts' end of the memory that both see (`wire/layout.ts`): values out and in, and one call to the session. The
 * built-ins it needs are taken when it starts, before any script has run. Whatever comes from a script is read here to
 * its end, so that no code of a script runs while the session is asked.
 */
import { deepFreeze } from '../form/value';
import type { ActName, AnswerTo, AskedOf } from '../wire/acts';
import { FAILURES, ScriptError } from '../wire/failures';
import { Cell, Double, LONGEST_NUMBERED, Op, Strange, STRANGE_KEY, Tag } from '../wire/layout';
import type { Current } from './current';

export interface Wire {
  /** The cells, as whole numbers and as doubles. */
  readonly cells: Int32Array;
  readonly floats: Float64Array;
  /** Hands over to the session, which answers in the cells. */
  readonly call: () => void;
  /** Texts by their number. */
  readonly texts: readonly string[];
  /** Reads a value told in the cells. Throws the fault that was answered instead. */
  take(tag: number, payload: number, float: number): unknown;
  /** Tells a value in the cells `Tag`, `Payload` and `Float`. */
  give(value: unknown): void;
  /** Tells plain JSON as the scripts' trace keeps it: as a text. */
  giveJson(value: unknown): void;
  giveFault(fault: { code: (typeof FAILURES)[number]; says: string }): void;
  act<A extends ActName>(name: A, asked: AskedOf<A>): AnswerTo<A>;
  /** What the session calls to hand over texts: a new one, a loose one, and to cut the lists back. */
  putText(text: string): void;
  putLoose(place: number, text: string): void;
  given(): string;
  loose(place: number): string;
  cut(texts: number, kept: number): void;
  /** How many texts and kept values there are. */
  counts(): [number, number];
}

export interface Readings {
  /** Whether a value is a face, which is no value. */
  isFace(value: object): boolean;
  /** The table and key of a row of reference data; null for anything else. */
  tableRow(value: object): readonly [string, string] | null;
}

const { isArray } = Array;
const { keys, prototype } = Object;
const { parse, stringify } = JSON;
const { isFinite } = Number;
const tagOf = prototype.toString;

/** Deeper than any value goes. */
const MOST_DEPTH = 8;

export function makeWire(
  buffer: ArrayBuffer,
  host: () => void,
  readings: Readings,
  current: Current,
): Wire {
  const cells = new Int32Array(buffer);
  const floats = new Float64Array(buffer);
  const call = host;
  const texts: string[] = [];
  const numbers = new Map<string, number>();
  /** What JSON texts say, by their number. */
  const parsed: unknown[] = [];
  const kept: unknown[] = [];
  const loose: string[] = [];
  let given = '';

  const putText = (text: string): void => {
    numbers.set(text, texts.length);
    texts.push(text);
  };

  const numberOf = (text: string): number => {
    const known = numbers.get(text);
    if (known !== undefined) return known;
    given = text;
    cells[Cell.Op] = Op.NewText;
    call();
    const number = texts.length;
    putText(text);
    return number;
  };

  const giveText = (text: string, numbered: Tag, long: Tag): void => {
    if (text.length <= LONGEST_NUMBERED) {
      const number = numberOf(text);
      cells[Cell.Tag] = numbered;
      cells[Cell.Payload] = number;
      return;
    }
    given = text;
    cells[Cell.Op] = Op.LooseText;
    call();
    given = '';
    cells[Cell.Tag] = long;
  };

  const strange = (value: unknown): Strange => {
    if (typeof value === 'function') return Strange.Function;
    return tagOf.call(value).startsWith('[object Temporal.') ? Strange.Temporal : Strange.Object;
  };

  /** A copy in plain JSON, with a mark where JSON has no words. Runs getters of the script's, so it may throw. */
  const spelled = (value: unknown, depth: number): unknown => {
    switch (typeof value) {
      case 'string':
      case 'boolean':
        return value;
      case 'number':
        return isFinite(value) ? value : { [STRANGE_KEY]: String(value) };
      case 'undefined':
        return { [STRANGE_KEY]: 'undefined' };
      case 'object': {
        if (value === null) return null;
        const row = readings.tableRow(value);
        if (row !== null) return { [STRANGE_KEY]: row };
        if (depth > MOST_DEPTH || readings.isFace(value) || strange(value) === Strange.Temporal)
          return { [STRANGE_KEY]: strange(value) };
        if (isArray(value)) {
          const items: unknown[] = [];
          for (let i = 0; i < value.length; i++) items[i] = spelled(value[i], depth + 1);
          return items;
        }
        const copy: Record<string, unknown> = { __proto__: null } as never;
        for (const name of keys(value))
          copy[name] = spelled((value as Record<string, unknown>)[name], depth + 1);
        return copy;
      }
      default:
        return { [STRANGE_KEY]: strange(value) };
    }
  };

  const give = (value: unknown): void => {
    switch (typeof value) {
      case 'string':
        return giveText(value, Tag.Text, Tag.LooseText);
      case 'number':
        cells[Cell.Tag] = Tag.Number;
        floats[Double.Answer] = value;
        return;
      case 'boolean':
        cells[Cell.Tag] = value ? Tag.True : Tag.False;
        return;
      case 'undefined':
        cells[Cell.Tag] = Tag.Undefined;
        return;
      case 'object':
        if (value === null) {
          cells[Cell.Tag] = Tag.Null;
          return;
        }
        if (readings.isFace(value) || strange(value) === Strange.Temporal) break;
        return giveText(stringify(spelled(value, 0)), Tag.Json, Tag.LooseJson);
    }
    cells[Cell.Payload] = strange(value);
    cells[Cell.Tag] = Tag.Strange;
  };

  const fault = (code: number, says: string): never => {
    return current.fault(new ScriptError(FAILURES[code]!, says));
  };

  const take = (tag: number, payload: number, float: number): unknown => {
    const at = cells[payload]!;
    switch (cells[tag]) {
      case Tag.Null:
        return null;
      case Tag.False:
        return false;
      case Tag.True:
        return true;
      case Tag.Number:
        return floats[float];
      case Tag.Text:
        return texts[at];
      case Tag.Json:
        return (parsed[at] ??= deepFreeze(parse(texts[at]!)));
      case Tag.LooseText:
        return loose[at];
      case Tag.LooseJson:
        return deepFreeze(parse(loose[at]!));
      case Tag.Kept:
        return kept[at];
      case Tag.KeepJson: {
        const value: unknown = deepFreeze(parse(loose[at]!));
        kept.push(value);
        return value;
      }
      case Tag.Fault:
        return fault(cells[Cell.More]!, texts[at]!);
      case Tag.LooseFault:
        return fault(cells[Cell.More]!, loose[at]!);
      default:
        return undefined;
    }
  };

  return {
    cells,
    floats,
    call,
    texts,
    take,
    give,
    giveJson: (value) => giveText(stringify(value), Tag.Json, Tag.LooseJson),
    giveFault({ code, says }) {
      giveText(says, Tag.Fault, Tag.LooseFault);
      cells[Cell.More] = FAILURES.indexOf(code);
    },
    act(name, asked) {
      giveText(stringify([name, spelled(asked, 0)]), Tag.Json, Tag.LooseJson);
      cells[Cell.Line] = current.probe?.l ?? 0;
      cells[Cell.Op] = Op.Act;
      call();
      return take(Cell.Tag, Cell.Payload, Double.Answer) as never;
    },
    putText,
    putLoose(place, text) {
      loose[place] = text;
    },
    given: () => given,
    loose: (place) => loose[place] ?? '',
    cut(most, mostKept) {
      for (let i = most; i < texts.length; i++) numbers.delete(texts[i]!);
      if (texts.length > most) texts.length = most;
      if (parsed.length > most) parsed.length = most;
      if (kept.length > mostKept) kept.length = mostKept;
      loose.length = 0;
      given = '';
    },
    counts: () => [texts.length, kept.length],
  };
}
