/**
 * Whether a rule that writes a value it reads comes to rest at once: written again, it would write the same, or nothing.
 * What cannot be told is taken for not at rest.
 */
import ts from 'typescript-classic';
import { actsOf, bare, type ActOf, type Block, type Condition } from '../acts';
import { isOrdering } from '../flow-syntax';
import { isValueUse, Scopes } from '../scopes';
import { compared, type Constant } from './evaluated';

type Write = ActOf<'write'>;

export function comesToRest(block: Block, act: Write, file: ts.SourceFile): boolean {
  if (act.value === null || act.op !== '=') return false;
  const own = new OwnValue(block, act, file);
  if (own.isReached(act.value)) return true;
  // Of two that are written by turns, each is written because of the other.
  const isOnly = actsOf(block, 'write').every(
    (other) => other === act || other.part !== act.part || other.aspect !== 'value',
  );
  return isOnly && own.isDone(act);
}

/** Methods of texts and functions of numbers that change nothing the second time, whatever else they are given. */
const SETTLING = /^(?:trim|trimStart|trimEnd|toUpperCase|toLowerCase|normalize)$/;
const SETTLING_CALLS = /^(?:Math\.(?:min|max|round|floor|ceil|trunc|abs)|round|checks\.format)$/;

class OwnValue {
  readonly #reads: ReadonlySet<ts.Node>;
  readonly #file: ts.SourceFile;
  readonly #scopes = new Scopes();
  /** Declarations that are being looked at: one that leads back to itself adds nothing. */
  readonly #within = new Set<ts.Node>();

