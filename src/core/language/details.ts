/**
 * What a detailed run reports beyond a traced one: functions entered and left, statements with the variables in sight,
 * conditions with both sides compared, waits. Each place gets a number and its `Site` (`script/sites.ts`), in which
 * stands what depends on what within the script. `instrument.ts` puts the reports in where this says.
 */
import ts from 'typescript-classic';
import type { Control, Mark, Site, SiteKind } from '../script/sites';
import { CHANGING } from './flow-syntax';
import { isValueUse, Scopes, type Variable } from './scopes';

/** How a comparison is written on the page of sites. */
const COMPARES: ReadonlyMap<ts.SyntaxKind, string> = new Map([
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '==='],
  [ts.SyntaxKind.EqualsEqualsToken, '=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsToken, '!='],
  [ts.SyntaxKind.LessThanToken, '<'],
  [ts.SyntaxKind.LessThanEqualsToken, '<='],
  [ts.SyntaxKind.GreaterThanToken, '>'],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>='],
]);

const CHOOSES: ReadonlySet<ts.SyntaxKind> = new Set([
  ts.SyntaxKind.AmpersandAmpersandToken,
  ts.SyntaxKind.BarBarToken,
  ts.SyntaxKind.QuestionQuestionToken,
]);

/** The name under which a function knows its own activation. */
const FRAME = '__frame';

/** Variables in sight of one statement that are told; nobody reads more. */
const MOST_VARIABLES = 30;

/** A condition, and how it has to come out for what follows to be reached. */
interface Leaving {
  condition: ts.Expression;
  holds: boolean | null;
}

export class Details {
  readonly sites: Site[] = [];
  readonly #f: ts.NodeFactory;
  readonly #scopes = new Scopes();
  readonly #numbers = new Map<ts.Node, Map<SiteKind, number>>();
  readonly #mentioned = new Map<ts.Node, ReadonlySet<number>>();
  readonly #leaves = new Map<ts.Node, readonly Leaving[]>();

  constructor(
    private readonly file: ts.SourceFile,
    factory: ts.NodeFactory,
    private readonly probe: (method: string, ...args: ts.Expression[]) => ts.CallExpression,
  ) {
    this.#f = factory;
  }

  /** What stands at the top of a script: its activation. */
  get prologue(): ts.Statement {
    return this.#frame(this.probe('e', this.#num(this.#site(this.file, 'function')), this.#none));
  }

  /** What a function does first: tells its parameters. */
  enter(node: ts.FunctionLikeDeclaration): ts.Statement {
    const names = node.parameters.flatMap(({ name }) => boundNames(name));
    const site = this.#site(node, 'function', { names: names.map(({ text }) => text) });
    return this.#frame(this.probe('e', this.#num(site), this.#values(names.map((n) => n.text))));
  }

  get leave(): ts.Statement {
    return this.#f.createExpressionStatement(this.probe('x', this.#f.createIdentifier(FRAME)));
  }

