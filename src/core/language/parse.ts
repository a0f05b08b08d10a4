/**
 * Parsing behaviours. TypeScript's parser and everything that walks what it gives call themselves once for each level
 * of nesting, so a source that is nested deeper than anybody writes is refused before it exhausts the stack.
 */
import { SYNTAX_LEVELS } from '../limits';
import ts from 'typescript-classic';
import type { Source } from '../script/header';

export interface Parsed {
  /** Empty for a source that is nested too deep to be read. */
  file: ts.SourceFile;
  /** The line, 1-based, at which it is; null for every other. */
  tooDeep: number | null;
}

export function parse(source: Source): Parsed {
  const file = parsedOrNull(source);
  return file === null
    ? { file: parsedAtOnce({ name: source.name, text: '' }), tooDeep: deepestLine(source.text) }
    : { file, tooDeep: null };
}

function parsedOrNull(source: Source): ts.SourceFile | null {
  try {
    const file = parsedAtOnce(source);
    return levels(file) > SYNTAX_LEVELS ? null : file;
  } catch (caught) {
    if (caught instanceof RangeError) return null;
    throw caught;
  }
}

/**
 * JavaScript is read as the TypeScript it also is. Doc comments are left unread: TypeScript 5.9's reader of them never
 * ends on an unfinished one with a hyphen, such as `/** a-bc`.
 */
function parsedAtOnce({ name, text }: Source): ts.SourceFile {
  const how = {
    languageVersion: ts.ScriptTarget.ES2022,
    jsDocParsingMode: ts.JSDocParsingMode.ParseNone,
  };
  return ts.createSourceFile(
    name,
    text,
    how,
    true,
    name.endsWith('.js') ? ts.ScriptKind.JS : ts.ScriptKind.TS,
  );
}

/** How many levels the tree has. Not a function that calls itself, since it is asked about trees that are too deep for that. */
function levels(file: ts.SourceFile): number {
  let level: ts.Node[] = [file];
  let count = 0;
  while (level.length > 0 && count <= SYNTAX_LEVELS) {
    const below: ts.Node[] = [];
    for (const node of level) ts.forEachChild(node, (child) => void below.push(child));
    level = below;
    count++;
  }
  return count;
}

/** The line with the most brackets open, 1-based: where somebody would look first. */
function deepestLine(text: string): number {
  let [open, most, line, deepest] = [0, 0, 1, 1];
  for (const letter of text) {
    if (letter === '\n') line++;
    else if ('([{'.includes(letter)) open++;
    else if (')]}'.includes(letter)) open--;
    if (open > most) [most, deepest] = [open, line];
  }
  return deepest;
}
