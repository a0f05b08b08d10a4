/**
 * What a command prints. Titles and values come from whoever wrote a workspace, so nothing of them reaches the terminal
 * as a command, and none of them makes a line of its own.
 */

/** All controls but line ends and tabs (C0, DEL, C1), separators of lines, and what turns the direction of writing. */
const CONTROLS =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069]/g;

const spelled = (character: string) =>
  `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`;

/** Prints a result. Controls are spelled as JSON would spell them. */
export function print(text: string): void {
  process.stdout.write(text.replace(CONTROLS, spelled));
}

/** Prints what went wrong. */
export function complain(text: string): void {
  process.stderr.write(text.replace(CONTROLS, spelled));
}

/** A text of somebody's on one line. */
export function onOneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ⏎ ');
}
