import ts from 'typescript-classic';
import type { Block } from '../acts';
import type { Fix, Mistake } from './mistake';
import { appended, enclosingStatement } from './places';

/** A handler tied inside a handler: it is refused, for it would be tied once more at each run. */
export const tiedInside: Mistake = {
  code: 'tied-inside',
  title: 'A handler tied inside a handler',
  severity: 'error',
  find: ({ flow, file }) =>
    flow.blocks.flatMap((block) => {
      // What is tied in load ends with the record.
      if (block.inside === null || block.inside.event === 'load') return [];
      const what = block.sort === 'rule' ? 'A rule' : 'A handler';
      const fix = movedOut(block, file);
      return [
        {
          from: block.call.expression.getStart(file),
          to: block.call.expression.getEnd(),
          says: `${what} is tied inside ${block.inside.sort === 'rule' ? 'a rule' : `the handler of ${block.inside.event}`}, which is an error when it runs. Tie it at the top level and let its own condition say when it does something.`,
          fixes: fix === null ? [] : [fix],
        },
      ];
    }),
};

/** Moves the tie to the end of the module, where it uses nothing of the function it stands in. */
function movedOut(block: Block, file: ts.SourceFile): Fix | null {
  const statement = enclosingStatement(block.call);
  if (
    statement === null ||
    !ts.isExpressionStatement(statement) ||
    statement.expression !== block.call
  )
    return null;
  const local = new Set<string>();
  for (let at: ts.Node = statement.parent; at.parent !== undefined; at = at.parent) {
    const names = (node: ts.Node): void => {
      if (node === statement) return;
      if (
        (ts.isVariableDeclaration(node) || ts.isParameter(node) || ts.isBindingElement(node)) &&
        ts.isIdentifier(node.name)
      )
        local.add(node.name.text);
      ts.forEachChild(node, names);
    };
    if (ts.isFunctionLike(at)) names(at);
  }
  let uses = false;
  const look = (node: ts.Node): void => {
    if (ts.isIdentifier(node) && local.has(node.text)) uses = true;
    ts.forEachChild(node, look);
  };
  look(statement);
  if (uses) return null;
  const lineStart = file.text.lastIndexOf('\n', statement.getStart(file) - 1) + 1;
  const indent = file.text.slice(lineStart, statement.getStart(file));
  const after =
    file.text[statement.getEnd()] === '\n' ? statement.getEnd() + 1 : statement.getEnd();
  const whole = /^\s*$/.test(indent);
  const text = statement
    .getText(file)
    .split('\n')
    .map((line) => (whole && line.startsWith(indent) ? line.slice(indent.length) : line))
    .join('\n');
  return {
    title: 'Move it to the top level',
    edits: [
      {
        from: whole ? lineStart : statement.getStart(file),
        to: whole ? after : statement.getEnd(),
        text: '',
      },
      appended(file, text),
    ],
  };
}