  /** Tells that a statement begins, with the variables in sight. */
  statement(node: ts.Node): ts.Statement {
    const names = this.#inSight(node);
    const site = this.#site(node, 'statement', { names });
    return this.#f.createExpressionStatement(
      this.probe(
        'd',
        this.#num(site),
        this.#f.createIdentifier(FRAME),
        names.length === 0 ? this.#none : this.#values(names),
      ),
    );
  }

  /** What stands first in the body of a loop over items: tells that the next item is at hand. */
  item(loop: ts.ForOfStatement | ts.ForInStatement): ts.Statement {
    return this.#f.createExpressionStatement(
      this.probe(
        'd',
        this.#num(this.#site(loop, 'item')),
        this.#f.createIdentifier(FRAME),
        this.#values(itemNames(loop)),
      ),
    );
  }

  caught(clause: ts.CatchClause): ts.Statement {
    return this.#f.createExpressionStatement(
      this.probe(
        'd',
        this.#num(this.#site(clause, 'item')),
        this.#f.createIdentifier(FRAME),
        this.#none,
      ),
    );
  }

  /** A condition, or what a `switch` looks at: tells when it begins, and what it came to. */
  condition(
    node: ts.Expression,
    visited: ts.Expression,
    kind: 'condition' | 'switch' = 'condition',
    more: Partial<Site> = {},
  ): ts.Expression {
    const site = this.#num(this.#site(node, kind, more));
    const frame = this.#f.createIdentifier(FRAME);
    return this.#f.createParenthesizedExpression(
      this.#f.createComma(
        this.probe('b', site, frame),
        this.probe(kind === 'switch' ? 'k' : 'c', site, frame, visited),
      ),
    );
  }

  #choosing(node: ts.Node): number | null {
    const { parent } = node;
    const chooses =
      (ts.isIfStatement(parent) && parent.expression === node) ||
      (ts.isConditionalExpression(parent) && parent.condition === node);
    return chooses
      ? this.file.getLineAndCharacterOfPosition(parent.getStart(this.file)).line + 1
      : null;
  }

  /** A comparison of whatever expression; null for one that compares nothing. */
  comparison(
    node: ts.Expression,
    visit: (node: ts.Expression) => ts.Expression,
    visitArgument: (node: ts.Expression) => ts.Expression,
  ): ts.Expression | null {
    const f = this.#f;
    if (ts.isBinaryExpression(node)) {
      const op = COMPARES.get(node.operatorToken.kind);
      if (op === undefined) return null;
      const site = this.#site(node, 'comparison', { op });
      const side = (operand: ts.Expression) => this.#operand(operand, visit(operand), site);
      return this.#compared(
        site,
        f.updateBinaryExpression(node, side(node.left), node.operatorToken, side(node.right)),
      );
    }
    if (
      ts.isCallExpression(node) &&
      node.arguments.length === 1 &&
      !ts.isSpreadElement(node.arguments[0]!) &&
      ts.isPropertyAccessExpression(node.expression) &&
      node.expression.questionDotToken === undefined &&
      node.expression.name.text === 'includes' &&
      node.questionDotToken === undefined &&
      !isOptionalChain(node.expression.expression)
    ) {
      const site = this.#site(node, 'comparison', { op: 'includes' });
      const callee = node.expression;
      const [argument] = node.arguments as unknown as [ts.Expression];
      return this.#compared(
        site,
        f.updateCallExpression(
          node,
          f.updatePropertyAccessExpression(
            callee,
            this.#operand(callee.expression, visit(callee.expression), site),
            callee.name,
          ),
          undefined,
          [this.#operand(argument, visitArgument(argument), site)],
        ),
      );
    }
    return null;
  }

  /** The left side of `&&`, `||` or `??`, which decides whether the right one is looked at; null for other operators. */
  choosing(
    node: ts.BinaryExpression,
    visit: (node: ts.Expression) => ts.Expression,
  ): ts.Expression | null {
    if (!CHOOSES.has(node.operatorToken.kind)) return null;
    return this.#f.updateBinaryExpression(
      node,
      this.condition(
        node.left,
        visit(node.left),
        'condition',
        node.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken ? { op: '??' } : {},
      ),
      node.operatorToken,
      visit(node.right),
    );
  }

  /** What a function gives back. */
  returned(node: ts.Expression, visited: ts.Expression): ts.Expression {
    return this.#compared(this.#site(node, 'returned'), visited);
  }

  /** A wait, or a generator's: what runs meanwhile is not this function. */
  wait(operand: ts.Expression, around: (operand: ts.Expression) => ts.Expression): ts.Expression {
    const frame = this.#f.createIdentifier(FRAME);
    return this.probe('r', frame, around(this.probe('z', frame, operand)));
  }

  #operand(node: ts.Expression, visited: ts.Expression, comparison: number): ts.Expression {
    const site = this.#site(node, 'operand', { under: { site: comparison, holds: null } });
    return this.probe('o', this.#num(site), this.#f.createIdentifier(FRAME), visited);
  }

  /** Tells what the expression of a site came to. */
  #compared(site: number, expression: ts.Expression): ts.Expression {
    return this.probe('o', this.#num(site), this.#f.createIdentifier(FRAME), expression);
  }

  #frame(value: ts.Expression): ts.Statement {
    return this.#f.createVariableStatement(
      undefined,
      this.#f.createVariableDeclarationList(
        [this.#f.createVariableDeclaration(FRAME, undefined, undefined, value)],
        ts.NodeFlags.Const,
      ),
    );
  }

  #num(n: number): ts.NumericLiteral {
    return this.#f.createNumericLiteral(n);
  }

  get #none(): ts.Expression {
    return this.#f.createNull();
  }

  #values(names: readonly string[]): ts.Expression {
    return names.length === 0
      ? this.#none
      : this.#f.createArrowFunction(
          undefined,
          undefined,
          [],
          undefined,
          undefined,
          this.#f.createArrayLiteralExpression(names.map((name) => this.#f.createIdentifier(name))),
        );
  }

  /** The number of a place; the same for the same node and kind. */
  #site(node: ts.Node, kind: SiteKind, more: Partial<Site> = {}): number {
    const known = this.#numbers.get(node)?.get(kind);
    if (known !== undefined) return known;
    const number = this.sites.length;
    const ofNode = this.#numbers.get(node) ?? new Map<SiteKind, number>();
    ofNode.set(kind, number);
    this.#numbers.set(node, ofNode);
    const start = node.getStart(this.file);
    const site: Site = {
      kind,
      line: this.file.getLineAndCharacterOfPosition(start).line + 1,
      start,
      end: node.getEnd(),
      text: kind === 'function' ? '' : cut(node.getText(this.file)),
      within: null,
      names: kind === 'item' && !ts.isCatchClause(node) ? itemNames(node as ts.ForOfStatement) : [],
      uses: [],
      defines: [],
      changes: [],
      under: null,
      leaves: [],
      chooses: kind === 'condition' ? this.#choosing(node) : null,
      op: null,
      marks: [],
      passedTo: kind === 'function' ? methodGiven(node) : null,
      ...more,
    };
    this.sites.push(site);
    const owner = kind === 'function' ? ownerAbove(node) : ownerNear(node);
    Object.assign(site, {
      within: owner === null ? null : this.#site(owner, 'function', this.#parameters(owner)),
      ...this.#flowOf(node, kind),
      ...(more.under === undefined && kind !== 'function' ? this.#reached(node) : {}),
    });
    return number;
  }

  #parameters(owner: ts.Node): Partial<Site> {
    return ts.isFunctionLike(owner)
      ? {
          names: owner.parameters.flatMap((p) =>
            boundNames(p.name as ts.BindingName).map(({ text }) => text),
          ),
        }
      : {};
  }

  /** What a place uses, gives and changes, without the functions and statements within it. */
  #flowOf(node: ts.Node, kind: SiteKind): Pick<Site, 'uses' | 'defines' | 'changes' | 'marks'> {
    const uses = new Set<number>();
    const defines = new Set<number>();
    const changes = new Set<number>();
    const marks = new Set<Mark>();
    const numberOf = (name: ts.Identifier) => this.#scopes.find(name.text, name)?.number ?? null;
    const add = (to: Set<number>, name: ts.Identifier) => {
      const number = numberOf(name);
      if (number !== null) to.add(number);
    };
    const target = (to: ts.Expression): void => {
      if (ts.isIdentifier(to)) add(defines, to);
      else if (ts.isPropertyAccessExpression(to) || ts.isElementAccessExpression(to)) {
        const root = rootOf(to);
        if (root !== null) add(changes, root);
        look(to);
      } else if (ts.isParenthesizedExpression(to)) target(to.expression);
      else if (ts.isArrayLiteralExpression(to))
        for (const one of to.elements) target(ts.isSpreadElement(one) ? one.expression : one);
      else if (ts.isObjectLiteralExpression(to))
        for (const one of to.properties) {
          if (ts.isShorthandPropertyAssignment(one)) add(defines, one.name);
          else if (ts.isPropertyAssignment(one)) target(one.initializer);
          else if (ts.isSpreadAssignment(one)) target(one.expression);
        }
      else if (ts.isBinaryExpression(to)) {
        target(to.left);
        look(to.right);
      } else look(to);
    };
    const look = (inner: ts.Node): void => {
      if (ts.isFunctionLike(inner) && inner !== node) return;
      if (inner !== node && ts.isStatement(inner) && !ts.isVariableStatement(inner)) return;
      if (ts.isTypeNode(inner)) return;
      if (ts.isVariableDeclaration(inner)) {
        for (const name of boundNames(inner.name)) add(defines, name);
        lookAtPattern(inner.name);
        if (inner.initializer !== undefined) look(inner.initializer);
        return;
      }
      if (ts.isBinaryExpression(inner) && isAssignment(inner.operatorToken.kind)) {
        target(inner.left);
        if (inner.operatorToken.kind !== ts.SyntaxKind.EqualsToken) look(inner.left);
        return look(inner.right);
      }
      if (
        (ts.isPrefixUnaryExpression(inner) || ts.isPostfixUnaryExpression(inner)) &&
        (inner.operator === ts.SyntaxKind.PlusPlusToken ||
          inner.operator === ts.SyntaxKind.MinusMinusToken)
      ) {
        target(inner.operand);
        return look(inner.operand);
      }
      if (
        ts.isCallExpression(inner) &&
        ts.isPropertyAccessExpression(inner.expression) &&
        CHANGING.has(inner.expression.name.text)
      ) {
        const root = rootOf(inner.expression);
        if (root !== null) add(changes, root);
      }
      if (ts.isIdentifier(inner)) {
        if (inner.text === 'Date' || inner.text === 'Temporal') marks.add('clock');
        if (inner.text === 'previous' && !isDeclared(inner)) marks.add('previous');
        if (isValueUse(inner)) add(uses, inner);
      }
      if (
        ts.isPropertyAccessExpression(inner) &&
        inner.name.text === 'random' &&
        ts.isIdentifier(inner.expression) &&
        inner.expression.text === 'Math'
      )
        marks.add('random');
      ts.forEachChild(inner, look);
    };
    const lookAtPattern = (name: ts.BindingName): void => {
      if (ts.isIdentifier(name)) return;
      for (const one of name.elements)
        if (ts.isBindingElement(one)) {
          if (one.initializer !== undefined) look(one.initializer);
          lookAtPattern(one.name);
        }
    };
    if (kind === 'function') {
      if (ts.isFunctionLike(node))
        for (const one of node.parameters)
          for (const name of boundNames(one.name as ts.BindingName)) add(defines, name);
    } else if (kind === 'item') {
      if (ts.isCatchClause(node)) {
        if (node.variableDeclaration !== undefined)
          for (const name of boundNames(node.variableDeclaration.name)) add(defines, name);
      } else {
        const { initializer, expression } = node as ts.ForOfStatement;
        if (ts.isVariableDeclarationList(initializer))
          for (const one of initializer.declarations)
            for (const name of boundNames(one.name)) add(defines, name);
        else target(initializer);
        look(expression);
      }
    } else if (ts.isForStatement(node) && kind === 'statement') {
      if (node.initializer !== undefined) look(node.initializer);
      if (node.incrementor !== undefined) look(node.incrementor);
    } else if (ts.isForOfStatement(node) || ts.isForInStatement(node)) look(node.expression);
    else if (ts.isSwitchStatement(node)) look(node.expression);
    else if (ts.isIfStatement(node)) look(node.expression);
    else if (ts.isWhileStatement(node) || ts.isDoStatement(node)) look(node.expression);
    else if (!ts.isTryStatement(node) && !ts.isBlock(node) && !ts.isLabeledStatement(node))
      look(node);
    return { uses: [...uses], defines: [...defines], changes: [...changes], marks: [...marks] };
  }

  /** The variables in sight that its function mentions and that have a value by then. */
  #inSight(node: ts.Node): string[] {
    const owner = ownerNear(node) ?? this.file;
    const mentioned = this.#mentionedIn(owner);
    const shows = ({ isFunction, declared, owner: of, number }: Variable) =>
      !isFunction && declared < node.getStart(this.file) && (of === owner || mentioned.has(number));
    return this.#scopes
      .inSight(node.parent ?? node)
      .filter(shows)
      .slice(0, MOST_VARIABLES)
      .map(({ name }) => name);
  }

  #mentionedIn(owner: ts.Node): ReadonlySet<number> {
    const known = this.#mentioned.get(owner);
    if (known !== undefined) return known;
    const found = new Set<number>();
    const look = (node: ts.Node): void => {
      if (ts.isIdentifier(node) && isValueUse(node)) {
        const number = this.#scopes.find(node.text, node)?.number;
        if (number !== undefined) found.add(number);
      }
      ts.forEachChild(node, look);
    };
    ts.forEachChild(owner, look);
    this.#mentioned.set(owner, found);
    return found;
  }

  /** The condition right above a place, and those before it under which its function or round is left. */
  #reached(node: ts.Node): Pick<Site, 'under' | 'leaves'> {
    const leaves: Control[] = [];
    for (let at = node; ; at = at.parent) {
      const above = at.parent as ts.Node | undefined;
      if (above === undefined || ts.isSourceFile(at)) return { under: null, leaves };
      this.#leavesBefore(at, above, leaves);
      const under = this.#controlOf(at, above);
      if (under !== null) return { under, leaves };
      if (ts.isFunctionLike(at)) return { under: null, leaves };
    }
  }

  #leavesBefore(at: ts.Node, above: ts.Node, leaves: Control[]): void {
    const list =
      ts.isBlock(above) ||
      ts.isSourceFile(above) ||
      ts.isCaseClause(above) ||
      ts.isDefaultClause(above)
        ? above.statements
        : null;
    if (list === null || ts.isFunctionLike(at)) return;
    for (const statement of list) {
      if (statement === at || statement.getStart(this.file) >= at.getStart(this.file)) break;
      for (const { condition, holds } of this.#leavingIn(statement))
        leaves.push({ site: this.#site(condition, 'condition'), holds });
    }
  }

  /** Conditions within a statement under which what follows it is not reached. */
  #leavingIn(statement: ts.Node): readonly Leaving[] {
    const known = this.#leaves.get(statement);
    if (known !== undefined) return known;
    const found: Leaving[] = [];
    const look = (node: ts.Node): boolean => {
      if (ts.isFunctionLike(node)) return false;
      if (
        ts.isReturnStatement(node) ||
        ts.isThrowStatement(node) ||
        ts.isContinueStatement(node) ||
        ts.isBreakStatement(node)
      )
        return true;
      if (ts.isIfStatement(node)) {
        const [whenTrue, whenFalse] = [
          look(node.thenStatement),
          node.elseStatement !== undefined && look(node.elseStatement),
        ];
        if (!whenTrue && !whenFalse) return false;
        found.push({
          condition: node.expression,
          holds: whenTrue && whenFalse ? null : !whenTrue,
        });
        return true;
      }
      let leaves = false;
      ts.forEachChild(node, (child) => {
        if (look(child)) leaves = true;
      });
      return leaves;
    };
    look(statement);
    this.#leaves.set(statement, found);
    return found;
  }

  #controlOf(at: ts.Node, above: ts.Node): Control | null {
    const on = (condition: ts.Expression, holds: boolean): Control => ({
      site: this.#site(condition, 'condition'),
      holds,
    });
    if (ts.isIfStatement(above)) {
      if (at === above.thenStatement) return on(above.expression, true);
      if (at === above.elseStatement) return on(above.expression, false);
    }
    if (ts.isConditionalExpression(above)) {
      if (at === above.whenTrue) return on(above.condition, true);
      if (at === above.whenFalse) return on(above.condition, false);
    }
    if (ts.isBinaryExpression(above) && CHOOSES.has(above.operatorToken.kind) && at === above.right)
      return on(above.left, above.operatorToken.kind === ts.SyntaxKind.AmpersandAmpersandToken);
    if ((ts.isWhileStatement(above) || ts.isDoStatement(above)) && at === above.statement)
      return on(above.expression, true);
    if (
      ts.isForStatement(above) &&
      at !== above.initializer &&
      above.condition !== undefined &&
      at !== above.condition
    )
      return on(above.condition, true);
    if ((ts.isForOfStatement(above) || ts.isForInStatement(above)) && at === above.statement)
      return { site: this.#site(above, 'item'), holds: null };
    if (ts.isCaseClause(above) || ts.isDefaultClause(above))
      return { site: this.#site(above.parent.parent.expression, 'switch'), holds: null };
    if (ts.isCatchClause(above) && at === above.block)
      return { site: this.#site(above, 'item'), holds: null };
    return null;
  }
}

function cut(text: string): string {
  const flat = text.replace(/\s+/g, ' ');
  return flat.length > 80 ? `${flat.slice(0, 79)}…` : flat;
}

function boundNames(name: ts.BindingName): ts.Identifier[] {
  if (ts.isIdentifier(name)) return name.text === 'this' ? [] : [name];
  return name.elements.flatMap((one) => (ts.isBindingElement(one) ? boundNames(one.name) : []));
}

/** The variables that a loop gives its items to. */
function itemNames({ initializer }: ts.ForOfStatement | ts.ForInStatement): string[] {
  return ts.isVariableDeclarationList(initializer)
    ? initializer.declarations.flatMap(({ name }) => boundNames(name).map(({ text }) => text))
    : [];
}

/** The variable that a chain of members begins with. */
function rootOf(node: ts.Expression): ts.Identifier | null {
  let root: ts.Expression = node;
  while (
    ts.isPropertyAccessExpression(root) ||
    ts.isElementAccessExpression(root) ||
    ts.isCallExpression(root) ||
    ts.isNonNullExpression(root) ||
    ts.isParenthesizedExpression(root) ||
    ts.isAsExpression(root)
  )
    root = root.expression;
  return ts.isIdentifier(root) ? root : null;
}

function isAssignment(kind: ts.SyntaxKind): boolean {
  return kind >= ts.SyntaxKind.FirstAssignment && kind <= ts.SyntaxKind.LastAssignment;
}

/** Whether a name stands where a variable of that name is made. */
function isDeclared({ parent }: ts.Identifier): boolean {
  return ts.isVariableDeclaration(parent) || ts.isParameter(parent);
}

/** The method that a function is handed to where it stands; null for any other function. */
function methodGiven({ parent }: ts.Node): string | null {
  return parent !== undefined &&
    ts.isCallExpression(parent) &&
    ts.isPropertyAccessExpression(parent.expression)
    ? parent.expression.name.text
    : null;
}

function isOptionalChain(node: ts.Expression): boolean {
  return (node.flags & ts.NodeFlags.OptionalChain) !== 0;
}

/** The function whose activation a place belongs to: parameters and fields of classes belong to the one around. */
function ownerNear(node: ts.Node): ts.Node | null {
  for (let at = node; ; at = at.parent) {
    const above = at.parent as ts.Node | undefined;
    if (above === undefined) return ts.isSourceFile(at) ? null : at;
    if (ts.isFunctionLike(above) && 'body' in above && above.body === at) return above;
    if (ts.isSourceFile(above)) return above;
  }
}

function ownerAbove(node: ts.Node): ts.Node | null {
  return ts.isSourceFile(node) ? null : ownerNear(node);
}
