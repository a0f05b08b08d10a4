/** What stood when the opening had settled, for `form.reset()`. */
import type { Value } from '../form/value';
import type { Restore } from './checkpoint';
import type { Part } from './parts';

export class Opened {
  #values = new Map<Part, Value>();

  note(fields: readonly Part[]): void {
    this.#values = new Map(fields.map((part) => [part, part.value]));
  }

  /** The value of a field then; null before anything was opened. */
  valueOf(part: Part): Value {
    return this.#values.get(part) ?? null;
  }

  checkpoint(): Restore {
    const values = this.#values;
    return () => {
      this.#values = values;
    };
  }
}
