import ts from 'typescript-classic';
import { actsOf, type Block } from '../acts';
import { isNumeric } from '../../form/traits';
import { evaluated } from './evaluated';
import { Kinds } from './kinds-of';
import { isOrdering } from '../flow-syntax';
import type { Finding, Mistake, Subject } from './mistake';

/** `(tonnage.value ?? 0) < 100`: holds before anybody has entered a number. */
export const emptyForZero: Mistake = {
  code: 'empty-for-zero',
  title: 'Not entered yet is taken for 0',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks.flatMap((block) => {
      const found = new Map<ts.Node, Finding>();
      for (const { node, conditions } of actsOf(block, 'test'))
        for (const finding of look(node, conditions, block, subject)) found.set(node, finding);
      return [...found.values()];
    }),
};

function look(
  node: ts.Expression,
  conditions: readonly { node: ts.Expression; holds: boolean }[],
  block: Block,
  { parts, file }: Subject,
): Finding[] {
  if (!ts.isBinaryExpression(node) || !isOrdering(node.operatorToken.kind)) return [];
  const kinds = new Kinds(block, parts);
  const side = [node.left, node.right].find((one) => zeroWhenEmpty(one, kinds) !== null);
  const limit = side === node.left ? node.right : node.left;
  const asked = side === undefined ? null : zeroWhenEmpty(side, kinds)!;
  const bound = kinds.behind(limit);
  if (asked === null || !ts.isNumericLiteral(bound) || Number(bound.text) <= 1) return [];
  const alias = block.seen.get(kinds.behind(asked))?.alias ?? null;
  const field = alias === null ? null : parts.field(alias.part);
  if (alias?.aspect !== 'value' || field === null || !isNumeric(field)) return [];
  // What a script computes has a number whenever it matters, and so has a field with a default.
  if (field.default !== undefined || field.locked === true || field.scriptOnly === true) return [];
  const holds = (value: number | null) => evaluated(node, alias, value, block.seen);
  // Asked before, or the other way round: then nothing hangs on a field that is empty.
  const isReached = conditions.every((one) => {
    const outcome = evaluated(one.node, alias, null, block.seen);
    return outcome === undefined || Boolean(outcome) === one.holds;
  });
  if (holds(null) !== true || !isReached || isGuarded(node, block, parts, alias.part)) return [];
  const text = asked.getText(file);
  return [
    {
      from: node.getStart(file),
      to: node.getEnd(),
      says: `This holds while ${parts.called(alias.part)} is empty, as if 0 had been entered. Ask for the number first: ${text} !== null.`,
      fixes: [],
    },
  ];
}

/** What is asked in `x ?? 0`, `x || 0`, `Number(x)` and `+x`; null for anything else. */
function zeroWhenEmpty(node: ts.Expression, kinds: Kinds): ts.Expression | null {
  const inner = kinds.behind(node);
  if (
    ts.isBinaryExpression(inner) &&
    (inner.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken ||
      inner.operatorToken.kind === ts.SyntaxKind.BarBarToken)
  ) {
    const otherwise = kinds.behind(inner.right);
    return ts.isNumericLiteral(otherwise) && Number(otherwise.text) === 0 ? inner.left : null;
  }
  if (ts.isCallExpression(inner) && inner.expression.getText() === 'Number')
    return inner.arguments[0] ?? null;
  return ts.isPrefixUnaryExpression(inner) && inner.operator === ts.SyntaxKind.PlusToken
    ? inner.operand
    : null;
}

/** Whether the same condition asks for something else that is empty with it, such as whether anything is there. */
function isGuarded(node: ts.Node, block: Block, parts: Subject['parts'], part: string): boolean {
  for (let at = node; ts.isExpression(at); at = at.parent) {
    if (
      !ts.isBinaryExpression(at.parent) ||
      at.parent.operatorToken.kind !== ts.SyntaxKind.AmpersandAmpersandToken
    )
      continue;
    const other = at.parent.left === at ? at.parent.right : at.parent.left;
    const text = other.getText();
    if (text.includes(part) && /\.empty|null/.test(text)) return true;
  }
  return false;
}
