/** What kind of thing an expression comes to, as far as the source says: a number, money, a text. */
import ts from 'typescript-classic';
import { isNumeric } from '../../form/traits';
import { bare, type Block } from '../acts';
import type { KnownParts } from './known-parts';

export type Sort = 'number' | 'text';

/** Expressions of one block, read through constants. */
export class Kinds {
  constructor(
    private readonly block: Block,
    private readonly parts: KnownParts,
  ) {}

  /** The expression behind constants and what changes only its type. */
  behind(node: ts.Expression): ts.Expression {
    const inner = bare(node);
    const source = this.block.seen.get(inner)?.source ?? inner;
    return source === inner ? inner : bare(source);
  }

  sort(node: ts.Expression): Sort | null {
    const inner = this.behind(node);
    if (ts.isNumericLiteral(inner)) return 'number';
    if (ts.isStringLiteralLike(inner) || ts.isTemplateExpression(inner)) return 'text';
    const alias = this.block.seen.get(inner)?.alias ?? null;
    if (ts.isBinaryExpression(inner)) return this.#ofBinary(inner);
    if (ts.isPrefixUnaryExpression(inner))
      return inner.operator === ts.SyntaxKind.ExclamationToken ? null : 'number';
    if (ts.isConditionalExpression(inner)) return this.#ofBoth(inner.whenTrue, inner.whenFalse);
    if (ts.isCallExpression(inner)) return this.#ofCall(inner);
    if (alias === null) return this.#ofProperty(inner);
    if (alias.spelled === 'item') return null;
    if (alias.aspect === 'row') {
      const cell = this.parts
        .column(alias.part, alias.spelled.slice('row.'.length))
        ?.find((one) => one !== null);
      return typeof cell === 'number' ? 'number' : typeof cell === 'string' ? 'text' : null;
    }
    const field = this.parts.field(alias.part);
    if (field === null || !/^(?:value|previous|initial)$/.test(alias.aspect)) return null;
    return isNumeric(field)
      ? 'number'
      : /^(?:text|choice|date|time|datetime)$/.test(field.kind)
        ? 'text'
        : null;
  }

  /** Whether it is the value of a money field, or follows from one without having been rounded. */
  isMoney(node: ts.Expression): boolean {
    const inner = this.behind(node);
    if (ts.isBinaryExpression(inner)) return this.isMoney(inner.left) || this.isMoney(inner.right);
    if (ts.isConditionalExpression(inner))
      return this.isMoney(inner.whenTrue) || this.isMoney(inner.whenFalse);
    const alias = this.block.seen.get(inner)?.alias ?? null;
    return alias?.aspect === 'value' && this.parts.field(alias.part)?.kind === 'money';
  }

  #ofBinary(node: ts.BinaryExpression): Sort | null {
    const kind = node.operatorToken.kind;
    if (kind === ts.SyntaxKind.PlusToken) {
      const [left, right] = [this.sort(node.left), this.sort(node.right)];
      return left === 'text' || right === 'text'
        ? 'text'
        : left === 'number' && right === 'number'
          ? 'number'
          : null;
    }
    if (
      kind === ts.SyntaxKind.MinusToken ||
      kind === ts.SyntaxKind.AsteriskToken ||
      kind === ts.SyntaxKind.SlashToken ||
      kind === ts.SyntaxKind.PercentToken
    )
      return 'number';
    if (kind === ts.SyntaxKind.QuestionQuestionToken || kind === ts.SyntaxKind.BarBarToken)
      return this.#ofBoth(node.left, node.right);
    return null;
  }

  #ofBoth(one: ts.Expression, other: ts.Expression): Sort | null {
    const isNull = (node: ts.Expression) => this.behind(node).kind === ts.SyntaxKind.NullKeyword;
    const [first, second] = [this.sort(one), this.sort(other)];
    return first === second || isNull(other) ? first : isNull(one) ? second : null;
  }

  #ofCall({ expression }: ts.CallExpression): Sort | null {
    if (ts.isIdentifier(expression))
      return expression.text === 'round' ||
        expression.text === 'Number' ||
        /^parse(?:Int|Float)$/.test(expression.text)
        ? 'number'
        : expression.text === 'String'
          ? 'text'
          : null;
    if (!ts.isPropertyAccessExpression(expression)) return null;
    const { name, expression: of } = expression;
    if (ts.isIdentifier(of) && of.text === 'Math') return 'number';
    if (/^(?:sum|getTime|getMonth|getDate|getDay|getFullYear|getHours)$/.test(name.text))
      return 'number';
    return /^(?:toString|toFixed|padStart|trim|toUpperCase|toLowerCase|slice|toLocaleString)$/.test(
      name.text,
    )
      ? 'text'
      : null;
  }

  #ofProperty(node: ts.Expression): Sort | null {
    return ts.isPropertyAccessExpression(node) &&
      /^(?:length|count|days|months|years|hours|day|month|year)$/.test(node.name.text)
      ? 'number'
      : null;
  }
}

/** Every expression that runs in a block. */
export function expressionsIn<T extends ts.Node>(
  { seen }: Block,
  is: (node: ts.Node) => node is T,
): T[] {
  return [...seen.keys()].filter(is);
}

/** What an expression is handed to: brackets and what changes only its type left out. */
export function outerOf(node: ts.Node): { at: ts.Node; parent: ts.Node } {
  let at = node;
  while (
    ts.isParenthesizedExpression(at.parent) ||
    ts.isAsExpression(at.parent) ||
    ts.isNonNullExpression(at.parent)
  )
    at = at.parent;
  return { at, parent: at.parent };
}

export const operates = (node: ts.BinaryExpression, ...kinds: ts.SyntaxKind[]): boolean =>
  kinds.includes(node.operatorToken.kind);

export const isOperation = (
  node: ts.Node,
  ...kinds: ts.SyntaxKind[]
): node is ts.BinaryExpression => ts.isBinaryExpression(node) && operates(node, ...kinds);
