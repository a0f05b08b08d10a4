/**
 * Which lines of behaviours and shared modules scenarios reached, as LCOV tracefile records (geninfo(1), "TRACEFILE FORMAT"). Counts lines
 * from the tapes of traced runs; which lines can run at all is read from the probes in the compiled code.
 */
import type { Entry, RunEntry } from '../session/entries';
import type { CompiledScript } from '../session/ties';
import { placeOf } from '../wire/line';

export class Coverage {
  /** Counts by line, by script. */
  readonly #counts = new Map<string, Map<number, number>>();

  constructor(scripts: readonly CompiledScript[]) {
    for (const { name, code } of scripts) {
      const counts = new Map<number, number>();
      for (const [, line] of (code ?? '').matchAll(/__probe\.s\((\d+)\)/g))
        counts.set(Number(line), 0);
      // What stands at the top level, unindented in compiled code, has run when the script was loaded.
      for (const [, line] of (code ?? '').matchAll(/^__probe\.s\((\d+)\)/gm))
        counts.set(Number(line), 1);
      this.#counts.set(name, counts);
    }
  }

  add(tape: readonly Entry[]): void {
    for (const entry of tape) {
      if (entry.type !== 'run') continue;
      const { behaviour, lines } = entry as Entry & RunEntry;
      for (const [at, hits] of lines) {
        const { script, line } = placeOf(at, behaviour);
        const counts = this.#counts.get(script);
        counts?.set(line, (counts.get(line) ?? 0) + hits);
      }
    }
  }

  /** One record per script; `fileOf` names the source file. */
  lcov(fileOf: (script: string) => string): string {
    return [...this.#counts]
      .map(([behaviour, counts]) => {
        const lines = [...counts].sort((a, b) => a[0] - b[0]);
        const hit = lines.filter(([, count]) => count > 0).length;
        return [
          'TN:',
          `SF:${fileOf(behaviour)}`,
          ...lines.map(([line, count]) => `DA:${line},${count}`),
          `LF:${lines.length}`,
          `LH:${hit}`,
          'end_of_record',
          '',
        ].join('\n');
      })
      .join('');
  }
}
