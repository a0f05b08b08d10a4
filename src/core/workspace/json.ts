/** Reading JSON with a schema so that every fault names its file, line and path. */
import { parseTree, findNodeAtLocation, printParseErrorCode, type ParseError } from 'jsonc-parser';
import type * as z from 'zod';

export interface Fault {
  file: string;
  /** 1-based. */
  line: number;
  path: (string | number)[];
  says: string;
}

/** The parsed value, or null with the faults added. */
export function readJson<T>(file: string, text: string, schema: z.ZodType<T>, faults: Fault[]): T | null {
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
  const lineOf = (offset: number) => text.slice(0, offset).split('\n').length;
  const first = errors[0];
  if (first !== undefined || tree === undefined) {
    const says = first === undefined ? 'the file is empty' : `is not JSON: ${printParseErrorCode(first.error)}`;
    faults.push({ file, line: lineOf(first?.offset ?? 0), path: [], says });
    return null;
  }
  const result = schema.safeParse(JSON.parse(text));
  if (result.success) return result.data;
  for (const issue of result.error.issues) {
    const path = issue.path.map((step) => (typeof step === 'symbol' ? String(step) : step));
    faults.push({ file, line: lineOf(nodeAt(tree, path)), path, says: issue.message });
  }
  return null;
}

/** The offset of the deepest part of a path that is there. */
function nodeAt(tree: Parameters<typeof findNodeAtLocation>[0], path: readonly (string | number)[]): number {
  for (let length = path.length; length > 0; length--) {
    const node = findNodeAtLocation(tree, path.slice(0, length));
    if (node !== undefined) return node.offset;
  }
  return 0;
}

/** Gives faults without a line of their own the line that their path leads to. */
export function placeFault(fault: Fault, text: string | undefined): Fault {
  if (fault.line !== 1 || fault.path.length === 0 || text === undefined || !fault.file.endsWith('.json')) return fault;
  const tree = parseTree(text);
  return tree === undefined ? fault : { ...fault, line: text.slice(0, nodeAt(tree, fault.path)).split('\n').length };
}
