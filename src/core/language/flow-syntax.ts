/** What flow.ts tells from the shape of the source alone. */
import ts from 'typescript-classic';
import type { Block } from './acts';

export const COMPARISONS: Partial<Record<ts.SyntaxKind, 'equal' | 'unequal'>> = {
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: 'equal',
  [ts.SyntaxKind.EqualsEqualsToken]: 'equal',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: 'unequal',
  [ts.SyntaxKind.ExclamationEqualsToken]: 'unequal',
};

export const isOrdering = (kind: ts.SyntaxKind) =>
  kind === ts.SyntaxKind.LessThanToken ||
  kind === ts.SyntaxKind.LessThanEqualsToken ||
  kind === ts.SyntaxKind.GreaterThanToken ||
  kind === ts.SyntaxKind.GreaterThanEqualsToken;

/** Orders two values, or asks whether they are the same. */
export const isComparison = (kind: ts.SyntaxKind) =>
  isOrdering(kind) || COMPARISONS[kind] !== undefined;

/** Methods that change what they are called on. */
export const CHANGING = new Set([
  'push',
  'pop',
  'shift',
  'unshift',
  'splice',
  'sort',
  'reverse',
  'fill',
  'set',
  'add',
  'delete',
  'clear',
]);

export const TIED_TO_PART = new Set([
  'change',
  'input',
  'focus',
  'blur',
  'click',
  'rowAdded',
  'rowRemoved',
  'keep.each',
  'always.each',
]);

/** The names by which scripts tie a function that runs again when something it read has changed. */
const HOLDS: Readonly<Record<string, 'rule' | 'invariant' | undefined>> = Object.assign(
  Object.create(null) as object,
  { keep: 'rule', always: 'invariant' } as const,
);

/** Whether a call ties a handler, a rule or an invariant. */
export function tieOf(node: ts.CallExpression): { sort: Block['sort']; event: string } | null {
  const called = node.expression;
  if (ts.isIdentifier(called)) {
    const sort = HOLDS[called.text];
    return sort === undefined ? null : { sort, event: called.text };
  }
  if (!ts.isPropertyAccessExpression(called) || !ts.isIdentifier(called.expression)) return null;
  const each = HOLDS[called.expression.text];
  if (each !== undefined && called.name.text === 'each')
    return { sort: each, event: `${called.expression.text}.each` };
  return called.expression.text === 'on' ? { sort: 'handler', event: called.name.text } : null;
}

export function isFunction(node: ts.Expression): boolean {
  return ts.isArrowFunction(node) || ts.isFunctionExpression(node);
}

/** Whether what follows a statement is never reached. */
export function alwaysLeaves(statement: ts.Statement): boolean {
  if (ts.isBlock(statement)) return statement.statements.some(alwaysLeaves);
  if (ts.isIfStatement(statement))
    return (
      alwaysLeaves(statement.thenStatement) &&
      statement.elseStatement !== undefined &&
      alwaysLeaves(statement.elseStatement)
    );
  return (
    ts.isReturnStatement(statement) ||
    ts.isThrowStatement(statement) ||
    ts.isContinueStatement(statement)
  );
}

/** The condition under which a statement leaves its function, when it may. */
export function leavesUnder(statement: ts.Statement): ts.Expression | null {
  if (!ts.isIfStatement(statement)) return null;
  let leaves = false;
  const look = (node: ts.Node): void => {
    if (ts.isFunctionLike(node)) return;
    if (ts.isReturnStatement(node) || ts.isThrowStatement(node) || ts.isContinueStatement(node))
      leaves = true;
    else ts.forEachChild(node, look);
  };
  look(statement.thenStatement);
  if (statement.elseStatement !== undefined) look(statement.elseStatement);
  return leaves ? statement.expression : null;
}
