/**
 * From a behaviour's or a shared module's source to what a session runs. Syntax errors and the words that a script may
 * not use are answered here; types are the business of `service.ts`, since a script with a type error still runs.
 */
import ts from 'typescript-classic';
import type { Site } from '../script/sites';
import { NOTHING_REPORTED, type CompiledScript } from '../session/tie';
import { readHeader, type Source } from '../script/header';
import { baseName, isModule } from '../script/script-name';
import { Expressions } from './expressions';
import { instrument } from './instrument';
import { asFunctionBody, moduleFault } from './modules';
import { parse } from './parse';
import { expressionFault, withWatches, type Watch } from './watches';

/** What is said of a source that is nested too deep to be read. */
export const TOO_DEEP =
  'is nested too deep to be read. Take parts of it out into functions or constants of their own.';

export type Mode = 'traced' | 'untraced';

/** A script that can report what it does in detail, and what its reports mean. */
export interface DetailedScript {
  script: CompiledScript;
  sites: readonly Site[];
}

const OPTIONS: ts.CompilerOptions = {
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  alwaysStrict: false,
  removeComments: true,
  isolatedModules: true,
};

/** Compiles one script. Never throws: a script that does not parse comes back with its failure instead of code. */
export function compile(source: Source, mode: Mode): CompiledScript {
  return compiled(source, source.text, mode === 'traced' ? new Expressions() : null, null);
}

/** Compiles a text that stands for a source, untraced. */
export function compileText(source: Source, text: string): CompiledScript {
  return compiled(source, text, null, null);
}

/**
 * Compiles one script so that it does what the traced one does and can report details besides. `watches` are put in
 * before the statements that they name (`watches.ts`).
 */
export function compileDetailed(source: Source, watches: readonly Watch[] = []): DetailedScript {
  const sites: Site[] = [];
  const sound = watches.filter(({ expression }) => expressionFault(expression) === null);
  const script = compiled(source, withWatches(source, sound), new Expressions(), sites);
  return { script, sites };
}

function compiled(
  source: Source,
  text: string,
  expressions: Expressions | null,
  sites: Site[] | null,
): CompiledScript {
  const base = { name: baseName(source.name), title: readHeader(source).title };
  const fault = faultIn(source);
  if (fault !== null)
    return { ...base, code: null, ...NOTHING_REPORTED, failure: { code: 'syntax', ...fault } };
  const { outputText } = ts.transpileModule(text, {
    fileName: source.name,
    compilerOptions: OPTIONS,
    jsDocParsingMode: ts.JSDocParsingMode.ParseNone,
    transformers: { before: [instrument(expressions, sites), asFunctionBody] },
  });
  return {
    ...base,
    code: outputText.replace(/^export \{\};?\s*$/m, ''),
    ...(expressions === null
      ? NOTHING_REPORTED
      : { expressions: expressions.texts, conditions: expressions.conditions }),
    failure: null,
  };
}

/** What keeps a script from being compiled; null when nothing does. */
export function faultIn(source: Source): { says: string; line: number } | null {
  const { file, tooDeep } = parse(source);
  return tooDeep === null ? syntaxFault(file) : { says: TOO_DEEP, line: tooDeep };
}

/** Names of the compiler's own, and one that would get past it. */
const HIDDEN: ReadonlySet<string> = new Set(['eval', '__probe', '__shared', '__frame']);

function syntaxFault(file: ts.SourceFile): { says: string; line: number } | null {
  const { parseDiagnostics } = file as ts.SourceFile & {
    parseDiagnostics: readonly ts.DiagnosticWithLocation[];
  };
  const lineAt = (position: number) => file.getLineAndCharacterOfPosition(position).line + 1;
  const first = parseDiagnostics[0];
  if (first !== undefined) {
    return {
      says: `does not parse: ${ts.flattenDiagnosticMessageText(first.messageText, ' ')}`,
      line: lineAt(first.start),
    };
  }
  return forbidden(file, lineAt);
}

/** Constructs that a script cannot have, since it runs at once and gets its names from the form and shared modules. */
function forbidden(
  file: ts.SourceFile,
  lineAt: (position: number) => number,
): { says: string; line: number } | null {
  const found = (node: ts.Node, says: string) => ({ says, line: lineAt(node.getStart(file)) });
  const look = (node: ts.Node): { says: string; line: number } | null => {
    const wrong = moduleFault(node, isModule(file.fileName));
    if (wrong !== null) return found(node, wrong);
    if (ts.isIdentifier(node) && HIDDEN.has(node.text) && !isPropertyName(node)) {
      return found(node, `uses the name ${node.text}, which scripts cannot.`);
    }
    if (ts.isForOfStatement(node) && node.awaitModifier !== undefined)
      return found(
        node,
        'has a for await loop, which scripts cannot. Await each item in a plain loop.',
      );
    if (
      ts.isFunctionLike(node) &&
      'asteriskToken' in node &&
      node.asteriskToken !== undefined &&
      ts.canHaveModifiers(node) &&
      ts.getModifiers(node)?.some((m) => m.kind === ts.SyntaxKind.AsyncKeyword)
    ) {
      return found(node, 'has an async generator, which scripts cannot. Use an async function.');
    }
    if (ts.isWithStatement(node)) return found(node, 'has a with statement, which scripts cannot.');
    return ts.forEachChild(node, look) ?? null;
  };
  return look(file);
}

function isPropertyName(node: ts.Identifier): boolean {
  return ts.isPropertyAccessExpression(node.parent) && node.parent.name === node;
}
