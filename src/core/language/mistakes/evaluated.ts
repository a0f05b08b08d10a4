/** Conditions worked out for one value of one part, as far as they ask for that part and constants alone. */
import ts from 'typescript-classic';
import { bare, type Access, type Known } from '../acts';
import type { Literal } from './known-parts';

export type Constant = Literal['value'];

/** What an expression comes to; undefined where something else decides. */
export type Outcome = Constant | undefined;

/** Aspects that are the same thing for whoever asks within one run. */
export const sameAccess = (one: Access, other: Access): boolean =>
  one.part === other.part &&
  one.aspect === other.aspect &&
  one.waits === other.waits &&
  (one.aspect !== 'row' || one.spelled === other.spelled);

/** What `node` comes to when `access` holds `value`. */
export function evaluated(
  node: ts.Expression,
  access: Access,
  value: Constant,
  seen: ReadonlyMap<ts.Node, Known>,
): Outcome {
  const of = (one: ts.Expression): Outcome => {
    const inner = bare(one);
    const known = seen.get(inner);
    const source = known?.source ?? inner;
    if (source !== inner) return of(source);
    if (known?.alias != null && isReading(inner))
      return sameAccess(known.alias, access) ? value : undefined;
    if (ts.isStringLiteralLike(inner)) return inner.text;
    if (ts.isNumericLiteral(inner)) return Number(inner.text);
    if (inner.kind === ts.SyntaxKind.TrueKeyword) return true;
    if (inner.kind === ts.SyntaxKind.FalseKeyword) return false;
    if (inner.kind === ts.SyntaxKind.NullKeyword) return null;
    if (ts.isPropertyAccessExpression(inner)) {
      const [read, ...more] = known?.reads ?? [];
      return inner.name.text === 'empty' && more.length === 0 && read !== undefined
        ? isOf(read, access)
          ? value === null
          : undefined
        : undefined;
    }
    if (ts.isPrefixUnaryExpression(inner)) {
      const operand = of(inner.operand);
      if (operand === undefined) return undefined;
      if (inner.operator === ts.SyntaxKind.ExclamationToken) return !operand;
      if (inner.operator === ts.SyntaxKind.MinusToken) return -Number(operand);
      return inner.operator === ts.SyntaxKind.PlusToken ? Number(operand) : undefined;
    }
    if (ts.isConditionalExpression(inner)) {
      const condition = of(inner.condition);
      return condition === undefined ? undefined : of(condition ? inner.whenTrue : inner.whenFalse);
    }
    if (ts.isCallExpression(inner)) return called(inner);
    return ts.isBinaryExpression(inner) ? binary(inner) : undefined;
  };

  const called = (node: ts.CallExpression): Outcome => {
    const [only, ...more] = node.arguments;
    if (only === undefined || more.length > 0) return undefined;
    if (ts.isIdentifier(node.expression) && node.expression.text === 'Number') {
      const given = of(only);
      return given === undefined ? undefined : Number(given);
    }
    if (!ts.isPropertyAccessExpression(node.expression)) return undefined;
    const { expression: list, name } = node.expression;
    const among = seen.get(bare(list))?.source ?? bare(list);
    if (name.text !== 'includes' || !ts.isArrayLiteralExpression(among)) return undefined;
    const asked = of(only);
    const items = among.elements.map(of);
    if (asked === undefined) return undefined;
    if (items.some((item) => item !== undefined && item === asked)) return true;
    return items.includes(undefined) ? undefined : false;
  };

  const binary = (node: ts.BinaryExpression): Outcome => {
    const [left, right] = [of(node.left), of(node.right)];
    switch (node.operatorToken.kind) {
      case ts.SyntaxKind.AmpersandAmpersandToken:
        if (left !== undefined && !left) return left;
        if (right !== undefined && !right) return false;
        return left === undefined ? undefined : right;
      case ts.SyntaxKind.BarBarToken:
        if (left) return left;
        if (right) return left === undefined ? true : right;
        return left === undefined ? undefined : right;
      case ts.SyntaxKind.QuestionQuestionToken:
        return left === undefined ? undefined : (left ?? right);
    }
    return left === undefined || right === undefined
      ? undefined
      : compared(left, node.operatorToken.kind, right);
  };
  return of(node);
}

const isOf = (read: Access, { part, aspect }: Access) =>
  read.part === part && read.aspect === aspect;

/** An expression that is the aspect itself, and not one that gives something in its place. */
const isReading = (node: ts.Expression) =>
  ts.isPropertyAccessExpression(node) ||
  ts.isElementAccessExpression(node) ||
  ts.isIdentifier(node);

/** What a comparison comes to, as JavaScript makes it; undefined for an operator that is none. */
export function compared(left: Constant, op: ts.SyntaxKind, right: Constant): boolean | undefined {
  const [a, b] = [left as number, right as number];
  switch (op) {
    case ts.SyntaxKind.EqualsEqualsEqualsToken:
    case ts.SyntaxKind.EqualsEqualsToken:
      return left === right;
    case ts.SyntaxKind.ExclamationEqualsEqualsToken:
    case ts.SyntaxKind.ExclamationEqualsToken:
      return left !== right;
    case ts.SyntaxKind.LessThanToken:
      return a < b;
    case ts.SyntaxKind.LessThanEqualsToken:
      return a <= b;
    case ts.SyntaxKind.GreaterThanToken:
      return a > b;
    case ts.SyntaxKind.GreaterThanEqualsToken:
      return a >= b;
    default:
      return undefined;
  }
}
