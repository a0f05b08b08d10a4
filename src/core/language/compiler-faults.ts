/** What the compiler finds, as the editor says it: what it leaves to checks of our own, and how far an expression reaches. */
import ts from 'typescript-classic';

/** Errors that ask for a type, which JavaScript has no place for: TypeScript numbers them from 7000. */
export const IMPLICIT_ANY = /^70\d\d$/;

/** A module is not found; TypeScript has two ways to say so. */
export const NOT_FOUND = new Set(['TS2307', 'TS2792']);

/** Errors of the compiler that a mistake of the trade says better. */
export const SAME_FAULT = new Set([
  'TS2367',
  'TS2678',
  'TS2540',
  'TS2322',
  'TS2345',
  'TS2588',
  'TS2820',
  'TS2769',
]);

/** The outermost expression around an offset: an assignment with both its sides, a whole condition. */
export function wholeExpression(file: ts.SourceFile, offset: number): { from: number; to: number } {
  let found: ts.Node = file;
  const down = (node: ts.Node): void => {
    if (offset < node.getStart(file) || offset >= node.getEnd()) return;
    found = node;
    ts.forEachChild(node, down);
  };
  down(file);
  while (
    found.parent !== undefined &&
    (ts.isExpression(found.parent) || ts.isVariableDeclaration(found.parent))
  )
    found = found.parent;
  return { from: found.getStart(file), to: found.getEnd() };
}
