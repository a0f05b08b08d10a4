/**
 * Turning a change handler into a rule. A rule takes back what it no longer says and holds from load on, so the body can
 * stay as it is: its conditions need no else.
 */
import ts from 'typescript-classic';
import { actsOf, type Block } from '../acts';
import type { Edit, Fix } from './mistake';

/** Null where the handler does what a rule cannot: wait, write values, act on the form, or ask who did it. */
export function asRule(block: Block, file: ts.SourceFile): Fix | null {
  const { body, call, tied } = block;
  const handler = call.arguments[1];
  if (
    block.event !== 'change' ||
    body === null ||
    handler !== body ||
    call.arguments.length > 2 ||
    tied.length === 0
  )
    return null;
  if (block.acts.some(({ type }) => type === 'await' || type === 'do' || type === 'state'))
    return null;
  if (
    actsOf(block, 'write').length === 0 ||
    actsOf(block, 'write').some(({ aspect }) => aspect === 'value')
  )
    return null;
  if (
    ts.canHaveModifiers(body) &&
    ts.getModifiers(body)?.some(({ kind }) => kind === ts.SyntaxKind.AsyncKeyword)
  )
    return null;
  const value = valueNames(body, tied.length === 1);
  if (value === null || body.body === undefined) return null;
  const spelled = tied.length === 1 ? call.arguments[0]!.getText(file) : '';
  if (value.length > 0 && !/^fields\.\w+$/.test(spelled)) return null;
  const edits: Edit[] = [
    {
      from: call.expression.getStart(file),
      to: body.body.getStart(file),
      text: `keep(${JSON.stringify(titleOf(block))}, () => `,
    },
  ];
  for (const node of value) edits.push(...replaced(body.body, node, `${spelled}.value`, file));
  return { title: 'Turn it into a rule', edits };
}

/** The names by which the handler calls the event's value; null when it uses more of the event than that. */
function valueNames(body: ts.FunctionLikeDeclaration, one: boolean): string[] | null {
  const [parameter] = body.parameters;
  if (parameter === undefined) return [];
  if (!ts.isObjectBindingPattern(parameter.name)) {
    const name = (parameter.name as ts.Identifier).text;
    return one ? [`${name}.value`] : null;
  }
  const names: string[] = [];
  for (const element of parameter.name.elements) {
    const property = element.propertyName ?? element.name;
    if (
      !ts.isIdentifier(property) ||
      property.text !== 'value' ||
      !ts.isIdentifier(element.name) ||
      !one
    )
      return null;
    names.push(element.name.text);
  }
  return names;
}

function replaced(body: ts.Node, name: string, by: string, file: ts.SourceFile): Edit[] {
  const edits: Edit[] = [];
  const look = (node: ts.Node): void => {
    if (
      name.includes('.')
        ? ts.isPropertyAccessExpression(node) && node.getText(file) === name
        : ts.isIdentifier(node) && node.text === name && !isMemberName(node)
    ) {
      const shorthand = ts.isShorthandPropertyAssignment(node.parent);
      edits.push({
        from: node.getStart(file),
        to: node.getEnd(),
        text: shorthand ? `${name}: ${by}` : by,
      });
    } else ts.forEachChild(node, look);
  };
  look(body);
  return edits;
}

function isMemberName(node: ts.Identifier): boolean {
  return (
    (ts.isPropertyAccessExpression(node.parent) && node.parent.name === node) ||
    (ts.isPropertyAssignment(node.parent) && node.parent.name === node)
  );
}

function titleOf(block: Block): string {
  const steered = [
    ...new Set(actsOf(block, 'write').map(({ part }) => part.replace(/#$/, '').replace(/_/g, ' '))),
  ];
  return `${steered.slice(0, 2).join(' and ')} by ${block.tied.join(' and ').replace(/_/g, ' ')}`;
}
