/**
 * Puts probes into a behaviour's source: the line of each statement, fuel in loops and functions, and, for a traced
 * script, the values it assigned and the conditions it met. Async functions become generators that the session drives
 * (`guest/promises.ts`), so that it decides when one goes on; `parent` becomes a question to the session, which knows
 * only once a form is open. Works on the syntax tree before types are taken off, so
 * lines are those of the source. What the probes do is `guest/probe.ts`.
 */
import ts from 'typescript-classic';
import type { Site } from '../script/sites';
import { Details } from './details';
import type { Expressions } from './expressions';

const PROBE = '__probe';

/**
 * A transformer for `ts.transpileModule`; a traced script's expressions go into the list and into its code by their
 * place there, the sites of one that reports details likewise.
 */
export function instrument(
  expressions: Expressions | null,
  sites: Site[] | null = null,
): ts.TransformerFactory<ts.SourceFile> {
  return (context) => (file) => {
    const { factory: f } = context;
    const traced = expressions !== null;
    const lineOf = (node: ts.Node) =>
      file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1;
    const call = (method: string, ...args: ts.Expression[]) =>
      f.createCallExpression(
        f.createPropertyAccessExpression(f.createIdentifier(PROBE), method),
        undefined,
        args,
      );
    const num = (n: number) => f.createNumericLiteral(n);
    let details = sites === null ? null : new Details(file, f, call);
    const all = details;
    const visited = (node: ts.Expression) => ts.visitNode(node, visit) as ts.Expression;

    /** What a function gives back that is one expression. */
    const given = (node: ts.Expression) =>
      details === null ? visited(node) : details.returned(node, visited(node));

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
    const value = (node: ts.Node, done: ts.Expression, what: string, isCondition = false) =>
      traced
        ? call('v', num(lineOf(node)), num(expressions.numberOf(what, isCondition)), done)
        : call('at', num(lineOf(node)), done);

    const marked = (statements: readonly ts.Statement[]): ts.Statement[] =>
      statements.flatMap((statement) => {
        // What is asked on the way leaves no mark, and what the script reports is numbered as without it.
        if (isAsked(statement)) {
          details = null;
          const asked = ts.visitNode(statement, visit) as ts.Statement;
          details = all;
          return [asked];
        }
        const done = ts.visitNode(statement, visit) as ts.Statement;
        return isDeclaration(statement) || ts.isBlock(statement)
          ? [done]
          : [
              mark(lineOf(statement)),
              ...(details === null ? [] : [details.statement(statement)]),
              done,
            ];
      });

    const loopBody = (body: ts.Statement): ts.Statement => {
      const inner = ts.isBlock(body) ? marked(body.statements) : marked([body]);
      const { parent } = body;
      const item =
        details !== null && (ts.isForOfStatement(parent) || ts.isForInStatement(parent))
          ? [details.item(parent)]
          : [];
      return f.createBlock([burn(lineOf(body)), ...item, ...inner], true);
    };

    /** The statements of a function's body, between being entered and left where details are told. */
    const told = (node: ts.FunctionLikeDeclaration, statements: ts.Statement[]): ts.Statement[] =>
      details === null
        ? statements
        : [
            details.enter(node),
            f.createTryStatement(
              f.createBlock(statements, true),
              undefined,
              f.createBlock([details.leave]),
            ),
          ];

    const functionBody = (
      node: ts.FunctionLikeDeclaration & { body: ts.Block },
      counted: boolean,
    ): ts.Block => {
      const { body } = node;
      const inner = told(node, marked(body.statements));
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
      const done = visited(node);
      const told = traced ? value(node, done, node.getText(file), true) : done;
      return details === null ? told : details.condition(node, told);
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
        const wait = (operand: ts.Expression) =>
          call('at', num(lineOf(node)), f.createYieldExpression(undefined, operand));
        const operand = visited(node.expression);
        return details === null ? wait(operand) : details.wait(operand, wait);
      }
      if (details !== null && ts.isYieldExpression(node) && node.asteriskToken === undefined)
        return details.wait(
          node.expression === undefined ? f.createVoidZero() : visited(node.expression),
          (operand) => f.createYieldExpression(undefined, operand),
        );
      if (ts.isIdentifier(node) && isParent(node)) return call('parent');
      if (
        ts.isShorthandPropertyAssignment(node) &&
        node.name.text === 'parent' &&
        !declaresParent(file)
      )
        return f.createPropertyAssignment('parent', call('parent'));
      if (ts.isBlock(node)) return f.updateBlock(node, marked(node.statements));
      if (ts.isCaseClause(node)) {
        return f.updateCaseClause(node, visited(node.expression), marked(node.statements));
      }
      if (details !== null && ts.isSwitchStatement(node))
        return f.updateSwitchStatement(
          node,
          details.condition(node.expression, visited(node.expression), 'switch'),
          ts.visitNode(node.caseBlock, visit) as ts.CaseBlock,
        );
      if (details !== null && ts.isCatchClause(node)) {
        const block = f.updateBlock(node.block, [
          details.caught(node),
          ...marked(node.block.statements),
        ]);
        return f.updateCatchClause(node, node.variableDeclaration, block);
      }
      if (details !== null && ts.isExpression(node)) {
        const compared = details.comparison(node, visited, (argument) =>
          canMoveLine(argument)
            ? call('at', num(lineOf(node)), visited(argument))
            : visited(argument),
        );
        if (compared !== null) return compared;
        if (ts.isBinaryExpression(node)) {
          const chosen = details.choosing(node, visited);
          if (chosen !== null) return chosen;
        }
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
        const operand = visited(node.expression);
        return f.updateThrowStatement(node, call('t', num(lineOf(node)), operand));
      }
      if (ts.isBinaryExpression(node) && isAssignment(node)) {
        const right = visited(node.right);
        const left = visited(node.left);
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
        const returned = value(node, visited(node.expression), 'return');
        return f.updateReturnStatement(
          node,
          details === null ? returned : details.returned(node.expression, returned),
        );
      }
      if (ts.isConditionalExpression(node)) {
        const done = ts.visitEachChild(node, visit, context);
        return f.updateConditionalExpression(
          node,
          condition(node.condition),
          done.questionToken,
          done.whenTrue,
          done.colonToken,
          done.whenFalse,
        );
      }
      if (ts.isCallExpression(node) && node.arguments.some(canMoveLine)) {
        // Arguments that call functions of the script leave its line elsewhere; the last one says it again.
        const done = ts.visitEachChild(node, visit, context);
        const last = done.arguments.length - 1;
        if (ts.isSpreadElement(done.arguments[last]!)) return done;
        const args = done.arguments.map((arg, i) =>
          i === last ? call('at', num(lineOf(node)), arg) : arg,
        );
        return f.updateCallExpression(done, done.expression, done.typeArguments, args);
      }
      return ts.visitEachChild(node, visit, context);
    }

    function visitLoop(node: ts.IterationStatement): ts.Node {
      const until =
        details === null
          ? null
          : ts.isWhileStatement(node) || ts.isDoStatement(node)
            ? node.expression
            : ts.isForStatement(node)
              ? (node.condition ?? null)
              : null;
      const inner = ts.visitEachChild(
        node,
        (child) =>
          child === node.statement
            ? child
            : child === until
              ? details!.condition(until, visited(until))
              : visit(child),
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
          ? functionBody(node as typeof node & { body: ts.Block }, false).statements
          : [
              burn(lineOf(node.body)),
              ...told(node, [
                ...(details === null ? [] : [details.statement(node.body)]),
                f.createReturnStatement(given(node.body)),
              ]),
            ];
        return rebuild(asGenerator(node, statements));
      }
      if (ts.isBlock(node.body))
        return rebuild(functionBody(node as typeof node & { body: ts.Block }, isPlain(node)));
      const body = given(node.body);
      const line = num(lineOf(node.body));
      if (!callsByName(node.body)) {
        const costs = traced ? [call('s', line), call('f', line)] : [call('f', line)];
        if (details !== null)
          return rebuild(
            f.createBlock(
              told(node, [
                ...costs.map((cost) => f.createExpressionStatement(cost)),
                details.statement(node.body),
                f.createReturnStatement(body),
              ]),
              true,
            ),
          );
        return rebuild(
          f.createParenthesizedExpression(
            f.createComma(
              costs.length === 1 ? costs[0]! : f.createComma(costs[0]!, costs[1]!),
              body,
            ),
          ),
        );
      }
      const returns = told(node, [
        ...(details === null ? [] : [details.statement(node.body)]),
        f.createReturnStatement(body),
      ]);
      if (!isPlain(node)) return rebuild(f.createBlock(returns, true));
      const enter = f.createExpressionStatement(call('in', line));
      const leave = f.createBlock([f.createExpressionStatement(call('out'))]);
      return rebuild(
        f.createBlock(
          [f.createTryStatement(f.createBlock([enter, ...returns], true), undefined, leave)],
          true,
        ),
      );
    }

    function visitFunction(node: FunctionWithBody): ts.Node {
      const counted = functionBody(node, isPlain(node) && !ts.isConstructorDeclaration(node));
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

    const statements = marked(file.statements);
    if (all === null) return f.updateSourceFile(file, statements);
    const [imports, rest] = [
      statements.filter(ts.isImportDeclaration),
      statements.filter((statement) => !ts.isImportDeclaration(statement)),
    ];
    const { prologue } = all;
    sites!.push(...all.sites);
    return f.updateSourceFile(file, [...imports, prologue, ...rest]);
  };
}

/** A watch that `watches.ts` put in. */
function isAsked(node: ts.Statement): boolean {
  return (
    ts.isExpressionStatement(node) &&
    ts.isCallExpression(node.expression) &&
    ts.isPropertyAccessExpression(node.expression.expression) &&
    ts.isIdentifier(node.expression.expression.expression) &&
    node.expression.expression.expression.text === PROBE
  );
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
