/** Events that handlers may stop while they are under way: turning a page, and submitting. */
import type { Event } from './progress';
import type { Part } from './parts';

export class Stopping {
  readonly #under = new Map<number, Event>();
  /** Never given again, even after an undoing: a script may have kept its event. */
  #numbers = 0;

  /** The event can be stopped from now on, under this number. */
  begin(event: Event): number {
    const number = ++this.#numbers;
    this.#under.set(number, event);
    return number;
  }

  /** Stops it. False when it is over, or there is none. */
  stop(number: number, says: string, part: Part | null, readsOf: ReadonlySet<Part>): boolean {
    const event = this.#under.get(number);
    event?.stop!(says, part, readsOf);
    return event !== undefined;
  }

  /** What was under way is decided. */
  end(): void {
    this.#under.clear();
  }
}
