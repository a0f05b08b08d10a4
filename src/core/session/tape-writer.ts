/**
 * Numbers and keeps the entries of a traced session; in an untraced one it does nothing and costs nothing. Effects and
 * log lines of what is undone are struck, however it comes to be undone.
 */
import { inWords, type Value } from '../form/value';
import type { Aspect } from './aspects';
import type { SaidName } from '../wire/aspects';
import type { Restore } from './checkpoint';
import type { EffectEntry, Entry } from './entries';
import type { Journal } from './journal';
import type { Observer } from './observer';

/** An entry before it has its number and cause. */
type Body<E> = E extends unknown ? Omit<E, 'n' | 'cause'> : never;
export type EntryBody = Body<Entry>;

export class TapeWriter {
  #entries: Entry[] = [];
  #next = 0;

  constructor(
    readonly on: boolean,
    private readonly journal: Journal,
    private readonly observer: Observer | null = null,
  ) {}

  /** Adds an entry and gives it back, so that its end can be filled in; null when nothing is taped. */
  add(cause: number | null, body: EntryBody): Entry | null {
    if (!this.on) return null;
    const entry = { n: this.#next++, cause, ...body } as Entry;
    this.#entries.push(entry);
    if (entry.type === 'log' || (entry.type === 'effect' && entry.by !== 'person'))
      this.journal.undoable(() => (entry.struck = true));
    this.observer?.taped(entry);
    return entry;
  }

  /** Adds an effect on an aspect; gives its number, or that of its cause when nothing is taped. */
  effect(
    cause: number | null,
    aspect: Aspect,
    from: Value,
    to: Value,
    more: Pick<EffectEntry, 'by' | 'line' | 'withdrawn' | 'covered' | 'again'>,
  ): number | null {
    if (!this.on) return cause;
    const { part, name } = aspect;
    // What is derived from other parts is never written, so what has an effect is said of the part.
    return this.add(cause, {
      type: 'effect',
      part: part.name,
      sort: part.sort,
      aspect: name as SaidName,
      from: forTape(from),
      to: forTape(to),
      ...more,
    })!.n;
  }

  checkpoint(): Restore {
    const next = this.#next;
    return () => {
      this.#entries = [];
      this.#next = next;
    };
  }

  /** The entries since the last call. */
  take(): Entry[] {
    const entries = this.#entries;
    if (entries.length > 0) this.#entries = [];
    return entries;
  }
}

/** More rows than this are told by their number. */
const MOST_TAPED = 20;

/** Options are told by their keys on the tape, long lists by how long they are. */
export function forTape(value: Value): Value {
  if (!Array.isArray(value)) return value;
  const isRows = value.length > MOST_TAPED && typeof value[0] === 'object';
  if (isRows && !('key' in (value[0] as object))) return inWords(value);
  return value.map((item: Value) =>
    typeof item === 'object' &&
    item !== null &&
    !Array.isArray(item) &&
    'key' in item &&
    'label' in item
      ? (item as { key: Value }).key
      : item,
  );
}
