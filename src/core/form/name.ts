/** Technical names: what parts, tables, columns, services and parameters are called in scripts and records. */

/** "constructor" is a member of every object in JavaScript. */
export const NAME = /^(?!constructor$)[a-z][a-z0-9_]*$/;

export const LONGEST_NAME = 60;

export function isName(text: string): boolean {
  return text.length <= LONGEST_NAME && NAME.test(text);
}
