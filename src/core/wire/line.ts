/**
 * A line of a script, as the tape names it: a number for a line of the behaviour that ran, `shared/dates:12` for one of a
 * shared module that it called. In the machine it is one number, in which the module's place in the material stands
 * above the line.
 */
export type Line = number | `${string}:${number}`;

/** Lines that a script can have at most; module `n` (from 0) counts from (n + 1) times as many. */
export const MODULE_STEP = 1 << 20;

/** The line that a number in the machine stands for; `modules` are the names of the material's modules, in their order. */
export function lineFrom(place: number, modules: readonly string[]): Line {
  const name = modules[Math.floor(place / MODULE_STEP) - 1];
  return name === undefined ? place : `${name}:${place % MODULE_STEP}`;
}

/** Which script a line stands in, and where there: `behaviour` is the one that ran. */
export function placeOf(line: Line, behaviour: string): { script: string; line: number } {
  if (typeof line === 'number') return { script: behaviour, line };
  const colon = line.lastIndexOf(':');
  return { script: line.slice(0, colon), line: Number(line.slice(colon + 1)) };
}

/** How a line reads in a sentence. */
export function lineInWords(line: Line): string {
  if (typeof line === 'number') return `line ${line}`;
  const { script, line: at } = placeOf(line, '');
  return `line ${at} of ${script}`;
}
