/** Technical names: what parts, tables, columns, services and parameters are called in scripts and records. */
import { NAME_CHARACTERS } from '../limits';

/** "constructor" is a member of every object in JavaScript. */
export const NAME = /^(?!constructor$)[a-z][a-z0-9_]*$/;

export function isName(text: string): boolean {
  return text.length <= NAME_CHARACTERS && NAME.test(text);
}

/** A text as small letters and digits, with `between` in place of everything else; empty when nothing is left. */
export function slugOf(text: string, between: '-' | '_'): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, between)
    .replace(/^[-_]+|[-_]+$/g, '');
}

/** A name that is not taken: itself, or with the first number from 2 that makes it one. */
export function freeName(stem: string, taken: ReadonlySet<string>, between: '-' | '_'): string {
  if (!taken.has(stem)) return stem;
  for (let i = 2; ; i++) if (!taken.has(`${stem}${between}${i}`)) return `${stem}${between}${i}`;
}
