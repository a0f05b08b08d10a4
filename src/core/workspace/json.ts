/** Reading JSON with a schema so that every error names its file, line and path. */
import { ERRORS_PER_FILE, FILE_LEVELS } from '../limits';
import {
  findNodeAtLocation,
  parseTree,
  printParseErrorCode,
  type Node,
  type ParseError,
} from 'jsonc-parser';
import type * as z from 'zod';
import { oddIn } from '../form/plain-json';

export interface FileError {
  file: string;
  /** 1-based. */
  line: number;
  path: (string | number)[];
  says: string;
}

/** What is wrong with a text that is no JSON, in words. */
const WORDS: Readonly<Record<string, string>> = {
  InvalidSymbol: 'something stands here that JSON does not have; texts stand in double quotes',
  InvalidNumberFormat: 'this number is not spelled as JSON spells numbers',
  PropertyNameExpected: 'a name in double quotes is expected here',
  ValueExpected: 'a value is expected here',
  ColonExpected: 'a colon is missing here',
  CommaExpected: 'a comma is missing here',
  CloseBraceExpected: 'a closing } is missing',
  CloseBracketExpected: 'a closing ] is missing',
  EndOfFileExpected: 'the file should end here',
  InvalidCommentToken: 'JSON has no comments',
  UnexpectedEndOfComment: 'JSON has no comments',
  UnexpectedEndOfString: 'a text is not closed with a double quote',
  UnexpectedEndOfNumber: 'this number is not finished',
  InvalidUnicode: 'this \\u is not followed by four hexadecimal digits',
  InvalidEscapeCharacter: 'a backslash is followed by something that it cannot stand before',
  InvalidCharacter: 'a text holds a control character, such as a line break',
};

/** The parsed value, or null with the errors added. */
export function readJson<T>(
  file: string,
  text: string,
  schema: z.ZodType<T>,
  errors: FileError[],
): T | null {
  const lineOf = (offset: number) => text.slice(0, offset).split('\n').length;
  const broken = (offset: number, says: string, path: (string | number)[] = []) => {
    errors.push({ file, line: lineOf(offset), path, says });
    return null;
  };
  if (text.trim() === '') return broken(0, 'the file is empty');
  const deep = tooDeepAt(text);
  if (deep !== null) return broken(deep, `is nested deeper than ${FILE_LEVELS} levels`);
  const parseErrors: ParseError[] = [];
  const tree = parseTree(text, parseErrors, { disallowComments: true, allowTrailingComma: false });
  const first = parseErrors[0];
  if (first !== undefined || tree === undefined)
    return broken(
      first?.offset ?? 0,
      `is not JSON: ${(first === undefined ? undefined : WORDS[printParseErrorCode(first.error)]) ?? 'it cannot be read here'}`,
    );
  const twice = keyTwice(tree);
  if (twice !== null)
    return broken(twice.offset, `the key "${String(twice.value)}" is there twice`);
  const offered: unknown = JSON.parse(text);
  const odd = oddIn(offered);
  if (odd !== null) return broken(0, odd);
  const result = schema.safeParse(offered);
  if (result.success) return result.data;
  for (const issue of result.error.issues.slice(0, ERRORS_PER_FILE)) {
    const path = issue.path.map((step) => (typeof step === 'symbol' ? String(step) : step));
    broken(nodeAt(tree, path), issue.message, path);
  }
  if (result.error.issues.length > ERRORS_PER_FILE)
    broken(0, `there are ${result.error.issues.length - ERRORS_PER_FILE} more errors`);
  return null;
}

/** Where JSON is nested too deep for readers that call themselves once a level; null where it is not. */
function tooDeepAt(text: string): number | null {
  let level = 0;
  let inText = false;
  for (let i = 0; i < text.length; i++) {
    const letter = text[i];
    if (inText) {
      if (letter === '\\') i++;
      else if (letter === '"') inText = false;
    } else if (letter === '"') inText = true;
    else if (letter === '[' || letter === '{') {
      if (++level > FILE_LEVELS) return i;
    } else if (letter === ']' || letter === '}') level--;
  }
  return null;
}

/** The first name that an object has twice, of which JSON readers keep only one. */
function keyTwice(node: Node): Node | null {
  if (node.type === 'object') {
    const names = new Set<unknown>();
    for (const property of node.children ?? []) {
      const name = property.children![0]!;
      if (names.has(name.value)) return name;
      names.add(name.value);
    }
  }
  for (const child of node.children ?? []) {
    const found = keyTwice(child);
    if (found !== null) return found;
  }
  return null;
}

/** The offset of the deepest part of a path that is there. */
function nodeAt(
  tree: Parameters<typeof findNodeAtLocation>[0],
  path: readonly (string | number)[],
): number {
  for (let length = path.length; length > 0; length--) {
    const node = findNodeAtLocation(tree, path.slice(0, length));
    if (node !== undefined) return node.offset;
  }
  return 0;
}

/** Gives errors without a line of their own the line that their path leads to. */
export function placeFileError(error: FileError, text: string | undefined): FileError {
  if (
    error.line !== 1 ||
    error.path.length === 0 ||
    text === undefined ||
    !error.file.endsWith('.json')
  )
    return error;
  const tree = parseTree(text);
  return tree === undefined
    ? error
    : { ...error, line: text.slice(0, nodeAt(tree, error.path)).split('\n').length };
}
