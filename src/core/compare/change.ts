/** What changed in the scripts between two versions, by the compiler's tree: what it mentions and where it runs. */
import ts from 'typescript-classic';
import { mentionsOf } from '../explore/mentions';
import { parse } from '../language/parse';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import { changedLines } from './changed-lines';
import type { Change, ChangedLine } from './version';

export function changeBetween(before: readonly Source[], after: readonly Source[]): Change {
  const changed = changedLines(before, after);
  const places = [...placesIn(before, changed.before), ...placesIn(after, changed.after)];
  const { words, members } = mentionsOf(places.flatMap(({ mentioning }) => mentioning));
  // What is only said of a part does not depend on what is entered there.
  const read = new Set(members.flatMap(({ part, written }) => (written ? [] : [part])));
  const said = new Set(members.flatMap(({ part }) => (read.has(part) ? [] : [part])));
  const linesOf = (all: ReturnType<typeof placesIn>) => all.flatMap(({ running }) => running);
  return {
    words: words.filter((word) => !said.has(word)),
    running: {
      before: linesOf(places.slice(0, before.length)),
      after: linesOf(places.slice(before.length)),
    },
  };
}

/** Of each script, in order: the handlers and rules that changed, or all of it, and the lines that run there. */
function placesIn(
  sources: readonly Source[],
  changed: readonly ChangedLine[],
): { mentioning: Source[]; running: ChangedLine[] }[] {
  return sources.map((source) => {
    const script = baseName(source.name);
    const lines = changed.flatMap((one) => (one.script === script ? [one.line] : []));
    if (lines.length === 0) return { mentioning: [], running: [] };
    const { file } = parse(source);
    const texts = new Set(
      file.statements.flatMap((statement) => {
        if (!isAt(statement, lines, file)) return [];
        const isTied =
          ts.isExpressionStatement(statement) && ts.isCallExpression(statement.expression);
        return isTied ? [statement.getText(file)] : [source.text];
      }),
    );
    return {
      mentioning: [...texts].map((text) => ({ name: source.name, text })),
      running: runningIn(file, lines).map((line) => ({ script, line })),
    };
  });
}

const lineAt = (position: number, file: ts.SourceFile) =>
  file.getLineAndCharacterOfPosition(position).line + 1;

function isAt(node: ts.Node, lines: readonly number[], file: ts.SourceFile): boolean {
  const [from, to] = [lineAt(node.getStart(file), file), lineAt(node.end, file)];
  return lines.some((line) => from <= line && line <= to);
}

/** The first lines of the innermost statements in functions in which a line changed; a machine tells these lines apart. */
function runningIn(file: ts.SourceFile, lines: readonly number[]): number[] {
  const found = new Set<number>();
  const innermost = (node: ts.Node, line: number, inFunction: boolean): ts.Node | null => {
    if (!isAt(node, [line], file)) return null;
    const isFunction = ts.isFunctionLike(node);
    let within: ts.Node | null = null;
    ts.forEachChild(node, (child) => {
      within ??= innermost(child, line, inFunction || isFunction);
    });
    if (within !== null) return within;
    const runs =
      inFunction &&
      ((ts.isStatement(node) && !ts.isBlock(node)) ||
        (ts.isArrowFunction(node.parent) && node.parent.body === node && !ts.isBlock(node)));
    return runs ? node : null;
  };
  for (const line of lines) {
    const node = innermost(file, line, false);
    if (node !== null) found.add(lineAt(node.getStart(file), file));
  }
  return [...found].toSorted((a, b) => a - b);
}
