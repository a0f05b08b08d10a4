import { actsOf, type ActOf, type Block } from '../acts';
import type { Finding, Mistake, Subject } from './mistake';
import { STEERED } from './steering';

/** Two behaviours that steer the same aspect of a part: which one wins is a matter of order and of what happened last. */
export const twoSteer: Mistake = {
  code: 'two-steer',
  title: 'Two behaviours steer the same aspect',
  severity: 'warning',
  find({ flow, others, parts, file }: Subject) {
    const found = new Map<string, Finding>();
    for (const { block, act } of writesOf(flow.blocks)) {
      const key = `${act.part} ${act.aspect}`;
      if (found.has(key)) continue;
      const also = others.filter((other) =>
        writesOf(other.flow.blocks).some(
          (theirs) =>
            theirs.act.part === act.part &&
            theirs.act.aspect === act.aspect &&
            isRivalry(act, block, theirs.block),
        ),
      );
      if (also.length === 0) continue;
      found.set(key, {
        from: act.target.getStart(file),
        to: act.target.getEnd(),
        says: `${parts.called(act.part)}: ${act.aspect} is also steered by ${also.map(({ title }) => `“${title}”`).join(' and ')}. Of two rules the later one wins, of two handlers the one that ran last. Let one behaviour say it.`,
        fixes: [],
      });
    }
    return [...found.values()];
  },
};

function writesOf(blocks: readonly Block[]): { block: Block; act: ActOf<'write'> }[] {
  return blocks.flatMap((block) => actsOf(block, 'write').map((act) => ({ block, act })));
}

/** Values are facts that several handlers may well enter; two rules that both hold one are rivals. */
function isRivalry(act: ActOf<'write'>, mine: Block, theirs: Block): boolean {
  if (isDefault(mine, theirs) || isDefault(theirs, mine)) return false;
  return (
    STEERED.has(act.aspect) ||
    (act.aspect === 'value' && mine.sort === 'rule' && theirs.sort === 'rule')
  );
}

/** What a handler says at load stands until a rule takes over: a default, and no rival. */
function isDefault(block: Block, other: Block): boolean {
  return block.sort === 'handler' && block.event === 'load' && other.sort === 'rule';
}
