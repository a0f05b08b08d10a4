/**
 * All mutants of a script in one: each change stands beside the code as it is, and a switch (`guest/probe.ts`) says
 * which of them is meant. So a script is compiled once for all of its mutants. Changes are made in the text, within its
 * lines, so errors and runs keep their lines.
 */
import ts from 'typescript-classic';
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Mutant, MutantKind } from '../script/mutants';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import type { CompiledScript } from '../session/tie';
import { compileText, faultIn } from './compile';
import { tieOf } from './flow-syntax';
import { parse } from './parse';

export interface MutatedScript {
  script: CompiledScript;
  mutants: Mutant[];
}

/** Compiles a script with all of its mutants, numbered from `first`. One that does not compile has none. */
export function compileMutants(source: Source, form: Form, first: number): MutatedScript {
  if (faultIn(source) !== null) return { script: compileText(source, source.text), mutants: [] };
  const { file } = parse(source);
  const mutants: Mutant[] = [];
  const text = mutatedText(file, baseName(source.name), keysOf(form), first, mutants);
  // A template over several lines cannot be copied to one; a script that has it where something changes is left as it is.
  const isSound =
    text.split('\n').length === source.text.split('\n').length &&
    faultIn({ name: source.name, text: text.replaceAll('__probe', '$probe') }) === null;
  return isSound
    ? { script: compileText(source, text), mutants }
    : { script: compileText(source, source.text), mutants: [] };
}

/** Keys of options with the others of their field. */
function keysOf(form: Form): ReadonlyMap<string, readonly string[]> {
  const keys = new Map<string, readonly string[]>();
  for (const field of fieldsOf(form).flatMap((one) => [one, ...cellsOf(one)])) {
    if (!('options' in field)) continue;
    const all = field.options.map(({ key }) => key);
    // A key that several fields have is swapped within the first of them.
    for (const key of all) if (!keys.has(key)) keys.set(key, all);
  }
  return keys;
}

const EQUALITY: Readonly<Record<string, string>> = {
  '===': '!==',
  '!==': '===',
  '==': '!=',
  '!=': '==',
};
const BOUNDARY: Readonly<Record<string, string>> = { '<': '<=', '<=': '<', '>': '>=', '>=': '>' };
const CONNECTIVE: Readonly<Record<string, string>> = { '&&': '||', '||': '&&' };

/** A handler of an event that has a former value. */
const WITH_PREVIOUS = new Set(['change', 'input']);
const PREVIOUS = '__previous';

const printer = ts.createPrinter({ removeComments: true });

