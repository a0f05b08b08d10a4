/** Finds uses of the form at the top level of a behaviour, where none is open yet (3-scripts: an error that says so). */
import ts from 'typescript-classic';
import { words } from '../wire/failures';

const PARTS = new Set(['fields', 'sections', 'pages', 'tracks', 'buttons']);
/** What of a part is the same in every session and may be read anywhere. */
const CONSTANT = new Set(['name', 'label', 'each']);

export interface Misuse {
  from: number;
  to: number;
  says: string;
}

export function topLevelMisuse(file: ts.SourceFile): Misuse[] {
  const found: Misuse[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isFunctionLike(node)) return;
    if (ts.isPropertyAccessExpression(node)) {
      const says = misuse(node);
      if (says !== null) found.push({ from: node.getStart(file), to: node.getEnd(), says });
    }
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function misuse(node: ts.PropertyAccessExpression): string | null {
  const { expression: owner } = node;
  const aspect = node.name.text;
  const written =
    ts.isBinaryExpression(node.parent) &&
    node.parent.left === node &&
    node.parent.operatorToken.kind === ts.SyntaxKind.EqualsToken;
  const what = (of: string) =>
    words.topLevel(`${of}.${aspect} ${written ? 'was written' : 'was read'}`);
  if (ts.isIdentifier(owner) && owner.text === 'form') return what('form');
  if (!ts.isPropertyAccessExpression(owner) || !ts.isIdentifier(owner.expression)) return null;
  if (!PARTS.has(owner.expression.text) || CONSTANT.has(aspect)) return null;
  return what(owner.name.text);
}
