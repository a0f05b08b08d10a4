/** Reads what probes wrote of a traced run: how often each line ran, and the values met. */
import type { Value } from '../form/value';
import { Cell, VALUES_KEPT } from '../wire/layout';
import { Untrue, type HostWire } from './wire';
import type { CompiledScript } from '../session/tie';
import { lineFrom, MODULE_STEP, type Line } from '../wire/line';

export class Trace {
  #hits = new Map<number, number>();
  #values: { line: Line; what: string; value: Value }[] = [];
  #cut = false;
  #expressions: readonly string[] = [];
  /** The modules of the material, whose lines stand above those of the script that runs (`wire/line.ts`). */
  #modules: readonly Pick<CompiledScript, 'name' | 'expressions'>[] = [];

  constructor(private readonly wire: HostWire) {}

  begin(
    expressions: readonly string[],
    modules: readonly Pick<CompiledScript, 'name' | 'expressions'>[],
  ): void {
    this.#expressions = expressions;
    this.#modules = modules;
    this.#hits = new Map();
    this.#values = [];
    this.#cut = false;
  }

  /** Reads what stands in the memory so far. */
  empty(): void {
    const { cells } = this.wire.machine;
    const end = Math.min(cells[Cell.TraceEnd]!, cells.length);
    for (let at: number = Cell.Trace; at < end;) {
      const line = cells[at]!;
      if (line > 0) {
        this.#hits.set(line, (this.#hits.get(line) ?? 0) + 1);
        at++;
        continue;
      }
      const place = Math.floor(-line / MODULE_STEP);
      const expressions = place === 0 ? this.#expressions : this.#modules[place - 1]?.expressions;
      const what = expressions?.[cells[at + 1]!];
      if (what === undefined || line === 0 || at + 4 > end) throw new Untrue();
      if (this.#values.length < VALUES_KEPT)
        this.#values.push({
          line: this.#line(-line),
          what,
          value: this.wire.traced(cells[at + 2]!, cells[at + 3]!),
        });
      else this.#cut = true;
      at += 4;
    }
  }

  #line(place: number): Line {
    return lineFrom(
      place,
      this.#modules.map(({ name }) => name),
    );
  }

  /** All that was traced; lines in their order. */
  take(): {
    lines: [Line, number][];
    values: { line: Line; what: string; value: Value }[];
    cut: boolean;
  } {
    return {
      lines: [...this.#hits]
        .sort((a, b) => a[0] - b[0])
        .map(([place, count]) => [this.#line(place), count]),
      values: this.#values,
      cut: this.#cut,
    };
  }
}
