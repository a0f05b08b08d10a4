import ts from 'typescript-classic';
import { actsOf, type Block } from '../acts';
import { expressionsIn, isOperation, Kinds, operates, outerOf } from './kinds-of';
import type { Finding, Mistake } from './mistake';
import type { KnownParts } from './known-parts';

const STEERED = new Set(['shown', 'required', 'problem']);

/** `!answer` of a yes/no field that has no default: it holds before anybody has answered. */
export const untouchedForNo: Mistake = {
  code: 'untouched-for-no',
  title: 'Not answered yet is taken for no',
  severity: 'warning',
  find: ({ flow, parts, file }) =>
    flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, parts);
      /** Nothing where the answer is no yes/no field, or it does not matter here. */
      const say = (
        node: ts.Expression,
        answer: ts.Expression | null,
        matters: () => boolean,
        fixes: () => Finding['fixes'],
      ): Finding[] => {
        const field = answer === null ? null : answered(answer, kinds, block, parts);
        if (field === null || !matters()) return [];
        return [
          {
            from: node.getStart(file),
            to: node.getEnd(),
            says: `${parts.called(field)} is null until somebody answers, and that counts as no here. Write === false for no, or !== true for no and not answered yet.`,
            fixes: fixes(),
          },
        ];
      };
      const steering = (node: ts.Expression, answer: ts.Expression | null) =>
        say(
          node,
          answer,
          () => steers(node, block),
          () => written(node, answer!, file),
        );
      return [
        ...expressionsIn(block, ts.isPrefixUnaryExpression).flatMap((node) =>
          steering(node, node.operator === ts.SyntaxKind.ExclamationToken ? node.operand : null),
        ),
        ...expressionsIn(block, ts.isBinaryExpression).flatMap((node) =>
          steering(node, noForEmpty(node, kinds)),
        ),
        ...branchesOf(block).flatMap(({ asked, otherwise }) =>
          say(
            asked,
            asked,
            () => otherwise(block),
            () => [],
          ),
        ),
      ];
    }),
};

/** What is asked in `(answer ?? false) === false`; null for anything else. */
function noForEmpty(node: ts.BinaryExpression, kinds: Kinds): ts.Expression | null {
  const isFalse = (one: ts.Expression) => kinds.behind(one).kind === ts.SyntaxKind.FalseKeyword;
  if (!operates(node, ts.SyntaxKind.EqualsEqualsEqualsToken) || !isFalse(node.right)) return null;
  const left = kinds.behind(node.left);
  return isOperation(left, ts.SyntaxKind.QuestionQuestionToken) && isFalse(left.right)
    ? left.left
    : null;
}

const written = (
  node: ts.Expression,
  operand: ts.Expression,
  file: ts.SourceFile,
): Finding['fixes'] =>
  ['=== false', '!== true'].map((compared) => ({
    title: `Write ${operand.getText(file)} ${compared}`,
    edits: [
      {
        from: node.getStart(file),
        to: node.getEnd(),
        text: `${operand.getText(file)} ${compared}`,
      },
    ],
  }));

/** The yes/no field whose value is asked, where it starts without one. */
function answered(
  node: ts.Expression,
  kinds: Kinds,
  block: Block,
  parts: KnownParts,
): string | null {
  const inner = kinds.behind(node);
  if (!ts.isPropertyAccessExpression(inner) && !ts.isIdentifier(inner)) return null;
  const alias = block.seen.get(inner)?.alias ?? null;
  if (alias === null || alias.aspect !== 'value' || alias.spelled === 'item') return null;
  const field = parts.field(alias.part);
  return field?.kind === 'yes_no' && field.default === undefined ? alias.part : null;
}

/** Whether it decides alone what people have to do: an aspect is set to it, or something is asked for where it holds. */
function steers(node: ts.Expression, block: Block): boolean {
  const { at, parent } = outerOf(node);
  const isSet = actsOf(block, 'write').some((act) => act.value === at && STEERED.has(act.aspect));
  if (isSet) return true;
  return (
    ts.isIfStatement(parent) && parent.expression === at && asksIn(parent.thenStatement, block)
  );
}

interface Branch {
  asked: ts.Expression;
  /** Whether people are asked for something where it does not hold. */
  otherwise(block: Block): boolean;
}

/** `if (answer) … else …` and `answer ? … : …`. */
function branchesOf(block: Block): Branch[] {
  const found = new Map<ts.Node, Branch>();
  for (const { node } of actsOf(block, 'test')) {
    const { at, parent } = outerOf(node);
    if (
      ts.isIfStatement(parent) &&
      parent.expression === at &&
      parent.elseStatement !== undefined
    ) {
      const { elseStatement } = parent;
      if (!ts.isIfStatement(elseStatement))
        found.set(node, { asked: node, otherwise: () => asksIn(elseStatement, block) });
    }
    if (ts.isConditionalExpression(parent) && parent.condition === at) {
      const outer = outerOf(parent).at;
      found.set(node, {
        asked: node,
        otherwise: () =>
          parent.whenFalse.kind === ts.SyntaxKind.TrueKeyword &&
          actsOf(block, 'write').some((act) => act.value === outer && STEERED.has(act.aspect)),
      });
    }
  }
  return [...found.values()];
}

/** Something is shown, required or refused in a statement. */
function asksIn(statement: ts.Statement, block: Block): boolean {
  const isIn = (node: ts.Node) => node.pos >= statement.pos && node.end <= statement.end;
  const isAsking = (value: ts.Expression | null) =>
    value !== null &&
    value.kind !== ts.SyntaxKind.FalseKeyword &&
    value.kind !== ts.SyntaxKind.NullKeyword;
  return (
    actsOf(block, 'write').some(
      (act) => isIn(act.node) && STEERED.has(act.aspect) && isAsking(act.value),
    ) || /\.stop\(/.test(statement.getText())
  );
}
