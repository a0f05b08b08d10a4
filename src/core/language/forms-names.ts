/** Finds names in a shared module that only the scripts of a form have: a module has no form of its own. */
import ts from 'typescript-classic';

const OF_A_FORM: ReadonlySet<string> = new Set([
  'fields',
  'sections',
  'pages',
  'tracks',
  'buttons',
  'on',
  'keep',
  'always',
  'form',
  'parent',
]);

export interface Found {
  from: number;
  to: number;
  says: string;
}

/** Uses of what `typings`, the file with a form's declarations, declares under those names; a module's own are its own affair. */
export function formsNamesIn(file: ts.SourceFile, program: ts.Program, typings: string): Found[] {
  const checker = program.getTypeChecker();
  const found: Found[] = [];
  const isOfForm = (node: ts.Identifier) =>
    checker
      .getSymbolAtLocation(node)
      ?.declarations?.some((one) => one.getSourceFile().fileName.replace(/^\//, '') === typings) ===
    true;
  const look = (node: ts.Node): void => {
    if (
      ts.isIdentifier(node) &&
      OF_A_FORM.has(node.text) &&
      !(ts.isPropertyAccessExpression(node.parent) && node.parent.name === node) &&
      isOfForm(node)
    )
      found.push({ from: node.getStart(file), to: node.getEnd(), says: saidOf(node.text) });
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function saidOf(name: string): string {
  if (name === 'on' || name === 'keep' || name === 'always')
    return `A shared module has no form of its own, so it has no ${name}. Export a function, and call it from a behaviour's ${name}.`;
  return `A shared module has no form of its own, so it has no ${name}. Let a function take what it needs as a parameter, such as (field: Field<number>).`;
}
