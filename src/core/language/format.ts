/** Setting a behaviour in the one way all of them are set, by Prettier. */
import * as estree from 'prettier/plugins/estree';
import * as typescript from 'prettier/plugins/typescript';
import { formatWithCursor } from 'prettier/standalone';
import type { Source } from '../script/header';

/** The formatted text and where the cursor is then; null when it does not parse. */
export async function formatted(
  { text }: Source,
  position: number,
): Promise<{ text: string; position: number } | null> {
  try {
    const made = await formatWithCursor(text, {
      parser: 'typescript',
      plugins: [estree, typescript],
      printWidth: 110,
      cursorOffset: position,
    });
    return { text: made.formatted, position: Math.max(0, made.cursorOffset) };
  } catch {
    return null;
  }
}
