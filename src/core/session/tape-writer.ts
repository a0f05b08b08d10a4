/** Numbers and keeps the entries of a traced session; in an untraced one it does nothing and costs nothing. */
import type { Entry } from './entries';

/** An entry before it has its number and cause. */
type Body<E> = E extends unknown ? Omit<E, 'n' | 'cause'> : never;
export type EntryBody = Body<Entry>;

export class TapeWriter {
  readonly on: boolean;
  #entries: Entry[] = [];
  #next = 0;

  constructor(on: boolean) {
    this.on = on;
  }

  /** Adds an entry and gives it back, so that its end can be filled in; null when nothing is taped. */
  add(cause: number | null, body: EntryBody): Entry | null {
    if (!this.on) return null;
    const entry = { n: this.#next++, cause, ...body } as Entry;
    this.#entries.push(entry);
    return entry;
  }

  /** The entries since the last call. */
  take(): Entry[] {
    const entries = this.#entries;
    this.#entries = [];
    return entries;
  }
}
