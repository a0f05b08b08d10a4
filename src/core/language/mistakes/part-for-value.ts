import type ts from 'typescript-classic';
import { actsOf, type ActOf } from '../acts';
import type { Finding, Mistake, Subject } from './mistake';

/** The part itself where one of its aspects belongs: `fields.draught = 3`, `if (fields.draught)`. */
export const partForValue: Mistake = {
  code: 'part-for-value',
  title: 'The field instead of its value',
  severity: 'error',
  find(subject) {
    const found = new Map<ts.Node, Finding>();
    for (const block of subject.flow.blocks)
      for (const act of actsOf(block, 'part')) found.set(act.node, say(act, subject));
    return [...found.values()];
  },
};

function say({ node, part, sort, how }: ActOf<'part'>, { parts, file }: Subject): Finding {
  const aspect =
    sort === 'fields' ? 'value' : sort === 'tracks' && how !== 'condition' ? 'stage' : 'shown';
  const says = {
    assigned: `${parts.called(part)} is the ${sort.slice(0, -1)} itself and cannot be assigned. Write to its ${aspect}.`,
    compared: `This compares the ${sort.slice(0, -1)} ${parts.called(part)} itself, not its ${aspect}, and never holds.`,
    condition: `${parts.called(part)} is the ${sort.slice(0, -1)} itself, so this condition always holds. Ask for its ${aspect}.`,
  }[how];
  const end = node.getEnd();
  return {
    from: node.getStart(file),
    to: end,
    says,
    fixes: [{ title: `Use .${aspect}`, edits: [{ from: end, to: end, text: `.${aspect}` }] }],
  };
}
