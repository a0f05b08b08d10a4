/** An invariant that does not hold, as scenarios and grids miss it. */
import type { Broken } from '../session/step';
import { lineInWords } from '../wire/line';
import type { Unmet } from './expecting';

export function brokenInWords({ title, behaviour, line, row }: Broken): string {
  const of = row === null ? '' : ` for ${row}`;
  return `“${title}” does not hold${of} (${behaviour}, ${lineInWords(line)})`;
}

export function brokenAsUnmet(broken: Broken): Unmet {
  return { part: '@always', aspect: null, says: brokenInWords(broken) };
}
