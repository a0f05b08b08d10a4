import ts from 'typescript-classic';
import { bare } from '../acts';
import type { Finding, Mistake } from './mistake';

/**
 * `=` in a condition: it assigns, and the condition is whatever was assigned. In parentheses of its own it is meant, as
 * is common practice (ESLint's no-cond-assign says so too).
 */
export const assignmentInCondition: Mistake = {
  code: 'assignment-in-condition',
  title: '= in a condition',
  severity: 'error',
  find({ file }) {
    const found: Finding[] = [];
    const note = (condition: ts.Expression) => {
      const inner = bare(condition);
      if (
        ts.isBinaryExpression(inner) &&
        (inner.operatorToken.kind === ts.SyntaxKind.AmpersandAmpersandToken ||
          inner.operatorToken.kind === ts.SyntaxKind.BarBarToken)
      ) {
        note(inner.left);
        note(inner.right);
      } else if (
        ts.isPrefixUnaryExpression(inner) &&
        inner.operator === ts.SyntaxKind.ExclamationToken
      )
        note(inner.operand);
      else if (
        ts.isBinaryExpression(inner) &&
        inner.operatorToken.kind === ts.SyntaxKind.EqualsToken
      ) {
        const sign = inner.operatorToken;
        found.push({
          from: sign.getStart(file),
          to: sign.getEnd(),
          says: `= writes ${inner.right.getText(file)} to ${inner.left.getText(file)} instead of comparing. Compare with ===.`,
          fixes: [
            {
              title: 'Compare with ===',
              edits: [{ from: sign.getStart(file), to: sign.getEnd(), text: '===' }],
            },
          ],
        });
      }
    };
    const look = (node: ts.Node): void => {
      if (
        (ts.isIfStatement(node) || ts.isWhileStatement(node) || ts.isDoStatement(node)) &&
        !ts.isParenthesizedExpression(node.expression)
      )
        note(node.expression);
      else if (ts.isConditionalExpression(node)) note(node.condition);
      else if (ts.isForStatement(node) && node.condition !== undefined) note(node.condition);
      ts.forEachChild(node, look);
    };
    look(file);
    return found;
  },
};
