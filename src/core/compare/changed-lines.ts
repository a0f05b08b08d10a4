/** Which lines of the scripts are not the same in two versions. */
import { diffArrays } from 'diff';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import type { ChangedLine } from './version';

export interface ChangedLines {
  /** Lines that only the former version has, and lines that only the later one has; empty ones left out. */
  before: readonly ChangedLine[];
  after: readonly ChangedLine[];
}

/** How far a line is indented and what ends it says nothing, so that a script that was only formatted has no changed lines. */
const told = (line: string) => line.trim();

export function changedLines(before: readonly Source[], after: readonly Source[]): ChangedLines {
  const texts = (sources: readonly Source[]) =>
    new Map(sources.map(({ name, text }) => [baseName(name), text.split('\n').map(told)]));
  const [was, is] = [texts(before), texts(after)];
  const changed: { before: ChangedLine[]; after: ChangedLine[] } = { before: [], after: [] };
  for (const script of new Set([...was.keys(), ...is.keys()])) {
    const at = { before: 0, after: 0 };
    for (const { added, removed, value } of diffArrays(was.get(script) ?? [], is.get(script) ?? []))
      for (const text of value) {
        if (!added) at.before++;
        if (!removed) at.after++;
        if (text === '') continue;
        if (removed) changed.before.push({ script, line: at.before });
        if (added) changed.after.push({ script, line: at.after });
      }
  }
  return changed;
}
