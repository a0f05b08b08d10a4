import ts from 'typescript-classic';
import { actsOf, type ActOf, type Block } from '../acts';
import { asRule } from './as-rule';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { enclosingStatement } from './places';
import { everyBlock, follows, once, says, steering } from './steering';

/** A change handler with no counterpart at load: a record that is opened has its values without any change. */
export const missingLoad: Mistake = {
  code: 'missing-load',
  title: 'Steered on change, forgotten at load',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks
      .filter(({ event, inside }) => event === 'change' && inside === null)
      .flatMap((block) => inBlock(block, subject)),
};

function inBlock(block: Block, subject: Subject): Finding[] {
  // What a service answers is fetched once and kept, not followed.
  if (actsOf(block, 'await').some(({ marks }) => marks.has('service'))) return [];
  const { parts, file } = subject;
  const forgotten = steering(block).filter(
    (act) =>
      isFollowing(act) &&
      !everyBlock(subject).some(
        (other) =>
          other !== block && (other.event === 'load' || other.sort === 'rule') && says(other, act),
      ),
  );
  if (forgotten.length === 0) return [];
  const steered = [...new Set(forgotten.map(({ part }) => parts.called(part)))];
  return [
    {
      from: block.call.expression.getStart(file),
      to: block.call.expression.getEnd(),
      says: `${steered.join(' and ')} ${steered.length === 1 ? 'is' : 'are'} steered only when ${block.tied.map((part) => parts.called(part)).join(' or ')} changes. Opening a record changes nothing, so there the form stands as if nothing were filled in.`,
      fixes: [asRule(block, file), alsoAtLoad(block, file)].filter(
        (fix): fix is Fix => fix !== null,
      ),
    },
  ];
}

/** What is said follows from values, and not from who changed them or what a service answered. */
function isFollowing({ conditions, reads, marks }: ActOf<'write'>): boolean {
  if (once(marks) || conditions.some((condition) => once(condition.marks))) return false;
  return reads.length > 0 || marks.has('event') || conditions.some(follows);
}

/** Gives the handler a name and ties it to load as well, where it uses nothing of the event. */
function alsoAtLoad(block: Block, file: ts.SourceFile): Fix | null {
  const handler = block.call.arguments[1];
  const statement = enclosingStatement(block.call);
  if (
    handler === undefined ||
    statement === null ||
    block.body === null ||
    block.body.parameters.length > 0
  )
    return null;
  if (ts.isIdentifier(handler))
    return {
      title: 'Tie it to load as well',
      edits: [
        { from: statement.getEnd(), to: statement.getEnd(), text: `\non.load(${handler.text});` },
      ],
    };
  const name = `follow_${block.tied[0]!.replace(/\W/g, '_')}`;
  const from = statement.getStart(file);
  return {
    title: 'Tie it to load as well',
    edits: [
      { from, to: from, text: `const ${name} = ${handler.getText(file)};\n` },
      { from: handler.getStart(file), to: handler.getEnd(), text: name },
      { from: statement.getEnd(), to: statement.getEnd(), text: `\non.load(${name});` },
    ],
  };
}
