import ts from 'typescript-classic';
import { type Block } from '../acts';
import { expressionsIn, isOperation, Kinds, operates, outerOf } from './kinds-of';
import type { Finding, Mistake, Subject } from './mistake';

const { AsteriskToken, SlashToken, PlusToken, MinusToken } = ts.SyntaxKind;
const EQUALITY = [
  ts.SyntaxKind.EqualsEqualsEqualsToken,
  ts.SyntaxKind.ExclamationEqualsEqualsToken,
  ts.SyntaxKind.EqualsEqualsToken,
  ts.SyntaxKind.ExclamationEqualsToken,
] as const;

/**
 * Sums of money as the machine computes them, in binary fractions (IEEE 754), where each digit matters: compared for
 * equality, put into a text, rounded by hand.
 */
export const moneyInDoubles: Mistake = {
  code: 'money-in-doubles',
  title: 'Money that is not rounded',
  severity: 'warning',
  find(subject) {
    const { flow, parts } = subject;
    return flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, parts);
      return [
        ...expressionsIn(block, ts.isBinaryExpression).flatMap((node) =>
          roundedByHand(node, kinds, subject),
        ),
        ...whereDigitsMatter(block, kinds).flatMap((node) =>
          isUnrounded(node, kinds) ? [toRound(node, node, 2, subject, NOT_ROUNDED)] : [],
        ),
      ];
    });
  },
};

const NOT_ROUNDED =
  'is computed in binary fractions, in which 0.1 + 0.2 is 0.30000000000000004. Round it first, as each digit counts here.';
const BY_HAND =
  'rounds 1.005 to 1, because 1.005 * 100 is 100.49999999999999. `round` rounds in decimals.';

/** `Math.round(x * 100) / 100`. */
function roundedByHand(node: ts.BinaryExpression, kinds: Kinds, subject: Subject): Finding[] {
  if (!operates(node, SlashToken)) return [];
  const call = kinds.behind(node.left);
  const power = kinds.behind(node.right);
  if (!ts.isNumericLiteral(power) || !ts.isCallExpression(call)) return [];
  const digits = Math.log10(Number(power.text));
  const [only] = call.arguments;
  if (!Number.isInteger(digits) || digits < 1 || only === undefined) return [];
  if (!/^Math\.(?:round|floor|ceil|trunc)$/.test(call.expression.getText(subject.file))) return [];
  const product = kinds.behind(only);
  if (!isOperation(product, AsteriskToken)) return [];
  const other = [product.left, product.right].find((side) => {
    const inner = kinds.behind(side);
    return ts.isNumericLiteral(inner) && Number(inner.text) === Number(power.text);
  });
  if (other === undefined) return [];
  const rounded = other === product.left ? product.right : product.left;
  const isRound = call.expression.getText(subject.file) === 'Math.round';
  return [toRound(node, rounded, digits, subject, BY_HAND, isRound)];
}

function toRound(
  node: ts.Expression,
  what: ts.Expression,
  digits: number,
  { file }: Subject,
  says: string,
  canMend = true,
): Finding {
  const [from, to] = [node.getStart(file), node.getEnd()];
  const text = `round(${what.getText(file)}, ${digits})`;
  return {
    from,
    to,
    says: `${node.getText(file)} ${says}`,
    fixes: canMend ? [{ title: `Write ${text}`, edits: [{ from, to, text }] }] : [],
  };
}

/** Sides of a comparison for equality, pieces of a text, and what is given its decimals by `toFixed`. */
function whereDigitsMatter(block: Block, kinds: Kinds): ts.Expression[] {
  return [
    ...expressionsIn(block, ts.isBinaryExpression).flatMap((node) => {
      if (operates(node, ...EQUALITY)) return [node.left, node.right];
      if (!operates(node, PlusToken)) return [];
      return [
        ...(kinds.sort(node.left) === 'text' ? [node.right] : []),
        ...(kinds.sort(node.right) === 'text' ? [node.left] : []),
      ];
    }),
    ...expressionsIn(block, ts.isTemplateExpression).flatMap(({ templateSpans }) =>
      templateSpans.map(({ expression }) => expression),
    ),
    ...expressionsIn(block, ts.isCallExpression).flatMap(({ expression }) =>
      ts.isPropertyAccessExpression(expression) && expression.name.text === 'toFixed'
        ? [expression.expression]
        : ts.isIdentifier(expression) && expression.text === 'String'
          ? [(outerOf(expression).parent as ts.CallExpression).arguments[0]!]
          : [],
    ),
  ].filter((node) => node !== undefined);
}

/** A sum with money in it that nothing has rounded. */
function isUnrounded(node: ts.Expression, kinds: Kinds): boolean {
  const inner = kinds.behind(node);
  if (ts.isConditionalExpression(inner))
    return isUnrounded(inner.whenTrue, kinds) || isUnrounded(inner.whenFalse, kinds);
  if (isOperation(inner, ts.SyntaxKind.QuestionQuestionToken))
    return isUnrounded(inner.left, kinds);
  if (!isOperation(inner, AsteriskToken, SlashToken, PlusToken, MinusToken)) return false;
  return kinds.sort(inner) === 'number' && kinds.isMoney(inner);
}
