import { EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { afterEach, expect, test } from 'vitest';
import { breakpointGutter, setBreakpoints, setStanding, standingLine } from './editor-breakpoints';

let view: EditorView;
function open(text: string): void {
  view = new EditorView({
    parent: document.body,
    state: EditorState.create({
      doc: text,
      extensions: [breakpointGutter(() => undefined), standingLine],
    }),
  });
}
afterEach(() => view.destroy());

const standing = () => {
  const lines: number[] = [];
  const set = view.state.field(standingLine);
  set.between(
    0,
    view.state.doc.length,
    (from) => void lines.push(view.state.doc.lineAt(from).number),
  );
  return lines;
};

test('the line that is stood on is marked, one beyond the text is not, and none after an edit', () => {
  open('one\ntwo\nthree');
  view.dispatch({ effects: setStanding.of(3) });
  expect(standing()).toEqual([3]);
  view.dispatch({ effects: setStanding.of(4) });
  expect(standing()).toEqual([]);
  view.dispatch({ effects: setStanding.of(2) });
  view.dispatch({ changes: { from: 0, insert: 'x' } });
  expect(standing()).toEqual([]);
  view.dispatch({ effects: setStanding.of(2) });
  view.dispatch({ effects: setStanding.of(null) });
  expect(standing()).toEqual([]);
});

test('breakpoints are drawn beside their lines and move with them', () => {
  open('one\ntwo\nthree');
  view.dispatch({ effects: setBreakpoints.of([9, 3, 1]) });
  const marks = () => [...document.querySelectorAll('.tv-breakpoint')].length;
  // One more keeps the room for them.
  expect(marks()).toBe(3);
  view.dispatch({ effects: setBreakpoints.of([]) });
  expect(marks()).toBe(1);
});
