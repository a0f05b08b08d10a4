import ts from 'typescript-classic';
import type { ActOf, Block } from '../acts';
import { asRule } from './as-rule';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { indentAt } from './places';
import { everyBlock, follows, says, steering, TEXTS } from './steering';

const EVENTS = new Set(['change', 'input', 'focus', 'blur']);

/** A handler that sets a part under one condition and never sets it back. */
export const noWayBack: Mistake = {
  code: 'no-way-back',
  title: 'Set under one condition, never set back',
  severity: 'warning',
  find(subject) {
    return subject.flow.blocks
      .filter((block) => block.sort === 'handler' && EVENTS.has(block.event))
      .flatMap((block) => inBlock(block, subject));
  },
};

function inBlock(block: Block, subject: Subject): Finding[] {
  const { file, parts } = subject;
  const groups = new Map<string, ActOf<'write'>[]>();
  for (const act of steering(block))
    groups.set(`${act.part} ${act.aspect}`, [
      ...(groups.get(`${act.part} ${act.aspect}`) ?? []),
      act,
    ]);
  return [...groups.values()].flatMap((acts) => {
    const [first] = acts as [ActOf<'write'>];
    if (
      acts.some((act) => act.conditions.length === 0) ||
      !acts.some((act) => act.conditions.some(follows))
    )
      return [];
    const said = new Set(acts.map(({ value }) => value?.getText(file) ?? ''));
    if (said.size > 1 || isTakingBack(first, file)) return [];
    // Somebody else who says it may well be the one who takes it back.
    if (
      everyBlock(subject).some(
        (other) => other !== block && other.event !== 'load' && says(other, first),
      )
    )
      return [];
    const fixes = [withElse(first, file), asRule(block, file)].filter(
      (fix): fix is Fix => fix !== null,
    );
    return [
      {
        from: first.target.getStart(file),
        to: first.target.getEnd(),
        says: `${parts.called(first.part)}: ${first.aspect} is set here under a condition and never set back. Whoever changes their mind is left with it.`,
        fixes,
      },
    ];
  });
}

function isTakingBack({ aspect, value }: ActOf<'write'>, file: ts.SourceFile): boolean {
  const text = value?.getText(file);
  return text === 'undefined' || (TEXTS.has(aspect) && text === 'null');
}

/** An else branch that says the opposite, where the if has none. */
function withElse(act: ActOf<'write'>, file: ts.SourceFile): Fix | null {
  const condition = act.conditions.at(-1)!;
  const branch = condition.node.parent;
  if (
    !condition.holds ||
    !ts.isIfStatement(branch) ||
    branch.elseStatement !== undefined ||
    branch.expression !== condition.node
  )
    return null;
  const end = branch.thenStatement.getEnd();
  const indent = indentAt(file, branch.getStart(file));
  return {
    title: 'Add the else',
    edits: [
      {
        from: end,
        to: end,
        text: ` else {\n${indent}  ${act.target.getText(file)} = ${opposite(act, file)};\n${indent}}`,
      },
    ],
  };
}

function opposite({ aspect, value }: ActOf<'write'>, file: ts.SourceFile): string {
  const text = value?.getText(file);
  if (text === 'true') return 'false';
  if (text === 'false') return 'true';
  return TEXTS.has(aspect) ? 'null' : 'undefined';
}
