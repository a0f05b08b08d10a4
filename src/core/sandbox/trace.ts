/** Reads what probes wrote of a traced run: how often each line ran, and the values met. */
import type { Value } from '../form/value';
import { Cell, VALUES_KEPT } from '../wire/layout';
import { Untrue, type HostWire } from './wire';

export class Trace {
  readonly #wire: HostWire;
  #hits = new Map<number, number>();
  #values: { line: number; what: string; value: Value }[] = [];
  #cut = false;
  #expressions: readonly string[] = [];

  constructor(wire: HostWire) {
    this.#wire = wire;
  }

  begin(expressions: readonly string[]): void {
    this.#expressions = expressions;
    this.#hits = new Map();
    this.#values = [];
    this.#cut = false;
  }

  /** Reads what stands in the memory so far. */
  empty(): void {
    const { cells } = this.#wire.machine;
    const end = Math.min(cells[Cell.TraceEnd]!, cells.length);
    for (let at: number = Cell.Trace; at < end;) {
      const line = cells[at]!;
      if (line > 0) {
        this.#hits.set(line, (this.#hits.get(line) ?? 0) + 1);
        at++;
        continue;
      }
      const what = this.#expressions[cells[at + 1]!];
      if (what === undefined || line === 0 || at + 4 > end) throw new Untrue();
      if (this.#values.length < VALUES_KEPT)
        this.#values.push({
          line: -line,
          what,
          value: this.#wire.traced(cells[at + 2]!, cells[at + 3]!),
        });
      else this.#cut = true;
      at += 4;
    }
  }

  /** All that was traced; lines in their order. */
  take(): {
    lines: [number, number][];
    values: { line: number; what: string; value: Value }[];
    cut: boolean;
  } {
    return {
      lines: [...this.#hits].sort((a, b) => a[0] - b[0]),
      values: this.#values,
      cut: this.#cut,
    };
  }
}
