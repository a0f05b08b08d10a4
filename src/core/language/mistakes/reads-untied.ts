import { actsOf, type Block } from '../acts';
import { asRule } from './as-rule';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { everyBlock, follows, says, steering } from './steering';

/** A change handler whose condition also reads fields that it is not tied to: when those change, nothing happens. */
export const readsUntied: Mistake = {
  code: 'reads-untied',
  title: 'A condition on a field the handler is not tied to',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks
      .filter(({ event }) => event === 'change')
      .flatMap((block) => inBlock(block, subject)),
};

function inBlock(block: Block, subject: Subject): Finding[] {
  const { parts, file } = subject;
  const written = new Set(
    actsOf(block, 'write').flatMap(({ part, aspect }) => (aspect === 'value' ? [part] : [])),
  );
  const untied = new Set<string>();
  for (const act of steering(block)) {
    for (const condition of act.conditions) {
      if (!follows(condition)) continue;
      for (const { part, aspect } of condition.reads) {
        if (
          aspect !== 'value' ||
          parts.field(part) === null ||
          block.tied.includes(part) ||
          written.has(part) ||
          ofSameRows(part, block) ||
          comesWith(part, block, subject)
        )
          continue;
        if (
          !everyBlock(subject).some(
            (other) =>
              other !== block &&
              (other.sort === 'rule' || other.tied.includes(part)) &&
              says(other, act),
          )
        )
          untied.add(part);
      }
    }
  }
  if (untied.size === 0) return [];
  const named = [...untied];
  const tie = block.call.arguments[0]!;
  const fixes = [
    tiedToAll(block, named, file.text.slice(tie.getStart(file), tie.getEnd()), tie.getStart(file)),
    asRule(block, file),
  ].filter((fix): fix is Fix => fix !== null);
  return [
    {
      from: tie.getStart(file),
      to: tie.getEnd(),
      says: `This runs when ${block.tied.map((part) => parts.called(part)).join(' or ')} changes, but its condition also reads ${named.map((part) => parts.called(part)).join(' and ')}: a change there goes unheard.`,
      fixes,
    },
  ];
}

/** Cells of the row an event is about are at hand, and their own columns are tied one by one. */
function ofSameRows(part: string, block: Block): boolean {
  return block.tied.some((tied) => tied === part.split('.')[0]);
}

/** A field that no person writes, and that only changes when one of those does that the block is tied to. */
function comesWith(part: string, block: Block, subject: Subject): boolean {
  const field = subject.parts.field(part);
  if (field?.locked !== true && field?.scriptOnly !== true) return false;
  const writers = everyBlock(subject).filter((other) =>
    actsOf(other, 'write').some((act) => act.part === part && act.aspect === 'value'),
  );
  const isTied = (name: string) => block.tied.includes(name);
  return (
    writers.length > 0 &&
    writers.every((writer) =>
      writer.sort === 'rule'
        ? actsOf(writer, 'read').every(
            ({ access }) =>
              access.aspect !== 'value' || access.part === part || isTied(access.part),
          )
        : writer.event === 'load' || (writer.tied.length > 0 && writer.tied.every(isTied)),
    )
  );
}

/** Only where the handler uses nothing of the event, which would no longer be about one field. */
function tiedToAll(block: Block, untied: readonly string[], tie: string, from: number): Fix | null {
  if ((block.body?.parameters.length ?? 1) > 0 || untied.some((part) => part.includes('.')))
    return null;
  const list = tie.startsWith('[') ? tie.slice(1, -1) : tie;
  return {
    title: `Tie it to ${untied.join(' and ')} too`,
    edits: [
      {
        from,
        to: from + tie.length,
        text: `[${list}, ${untied.map((part) => `fields.${part}`).join(', ')}]`,
      },
    ],
  };
}
