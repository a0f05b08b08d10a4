/** Places in a source that fixes need: statements, indents, the end of the module. */
import ts from 'typescript-classic';

export function enclosingStatement(node: ts.Node): ts.Statement | null {
  for (let at: ts.Node | undefined = node; at !== undefined; at = at.parent)
    if (ts.isStatement(at)) return at;
  return null;
}

/** The blanks that the line of an offset begins with. */
export function indentAt(file: ts.SourceFile, offset: number): string {
  const start = file.text.lastIndexOf('\n', offset - 1) + 1;
  return /^[ \t]*/.exec(file.text.slice(start))![0];
}

/** An edit that puts statements at the end of the module. */
export function appended(
  file: ts.SourceFile,
  text: string,
): { from: number; to: number; text: string } {
  const at = file.text.trimEnd().length;
  return { from: at, to: at, text: `\n\n${text}` };
}
