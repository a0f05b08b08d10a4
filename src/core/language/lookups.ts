/** Keys of a list, a set, a map or an object that stands in the source, where something is looked up by them. */
import ts from 'typescript-classic';
import { bare } from './acts';

/** The keys of `source` that `use` looks among: `list.includes(x)`, `set.has(x)`, `map.get(x)`, `object[x]`; null for anything else. */
export function keysOf(
  source: ts.Expression,
  use: ts.CallExpression | ts.ElementAccessExpression,
): ts.Expression[] | null {
  if (ts.isElementAccessExpression(use))
    return ts.isObjectLiteralExpression(source) ? namesOf(source) : null;
  const called = bare(use.expression);
  const method = ts.isPropertyAccessExpression(called) ? called.name.text : '';
  if (method === 'includes' || method === 'indexOf')
    return ts.isArrayLiteralExpression(source) ? [...source.elements] : null;
  if (method !== 'has' && method !== 'get') return null;
  if (!ts.isNewExpression(source) || !ts.isIdentifier(source.expression)) return null;
  const [list] = source.arguments ?? [];
  if (list === undefined || !ts.isArrayLiteralExpression(bare(list))) return null;
  const { elements } = bare(list) as ts.ArrayLiteralExpression;
  if (source.expression.text === 'Set') return [...elements];
  if (source.expression.text !== 'Map') return null;
  return elements.flatMap((element) => {
    const pair = bare(element);
    return ts.isArrayLiteralExpression(pair) ? pair.elements.slice(0, 1) : [];
  });
}

function namesOf(object: ts.ObjectLiteralExpression): ts.Expression[] {
  return object.properties.flatMap((property) => {
    const { name } = property;
    return name !== undefined && (ts.isIdentifier(name) || ts.isStringLiteralLike(name))
      ? [name]
      : [];
  });
}

/** The text or number that an object in the source has under a name; null where it has none, or something else. */
export function constantOf(source: ts.Expression, name: string): ts.Expression | null {
  if (!ts.isObjectLiteralExpression(source)) return null;
  for (const property of source.properties) {
    if (!ts.isPropertyAssignment(property) || property.name.getText() !== name) continue;
    const value = bare(property.initializer);
    return ts.isStringLiteralLike(value) || ts.isNumericLiteral(value) ? value : null;
  }
  return null;
}
