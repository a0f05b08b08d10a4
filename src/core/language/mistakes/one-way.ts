/** Conditions that go one way only, where that leaves something without a use. */
import ts from 'typescript-classic';
import { bare } from '../acts';
import type { Finding, Subject } from './mistake';
import { decidedIn, type Decided, type Reason } from './outcomes';

/** What is to be told of conditions that are decided for a reason, the innermost of each. */
export function oneWay(
  { flow, file, parts }: Subject,
  reason: Reason,
  says: (decided: Decided) => string | null,
): Finding[] {
  const all = flow.blocks
    .flatMap((block) => decidedIn(block, parts))
    .filter((one) => one.reason === reason && leavesUnused(one));
  const told = new Map<ts.Node, Finding>();
  for (const one of all) {
    const { node } = one;
    if (all.some((other) => other.node !== node && isWithin(other.node, node))) continue;
    const text = says(one);
    if (text !== null)
      told.set(node, { from: node.getStart(file), to: node.getEnd(), says: text, fixes: [] });
  }
  return [...told.values()];
}

/** Whether nothing is empty is asked, which may well be sure: a guard. */
function isGuard(node: ts.Expression): boolean {
  const inner = bare(node);
  if (ts.isPrefixUnaryExpression(inner)) return isGuard(inner.operand);
  if (ts.isBinaryExpression(inner))
    return [inner.left, inner.right].some(
      (side) =>
        bare(side).kind === ts.SyntaxKind.NullKeyword ||
        (ts.isIdentifier(bare(side)) && bare(side).getText() === 'undefined'),
    );
  return ts.isPropertyAccessExpression(inner) || ts.isIdentifier(inner);
}

/** Whether a branch is never taken, or an operand never matters. */
function leavesUnused({ node, holds }: Decided): boolean {
  if (isGuard(node)) return false;
  if (!holds) return true;
  if (isLogical(node)) return true;
  let at: ts.Node = node;
  while (ts.isParenthesizedExpression(at.parent)) at = at.parent;
  const { parent } = at;
  return (
    (ts.isIfStatement(parent) && parent.expression === at && parent.elseStatement !== undefined) ||
    (ts.isConditionalExpression(parent) && parent.condition === at)
  );
}

const isLogical = (node: ts.Expression) =>
  ts.isBinaryExpression(node) &&
  (node.operatorToken.kind === ts.SyntaxKind.BarBarToken ||
    node.operatorToken.kind === ts.SyntaxKind.AmpersandAmpersandToken);

/** Whether a node stands in another one, or is it. */
export const isWithin = (node: ts.Node, outer: ts.Node) =>
  node.pos >= outer.pos && node.end <= outer.end;
