/**
 * Comparisons after an await that the compiler takes for impossible: it still assumes what a field was compared with before,
 * although people go on filling in while a script waits.
 */
import ts from 'typescript-classic';

/** TypeScript: the two sides of a comparison have no values in common. */
const NO_OVERLAP = 2367;

export function mayHoldAfterAwait(
  { code, start }: ts.Diagnostic,
  file: ts.SourceFile,
  checker: ts.TypeChecker,
): boolean {
  if (code !== NO_OVERLAP || start === undefined) return false;
  const comparison = comparisonAt(file, start);
  if (comparison === null || !isAfterAwait(comparison)) return false;
  const [left, right] = [comparison.left, comparison.right].map((side) =>
    declaredType(side, checker),
  );
  return overlap(left!, right!, checker);
}

function comparisonAt(file: ts.SourceFile, start: number): ts.BinaryExpression | null {
  let found: ts.BinaryExpression | null = null;
  const look = (node: ts.Node): void => {
    if (node.getStart(file) > start || node.getEnd() <= start) return;
    if (ts.isBinaryExpression(node) && node.getStart(file) === start) found = node;
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function isAfterAwait(node: ts.Node): boolean {
  const body = ts.findAncestor(node, ts.isFunctionLike);
  let waited = false;
  const look = (child: ts.Node): void => {
    if (waited || child.pos >= node.pos || (child !== body && ts.isFunctionLike(child))) return;
    if (ts.isAwaitExpression(child) && child.end <= node.pos) waited = true;
    else ts.forEachChild(child, look);
  };
  if (body !== undefined) look(body);
  return waited;
}

/** The type of a member as it is declared, not as it was narrowed. */
function declaredType(side: ts.Expression, checker: ts.TypeChecker): ts.Type {
  const symbol = ts.isPropertyAccessExpression(side)
    ? checker.getSymbolAtLocation(side)
    : undefined;
  return symbol === undefined ? checker.getTypeAtLocation(side) : checker.getTypeOfSymbol(symbol);
}

function overlap(left: ts.Type, right: ts.Type, checker: ts.TypeChecker): boolean {
  const members = (type: ts.Type) => (type.isUnion() ? type.types : [type]);
  return members(left).some((one) =>
    members(right).some(
      (other) => checker.isTypeAssignableTo(one, other) || checker.isTypeAssignableTo(other, one),
    ),
  );
}
