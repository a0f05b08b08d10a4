// Places of a source that can be changed, to see whether a test notices.
import ts from 'typescript-classic';

/** As in src/core/random.ts, which this version of Node.js cannot load as it is: scripts run before anything is built. */
export function randomFrom(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const OTHER = new Map([
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
]);

/**
 * The places of a source that can be changed: `from` to `to` becomes `by`. `switched` is what stands from `start` to
 * `end` where the same is decided while it runs, by a condition.
 */
export function placesIn(text, path) {
  const file = ts.createSourceFile(
    path,
    text,
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const found = [];
  /** `around` is what is another one when the place is changed, and `switched` gives it for a condition. */
  const add = (node, by, what, around, switched) => {
    const [from, to] = [node.getStart(file), node.getEnd()];
    const [start, end] = [around.getStart(file), around.getEnd()];
    const changed = text.slice(start, from) + by + text.slice(to, end);
    found.push({
      from,
      to,
      by,
      what,
      start,
      end,
      switched: (condition) => switched(condition, changed, text.slice(start, end)),
    });
  };
  const either = (condition, changed, as) => `(${condition} ? (${changed}) : (${as}))`;
  const unless = (condition, changed, as) => `{ if (!(${condition})) ${as} }`;
  const visit = (node) => {
    // Types, looks and texts are no decisions.
    if (
      ts.isTypeNode(node) ||
      (ts.isJsxAttribute(node) && !ts.isJsxExpression(node.initializer ?? node))
    )
      return;
    if (ts.isBinaryExpression(node)) {
      const by = OTHER.get(node.operatorToken.kind);
      const isText = [node.left, node.right].some(
        (side) => ts.isStringLiteral(side) || ts.isTemplateExpression(side),
      );
      if (by !== undefined && !(isText && (by === '-' || by === '+')))
        add(node.operatorToken, by, `${node.operatorToken.getText(file)} → ${by}`, node, either);
    }
    if (
      ts.isIfStatement(node) &&
      node.elseStatement === undefined &&
      ts.isReturnStatement(node.thenStatement)
    )
      add(node.expression, 'false', 'an early return is left out', node.expression, either);
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, node.operand.getText(file), '! is left out', node, either);
    if (
      ts.isExpressionStatement(node) &&
      (ts.isCallExpression(node.expression) || ts.isBinaryExpression(node.expression))
    )
      add(node, ';', 'a statement is left out', node, unless);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}
