/**
 * What a behaviour does, read from its source without running it: which handlers and rules it ties, and what each reads,
 * writes and waits for, under which conditions, in order. Names are followed through constants, destructuring, loops
 * over parts, parameters and helpers of the same file, so that `const { value } = fields.a` is known to be the value of
 * `a`. What cannot be followed is left out rather than guessed: checks built on this stay silent where it does not know.
 */
import ts from 'typescript-classic';
import {
  bare,
  type Act,
  type ActOf,
  type Block,
  type Condition,
  type Flow,
  type Known,
} from './acts';
import {
  alwaysLeaves,
  CHANGING,
  isOrdering,
  COMPARISONS,
  isFunction,
  leavesUnder,
  TIED_TO_PART,
  tieOf,
} from './flow-syntax';
import { derived, either, Env, itemOf, known, NO_MARKS, NOTHING, partsOrRow } from './known';
import { constantOf, keysOf } from './lookups';
import { Members, PART_CONSTANTS, type ActBody } from './members';

const GLOBALS = new Set<string>([
  ...PART_CONSTANTS,
  'on',
  'keep',
  'always',
  'form',
  'tables',
  'services',
  'parent',
  'Math',
  'Date',
  'Temporal',
  'after',
]);

const flows = new WeakMap<ts.SourceFile, Flow>();

/** Reads a parsed behaviour. Answers are kept as long as the file is. */
export function flowOf(file: ts.SourceFile): Flow {
  const kept = flows.get(file);
  if (kept !== undefined) return kept;
  const made = new Reader(file).read();
  flows.set(file, made);
  return made;
}

/** Helpers that call helpers are followed this far. */
const DEEPEST = 6;

/** A block that is being read. */
type OpenBlock = Block & { seen: Map<ts.Node, Known> };

