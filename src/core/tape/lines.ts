/** What a step did in a script, by line: how often each ran, and the last value assigned or condition met there. */
import type { Entry, RunEntry } from '../session/entries';
import type { Value } from '../form/value';
import { placeOf, type Line } from '../wire/line';

export interface LineNote {
  line: number;
  hits: number;
  value: Value | undefined;
  failed: string | null;
}

/** The notes of a script, whichever behaviours ran it; lines in their order. */
export function linesOf(entries: readonly Entry[], script: string): LineNote[] {
  const notes = new Map<number, LineNote>();
  const note = (line: Line, behaviour: string): LineNote | null => {
    const place = placeOf(line, behaviour);
    if (place.script !== script) return null;
    const found = notes.get(place.line) ?? {
      line: place.line,
      hits: 0,
      value: undefined,
      failed: null,
    };
    notes.set(place.line, found);
    return found;
  };
  for (const entry of entries) {
    if (entry.type === 'run') {
      const { behaviour, lines, values } = entry as Entry & RunEntry;
      for (const [line, hits] of lines) {
        const found = note(line, behaviour);
        if (found !== null) found.hits += hits;
      }
      for (const { line, value } of values) {
        const found = note(line, behaviour);
        if (found !== null) found.value = value;
      }
    }
    if (entry.type === 'error' && entry.failure.line !== null) {
      const found = note(entry.failure.line, entry.failure.behaviour);
      if (found !== null) found.failed = entry.failure.says;
    }
  }
  return [...notes.values()].sort((a, b) => a.line - b.line);
}
