/** What the last step did at each line of a script: values at the ends of lines, counts in the gutter. */
import {
  StateEffect,
  StateField,
  type EditorState,
  type Extension,
  type Range,
} from '@codemirror/state';
import {
  Decoration,
  EditorView,
  gutter,
  GutterMarker,
  WidgetType,
  type DecorationSet,
} from '@codemirror/view';
import type { LineNote } from '@/core/tape/lines';
import { valueInWords } from '@/core/tape/words';

export const setNotes = StateEffect.define<readonly LineNote[]>();

class EndOfLine extends WidgetType {
  constructor(
    readonly text: string,
    readonly failed: boolean,
  ) {
    super();
  }
  override eq(other: EndOfLine): boolean {
    return other.text === this.text && other.failed === this.failed;
  }
  toDOM(): HTMLElement {
    const span = document.createElement('span');
    span.className = this.failed ? 'tv-failed' : 'tv-value';
    span.textContent = this.text;
    span.title = this.text;
    return span;
  }
}

class Hits extends GutterMarker {
  constructor(readonly count: number) {
    super();
  }
  override eq(other: Hits): boolean {
    return other.count === this.count;
  }
  override toDOM(): Node {
    const span = document.createElement('span');
    span.textContent = String(this.count);
    span.title = `ran ${this.count === 1 ? 'once' : `${this.count} times`} in this step`;
    return span;
  }
}

interface NotesState {
  notes: readonly LineNote[];
  decorations: DecorationSet;
}

const notesField = StateField.define<NotesState>({
  create: () => ({ notes: [], decorations: Decoration.none }),
  update(value, transaction) {
    const set = transaction.effects.find((effect) => effect.is(setNotes));
    if (set !== undefined)
      return {
        notes: set.value as readonly LineNote[],
        decorations: decorate(transaction.state, set.value as readonly LineNote[]),
      };
    // Notes are about the text that ran; once it is edited they would stand in the wrong place.
    return transaction.docChanged ? { notes: [], decorations: Decoration.none } : value;
  },
  provide: (field) => EditorView.decorations.from(field, (value) => value.decorations),
});

function decorate(state: EditorState, notes: readonly LineNote[]): DecorationSet {
  const ranges: Range<Decoration>[] = [];
  for (const note of notes) {
    if (note.line < 1 || note.line > state.doc.lines) continue;
    const line = state.doc.line(note.line);
    if (note.failed !== null)
      ranges.push(Decoration.line({ class: 'tv-failed-line' }).range(line.from));
    const text = note.failed ?? (note.value === undefined ? null : valueInWords(note.value));
    if (text !== null)
      ranges.push(
        Decoration.widget({ widget: new EndOfLine(text, note.failed !== null), side: 1 }).range(
          line.to,
        ),
      );
  }
  return Decoration.set(ranges, true);
}

const hitsGutter = gutter({
  class: 'tv-hits',
  lineMarker: (view, block) => {
    const line = view.state.doc.lineAt(block.from).number;
    const note = view.state.field(notesField).notes.find((candidate) => candidate.line === line);
    return note === undefined || note.hits === 0 ? null : new Hits(note.hits);
  },
  lineMarkerChange: (update) =>
    update.startState.field(notesField) !== update.state.field(notesField),
  initialSpacer: () => new Hits(88),
});

export const lineNotes: Extension = [notesField, hitsGutter];