  constructor(block: Block, { part }: Write, file: ts.SourceFile) {
    this.#file = file;
    this.#reads = new Set(
      actsOf(block, 'read').flatMap(({ access }) =>
        access.part === part && access.aspect === 'value' && access.spelled === 'value'
          ? [access.node]
          : [],
      ),
    );
  }

  /** Whether an expression is the own value itself, by whatever constant. */
  #isOwn(expression: ts.Expression): boolean {
    const inner = bare(expression);
    if (this.#reads.has(inner)) return true;
    if (!ts.isIdentifier(inner)) return false;
    const declared = this.#declarationOf(inner);
    if (declared === null) return false;
    if (ts.isBindingElement(declared)) return this.#reads.has(declared);
    const { initializer } = declared;
    return (
      initializer !== undefined && this.#lookingAt(declared, false, () => this.#isOwn(initializer))
    );
  }

  /** Where the variable that a name means is declared; null for what is no variable of the script. */
  #declarationOf(name: ts.Identifier): ts.VariableDeclaration | ts.BindingElement | null {
    const variable = isValueUse(name) ? this.#scopes.find(name.text, name) : null;
    if (variable === null) return null;
    let found: ts.VariableDeclaration | ts.BindingElement | null = null;
    const look = (node: ts.Node): void => {
      if (node.pos > variable.declared || node.end < variable.declared) return;
      if (
        (ts.isVariableDeclaration(node) || ts.isBindingElement(node)) &&
        node.name.getStart(this.#file) === variable.declared
      )
        found = node;
      ts.forEachChild(node, look);
    };
    look(this.#file);
    return found;
  }

  #lookingAt(declared: ts.Node, inCircles: boolean, look: () => boolean): boolean {
    if (this.#within.has(declared)) return inCircles;
    this.#within.add(declared);
    const found = look();
    this.#within.delete(declared);
    return found;
  }

  /** Whether an expression does not depend on the field’s own value. */
  #isFree(node: ts.Node): boolean {
    if (ts.isExpression(node) && this.#isOwn(node)) return false;
    if (ts.isIdentifier(node)) {
      const declared = this.#declarationOf(node);
      const initializer = declared?.initializer;
      if (initializer !== undefined && ts.isVariableDeclaration(declared!))
        return this.#lookingAt(declared, true, () => this.#isFree(initializer));
    }
    let free = true;
    ts.forEachChild(node, (child) => {
      free &&= this.#isFree(child);
    });
    return free;
  }

  /** Whether an expression applied to its own outcome gives that again. */
  isReached(expression: ts.Expression): boolean {
    const inner = bare(expression);
    if (this.#isOwn(inner)) return true;
    const isEither = (node: ts.Expression) => this.isReached(node) || this.#isFree(node);
    if (ts.isCallExpression(inner)) {
      const called = bare(inner.expression);
      if (SETTLING_CALLS.test(called.getText(this.#file)))
        return (
          inner.arguments.some((argument) => this.isReached(argument)) &&
          inner.arguments.every(isEither)
        );
      if (!ts.isPropertyAccessExpression(called) || !this.isReached(called.expression))
        return false;
      return SETTLING.test(called.name.text) || takesOut(called.name.text, inner.arguments);
    }
    if (
      ts.isBinaryExpression(inner) &&
      (inner.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken ||
        inner.operatorToken.kind === ts.SyntaxKind.BarBarToken)
    )
      return this.isReached(inner.left) && isEither(inner.right);
    // One way leaves it as it is, so whatever the other gives stays.
    if (ts.isConditionalExpression(inner))
      return (
        (this.isReached(inner.whenTrue) && isEither(inner.whenFalse)) ||
        (this.isReached(inner.whenFalse) && isEither(inner.whenTrue))
      );
    return false;
  }

  /**
   * Whether a constant is written only while the value is something else, as one beyond a limit. Where it is written
   * because the field is empty, nobody could empty it any more.
   */
  isDone({ value, conditions }: Write): boolean {
    const written = constantOf(value!);
    if (written === undefined) return false;
    const asked = conditions.flatMap(({ node, holds }) => atoms(node, holds));
    if (
      written !== null &&
      asked.some((atom) => this.#holdsWith(atom, null) === true && this.#asksForEmpty(atom))
    )
      return false;
    return asked.some((atom) => this.#holdsWith(atom, written) === false);
  }

  #asksForEmpty(atom: Atom): boolean {
    return this.#holdsWith(atom, 'x') !== true && this.#holdsWith(atom, 1) !== true;
  }

  /** Whether a condition would hold if this were the own value; null where that cannot be told. */
  #holdsWith({ node, holds }: Atom, value: Constant): boolean | null {
    const inner = bare(node);
    if (this.#isOwn(inner)) return Boolean(value) === holds;
    if (!ts.isBinaryExpression(inner)) return null;
    const isLeft = this.#isOwn(inner.left);
    const other = constantOf(isLeft ? inner.right : inner.left);
    if ((!isLeft && !this.#isOwn(inner.right)) || other === undefined) return null;
    const outcome = comparedAlike(
      isLeft ? value : other,
      inner.operatorToken.kind,
      isLeft ? other : value,
    );
    return outcome === null ? null : outcome === holds;
  }
}

/** Taking something out of a text, or cutting it to a length. */
function takesOut(method: string, given: readonly ts.Expression[]): boolean {
  if (method === 'replace' || method === 'replaceAll')
    return given.length === 2 && constantOf(given[1]!) === '';
  return (
    (method === 'slice' || method === 'substring') &&
    given.length === 2 &&
    constantOf(given[0]!) === 0
  );
}

type Atom = Pick<Condition, 'node' | 'holds'>;

/** The parts of a condition that all have to hold, or all have to fail. */
function atoms(node: ts.Expression, holds: boolean): Atom[] {
  const inner = bare(node);
  if (ts.isPrefixUnaryExpression(inner) && inner.operator === ts.SyntaxKind.ExclamationToken)
    return atoms(inner.operand, !holds);
  const joined = holds ? ts.SyntaxKind.AmpersandAmpersandToken : ts.SyntaxKind.BarBarToken;
  if (ts.isBinaryExpression(inner) && inner.operatorToken.kind === joined)
    return [...atoms(inner.left, holds), ...atoms(inner.right, holds)];
  return [{ node: inner, holds }];
}

/** What a literal says; undefined for everything else. */
function constantOf(expression: ts.Expression): Constant | undefined {
  const inner = bare(expression);
  if (ts.isStringLiteralLike(inner)) return inner.text;
  if (ts.isNumericLiteral(inner)) return Number(inner.text);
  if (
    ts.isPrefixUnaryExpression(inner) &&
    inner.operator === ts.SyntaxKind.MinusToken &&
    ts.isNumericLiteral(inner.operand)
  )
    return -Number(inner.operand.text);
  if (inner.kind === ts.SyntaxKind.NullKeyword) return null;
  if (inner.kind === ts.SyntaxKind.TrueKeyword) return true;
  return inner.kind === ts.SyntaxKind.FalseKeyword ? false : undefined;
}

/** Null where two values have no order, or the operator compares nothing. */
function comparedAlike(left: Constant, op: ts.SyntaxKind, right: Constant): boolean | null {
  const isAlike =
    typeof left === typeof right && (typeof left === 'number' || typeof left === 'string');
  return isOrdering(op) && !isAlike ? null : (compared(left, op, right) ?? null);
}
