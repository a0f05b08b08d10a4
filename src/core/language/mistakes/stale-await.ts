import ts from 'typescript-classic';
import { actsOf, type ActOf, type Block } from '../acts';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { enclosingStatement, indentAt } from './places';

/** Events between whose beginning and end people go on filling in. */
const EVENTS = new Set(['change', 'input', 'click', 'focus', 'blur']);

/** What was waited for is used although what it was asked about may have changed meanwhile. */
export const staleAwait: Mistake = {
  code: 'stale-await',
  title: 'An answer that may be about an old value',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks
      .filter(({ event }) => EVENTS.has(event))
      .flatMap((block) => inBlock(block, subject)),
};

function inBlock(block: Block, subject: Subject): Finding[] {
  const { parts, file } = subject;
  const found = new Map<ts.Node, Finding>();
  for (const wait of actsOf(block, 'await')) {
    if (!wait.marks.has('service')) continue;
    const asked = new Set(
      wait.reads
        .filter(
          ({ part, aspect }) =>
            aspect === 'value' && parts.field(part) !== null && !isSuperseded(part, block),
        )
        .map(({ part }) => part),
    );
    for (const part of asked) {
      const used = actsOf(block, 'write').find(
        (act) =>
          act.waits > wait.waits &&
          act.part !== part &&
          act.marks.has('service') &&
          !isAskedAgain(act, part, wait.waits),
      );
      if (used === undefined || isLocked(block, [part, ...parts.around(part)])) continue;
      found.set(wait.node, {
        from: wait.node.getStart(file),
        to: wait.node.getEnd(),
        says: `${parts.called(part)} can change while this waits, and ${parts.called(used.part)} is then filled with an answer about the old value. Ask after the await whether it is still the same.`,
        fixes: fixesFor(wait, part, subject),
      });
    }
  }
  return [...found.values()];
}

/** A run that starts again when the field changes is never resumed with the old answer. */
function isSuperseded(part: string, block: Block): boolean {
  return !block.overlaps && block.event === 'change' && block.tied.includes(part);
}

/** A condition that read the field again after the wait. */
function isAskedAgain(act: ActOf<'write'>, part: string, waits: number): boolean {
  return act.conditions.some(({ reads }) =>
    reads.some((read) => read.part === part && read.aspect === 'value' && read.waits > waits),
  );
}

/** While it waits, nobody can change a field that is locked, or what it stands in. */
function isLocked(block: Block, parts: readonly string[]): boolean {
  return actsOf(block, 'write').some(
    ({ part, aspect }) => aspect === 'locked' && parts.includes(part),
  );
}

/** A check right after the await, where what was asked has a name of its own. */
function fixesFor(wait: ActOf<'await'>, part: string, { file }: Subject): Fix[] {
  const statement = enclosingStatement(wait.node);
  const names: string[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isShorthandPropertyAssignment(node)) names.push(node.name.text);
    else if (ts.isPropertyAssignment(node) && ts.isIdentifier(node.initializer))
      names.push(node.initializer.text);
    else ts.forEachChild(node, look);
  };
  look(wait.node);
  if (statement === null || names.length !== 1 || part.includes('.')) return [];
  const at = statement.getEnd();
  return [
    {
      title: 'Ask whether it is still the same',
      edits: [
        {
          from: at,
          to: at,
          text: `\n${indentAt(file, statement.getStart(file))}if (fields.${part}.value !== ${names[0]!}) return;`,
        },
      ],
    },
  ];
}
