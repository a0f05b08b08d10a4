/** Reads what probes wrote of a traced run: how often each line ran, and the values met. */
import type { Valued } from '../session/entries';
import { Cell, VALUES_KEPT } from '../wire/layout';
import { Untrue, type HostWire } from './wire';
import { NOTHING_REPORTED, type CompiledScript } from '../session/tie';
import { lineFrom, MODULE_STEP, type Line } from '../wire/line';

type Reporting = Pick<CompiledScript, 'expressions' | 'conditions'>;

export class Trace {
  #hits = new Map<number, number>();
  #values: Valued[] = [];
  #cut = false;
  #script: Reporting = NOTHING_REPORTED;
  /** The modules of the material, whose lines stand above those of the script that runs (`wire/line.ts`). */
  #modules: readonly (Reporting & { name: string })[] = [];

  constructor(private readonly wire: HostWire) {}

  begin(script: Reporting | undefined, modules: readonly (Reporting & { name: string })[]): void {
    this.#script = script ?? NOTHING_REPORTED;
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
      const script = place === 0 ? this.#script : this.#modules[place - 1];
      const number = cells[at + 1]!;
      const what = script?.expressions[number];
      if (what === undefined || line === 0 || at + 4 > end) throw new Untrue();
      if (this.#values.length < VALUES_KEPT) {
        const value = this.wire.traced(cells[at + 2]!, cells[at + 3]!);
        const valued: Valued = { line: this.#line(-line), what, value };
        if (script!.conditions.includes(number)) valued.condition = true;
        this.#values.push(valued);
      } else this.#cut = true;
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
    values: Valued[];
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
