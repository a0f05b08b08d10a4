import ts from 'typescript-classic';
import type { Block } from '../acts';
import { callsOf } from './dates';
import { expressionsIn, isOperation, Kinds, operates, outerOf } from './kinds-of';
import type { Finding, Mistake, Subject } from './mistake';

const MONTHS = 12;

/** Months of `Date` are counted from 0 and those of Temporal from 1; December taken for 12 of the one, or names for the other. */
export const monthsFromZero: Mistake = {
  code: 'months-from-zero',
  title: 'A month counted from the wrong number',
  severity: 'error',
  find: (subject) =>
    subject.flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, subject.parts);
      return [
        ...callsOf(block, /^get(?:UTC)?Month$/).flatMap(({ call }) =>
          ofDate(call, block, kinds, subject),
        ),
        ...expressionsIn(block, ts.isElementAccessExpression).flatMap((node) =>
          ofNames(node, kinds, subject),
        ),
      ];
    }),
};

/** Where a month is used: `getMonth()` itself, and constants that hold it. */
function usesOf(call: ts.CallExpression, block: Block, kinds: Kinds): ts.Expression[] {
  const named = expressionsIn(block, ts.isIdentifier).filter((node) => kinds.behind(node) === call);
  return [call, ...named];
}

function ofDate(call: ts.CallExpression, block: Block, kinds: Kinds, { file }: Subject): Finding[] {
  for (const use of usesOf(call, block, kinds)) {
    const { at, parent } = outerOf(use);
    const say = (says: string): Finding[] => [
      {
        from: use.getStart(file),
        to: use.getEnd(),
        says: `Months are counted from 0 here: ${says}`,
        fixes: [],
      },
    ];
    if (ts.isTemplateSpan(parent)) return say('January is 0 in this text. Add 1.');
    if (!ts.isBinaryExpression(parent)) continue;
    const other = parent.left === at ? parent.right : parent.left;
    const value = kinds.behind(other);
    if (operates(parent, ts.SyntaxKind.PlusToken) && kinds.sort(other) === 'text')
      return say('January is 0 in this text. Add 1, in brackets.');
    const isCompared = kinds.sort(parent) === null;
    if (isCompared && ts.isNumericLiteral(value) && Number(value.text) === MONTHS)
      return say('December is 11, and 12 is no month.');
  }
  return [];
}

/** `NAMES[date.month]`: twelve names, and a month from 1. */
function ofNames(node: ts.ElementAccessExpression, kinds: Kinds, { file }: Subject): Finding[] {
  const names = kinds.behind(node.expression);
  if (!ts.isArrayLiteralExpression(names) || names.elements.length !== MONTHS) return [];
  const index = kinds.behind(node.argumentExpression);
  const isFromOne = ts.isPropertyAccessExpression(index) && index.name.text === 'month';
  const isLess =
    isOperation(index, ts.SyntaxKind.MinusToken) &&
    ts.isCallExpression(kinds.behind(index.left)) &&
    /\.get(?:UTC)?Month\(\)$/.test(kinds.behind(index.left).getText(file));
  if (!isFromOne && !isLess) return [];
  const [from, to] = [node.argumentExpression.getStart(file), node.argumentExpression.getEnd()];
  return [
    {
      from,
      to,
      says: isFromOne
        ? 'A month of Temporal is counted from 1 and a list from 0: May gets the name of June, and December none.'
        : 'Months are counted from 0 here, as the list is: May gets the name of April, and January none.',
      fixes: isFromOne ? [{ title: 'Subtract 1', edits: [{ from: to, to, text: ' - 1' }] }] : [],
    },
  ];
}
