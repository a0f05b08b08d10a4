/**
 * Puts probes into a behaviour's source: the line of each statement, fuel in loops and functions, and, for a traced
 * script, the values it assigned and the conditions it met. Async functions become generators that the session drives
 * (`guest/promises.ts`), so that it decides when one goes on; `parent` becomes a question to the session, which knows
 * only once a form is open. Works on the syntax tree before types are taken off, so
 * lines are those of the source. What the probes do is `guest/probe.ts`.
 */
import ts from 'typescript-classic';

const PROBE = '__probe';

/** A transformer for `ts.transpileModule`; a traced script's expressions go into the list and into its code by their place there. */
export function instrument(expressions: string[] | null): ts.TransformerFactory<ts.SourceFile> {
  return (context) => (file) => {
    const { factory: f } = context;
    const traced = expressions !== null;
    const numberOf = (what: string): number => {
      const known = expressions!.indexOf(what);
      return known < 0 ? expressions!.push(what) - 1 : known;
    };
    const lineOf = (node: ts.Node) =>
      file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1;
    const call = (method: string, ...args: ts.Expression[]) =>
      f.createCallExpression(
        f.createPropertyAccessExpression(f.createIdentifier(PROBE), method),
        undefined,
        args,
      );
    const num = (n: number) => f.createNumericLiteral(n);

    const mark = (line: number): ts.Statement =>
      f.createExpressionStatement(
        traced
          ? call('s', num(line))
          : f.createAssignment(
              f.createPropertyAccessExpression(f.createIdentifier(PROBE), 'l'),
              num(line),
            ),
      );
    const burn = (line: number): ts.Statement => f.createExpressionStatement(call('f', num(line)));

    /** Says the value and how it came about; the source text names it. */
    const value = (node: ts.Node, visited: ts.Expression, what: string) =>
      traced
        ? call('v', num(lineOf(node)), num(numberOf(what.slice(0, 80))), visited)
        : call('at', num(lineOf(node)), visited);

    const marked = (statements: readonly ts.Statement[]): ts.Statement[] =>
      statements.flatMap((statement) => {
        const visited = ts.visitNode(statement, visit) as ts.Statement;
        return isDeclaration(statement) ? [visited] : [mark(lineOf(statement)), visited];
      });

    const loopBody = (body: ts.Statement): ts.Statement => {
      const inner = ts.isBlock(body) ? marked(body.statements) : marked([body]);
      return f.createBlock([burn(lineOf(body)), ...inner], true);
    };

    const functionBody = (body: ts.Block, counted: boolean): ts.Block => {
      const inner = marked(body.statements);
      const line = lineOf(body);
      if (!counted) return f.createBlock([burn(line), ...inner], true);
      // Prologue directives such as "use strict" are of no use in a script that is strict anyway.
      const enter = f.createExpressionStatement(call('in', num(line)));
      const leave = f.createBlock([f.createExpressionStatement(call('out'))]);
      return f.createBlock(
        [f.createTryStatement(f.createBlock([enter, ...inner], true), undefined, leave)],
        true,
      );
    };

    /** Depth is counted in functions that come back before the caller goes on; others only burn fuel. */
    const isPlain = (node: ts.FunctionLikeDeclaration) =>
      !node.modifiers?.some((m) => m.kind === ts.SyntaxKind.AsyncKeyword) &&
      !('asteriskToken' in node && node.asteriskToken);

    const single = (statement: ts.Statement): ts.Statement =>
      ts.isBlock(statement)
        ? (ts.visitNode(statement, visit) as ts.Statement)
        : f.createBlock(marked([statement]), true);

    const condition = (node: ts.Expression): ts.Expression => {
      const visited = ts.visitNode(node, visit) as ts.Expression;
      return traced ? value(node, visited, node.getText(file)) : visited;
    };

    /** The body of an async function: what it did as a generator, run by the session. */
    const asGenerator = (
      node: ts.FunctionLikeDeclaration,
      statements: readonly ts.Statement[],
    ): ts.Block => {
      const generator = f.createFunctionExpression(
        undefined,
        f.createToken(ts.SyntaxKind.AsteriskToken),
        undefined,
        undefined,
        [],
        undefined,
        f.createBlock(statements, true),
      );
      const args = ts.isArrowFunction(node)
        ? f.createArrayLiteralExpression([])
        : f.createIdentifier('arguments');
      return f.createBlock(
        [f.createReturnStatement(call('go', f.createThis(), generator, args))],
        true,
      );
    };

    const isParent = declaresParent(file) ? () => false : isParentUse;

    function visit(node: ts.Node): ts.Node {
      if (ts.isAwaitExpression(node)) {
        return call(
          'at',
          num(lineOf(node)),
          f.createYieldExpression(undefined, ts.visitNode(node.expression, visit) as ts.Expression),
        );
      }
      if (ts.isIdentifier(node) && isParent(node)) return call('parent');
      if (
        ts.isShorthandPropertyAssignment(node) &&
        node.name.text === 'parent' &&
        !declaresParent(file)
      )
        return f.createPropertyAssignment('parent', call('parent'));
      if (ts.isBlock(node)) return f.updateBlock(node, marked(node.statements));
      if (ts.isCaseClause(node)) {
        return f.updateCaseClause(
          node,
          ts.visitNode(node.expression, visit) as ts.Expression,
          marked(node.statements),
        );
      }
      if (ts.isDefaultClause(node)) return f.updateDefaultClause(node, marked(node.statements));
      if (ts.isIfStatement(node)) {
        return f.updateIfStatement(
          node,
          condition(node.expression),
          single(node.thenStatement),
          node.elseStatement && single(node.elseStatement),
        );
      }
      if (ts.isIterationStatement(node, false)) return visitLoop(node);
      if (ts.isArrowFunction(node)) return visitArrow(node);
      if (isFunctionWithBody(node)) return visitFunction(node);
      if (ts.isThrowStatement(node)) {
        const operand = ts.visitNode(node.expression, visit) as ts.Expression;
        return f.updateThrowStatement(node, call('t', num(lineOf(node)), operand));
      }
      if (ts.isBinaryExpression(node) && isAssignment(node)) {
        const right = ts.visitNode(node.right, visit) as ts.Expression;
        const left = ts.visitNode(node.left, visit) as ts.Expression;
        return f.updateBinaryExpression(
          node,
          left,
          node.operatorToken,
          value(node, right, node.left.getText(file)),
        );
      }
      if (
        ts.isVariableDeclaration(node) &&
        node.initializer !== undefined &&
        !isFunctionExpression(node.initializer)
      ) {
        const initializer = ts.visitNode(node.initializer, visit) as ts.Expression;
        return f.updateVariableDeclaration(
          node,
          node.name,
          undefined,
          undefined,
          value(node, initializer, node.name.getText(file)),
        );
      }
      if (ts.isReturnStatement(node) && node.expression !== undefined && traced) {
        const returned = ts.visitNode(node.expression, visit) as ts.Expression;
        return f.updateReturnStatement(node, value(node, returned, 'return'));
      }
      if (ts.isConditionalExpression(node)) {
        const visited = ts.visitEachChild(node, visit, context);
        return f.updateConditionalExpression(
          node,
          condition(node.condition),
          visited.questionToken,
          visited.whenTrue,
          visited.colonToken,
          visited.whenFalse,
        );
      }
      if (ts.isCallExpression(node) && node.arguments.some(canMoveLine)) {
        // Arguments that call functions of the script leave its line elsewhere; the last one says it again.
        const visited = ts.visitEachChild(node, visit, context);
        const last = visited.arguments.length - 1;
        if (ts.isSpreadElement(visited.arguments[last]!)) return visited;
        const args = visited.arguments.map((arg, i) =>
          i === last ? call('at', num(lineOf(node)), arg) : arg,
        );
        return f.updateCallExpression(visited, visited.expression, visited.typeArguments, args);
      }
      return ts.visitEachChild(node, visit, context);
    }

    function visitLoop(node: ts.IterationStatement): ts.Node {
      const inner = ts.visitEachChild(
        node,
        (child) => (child === node.statement ? child : visit(child)),
        context,
      ) as ts.IterationStatement;
      const body = loopBody(node.statement);
      if (ts.isForStatement(inner))
        return f.updateForStatement(
          inner,
          inner.initializer,
          inner.condition,
          inner.incrementor,
          body,
        );
      if (ts.isForOfStatement(inner))
        return f.updateForOfStatement(
          inner,
          inner.awaitModifier,
          inner.initializer,
          inner.expression,
          body,
        );
      if (ts.isForInStatement(inner))
        return f.updateForInStatement(inner, inner.initializer, inner.expression, body);
      if (ts.isWhileStatement(inner)) return f.updateWhileStatement(inner, inner.expression, body);
      return f.updateDoStatement(
        inner as ts.DoStatement,
        body,
        (inner as ts.DoStatement).expression,
      );
    }

    function visitArrow(node: ts.ArrowFunction): ts.Node {
      const parameters = ts.visitNodes(
        node.parameters,
        visit,
      ) as ts.NodeArray<ts.ParameterDeclaration>;
      const rebuild = (body: ts.ConciseBody) =>
        f.updateArrowFunction(
          node,
          withoutAsync(node.modifiers),
          node.typeParameters,
          parameters,
          undefined,
          node.equalsGreaterThanToken,
          body,
        );
      if (isAsync(node)) {
        const statements = ts.isBlock(node.body)
          ? functionBody(node.body, false).statements
          : [
              burn(lineOf(node.body)),
              f.createReturnStatement(ts.visitNode(node.body, visit) as ts.Expression),
            ];
        return rebuild(asGenerator(node, statements));
      }
      if (ts.isBlock(node.body)) return rebuild(functionBody(node.body, isPlain(node)));
      const body = ts.visitNode(node.body, visit) as ts.Expression;
      if (!callsByName(node.body)) {
        return rebuild(
          f.createParenthesizedExpression(
            f.createComma(
              traced
                ? f.createComma(
                    call('s', num(lineOf(node.body))),
                    call('f', num(lineOf(node.body))),
                  )
                : call('f', num(lineOf(node.body))),
              body,
            ),
          ),
        );
      }
      const block = f.createBlock([f.createReturnStatement(body)], true);
      if (!isPlain(node)) return rebuild(block);
      const enter = f.createExpressionStatement(call('in', num(lineOf(node.body))));
      const leave = f.createBlock([f.createExpressionStatement(call('out'))]);
      return rebuild(
        f.createBlock(
          [
            f.createTryStatement(
              f.createBlock([enter, ...block.statements], true),
              undefined,
              leave,
            ),
          ],
          true,
        ),
      );
    }

    function visitFunction(node: FunctionWithBody): ts.Node {
      const counted = functionBody(node.body, isPlain(node) && !ts.isConstructorDeclaration(node));
      const body = isAsync(node) ? asGenerator(node, counted.statements) : counted;
      return ts.visitEachChild(
        node,
        (child) =>
          child === node.body
            ? body
            : child.kind === ts.SyntaxKind.AsyncKeyword
              ? undefined
              : visit(child),
        context,
      );
    }

    return f.updateSourceFile(file, marked(file.statements));
  };
}

