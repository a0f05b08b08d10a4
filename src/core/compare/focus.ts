/** What the changed places of scripts mention, by the compiler's tree: what is tried first when versions are compared. */
import ts from 'typescript-classic';
import { mentionsOf } from '../explore/mentions';
import { parse } from '../language/parse';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import { changedLines } from './changed-lines';
import type { ChangedLine } from './version';

/** Names and texts of the handlers and rules in which a line changed; of the whole script where one changed outside of them. */
export function focusOf(before: readonly Source[], after: readonly Source[]): string[] {
  const changed = changedLines(before, after);
  const places = [...placesIn(before, changed.before), ...placesIn(after, changed.after)];
  const { words, members } = mentionsOf(places);
  // What is only said of a part does not depend on what is entered there.
  const read = new Set(members.flatMap(({ part, written }) => (written ? [] : [part])));
  const said = new Set(members.flatMap(({ part }) => (read.has(part) ? [] : [part])));
  return words.filter((word) => !said.has(word));
}

function placesIn(sources: readonly Source[], changed: readonly ChangedLine[]): Source[] {
  return sources.flatMap(({ name, text }) => {
    const lines = changed.flatMap(({ script, line }) => (script === baseName(name) ? [line] : []));
    if (lines.length === 0) return [];
    const { file } = parse({ name, text });
    const lineAt = (position: number) => file.getLineAndCharacterOfPosition(position).line + 1;
    const places = new Set<string>();
    for (const statement of file.statements) {
      const [from, to] = [lineAt(statement.getStart(file)), lineAt(statement.end)];
      if (!lines.some((line) => from <= line && line <= to)) continue;
      const isTied =
        ts.isExpressionStatement(statement) && ts.isCallExpression(statement.expression);
      places.add(isTied ? statement.getText(file) : text);
    }
    return [...places].map((place) => ({ name, text: place }));
  });
}
