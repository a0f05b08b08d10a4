/**
 * Imports and exports of scripts: behaviours and shared modules import functions, constants and types by name from
 * shared modules, and only those export. What is compiled is no module but a function body (`guest/loading.ts`): it asks
 * for what it imports, and what it exports is what it returns.
 */
import ts from 'typescript-classic';
import { MODULES } from '../script/script-name';

const EXAMPLE = 'import { daysBetween } from "shared/dates"';

/** What is wrong with a node as an import or export; null where it is none, or as it should be. */
export function moduleFault(node: ts.Node, inModule: boolean): string | null {
  if (ts.isImportDeclaration(node)) return importFault(node);
  if (ts.isImportEqualsDeclaration(node))
    return `imports by require, which scripts cannot. Import by name, such as ${EXAMPLE}.`;
  if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword)
    return `imports while it runs, which scripts cannot. Import by name at the top, such as ${EXAMPLE}.`;
  if (ts.isExportDeclaration(node) || ts.isExportAssignment(node))
    return inModule
      ? 'exports a list or a default. Write export before each function or constant instead.'
      : NOT_EXPORTED;
  if (!isExported(node)) return null;
  if (!inModule) return NOT_EXPORTED;
  if (hasModifier(node, ts.SyntaxKind.DefaultKeyword))
    return 'exports a default. Behaviours import by name: leave default out.';
  if (ts.isVariableStatement(node) && (node.declarationList.flags & ts.NodeFlags.Const) === 0)
    return 'exports a variable that can change. Export a constant or a function: what scripts share must not depend on which of them ran last.';
  return null;
}

const NOT_EXPORTED = 'has an export, which only shared modules have (shared/NAME.ts).';

function importFault({ importClause, moduleSpecifier }: ts.ImportDeclaration): string | null {
  const from = ts.isStringLiteral(moduleSpecifier) ? moduleSpecifier.text : '';
  if (!from.startsWith(MODULES))
    return `imports from "${from}". Scripts import from shared modules alone, such as ${EXAMPLE}.`;
  const bindings = importClause?.namedBindings;
  return importClause === undefined ||
    importClause.name !== undefined ||
    bindings === undefined ||
    !ts.isNamedImports(bindings)
    ? `imports a module as a whole. Import by name, such as ${EXAMPLE}.`
    : null;
}

function hasModifier(node: ts.Node, kind: ts.SyntaxKind): boolean {
  return ts.canHaveModifiers(node) && ts.getModifiers(node)?.some((m) => m.kind === kind) === true;
}

function isExported(node: ts.Node): boolean {
  return hasModifier(node, ts.SyntaxKind.ExportKeyword);
}

/** Imports become questions, which come first, as imports do; what is exported is returned. To be run after the probes are in. */
export const asFunctionBody: ts.TransformerFactory<ts.SourceFile> = (context) => (file) => {
  const { factory: f } = context;
  const exported: string[] = [];
  const imports = file.statements.filter(ts.isImportDeclaration).flatMap((node) => asked(f, node));
  const rest = file.statements.flatMap((node) => {
    if (ts.isImportDeclaration(node)) return [];
    if (!isExported(node)) return [node];
    exported.push(...namesOf(node));
    return [withoutExport(f, node)];
  });
  const returned = f.createReturnStatement(
    f.createObjectLiteralExpression(
      exported.map((name) => f.createShorthandPropertyAssignment(name)),
    ),
  );
  return f.updateSourceFile(file, [
    ...imports,
    ...rest,
    ...(exported.length === 0 ? [] : [returned]),
  ]);
};

/** `import { a as b } from "shared/x"` as `const { a: b } = __shared("shared/x")`. */
function asked(f: ts.NodeFactory, node: ts.ImportDeclaration): ts.Statement[] {
  const bindings = node.importClause?.namedBindings;
  if (node.importClause?.isTypeOnly === true || bindings === undefined) return [];
  const names = (bindings as ts.NamedImports).elements.filter((one) => !one.isTypeOnly);
  const pattern = f.createObjectBindingPattern(
    names.map(({ propertyName, name }) =>
      f.createBindingElement(undefined, propertyName, f.createIdentifier(name.text)),
    ),
  );
  const call = f.createCallExpression(f.createIdentifier('__shared'), undefined, [
    f.createStringLiteral((node.moduleSpecifier as ts.StringLiteral).text),
  ]);
  return [
    f.createVariableStatement(
      undefined,
      f.createVariableDeclarationList(
        [f.createVariableDeclaration(pattern, undefined, undefined, call)],
        ts.NodeFlags.Const,
      ),
    ),
  ];
}

/** Names that a statement declares as values. */
function namesOf(node: ts.Statement): string[] {
  if (ts.isVariableStatement(node))
    return node.declarationList.declarations.flatMap(({ name }) => bound(name));
  if (ts.isFunctionDeclaration(node) && node.body === undefined) return [];
  return (ts.isFunctionDeclaration(node) ||
    ts.isClassDeclaration(node) ||
    ts.isEnumDeclaration(node)) &&
    node.name !== undefined &&
    !hasModifier(node, ts.SyntaxKind.DeclareKeyword)
    ? [node.name.text]
    : [];
}

function bound(name: ts.BindingName): string[] {
  if (ts.isIdentifier(name)) return [name.text];
  return name.elements.flatMap((one) => (ts.isOmittedExpression(one) ? [] : bound(one.name)));
}

function withoutExport(f: ts.NodeFactory, node: ts.Statement): ts.Statement {
  const modifiers = ts.canHaveModifiers(node)
    ? ts.getModifiers(node)?.filter(({ kind }) => kind !== ts.SyntaxKind.ExportKeyword)
    : undefined;
  if (ts.isVariableStatement(node))
    return f.updateVariableStatement(node, modifiers, node.declarationList);
  if (ts.isFunctionDeclaration(node))
    return f.updateFunctionDeclaration(
      node,
      modifiers,
      node.asteriskToken,
      node.name,
      node.typeParameters,
      node.parameters,
      node.type,
      node.body,
    );
  if (ts.isClassDeclaration(node))
    return f.updateClassDeclaration(
      node,
      modifiers,
      node.name,
      node.typeParameters,
      node.heritageClauses,
      node.members,
    );
  if (ts.isEnumDeclaration(node))
    return f.updateEnumDeclaration(node, modifiers, node.name, node.members);
  // Types leave nothing behind.
  return f.createNotEmittedStatement(node);
}