function isAsync(node: ts.FunctionLikeDeclaration): boolean {
  return node.modifiers?.some((modifier) => modifier.kind === ts.SyntaxKind.AsyncKeyword) ?? false;
}

function withoutAsync(
  modifiers: ts.NodeArray<ts.ModifierLike> | undefined,
): readonly ts.Modifier[] | undefined {
  return modifiers?.filter(
    (modifier): modifier is ts.Modifier =>
      ts.isModifier(modifier) && modifier.kind !== ts.SyntaxKind.AsyncKeyword,
  );
}

/** Whether a script has a `parent` of its own, which then is meant wherever it says so. */
function declaresParent(file: ts.SourceFile): boolean {
  const look = (node: ts.Node): boolean => {
    const declares =
      (ts.isVariableDeclaration(node) ||
        ts.isParameter(node) ||
        ts.isBindingElement(node) ||
        ts.isFunctionDeclaration(node)) &&
      node.name !== undefined &&
      ts.isIdentifier(node.name) &&
      node.name.text === 'parent';
    return declares || (ts.forEachChild(node, look) ?? false);
  };
  return look(file);
}

/** Whether an identifier is the global `parent` being used, and not a name of something else. */
function isParentUse(node: ts.Identifier): boolean {
  const { parent } = node;
  if (node.text !== 'parent') return false;
  if (ts.isPropertyAccessExpression(parent) && parent.name === node) return false;
  return (
    !(ts.isPropertyAssignment(parent) && parent.name === node) &&
    !ts.isMethodDeclaration(parent) &&
    !ts.isTypeNode(parent)
  );
}

