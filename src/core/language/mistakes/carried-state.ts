import ts from 'typescript-classic';
import { actsOf, type ActOf } from '../acts';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { appended } from './places';

/** Variables of the module that handlers change: the next record opens with what the last one left in them. */
export const carriedState: Mistake = {
  code: 'carried-state',
  title: 'A variable that carries state between records',
  severity: 'warning',
  find(subject) {
    const { flow, file } = subject;
    const touched = new Map<ts.VariableDeclaration, ActOf<'state'>>();
    const reset = new Set<ts.VariableDeclaration>();
    for (const block of flow.blocks) {
      for (const act of actsOf(block, 'state')) {
        if (block.event === 'load') reset.add(act.declaration);
        else if (!touched.has(act.declaration)) touched.set(act.declaration, act);
      }
    }
    return [...touched].flatMap(([declaration, act]): Finding[] => {
      if (reset.has(declaration) || isCache(declaration, subject)) return [];
      const line = file.getLineAndCharacterOfPosition(act.node.getStart(file)).line + 1;
      return [
        {
          from: declaration.name.getStart(file),
          to: declaration.name.getEnd(),
          says: `${act.name} is changed in line ${line} and outlives the record: the next one opened in the same form starts with what this one left. Keep it in a field, or set it again at load.`,
          fixes: resetAtLoad(declaration, act.name, subject),
        },
      ];
    });
  },
};

/**
 * What is kept under a key and depends on nothing but that key may outlive the record: it is the same for every one. So
 * it is only when nothing else is done with the variable than looking up and putting in by key.
 */
function isCache(declaration: ts.VariableDeclaration, { flow, file }: Subject): boolean {
  const puts = flow.blocks.flatMap((block) =>
    actsOf(block, 'state').filter((act) => act.declaration === declaration),
  );
  const dependsOnKey = ({ put }: ActOf<'state'>) =>
    put !== null &&
    put.key.length > 0 &&
    [...put.value.marks].every((mark) => mark === 'service' || mark === 'event') &&
    put.value.reads.every((read) =>
      put.key.some((key) => key.part === read.part && key.aspect === read.aspect),
    );
  return puts.every(dependsOnKey) && usesOf(declaration, file).every(isByKey);
}

function usesOf(declaration: ts.VariableDeclaration, file: ts.SourceFile): ts.Identifier[] {
  const { name } = declaration;
  const found: ts.Identifier[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isIdentifier(node) && node !== name && node.text === name.getText(file))
      found.push(node);
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function isByKey({ parent }: ts.Identifier): boolean {
  if (ts.isElementAccessExpression(parent)) return true;
  return (
    ts.isPropertyAccessExpression(parent) &&
    /^(?:get|has|set)$/.test(parent.name.text) &&
    ts.isCallExpression(parent.parent)
  );
}

function resetAtLoad(declaration: ts.VariableDeclaration, name: string, { file }: Subject): Fix[] {
  const { initializer, parent } = declaration;
  const isLet = ts.isVariableDeclarationList(parent) && (parent.flags & ts.NodeFlags.Let) !== 0;
  const text = initializer?.getText(file) ?? 'undefined';
  const statement = isLet
    ? `${name} = ${text};`
    : /^new (?:Map|Set)\b/.test(text)
      ? `${name}.clear();`
      : text.startsWith('[')
        ? `${name}.length = 0;`
        : null;
  return statement === null
    ? []
    : [
        {
          title: 'Set it again at load',
          edits: [appended(file, `on.load(() => {\n  ${statement}\n});`)],
        },
      ];
}
