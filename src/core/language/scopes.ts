/** Which variable a name means: the numbers of a script's variables, found by the scopes that its syntax makes. */
import ts from 'typescript-classic';

export interface Variable {
  number: number;
  name: string;
  /** Where its declaration stands. */
  declared: number;
  /** The function, or the file, that it belongs to. */
  owner: ts.Node;
  /** A function by name, which is no value to show. */
  isFunction: boolean;
}

export class Scopes {
  readonly #of = new Map<ts.Node, Map<string, Variable>>();
  #count = 0;

  /** The variable that a name means where it stands; null for what the script does not declare. */
  find(name: string, at: ts.Node): Variable | null {
    for (let node: ts.Node | undefined = at; node !== undefined; node = node.parent) {
      const found = this.#declaredBy(node)?.get(name);
      if (found !== undefined) return found;
    }
    return null;
  }

  /** All variables in sight of a place, the nearest of each name. */
  inSight(at: ts.Node): Variable[] {
    const found = new Map<string, Variable>();
    for (let node: ts.Node | undefined = at; node !== undefined; node = node.parent)
      for (const [name, variable] of this.#declaredBy(node) ?? [])
        if (!found.has(name)) found.set(name, variable);
    return [...found.values()];
  }

  #declaredBy(node: ts.Node): Map<string, Variable> | null {
    if (!makesScope(node)) return null;
    const known = this.#of.get(node);
    if (known !== undefined) return known;
    const names = new Map<string, Variable>();
    this.#of.set(node, names);
    const owner = ownerOf(node);
    const add = (name: ts.BindingName | undefined, isFunction = false): void => {
      if (name === undefined) return;
      if (!ts.isIdentifier(name)) {
        for (const one of name.elements) if (ts.isBindingElement(one)) add(one.name);
        return;
      }
      if (!names.has(name.text))
        names.set(name.text, {
          number: this.#count++,
          name: name.text,
          declared: name.getStart(),
          owner,
          isFunction,
        });
    };
    if (ts.isFunctionLike(node)) {
      if (ts.isFunctionExpression(node)) add(node.name, true);
      for (const parameter of node.parameters) add(parameter.name);
    }
    const list =
      ts.isForStatement(node) || ts.isForOfStatement(node) || ts.isForInStatement(node)
        ? node.initializer
        : null;
    if (list != null && ts.isVariableDeclarationList(list))
      for (const one of list.declarations) add(one.name);
    if (ts.isCatchClause(node)) add(node.variableDeclaration?.name);
    const statements =
      ts.isSourceFile(node) || ts.isBlock(node) || ts.isModuleBlock(node)
        ? node.statements
        : ts.isCaseBlock(node)
          ? node.clauses.flatMap((clause) => [...clause.statements])
          : [];
    for (const statement of statements) {
      if (ts.isVariableStatement(statement))
        for (const one of statement.declarationList.declarations) add(one.name);
      if (ts.isFunctionDeclaration(statement) || ts.isClassDeclaration(statement))
        add(statement.name, true);
      if (ts.isImportDeclaration(statement)) {
        const bindings = statement.importClause?.namedBindings;
        if (bindings !== undefined && ts.isNamedImports(bindings))
          for (const one of bindings.elements) add(one.name, true);
      }
    }
    // A `var` belongs to its function wherever it stands.
    if (ts.isSourceFile(node) || (ts.isBlock(node) && ts.isFunctionLike(node.parent)))
      for (const one of varsIn(node)) add(one.name);
    return names;
  }
}

function makesScope(node: ts.Node): boolean {
  return (
    ts.isSourceFile(node) ||
    ts.isBlock(node) ||
    ts.isCaseBlock(node) ||
    ts.isFunctionLike(node) ||
    ts.isForStatement(node) ||
    ts.isForOfStatement(node) ||
    ts.isForInStatement(node) ||
    ts.isCatchClause(node)
  );
}

/** The function or file that a node stands in, or is. */
export function ownerOf(node: ts.Node): ts.Node {
  let owner = node;
  while (!ts.isSourceFile(owner) && !(ts.isFunctionLike(owner) && hasBody(owner)))
    owner = owner.parent;
  return owner;
}

function hasBody(node: ts.SignatureDeclaration): boolean {
  return 'body' in node && node.body !== undefined;
}

function varsIn(node: ts.Node): ts.VariableDeclaration[] {
  const found: ts.VariableDeclaration[] = [];
  const look = (inner: ts.Node): void => {
    if (ts.isFunctionLike(inner)) return;
    if (ts.isVariableDeclarationList(inner) && (inner.flags & ts.NodeFlags.BlockScoped) === 0)
      found.push(...inner.declarations);
    ts.forEachChild(inner, look);
  };
  ts.forEachChild(node, look);
  return found;
}

/** Whether a name stands for a variable's value, and is not a member's, a key or a declaration. */
export function isValueUse(node: ts.Identifier): boolean {
  const { parent } = node;
  if (ts.isPropertyAccessExpression(parent)) return parent.name !== node;
  if (ts.isPropertyAssignment(parent)) return parent.name !== node;
  if (ts.isBindingElement(parent)) return parent.initializer === node;
  if (ts.isVariableDeclaration(parent) || ts.isParameter(parent))
    return parent.initializer === node;
  return !(
    (ts.isMethodDeclaration(parent) ||
      ts.isFunctionDeclaration(parent) ||
      ts.isFunctionExpression(parent) ||
      ts.isClassDeclaration(parent) ||
      ts.isPropertyDeclaration(parent) ||
      ts.isGetAccessor(parent) ||
      ts.isSetAccessor(parent)) &&
    parent.name === node
  );
}
