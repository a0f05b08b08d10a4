import ts from 'typescript-classic';
import { actsOf, type Block } from '../acts';
import { isNumeric } from '../../form/traits';
import { expressionsIn, isOperation, Kinds, operates, outerOf } from './kinds-of';
import type { Finding, Mistake, Subject } from './mistake';

const PLUS = ts.SyntaxKind.PlusToken;

/** A number added to a text: both are joined, so 4 and 1 are 41. */
export const joinedNumbers: Mistake = {
  code: 'joined-numbers',
  title: 'Numbers that are joined and not added',
  severity: 'error',
  find: (subject) =>
    subject.flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, subject.parts);
      return expressionsIn(block, ts.isBinaryExpression).flatMap((node) =>
        operates(node, PLUS)
          ? (behindText(node, kinds, subject) ?? toText(node, kinds, block, subject) ?? [])
          : [],
      );
    }),
};

/** `"Day " + days + 1`: the text on the left makes texts of all that follows. */
function behindText(node: ts.BinaryExpression, kinds: Kinds, { file }: Subject): Finding[] | null {
  const { left, right } = node;
  if (
    !isOperation(left, PLUS) ||
    kinds.sort(right) !== 'number' ||
    kinds.sort(left.right) !== 'number'
  )
    return null;
  if (kinds.sort(left.left) !== 'text') return null;
  const [from, to] = [left.right.getStart(file), right.getEnd()];
  return [
    {
      from,
      to,
      says: `${left.right.getText(file)} and ${right.getText(file)} are joined, not added: what stands before them is a text.`,
      fixes: [
        {
          title: 'Add them first, in brackets',
          edits: [
            { from, to: from, text: '(' },
            { from: to, to, text: ')' },
          ],
        },
      ],
    },
  ];
}

/** `Number(fields.text.value + 1)`: a text that is taken for a number. */
function toText(
  node: ts.BinaryExpression,
  kinds: Kinds,
  block: Block,
  { parts, file }: Subject,
): Finding[] | null {
  const sides = [node.left, node.right];
  const text = sides.find(
    (side) => kinds.sort(side) === 'text' && !ts.isStringLiteralLike(kinds.behind(side)),
  );
  const number = sides.find((side) => kinds.sort(side) === 'number');
  if (text === undefined || number === undefined || isOperation(kinds.behind(text), PLUS))
    return null;
  const { parent } = outerOf(node);
  const isForNumber =
    (ts.isCallExpression(parent) &&
      /^(?:Number|parseInt|parseFloat|round)$/.test(parent.expression.getText(file))) ||
    (ts.isPrefixUnaryExpression(parent) && parent.operator === PLUS) ||
    isOperation(
      parent,
      ts.SyntaxKind.AsteriskToken,
      ts.SyntaxKind.SlashToken,
      ts.SyntaxKind.MinusToken,
    ) ||
    actsOf(block, 'write').some((act) => {
      const field = act.value === node && act.aspect === 'value' ? parts.field(act.part) : null;
      return field !== null && isNumeric(field);
    });
  if (!isForNumber && !ts.isNumericLiteral(kinds.behind(number))) return null;
  const [from, to] = [text.getStart(file), text.getEnd()];
  return [
    {
      from: node.getStart(file),
      to: node.getEnd(),
      says: `${text.getText(file)} is a text, so ${number.getText(file)} is put behind it and not added.`,
      fixes: isForNumber
        ? [
            {
              title: 'Turn it into a number first',
              edits: [
                { from, to: from, text: 'Number(' },
                { from: to, to, text: ')' },
              ],
            },
          ]
        : [],
    },
  ];
}
