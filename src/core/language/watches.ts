/**
 * Expressions that a detailed run evaluates on the way: breakpoints with their conditions, log points, watches, what is
 * asked at a prompt. Each is put into the text before a statement, on the same line, so that it sees the names that the
 * statement sees and no line moves. The script itself stays as it is.
 */
import ts from 'typescript-classic';
import type { Source } from '../script/header';
import { parse } from './parse';

export interface Watch {
  /** By which its values are told. */
  id: number;
  /** 1-based; it stands before the first statement that begins there or behind. */
  line: number;
  /** Checked with `expressionFault`. */
  expression: string;
}

/** The text with the watches in it. Those behind the last statement are left out. */
export function withWatches(source: Source, watches: readonly Watch[]): string {
  if (watches.length === 0) return source.text;
  const { file } = parse(source);
  const places = statementPlaces(file);
  const inserts = watches.flatMap(({ id, line, expression }) => {
    const place = places.find((one) => one.line >= line);
    return place === undefined
      ? []
      : [{ at: place.start, text: `__probe.w(${id}, () => (${expression}));` }];
  });
  return inserts
    .toSorted((a, b) => b.at - a.at)
    .reduce((text, { at, text: put }) => text.slice(0, at) + put + text.slice(at), source.text);
}

/**
 * The text with an expression that is being written put before a statement, and where it stands there; null behind the
 * last statement. So that the names in sight of the statement are offered.
 */
export function withAsked(
  source: Source,
  line: number,
  expression: string,
): { text: string; from: number } | null {
  const place = statementPlaces(parse(source).file).find((one) => one.line >= line);
  if (place === undefined) return null;
  const { text } = source;
  return {
    text: `${text.slice(0, place.start)}${expression}\n;${text.slice(place.start)}`,
    from: place.start,
  };
}

/** The line at which a breakpoint in this line stops; null behind the last statement. */
export function stopLine(source: Source, line: number): number | null {
  return statementPlaces(parse(source).file).find((one) => one.line >= line)?.line ?? null;
}

/** Statements that something can be put before, in the order of their lines; the first of each line. */
function statementPlaces(file: ts.SourceFile): { line: number; start: number }[] {
  const found = new Map<number, number>();
  const look = (node: ts.Node): void => {
    if (
      ts.isStatement(node) &&
      !ts.isBlock(node) &&
      !ts.isEmptyStatement(node) &&
      !ts.isFunctionDeclaration(node) &&
      !ts.isImportDeclaration(node) &&
      standsInList(node) &&
      isInFunction(node)
    ) {
      const start = node.getStart(file);
      const line = file.getLineAndCharacterOfPosition(start).line + 1;
      if (!found.has(line)) found.set(line, start);
    }
    ts.forEachChild(node, look);
  };
  look(file);
  return [...found].map(([line, start]) => ({ line, start })).sort((a, b) => a.line - b.line);
}

/** One that is the only statement of an `if` without braces has no room before it. */
function standsInList({ parent }: ts.Node): boolean {
  return ts.isBlock(parent) || ts.isCaseClause(parent) || ts.isDefaultClause(parent);
}

/** What stands at the top level runs before any form is open. */
function isInFunction(node: ts.Node): boolean {
  for (let at: ts.Node | undefined = node.parent; at !== undefined; at = at.parent)
    if (ts.isFunctionLike(at)) return true;
  return false;
}

/** Why a text is no expression that may be asked: it has to be one expression, and change nothing. Null when it may. */
export function expressionFault(expression: string): string | null {
  if (expression.trim() === '') return 'is empty.';
  if (/[\r\n]/.test(expression)) return 'has to stand on one line.';
  const { file, tooDeep } = parse({ name: 'asked.ts', text: `(${expression}\n);` });
  if (tooDeep !== null) return 'is nested too deep to be read.';
  const { parseDiagnostics } = file as ts.SourceFile & {
    parseDiagnostics: readonly ts.DiagnosticWithLocation[];
  };
  const [first] = parseDiagnostics;
  if (first !== undefined)
    return `does not parse: ${ts.flattenDiagnosticMessageText(first.messageText, ' ')}`;
  const [only, more] = file.statements;
  if (
    more !== undefined ||
    only === undefined ||
    !ts.isExpressionStatement(only) ||
    !ts.isParenthesizedExpression(only.expression)
  )
    return 'is no single expression.';
  return changing(only);
}

function changing(node: ts.Node): string | null {
  if (ts.isBinaryExpression(node)) {
    const { kind } = node.operatorToken;
    if (kind >= ts.SyntaxKind.FirstAssignment && kind <= ts.SyntaxKind.LastAssignment)
      return 'assigns something. What is asked here reads only; to compare, write ===.';
  }
  if (
    (ts.isPrefixUnaryExpression(node) || ts.isPostfixUnaryExpression(node)) &&
    (node.operator === ts.SyntaxKind.PlusPlusToken ||
      node.operator === ts.SyntaxKind.MinusMinusToken)
  )
    return 'changes a variable. What is asked here reads only.';
  if (ts.isDeleteExpression(node)) return 'deletes something. What is asked here reads only.';
  if (ts.isAwaitExpression(node) || ts.isYieldExpression(node))
    return 'waits. What is asked here is answered at once.';
  if (
    ts.isIdentifier(node) &&
    (node.text === '__probe' ||
      node.text === '__frame' ||
      node.text === 'eval' ||
      node.text === '__shared')
  )
    return `uses the name ${node.text}, which scripts cannot.`;
  return ts.forEachChild(node, changing) ?? null;
}
