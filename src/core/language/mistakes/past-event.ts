import ts from 'typescript-classic';
import { actsOf, type Block } from '../acts';
import type { Finding, Fix, Mistake, Subject } from './mistake';

/** A condition on something that is over, or has not begun, when it is asked. */
export const pastEvent: Mistake = {
  code: 'past-event',
  title: 'A condition on an event that is over',
  severity: 'warning',
  find(subject) {
    const found = new Map<ts.Node, Finding>();
    for (const block of subject.flow.blocks)
      for (const { node, ...finding } of inBlock(block, subject)) found.set(node, finding);
    return [...found.values()];
  },
};

type Placed = Finding & { node: ts.Node };

function inBlock(block: Block, { parts, file }: Subject): Placed[] {
  const found: Placed[] = [];
  const say = (node: ts.Node, says: string, fixes: Fix[] = []) =>
    found.push({ node, from: node.getStart(file), to: node.getEnd(), says, fixes });
  for (const act of actsOf(block, 'compare')) {
    const [left, right] = [act.left.alias, act.right.alias];
    if (left === null || right === null || left.part !== right.part || act.op === 'among') continue;
    const aspects = new Set([left.aspect, right.aspect]);
    const outcome = act.op === 'equal' ? 'never holds' : 'always holds';
    if (
      block.event === 'change' &&
      block.tied.includes(left.part) &&
      block.tied.length === 1 &&
      aspects.has('value') &&
      aspects.has('previous')
    )
      say(
        act.node,
        `This ${outcome}: change runs only when ${parts.called(left.part)} has really changed, so it always differs from before.`,
      );
    if (block.event === 'saved' && aspects.has('value') && aspects.has('initial'))
      say(
        act.node,
        `This ${outcome === 'never holds' ? 'always holds' : 'never holds'}: once saved, the initial value of ${parts.called(left.part)} is the value just saved. Ask in on.submit, before it is saved.`,
      );
  }
  for (const act of block.acts) {
    if (act.type !== 'read') continue;
    const { access } = act;
    if (
      access.part === '@form' &&
      access.aspect === 'changed' &&
      block.event === 'saved' &&
      isAsked(access.node)
    )
      say(
        access.node,
        'form.changed never holds here: everything has just been saved. Ask in on.submit, before it is saved.',
      );
    if (
      access.spelled !== 'previous' ||
      !isAsked(access.node) ||
      (block.sort === 'handler' && block.tied.includes(access.part))
    )
      continue;
    const fix: Fix[] = ts.isPropertyAccessExpression(access.node)
      ? [
          {
            title: 'Use .initial',
            edits: [
              {
                from: access.node.name.getStart(file),
                to: access.node.name.getEnd(),
                text: 'initial',
              },
            ],
          },
        ]
      : [];
    const when =
      block.sort === 'rule'
        ? 'A rule runs whenever something it reads has changed'
        : `When ${block.event} comes`;
    say(
      access.node,
      `${when}, the last change of ${parts.called(access.part)} may be long over: previous is from before that change, not from before this one. For what it was when the record was opened, use initial.`,
      fix,
    );
  }
  return found;
}

/** Whether something is asked in a condition or compared, and not only logged or shown. */
function isAsked(node: ts.Node): boolean {
  for (let at = node; at.parent !== undefined; at = at.parent) {
    const { parent } = at;
    if (
      ts.isBinaryExpression(parent) &&
      /^(?:[=!]==?|[<>]=?|&&|\|\|)$/.test(parent.operatorToken.getText())
    )
      return true;
    if ((ts.isIfStatement(parent) || ts.isWhileStatement(parent)) && parent.expression === at)
      return true;
    if (ts.isConditionalExpression(parent) && parent.condition === at) return true;
    if (ts.isStatement(parent) || ts.isFunctionLike(parent) || ts.isCallExpression(parent))
      return false;
  }
  return false;
}
