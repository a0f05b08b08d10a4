/** Technical names: what parts, tables, columns, services and parameters are called in scripts and records. */
import { NAME_CHARACTERS } from '../limits';

/** "constructor" is a member of every object in JavaScript. */
export const NAME = /^(?!constructor$)[a-z][a-z0-9_]*$/;

export function isName(text: string): boolean {
  return text.length <= NAME_CHARACTERS && NAME.test(text);
}
