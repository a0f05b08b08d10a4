import ts from 'typescript-classic';
import { actsOf, bare, type ActOf } from '../acts';
import { enclosingStatement } from './places';
import type { Finding, Fix, Mistake } from './mistake';

const ASKS = /\.(?:includes|startsWith|endsWith|indexOf|search|match)\(/;

/** Text added to itself at each run: the second run adds it a second time. */
export const pilesUp: Mistake = {
  code: 'piles-up',
  title: 'Text that piles up',
  severity: 'warning',
  find({ flow, parts, file }) {
    const found = new Map<ts.Node, Finding>();
    for (const block of flow.blocks) {
      // A button is pressed on purpose, once for each time.
      if (block.event === 'click') continue;
      for (const act of actsOf(block, 'write')) {
        if (act.aspect !== 'value' || act.value === null || parts.field(act.part)?.kind !== 'text')
          continue;
        const added = addedTo(act, file);
        const asked = act.conditions.some(
          ({ node, reads }) =>
            reads.some(({ part }) => part === act.part) &&
            (ASKS.test(node.getText(file)) || /\.empty\b|\bnull\b/.test(node.getText(file))),
        );
        if (added === null || asked) continue;
        const fix = guarded(act, added, file);
        found.set(act.node, {
          from: act.target.getStart(file),
          to: act.value.getEnd(),
          says: `${parts.called(act.part)} grows at each run: what was added last time is part of what it is added to. Make the whole text from its sources, or add only what is not there yet.`,
          fixes: fix === null ? [] : [fix],
        });
      }
    }
    return [...found.values()];
  },
};

/** What is added to the field's own text; null when it is not added to itself. */
function addedTo(act: ActOf<'write'>, file: ts.SourceFile): ts.Expression | null {
  if (act.op === '+=') return act.value;
  if (
    act.op !== '=' ||
    !act.reads.some(({ part, aspect }) => part === act.part && aspect === 'value')
  )
    return null;
  const value = bare(act.value!);
  if (ts.isTemplateExpression(value)) return value;
  if (ts.isBinaryExpression(value) && value.operatorToken.kind === ts.SyntaxKind.PlusToken)
    return value.right;
  return /\.concat\(/.test(value.getText(file)) ? value : null;
}

function guarded(act: ActOf<'write'>, added: ts.Expression, file: ts.SourceFile): Fix | null {
  const statement = enclosingStatement(act.node);
  if (
    statement === null ||
    !ts.isExpressionStatement(statement) ||
    !(ts.isStringLiteralLike(bare(added)) || ts.isIdentifier(bare(added)))
  )
    return null;
  const from = statement.getStart(file);
  const text = `if (!(${act.target.getText(file)} ?? "").includes(${bare(added).getText(file)})) `;
  return { title: 'Add it only once', edits: [{ from, to: from, text }] };
}