function mutatedText(
  file: ts.SourceFile,
  script: string,
  keys: ReadonlyMap<string, readonly string[]>,
  first: number,
  mutants: Mutant[],
): string {
  const source = file.text;
  const raw = (node: ts.Node) => source.slice(node.getStart(file), node.end);
  const cut = (text: string) => {
    const one = text.replace(/\s+/g, ' ');
    return one.length > 80 ? `${one.slice(0, 79)}…` : one;
  };
  /** A copy of a node on one line, so that what follows keeps its line. */
  const copy = (node: ts.Node) =>
    printer.printNode(ts.EmitHint.Unspecified, node, file).replace(/\s*\n\s*/g, ' ');
  let depth = 0;
  /** Gives the switch of a new mutant. */
  const mutant = (
    kind: MutantKind,
    node: ts.Node,
    before: string,
    after: string | null,
  ): string => {
    const number = first + mutants.length;
    mutants.push({
      number,
      kind,
      script,
      line: file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1,
      before: cut(before),
      after: after === null ? null : cut(after),
      atLoad: depth === 0,
    });
    return `__probe.m(${number})`;
  };

  /** A node with some of its children replaced; what stands between them stays as it is. */
  const spliced = (node: ts.Node, parts: readonly (readonly [ts.Node, string])[]): string => {
    let out = '';
    let at = node.getStart(file);
    for (const [part, text] of parts) {
      out += source.slice(at, part.getStart(file)) + text;
      at = part.end;
    }
    return out + source.slice(at, node.end);
  };

  /** A node with the changes below it. */
  const within = (node: ts.Node): string => {
    const parts: (readonly [ts.Node, string])[] = [];
    let at = node.getStart(file);
    const isFunction = ts.isFunctionLike(node);
    if (isFunction) depth++;
    ts.forEachChild(node, (child) => {
      // A type, or what is printed with its parent, such as a shorthand.
      if (child.getStart(file) < at || ts.isTypeNode(child)) return;
      parts.push([child, changed(child)]);
      at = child.end;
    });
    if (isFunction) depth--;
    return spliced(node, parts);
  };

  const condition = (node: ts.Expression): string => {
    const inner = changed(node);
    // A comparison is turned round by its own operator.
    if (ts.isBinaryExpression(node) && EQUALITY[node.operatorToken.getText(file)] !== undefined)
      return inner;
    const on = mutant('condition', node, raw(node), `!(${raw(node)})`);
    return `(${on} ? !(${copy(node)}) : (${inner}))`;
  };

  const dropped = (kind: MutantKind, node: ts.Statement): string => {
    const on = mutant(kind, node, raw(node), null);
    // In a block, so that an else behind it stays with its own if.
    return `{ if (!${on}) { ${within(node)} } }`;
  };

  function changed(node: ts.Node): string {
    if (ts.isBinaryExpression(node)) return binary(node);
    if (ts.isIfStatement(node)) return choosing(node);
    if (ts.isConditionalExpression(node)) {
      return spliced(node, [
        [node.condition, condition(node.condition)],
        [node.whenTrue, changed(node.whenTrue)],
        [node.whenFalse, changed(node.whenFalse)],
      ]);
    }
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return keyed(node);
    if (ts.isExpressionStatement(node)) return statement(node);
    if (ts.isReturnStatement(node) && node.expression === undefined && isWithinCondition(node))
      return dropped('return', node);
    if (ts.isCallExpression(node) && eventOf(node) !== null) return tied(node);
    if (ts.isArrowFunction(node) && !ts.isBlock(node.body) && isEffect(node.body, file)) {
      const head = source.slice(node.getStart(file), node.body.getStart(file));
      depth++;
      const on = mutant('effect', node.body, raw(node.body), null);
      const inner = within(node.body);
      depth--;
      return `${head}(${on} ? undefined : (${inner}))`;
    }
    return within(node);
  }

  function binary(node: ts.BinaryExpression): string {
    const operator = node.operatorToken.getText(file);
    const inner = within(node);
    const other = EQUALITY[operator] ?? BOUNDARY[operator] ?? CONNECTIVE[operator];
    if (other === undefined) return inner;
    const kind =
      operator in EQUALITY ? 'condition' : operator in BOUNDARY ? 'boundary' : 'connective';
    const on = mutant(kind, node, raw(node), `${raw(node.left)} ${other} ${raw(node.right)}`);
    // The sides get brackets of their own, since && and || bind differently.
    return `(${on} ? (${copy(node.left)}) ${other} (${copy(node.right)}) : ${inner})`;
  }

  function choosing(node: ts.IfStatement): string {
    const { elseStatement } = node;
    const parts: (readonly [ts.Node, string])[] = [
      [node.expression, condition(node.expression)],
      [node.thenStatement, changed(node.thenStatement)],
    ];
    if (elseStatement !== undefined) {
      const on = mutant('else', elseStatement, `else ${raw(elseStatement)}`, null);
      parts.push([elseStatement, `if (!${on}) ${changed(elseStatement)}`]);
    }
    return spliced(node, parts);
  }

  function keyed(node: ts.StringLiteral | ts.NoSubstitutionTemplateLiteral): string {
    const all = keys.get(node.text);
    const { parent } = node;
    const isName =
      ts.isPropertyAssignment(parent) && parent.name === node
        ? true
        : ts.isLiteralTypeNode(parent) || ts.isImportDeclaration(parent);
    if (all === undefined || all.length < 2 || isName) return raw(node);
    const other = all[(all.indexOf(node.text) + 1) % all.length]!;
    const after = JSON.stringify(other);
    return `(${mutant('key', node, raw(node), after)} ? ${after} : ${raw(node)})`;
  }

  function statement(node: ts.ExpressionStatement): string {
    const { expression } = node;
    const tie = ts.isCallExpression(expression) ? tieOf(expression) : null;
    // An invariant judges the others: with a change in it, it would only judge wrongly.
    if (tie?.sort === 'invariant') return raw(node);
    if (depth === 0)
      return tie === null ? within(node) : dropped(tie.event === 'load' ? 'load' : 'handler', node);
    return isEffect(expression, file) ? dropped('effect', node) : within(node);
  }

  /** `on.change([a, b], handler)`: each trigger can be missing, and the handler can take the former value for the new one. */
  function tied(node: ts.CallExpression): string {
    const [parts, handler] = node.arguments;
    return spliced(
      node,
      node.arguments.map((argument) => [
        argument,
        argument === parts && ts.isArrayLiteralExpression(argument) && argument.elements.length > 1
          ? triggers(argument)
          : argument === handler
            ? handling(argument)
            : changed(argument),
      ]),
    );
  }

  function triggers(list: ts.ArrayLiteralExpression): string {
    return list.elements.reduce((inner, element) => {
      const others = list.elements.filter((one) => one !== element).map(copy);
      return `(${mutant('trigger', element, raw(element), null)} ? [${others.join(', ')}] : ${inner})`;
    }, raw(list));
  }

  function handling(node: ts.Expression): string {
    const [parameter] = ts.isArrowFunction(node) ? node.parameters : [];
    const pattern = parameter?.name;
    if (
      !ts.isArrowFunction(node) ||
      node.parameters.length !== 1 ||
      pattern === undefined ||
      !ts.isObjectBindingPattern(pattern) ||
      pattern.elements.some((one) => one.dotDotDotToken !== undefined)
    )
      return changed(node);
    const value = pattern.elements.find(
      (one) =>
        one.initializer === undefined &&
        ts.isIdentifier(one.name) &&
        (one.propertyName ?? one.name).getText(file) === 'value',
    );
    if (value === undefined) return changed(node);
    const name = value.name.getText(file);
    depth++;
    const on = mutant('previous', value, name, 'previous');
    const body = ts.isBlock(node.body) ? within(node.body) : changed(node.body);
    depth--;
    const async = node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.AsyncKeyword)
      ? 'async '
      : '';
    const swap = `if (${on}) ${name} = ${PREVIOUS};`;
    const head = `${async}({ ${pattern.elements.map(raw).join(', ')}, previous: ${PREVIOUS} }) =>`;
    // Code that took several lines still takes as many.
    const lines = '\n'.repeat(
      source.slice(node.getStart(file), node.body.getStart(file)).split('\n').length - 1,
    );
    return ts.isBlock(node.body)
      ? `${head}${lines} { ${swap}${body.slice(1)}`
      : `${head}${lines} { ${swap} return (${body}); }`;
  }

  function eventOf(node: ts.CallExpression): string | null {
    const event = tieOf(node)?.event ?? null;
    return event !== null && WITH_PREVIOUS.has(event) && node.arguments.length === 2 ? event : null;
  }

  let out = '';
  let at = 0;
  for (const one of file.statements) {
    const start = one.getStart(file);
    out += source.slice(at, start) + changed(one);
    at = one.end;
  }
  return out + source.slice(at);
}

/** Whether an expression does something to the form: says an aspect, or calls a method of a face. */
function isEffect(node: ts.Expression, file: ts.SourceFile): boolean {
  if (ts.isAwaitExpression(node)) return false;
  if (ts.isBinaryExpression(node)) {
    const { kind } = node.operatorToken;
    return (
      kind >= ts.SyntaxKind.FirstAssignment &&
      kind <= ts.SyntaxKind.LastAssignment &&
      ts.isPropertyAccessExpression(node.left)
    );
  }
  if (!ts.isCallExpression(node)) return false;
  const called = node.expression.getText(file);
  // What goes to the log changes nothing for anybody.
  return called !== 'log' && tieOf(node) === null;
}

/** Whether what follows a `return` can be reached without it. */
function isWithinCondition(node: ts.Node): boolean {
  for (let one = node.parent; !ts.isFunctionLike(one) && !ts.isSourceFile(one); one = one.parent)
    if (ts.isIfStatement(one) || ts.isCaseClause(one)) return true;
  return false;
}
