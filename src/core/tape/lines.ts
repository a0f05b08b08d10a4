/** What a step did in a script, by line: how often each ran, and the last value assigned or condition met there. */
import type { Entry, RunEntry } from '../session/entries';
import type { Value } from '../form/value';

export interface LineNote {
  line: number;
  hits: number;
  value: Value | undefined;
  failed: string | null;
}

export function linesOf(entries: readonly Entry[], behaviour: string): LineNote[] {
  const notes = new Map<number, LineNote>();
  const note = (line: number) => {
    const found = notes.get(line) ?? { line, hits: 0, value: undefined, failed: null };
    notes.set(line, found);
    return found;
  };
  for (const entry of entries) {
    if (entry.type === 'run' && entry.behaviour === behaviour) {
      const run = entry as Entry & RunEntry;
      for (const [line, hits] of run.lines) note(line).hits += hits;
      for (const { line, value } of run.values) note(line).value = value;
    }
    if (
      entry.type === 'error' &&
      entry.failure.behaviour === behaviour &&
      entry.failure.line !== null
    ) {
      note(entry.failure.line).failed = entry.failure.says;
    }
  }
  return [...notes.values()].sort((a, b) => a.line - b.line);
}