type FunctionWithBody = ts.FunctionLikeDeclaration & { body: ts.Block };

function isFunctionWithBody(node: ts.Node): node is FunctionWithBody {
  return (
    ts.isFunctionLike(node) &&
    'body' in node &&
    node.body !== undefined &&
    ts.isBlock(node.body as ts.Node)
  );
}

function isFunctionExpression(node: ts.Node): boolean {
  return ts.isArrowFunction(node) || ts.isFunctionExpression(node);
}

function isDeclaration(node: ts.Statement): boolean {
  return (
    ts.isFunctionDeclaration(node) ||
    ts.isInterfaceDeclaration(node) ||
    ts.isTypeAliasDeclaration(node) ||
    ts.isImportDeclaration(node) ||
    ts.isEmptyStatement(node)
  );
}

function isAssignment(node: ts.BinaryExpression): boolean {
  const { kind } = node.operatorToken;
  // Logical assignments must keep their right side unevaluated; it still may be wrapped, as it is evaluated there.
  return (
    kind >= ts.SyntaxKind.FirstAssignment &&
    kind <= ts.SyntaxKind.LastAssignment &&
    !ts.isObjectLiteralExpression(node.left) &&
    !ts.isArrayLiteralExpression(node.left)
  );
}

function canMoveLine(node: ts.Node): boolean {
  if (isFunctionExpression(node)) return false;
  return ts.isCallExpression(node) || (ts.forEachChild(node, canMoveLine) ?? false);
}

/** Whether an expression calls something by its bare name, which is what recursion looks like. */
function callsByName(node: ts.Node): boolean {
  if (ts.isCallExpression(node) && ts.isIdentifier(node.expression)) return true;
  return ts.forEachChild(node, callsByName) ?? false;
}
