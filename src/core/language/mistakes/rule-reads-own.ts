import type ts from 'typescript-classic';
import { actsOf, type ActOf, type Block } from '../acts';
import { comesToRest } from './at-rest';
import type { Finding, Mistake, Subject } from './mistake';

/** A rule that writes what it reads: it sees its own last word as if somebody had entered it. */
export const ruleReadsOwn: Mistake = {
  code: 'rule-reads-own',
  title: 'A rule that writes what it reads',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks
      .filter(({ sort }) => sort === 'rule')
      .flatMap((block) => inBlock(block, subject)),
};

function inBlock(block: Block, { parts, file }: Subject): Finding[] {
  const found = new Map<ts.Node, Finding>();
  for (const act of actsOf(block, 'write')) {
    const own =
      act.aspect === 'value'
        ? readsValue(block, act, file)
        : act.reads.some(
            (read) =>
              read.part === act.part && read.aspect === act.aspect && !saidBefore(block, act),
          );
    if (!own) continue;
    found.set(act.node, {
      from: act.target.getStart(file),
      to: act.target.getEnd(),
      says:
        act.aspect === 'value'
          ? `This rule reads the value of ${parts.called(act.part)} and writes it. What it wrote last time is what it starts from next time, and what a person enters or empties is overwritten. Compute it from other fields, or do it in a handler.`
          : `This rule makes ${act.aspect} of ${parts.called(act.part)} from itself. A rule sees what stands below it, never its own last word, so this always comes out the same.`,
      fixes: [],
    });
  }
  return [...found.values()];
}

function readsValue(block: Block, act: ActOf<'write'>, file: ts.SourceFile): boolean {
  if (act.op === 'add') return false;
  // What the rule has written on every way before is its own of this run, which it may well read.
  const written = block.acts.findIndex(
    (other) =>
      other.type === 'write' &&
      other.part === act.part &&
      other.aspect === 'value' &&
      other.conditions.length === 0,
  );
  const reads = block.acts.some(
    (other, i) =>
      other.type === 'read' &&
      other.access.part === act.part &&
      other.access.aspect === 'value' &&
      (written < 0 || i < written),
  );
  return reads && !comesToRest(block, act, file);
}

/** The rule itself has said it earlier in this run, which it may well read. */
function saidBefore(block: Block, act: ActOf<'write'>): boolean {
  return actsOf(block, 'write').some(
    (other) =>
      other.node.pos < act.node.pos && other.part === act.part && other.aspect === act.aspect,
  );
}
