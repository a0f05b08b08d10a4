/** Since which revision a script has had a line as it is now. */

export interface LineSince {
  /** Its place in the list of revisions. */
  at: number;
  /** Whether the script never was without it. */
  always: boolean;
}

/** `texts` are those of the revisions, the newest first. Null where the newest lacks the line. */
export function lineSince(line: string, texts: readonly string[]): LineSince | null {
  const wanted = line.trim();
  const has = (text: string) => text.split('\n').some((one) => one.trim() === wanted);
  const without = texts.findIndex((text) => !has(text));
  if (without === 0 || texts.length === 0) return null;
  return without < 0 ? { at: texts.length - 1, always: true } : { at: without - 1, always: false };
}
