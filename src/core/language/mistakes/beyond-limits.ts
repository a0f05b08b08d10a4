import type ts from 'typescript-classic';
import type { Act, Block } from '../acts';
import type { Mistake } from './mistake';
import { isWithin, oneWay } from './one-way';

/** A comparison that no number within the definition's limits changes. */
export const beyondLimits: Mistake = {
  code: 'beyond-limits',
  title: 'A condition that no allowed number meets',
  severity: 'warning',
  find: (subject) =>
    oneWay(subject, 'limits', ({ node, access, holds }) => {
      const field = subject.parts.field(access.part) as { min?: number; max?: number } | null;
      const limits = [
        ...(field?.min === undefined ? [] : [`at least ${field.min}`]),
        ...(field?.max === undefined ? [] : [`at most ${field.max}`]),
      ].join(' and ');
      const block = subject.flow.blocks.find(({ seen }) => seen.has(node))!;
      if (isOwnWord(node, access.part, block)) return null;
      const called = subject.parts.called(access.part);
      return holds
        ? `This holds for every number that ${called} takes (${limits}).`
        : `No number that ${called} takes (${limits}) meets this.`;
    }),
};

const WORDS = new Set(['problem', 'warning', 'hint']);

/** The definition's own limit, told in words of one's own: all that hangs on it are texts at the part, or a stop. */
function isOwnWord(node: ts.Expression, part: string, { acts }: Block): boolean {
  const hanging = acts.filter(
    (act) =>
      act.conditions.some((one) => isWithin(node, one.node)) ||
      (act.type === 'write' && act.value !== null && isWithin(node, act.value)),
  );
  const isWord = (act: Act) => act.type === 'write' && act.part === part && WORDS.has(act.aspect);
  const does = hanging.filter((act) => act.type === 'write' || act.type === 'do');
  return does.every((act) => isWord(act) || act.type === 'do');
}