class Reader {
  readonly #blocks: Block[] = [];
  readonly #later: (() => void)[] = [];
  #block: OpenBlock | null = null;
  #conditions: Condition[] = [];
  #waits = 0;
  #inlined: ts.Node[] = [];
  readonly #members = new Members({
    act: (act) => this.#act(act),
    waits: () => this.#waits,
  });

  constructor(private readonly file: ts.SourceFile) {}

  read(): Flow {
    this.#statements(this.file.statements, new Env(null), true);
    // Handlers are read once all names of the module are known, as they run only then.
    for (let next = this.#later.shift(); next !== undefined; next = this.#later.shift()) next();
    return { file: this.file, blocks: this.#blocks };
  }

  #act(act: ActBody): void {
    this.#block?.acts.push({
      ...act,
      conditions: [...this.#conditions],
      waits: this.#waits,
    } as Act);
  }

  #statements(statements: readonly ts.Statement[], env: Env, top = false): Known {
    for (const statement of statements) {
      if (ts.isFunctionDeclaration(statement) && statement.name !== undefined)
        env.set(statement.name.text, {
          known: known({ run: { node: statement, env } }),
          module: null,
        });
    }
    const before = this.#conditions.length;
    const returned: Known[] = [];
    for (const statement of statements) {
      const found = this.#statement(statement, env, top);
      if (found !== null) returned.push(found);
      if (ts.isReturnStatement(statement) || ts.isThrowStatement(statement)) break;
      const left = leavesUnder(statement);
      if (left === null) continue;
      const { reads, marks } = this.#quietly(left, env);
      const surely = ts.isIfStatement(statement) && alwaysLeaves(statement.thenStatement);
      this.#conditions.push({ node: left, holds: false, surely, reads, marks });
    }
    this.#conditions.length = before;
    return either(returned.length === 0 ? [NOTHING] : returned);
  }

  /** Looks at an expression once more without noting it again. */
  #quietly(node: ts.Expression, env: Env): Known {
    const block = this.#block;
    this.#block = null;
    const waits = this.#waits;
    const seen = this.#see(node, env);
    this.#block = block;
    this.#waits = waits;
    return seen;
  }

  #statement(node: ts.Statement, env: Env, top: boolean): Known | null {
    if (ts.isVariableStatement(node)) {
      for (const declaration of node.declarationList.declarations)
        this.#declare(declaration, env, top);
      return null;
    }
    if (ts.isExpressionStatement(node)) {
      this.#see(node.expression, env);
      return null;
    }
    if (ts.isReturnStatement(node))
      return node.expression === undefined ? null : this.#see(node.expression, env);
    if (ts.isBlock(node)) return this.#statements(node.statements, new Env(env));
    if (ts.isIfStatement(node)) {
      const condition = this.#condition(node.expression, env);
      const returned = [
        this.#under(node.expression, true, condition, () =>
          this.#statement(node.thenStatement, new Env(env), false),
        ),
      ];
      if (node.elseStatement !== undefined)
        returned.push(
          this.#under(node.expression, false, condition, () =>
            this.#statement(node.elseStatement!, new Env(env), false),
          ),
        );
      const some = returned.filter((one) => one !== null);
      return some.length === 0
        ? null
        : either([...some, known({ reads: condition.reads, marks: condition.marks })]);
    }
    if (ts.isForOfStatement(node)) {
      const inner = new Env(env);
      const list = this.#see(node.expression, env);
      if (ts.isVariableDeclarationList(node.initializer))
        for (const declaration of node.initializer.declarations)
          this.#bind(declaration.name, itemOf(list), inner);
      return this.#statement(node.statement, inner, false);
    }
    if (ts.isForStatement(node)) {
      const inner = new Env(env);
      if (node.initializer !== undefined) {
        if (ts.isVariableDeclarationList(node.initializer))
          for (const declaration of node.initializer.declarations)
            this.#declare(declaration, inner, false);
        else this.#see(node.initializer, inner);
      }
      if (node.condition !== undefined) this.#condition(node.condition, inner);
      if (node.incrementor !== undefined) this.#see(node.incrementor, inner);
      return this.#statement(node.statement, inner, false);
    }
    if (ts.isWhileStatement(node) || ts.isDoStatement(node)) {
      const condition = this.#condition(node.expression, env);
      return this.#under(node.expression, true, condition, () =>
        this.#statement(node.statement, new Env(env), false),
      );
    }
    if (ts.isSwitchStatement(node)) return this.#switch(node, env);
    if (ts.isTryStatement(node)) {
      const returned = [
        this.#statement(node.tryBlock, env, false),
        node.catchClause === undefined
          ? null
          : this.#statement(node.catchClause.block, new Env(env), false),
        node.finallyBlock === undefined ? null : this.#statement(node.finallyBlock, env, false),
      ].filter((one) => one !== null);
      return returned.length === 0 ? null : either(returned);
    }
    if (ts.isFunctionDeclaration(node)) return null;
    ts.forEachChild(node, (child) => {
      if (ts.isExpression(child)) this.#see(child, env);
      else if (ts.isStatement(child)) this.#statement(child, env, false);
    });
    return null;
  }

  #switch(node: ts.SwitchStatement, env: Env): Known | null {
    const on = this.#see(node.expression, env);
    const returned: Known[] = [];
    for (const clause of node.caseBlock.clauses) {
      if (ts.isCaseClause(clause)) {
        const wanted = this.#see(clause.expression, env);
        this.#act({
          type: 'compare',
          node: clause.expression,
          left: on,
          right: wanted,
          leftNode: node.expression,
          rightNode: clause.expression,
          op: 'equal',
        });
      }
      const found = this.#under(
        node.expression,
        true,
        on,
        () => this.#statements(clause.statements, new Env(env)),
        false,
      );
      if (found !== null) returned.push(found);
    }
    return returned.length === 0 ? null : either(returned);
  }

  #under<T>(
    node: ts.Expression,
    holds: boolean,
    { reads, marks }: Known,
    work: () => T,
    surely = true,
  ): T {
    this.#conditions.push({ node, holds, surely, reads, marks });
    const done = work();
    this.#conditions.pop();
    return done;
  }

  /** A condition: a part in its place is noted. */
  #condition(node: ts.Expression, env: Env): Known {
    const seen = this.#see(node, env);
    this.#noteCondition(node, seen);
    this.#act({ type: 'test', node });
    return seen;
  }

  #noteCondition(node: ts.Expression, seen: Known): void {
    const inner = bare(node);
    if (ts.isPrefixUnaryExpression(inner) && inner.operator === ts.SyntaxKind.ExclamationToken)
      return this.#noteCondition(inner.operand, seen);
    const [only] = seen.parts;
    if (seen.parts.length === 1 && ts.isPropertyAccessExpression(inner))
      this.#act({
        type: 'part',
        node: inner,
        part: only!.part,
        sort: only!.sort,
        how: 'condition',
      });
  }

  #declare(declaration: ts.VariableDeclaration, env: Env, top: boolean): void {
    const value =
      declaration.initializer === undefined ? NOTHING : this.#see(declaration.initializer, env);
    if (ts.isIdentifier(declaration.name)) {
      const constant = (declaration.parent.flags & ts.NodeFlags.Const) !== 0;
      const source = constant ? (value.source ?? declaration.initializer ?? null) : null;
      env.set(declaration.name.text, {
        known: { ...value, source: source === null ? null : bare(source) },
        module: top ? declaration : null,
      });
    } else this.#bind(declaration.name, value, env);
  }

  #bind(name: ts.BindingName, value: Known, env: Env): void {
    if (ts.isIdentifier(name)) {
      env.set(name.text, { known: value, module: null });
      return;
    }
    name.elements.forEach((element, i) => {
      if (!ts.isBindingElement(element)) return;
      if (ts.isArrayBindingPattern(name)) {
        this.#bind(element.name, value.items?.[i] ?? itemOf(value), env);
        return;
      }
      const property = element.propertyName ?? element.name;
      if (element.dotDotDotToken === undefined && ts.isIdentifier(property))
        this.#bind(element.name, this.#members.of(value, property.text, element), env);
    });
  }

  #see(node: ts.Expression, env: Env): Known {
    const inner = bare(node);
    const seen = this.#look(inner, env);
    if (this.#block !== null) {
      const { seen: all } = this.#block;
      const former = all.get(inner);
      all.set(inner, former === undefined || sameKnown(former, seen) ? seen : NOTHING);
    }
    return seen;
  }

  #look(inner: ts.Expression, env: Env): Known {
    if (ts.isIdentifier(inner))
      return (
        env.get(inner.text)?.known ??
        (GLOBALS.has(inner.text) ? known({ thing: { is: 'global', name: inner.text } }) : NOTHING)
      );
    if (ts.isPropertyAccessExpression(inner)) {
      const of = this.#see(inner.expression, env);
      const constant = of.source === null ? null : constantOf(of.source, inner.name.text);
      if (constant !== null) return known({ source: constant });
      return this.#members.of(of, inner.name.text, inner);
    }
    if (ts.isElementAccessExpression(inner)) {
      const of = this.#see(inner.expression, env);
      const at = bare(inner.argumentExpression);
      if (ts.isStringLiteralLike(at)) return this.#members.of(of, at.text, inner);
      const index = this.#see(inner.argumentExpression, env);
      this.#lookUp(inner, of, index, inner.argumentExpression);
      if (ts.isNumericLiteral(at) && of.items?.[Number(at.text)] !== undefined)
        return of.items[Number(at.text)]!;
      return of.item !== null
        ? { ...itemOf(of), reads: [...of.reads, ...index.reads] }
        : derived([of, index]);
    }
    if (ts.isCallExpression(inner)) return this.#call(inner, env);
    if (ts.isNewExpression(inner)) {
      if (
        ts.isIdentifier(inner.expression) &&
        inner.expression.text === 'Date' &&
        (inner.arguments?.length ?? 0) === 0
      )
        return this.#clock(inner, 'new Date()');
      return derived((inner.arguments ?? []).map((argument) => this.#see(argument, env)));
    }
    if (ts.isAwaitExpression(inner)) {
      const seen = this.#see(inner.expression, env);
      this.#act({ type: 'await', node: inner, reads: seen.reads, marks: seen.marks });
      this.#waits++;
      return seen;
    }
    if (ts.isBinaryExpression(inner)) return this.#binary(inner, env);
    if (ts.isConditionalExpression(inner)) {
      const condition = this.#condition(inner.condition, env);
      const whenTrue = this.#under(inner.condition, true, condition, () =>
        this.#see(inner.whenTrue, env),
      );
      const whenFalse = this.#under(inner.condition, false, condition, () =>
        this.#see(inner.whenFalse, env),
      );
      return {
        ...either([whenTrue, whenFalse, known({ reads: condition.reads, marks: condition.marks })]),
        parts: [...whenTrue.parts, ...whenFalse.parts],
      };
    }
    if (ts.isArrayLiteralExpression(inner)) {
      const items = inner.elements.map((element) =>
        this.#see(ts.isSpreadElement(element) ? element.expression : element, env),
      );
      const spread = inner.elements.some(ts.isSpreadElement);
      return {
        ...derived(items),
        items: spread ? null : items,
        item:
          items.length === 0
            ? null
            : {
                ...either(items),
                ...(inner.elements.every(ts.isStringLiteralLike) ? { oneOf: inner } : {}),
              },
      };
    }
    if (ts.isArrowFunction(inner) || ts.isFunctionExpression(inner))
      return known({ run: { node: inner, env } });
    if (ts.isPrefixUnaryExpression(inner) || ts.isPostfixUnaryExpression(inner)) {
      if (
        inner.operator === ts.SyntaxKind.PlusPlusToken ||
        inner.operator === ts.SyntaxKind.MinusMinusToken
      )
        return this.#assign(
          inner,
          inner.operand,
          null,
          inner.operator === ts.SyntaxKind.PlusPlusToken ? '+=' : '-=',
          env,
        );
      const seen = this.#see(inner.operand, env);
      if (inner.operator === ts.SyntaxKind.ExclamationToken && seen.parts.length > 0)
        this.#noteCondition(inner.operand, seen);
      return derived([seen]);
    }
    if (ts.isObjectLiteralExpression(inner)) {
      return derived(
        inner.properties.map((property) =>
          ts.isPropertyAssignment(property)
            ? this.#see(property.initializer, env)
            : ts.isShorthandPropertyAssignment(property)
              ? this.#see(property.name, env)
              : ts.isSpreadAssignment(property)
                ? this.#see(property.expression, env)
                : NOTHING,
        ),
      );
    }
    const children: Known[] = [];
    const look = (child: ts.Node): void => {
      if (ts.isExpression(child)) children.push(this.#see(child, env));
      else if (ts.isTemplateSpan(child)) children.push(this.#see(child.expression, env));
    };
    ts.forEachChild(inner, look);
    return derived(children);
  }

  #binary(node: ts.BinaryExpression, env: Env): Known {
    const kind = node.operatorToken.kind;
    if (kind >= ts.SyntaxKind.FirstAssignment && kind <= ts.SyntaxKind.LastAssignment)
      return this.#assign(node, node.left, node.right, node.operatorToken.getText(this.file), env);
    if (
      kind === ts.SyntaxKind.AmpersandAmpersandToken ||
      kind === ts.SyntaxKind.BarBarToken ||
      kind === ts.SyntaxKind.QuestionQuestionToken
    ) {
      const left =
        kind === ts.SyntaxKind.QuestionQuestionToken
          ? this.#see(node.left, env)
          : this.#condition(node.left, env);
      const right = this.#under(
        node.left,
        kind === ts.SyntaxKind.AmpersandAmpersandToken,
        left,
        () => this.#see(node.right, env),
      );
      if (kind !== ts.SyntaxKind.QuestionQuestionToken) this.#act({ type: 'test', node });
      return {
        ...either([left, right]),
        ...(kind === ts.SyntaxKind.QuestionQuestionToken && left.alias !== null
          ? { alias: left.alias, otherwise: node.right }
          : { alias: null }),
      };
    }
    const left = this.#see(node.left, env);
    const right = this.#see(node.right, env);
    if (isOrdering(kind)) this.#act({ type: 'test', node });
    const op = COMPARISONS[kind];
    if (op !== undefined) {
      this.#act({
        type: 'compare',
        node,
        left,
        right,
        leftNode: node.left,
        rightNode: node.right,
        op,
      });
      for (const [side, other] of [
        [left, right],
        [right, left],
      ] as const) {
        const [only] = side.parts;
        if (side.parts.length === 1 && other.parts.length === 0)
          this.#act({
            type: 'part',
            node: side === left ? node.left : node.right,
            part: only!.part,
            sort: only!.sort,
            how: 'compared',
          });
      }
    }
    return derived([left, right]);
  }

  #assign(
    node: ts.Node,
    target: ts.Expression,
    value: ts.Expression | null,
    op: string,
    env: Env,
  ): Known {
    const given = value === null ? NOTHING : this.#see(value, env);
    const left = bare(target);
    if (ts.isIdentifier(left)) {
      const bound = env.get(left.text);
      if (bound?.module != null)
        this.#act({
          type: 'state',
          node,
          name: left.text,
          declaration: bound.module,
          how: 'assigned',
          put: null,
        });
      env.widen(left.text, given);
      return given;
    }
    if (!ts.isPropertyAccessExpression(left) && !ts.isElementAccessExpression(left)) return given;
    const name = ts.isPropertyAccessExpression(left)
      ? left.name.text
      : ts.isStringLiteralLike(bare(left.argumentExpression))
        ? (bare(left.argumentExpression) as ts.StringLiteralLike).text
        : null;
    const of = this.#see(left.expression, env);
    if (name === null && ts.isElementAccessExpression(left)) {
      const key = this.#quietly(left.argumentExpression, env).reads;
      this.#changed(left.expression, node, env, op === '=' ? { key, value: given } : null);
      return given;
    }
    if (name === null) return given;
    // Where a part itself is assigned, such as `fields.a = 3`.
    if (
      of.thing?.is === 'cells' ||
      (of.thing?.is === 'global' && PART_CONSTANTS.has(of.thing.name))
    ) {
      const [part] = this.#members.of(of, name, left).parts;
      if (part !== undefined)
        this.#act({ type: 'part', node: left, part: part.part, sort: part.sort, how: 'assigned' });
      return given;
    }
    const parts = partsOrRow(of);
    if (parts.length === 0) this.#changed(left.expression, node, env);
    for (const part of parts) {
      if (op !== '=')
        this.#act({
          type: 'read',
          node: left,
          access: { part, aspect: name, spelled: name, node: left, waits: this.#waits },
        });
      this.#act({
        type: 'write',
        node,
        part,
        aspect: name,
        target: left,
        value,
        op,
        reads: given.reads,
        marks: given.marks,
      });
    }
    return given;
  }

  /** Something that a module variable holds is changed. */
  #changed(of: ts.Expression, node: ts.Node, env: Env, put: ActOf<'state'>['put'] = null): void {
    let root = bare(of);
    while (ts.isPropertyAccessExpression(root) || ts.isElementAccessExpression(root))
      root = bare(root.expression);
    const bound = ts.isIdentifier(root) ? env.get(root.text) : null;
    if (bound?.module != null && bound.known.parts.length === 0)
      this.#act({
        type: 'state',
        node,
        name: (root as ts.Identifier).text,
        declaration: bound.module,
        how: 'changed',
        put,
      });
  }

  #clock(node: ts.Node, what: string): Known {
    this.#act({ type: 'clock', node, what });
    return known({ marks: new Set(['clock']) });
  }

  #call(node: ts.CallExpression, env: Env): Known {
    const tie = tieOf(node);
    if (tie !== null) return this.#tie(node, tie, env);
    const callee = this.#see(node.expression, env);
    const called = bare(node.expression);
    const subject = ts.isPropertyAccessExpression(called)
      ? this.#quietly(called.expression, env)
      : NOTHING;
    const given = node.arguments.map((argument) =>
      this.#see(ts.isSpreadElement(argument) ? argument.expression : argument, env),
    );
    if (callee.run !== null) return this.#inline(callee.run, given);
    const name = callee.thing?.is === 'method' ? callee.thing.name : '';
    if (ts.isPropertyAccessExpression(called) && CHANGING.has(called.name.text))
      this.#changed(
        called.expression,
        node,
        env,
        called.name.text === 'set' && given.length === 2
          ? { key: given[0]!.reads, value: given[1]! }
          : null,
      );
    if (/^Date\.now$|^Temporal\.Now\.(?!plainDateISO|timeZoneId)/.test(name))
      this.#clock(node, `${name}()`);
    if (name === 'random') return this.#clock(node, 'Math.random()');
    if (name.startsWith('form.') || name === 'add' || name === 'remove' || name === 'open') {
      const of = callee.thing?.is === 'method' ? callee.thing.of : NOTHING;
      this.#act({ type: 'do', node, what: name, part: of.parts[0]?.part ?? null });
      for (const { part } of name === 'add' || name === 'remove' ? of.parts : [])
        this.#act({
          type: 'write',
          node,
          part,
          aspect: 'value',
          target: node.expression,
          value: null,
          op: 'add',
          reads: either([NOTHING, ...given]).reads,
          marks: NO_MARKS,
        });
      if (name === 'add' && of.parts[0] !== undefined)
        return known({ thing: { is: 'row', field: of.parts[0].part } });
    }
    if (
      ts.isPropertyAccessExpression(called) &&
      called.name.text === 'includes' &&
      node.arguments.length === 1
    ) {
      this.#act({
        type: 'compare',
        node,
        left: subject,
        right: given[0]!,
        leftNode: called.expression,
        rightNode: node.arguments[0]!,
        op: 'among',
      });
    }
    if (ts.isPropertyAccessExpression(called) && given.length === 1)
      this.#lookUp(node, subject, given[0]!, node.arguments[0]!);
    // A function handed over is run for each item of what it is handed to.
    const inside = given.map((one) =>
      one.run === null ? one : this.#inline(one.run, [itemOf(subject)]),
    );
    const kept =
      ts.isPropertyAccessExpression(called) &&
      /^(?:filter|slice|toSorted|find|at|concat|toReversed)$/.test(called.name.text)
        ? subject
        : NOTHING;
    const result = derived([callee, subject, ...inside]);
    if (
      /\.(?:find|at)$/.test(`.${ts.isPropertyAccessExpression(called) ? called.name.text : ''}`) &&
      kept.item !== null
    )
      return { ...kept.item, reads: result.reads };
    return { ...result, item: kept.item, items: null };
  }

  /** Something is read by a key from what stands in the source. */
  #lookUp(
    node: ts.CallExpression | ts.ElementAccessExpression,
    of: Known,
    by: Known,
    byNode: ts.Expression,
  ): void {
    const list = ts.isCallExpression(node) ? bare(node.expression) : node;
    const inPlace = ts.isPropertyAccessExpression(list) ? bare(list.expression) : null;
    const source =
      of.source ?? (inPlace !== null && ts.isArrayLiteralExpression(inPlace) ? inPlace : null);
    const keys = source === null ? null : keysOf(source, node);
    if (keys !== null) this.#act({ type: 'lookup', node, by, byNode, keys, in: source! });
  }

  #inline(run: NonNullable<Known['run']>, given: readonly Known[]): Known {
    const { node } = run;
    if (node.body === undefined || this.#inlined.includes(node) || this.#inlined.length >= DEEPEST)
      return derived(given);
    const env = new Env(run.env);
    node.parameters.forEach((parameter, i) => this.#bind(parameter.name, given[i] ?? NOTHING, env));
    this.#inlined.push(node);
    const returned = ts.isBlock(node.body)
      ? this.#statements(node.body.statements, env)
      : this.#see(node.body, env);
    this.#inlined.pop();
    return returned;
  }

  #tie(
    node: ts.CallExpression,
    { sort, event }: { sort: Block['sort']; event: string },
    env: Env,
  ): Known {
    const args = [...node.arguments];
    const toPart = TIED_TO_PART.has(event);
    const part = toPart ? this.#see(args.shift() ?? node.expression, env) : NOTHING;
    if (sort !== 'handler' && args[0] !== undefined && !isFunction(args[0]) && args.length > 1)
      args.shift();
    const tied = toPart
      ? [...new Set((part.items ?? [part]).flatMap(({ parts }) => parts.map((one) => one.part)))]
      : [];
    const handler = args[0] === undefined ? NOTHING : this.#see(args[0], env);
    const overlaps = args[1]?.getText(this.file).includes('all') ?? false;
    const block: OpenBlock = {
      sort,
      event,
      tied,
      call: node,
      body: handler.run?.node ?? null,
      overlaps,
      inside: this.#block,
      acts: [],
      seen: new Map(),
    };
    this.#blocks.push(block);
    const { run } = handler;
    if (run === null) return NOTHING;
    const given =
      sort === 'handler'
        ? known({ thing: { is: 'event', block } })
        : event.endsWith('.each') && tied[0] !== undefined
          ? known({ thing: { is: 'row', field: tied[0] } })
          : NOTHING;
    this.#later.push(() => {
      this.#block = block;
      this.#conditions = [];
      this.#waits = 0;
      this.#inline(run, [given]);
      this.#block = null;
    });
    return NOTHING;
  }
}

/** Whether an expression is the same thing in two runs of it. */
function sameKnown(one: Known, other: Known): boolean {
  return (
    one.alias?.part === other.alias?.part &&
    one.alias?.aspect === other.alias?.aspect &&
    one.alias?.spelled === other.alias?.spelled &&
    one.source === other.source
  );
}
