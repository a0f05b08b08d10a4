'use client';
/** The editor of one behaviour: CodeMirror with the language worker behind it, and what the last step did at each line. */
import { autocompletion, type CompletionContext } from '@codemirror/autocomplete';
import { history, historyKeymap, defaultKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import { bracketMatching, HighlightStyle, indentOnInput, indentUnit, syntaxHighlighting } from '@codemirror/language';
import { forceLinting, linter, lintGutter, type Diagnostic } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState, StateEffect, StateField, type Range } from '@codemirror/state';
import { Decoration, drawSelection, EditorView, gutter, GutterMarker, highlightActiveLine, hoverTooltip, keymap, lineNumbers, WidgetType, type DecorationSet } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useRef } from 'react';
import type { Completion, Diagnosis, Explanation } from '@/core/language/service';
import type { LineNote } from '@/core/tape/lines';
import { valueInWords } from './words';

export interface EditorProps {
  name: string;
  text: string;
  diagnoses: readonly Diagnosis[];
  notes: readonly LineNote[];
  goTo: { line: number; count: number } | null;
  onEdit: (text: string) => void;
  complete: (position: number) => Promise<Completion[]>;
  explain: (position: number) => Promise<Explanation | null>;
}

const setNotes = StateEffect.define<readonly LineNote[]>();

class EndOfLine extends WidgetType {
  readonly text: string;
  readonly failed: boolean;
  constructor(text: string, failed: boolean) {
    super();
    this.text = text;
    this.failed = failed;
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
  readonly count: number;
  constructor(count: number) {
    super();
    this.count = count;
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
    if (set !== undefined) return { notes: set.value as readonly LineNote[], decorations: decorate(transaction.state, set.value as readonly LineNote[]) };
    // Notes are about the text that ran; once it is edited they would stand in the wrong place.
    return transaction.docChanged ? { notes: [], decorations: Decoration.none } : value;
  },
  provide: (field) => EditorView.decorations.from(field, (value) => value.decorations),
});

function decorate(state: EditorState, notes: readonly LineNote[]): DecorationSet {
  const ranges: Range<Decoration>[] = [];
  for (const note of notes) {
    if (note.line > state.doc.lines) continue;
    const line = state.doc.line(note.line);
    if (note.failed !== null) ranges.push(Decoration.line({ class: 'tv-failed-line' }).range(line.from));
    const text = note.failed ?? (note.value === undefined ? null : valueInWords(note.value));
    if (text !== null) ranges.push(Decoration.widget({ widget: new EndOfLine(text, note.failed !== null), side: 1 }).range(line.to));
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
  lineMarkerChange: (update) => update.startState.field(notesField) !== update.state.field(notesField),
  initialSpacer: () => new Hits(88),
});

const ink = HighlightStyle.define([
  { tag: [tags.keyword, tags.controlKeyword, tags.operatorKeyword, tags.definitionKeyword], color: 'var(--tavro-colors-act)' },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--tavro-colors-key-ink)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--tavro-colors-key-ink)' },
  { tag: [tags.comment, tags.docComment], color: 'var(--tavro-colors-soft)' },
]);

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '12.5px', backgroundColor: 'var(--tavro-colors-sheet)', color: 'var(--tavro-colors-ink)' },
  '.cm-scroller': { fontFamily: "'Atkinson Hyperlegible Mono Variable', monospace", lineHeight: '20px' },
  '.cm-content': { padding: '8px 0', caretColor: 'var(--tavro-colors-ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--tavro-colors-ink)' },
  '.cm-gutters': { backgroundColor: 'var(--tavro-colors-sheet)', color: 'var(--tavro-colors-soft)', border: 'none' },
  '.tv-hits': { color: 'var(--tavro-colors-said)', fontSize: '10.5px', minWidth: '18px', textAlign: 'left' },
  '.cm-activeLine': { backgroundColor: 'color-mix(in srgb, var(--tavro-colors-act-ground) 45%, transparent)' },
  '.cm-activeLineGutter': { backgroundColor: 'transparent' },
  '.cm-selectionBackground, &.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground': { backgroundColor: 'color-mix(in srgb, var(--tavro-colors-act) 22%, transparent)' },
  // A long note must not widen the code; the whole of it is in its title and on the tape.
  '.tv-value, .tv-failed': { display: 'inline-block', maxWidth: '44ch', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'pre', verticalAlign: 'bottom', fontSize: '11.5px', marginLeft: '18px' },
  '.tv-value': { color: 'var(--tavro-colors-said)' },
  '.tv-failed': { color: 'var(--tavro-colors-bad)' },
  '.tv-failed-line': { backgroundColor: 'var(--tavro-colors-bad-ground)' },
  '.cm-tooltip': { backgroundColor: 'var(--tavro-colors-sheet)', color: 'var(--tavro-colors-ink)', border: '1px solid var(--tavro-colors-line)', borderRadius: '4px', maxWidth: '460px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--tavro-colors-act)', color: 'var(--tavro-colors-on-act)' },
  '.tv-explain': { padding: '6px 10px', whiteSpace: 'pre-wrap', fontSize: '12.5px' },
  '.cm-panels': { backgroundColor: 'var(--tavro-colors-ground)', color: 'var(--tavro-colors-ink)' },
});

export default function Editor(props: EditorProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  useEffect(() => {
    latest.current = props;
  });

  useEffect(() => {
    const completions = async (context: CompletionContext) => {
      const word = context.matchBefore(/[\w$]*/);
      const before = context.state.sliceDoc(Math.max(0, context.pos - 1), context.pos);
      if (!context.explicit && (word === null || word.from === word.to) && !/[."']/.test(before)) return null;
      // The worker has to know the text as it is now.
      latest.current.onEdit(context.state.doc.toString());
      const found = await latest.current.complete(context.pos);
      return { from: word?.from ?? context.pos, options: found.map(({ label, kind }) => ({ label, type: kind === 'method' ? 'function' : kind === 'getter' || kind === 'property' ? 'property' : 'variable' })), validFor: /^[\w$]*$/ };
    };
    const hover = hoverTooltip(async (_view, position) => {
      const found = await latest.current.explain(position);
      if (found === null) return null;
      return {
        pos: found.from,
        end: found.to,
        create: () => {
          const dom = document.createElement('div');
          dom.className = 'tv-explain';
          dom.textContent = found.documentation === '' ? found.signature : `${found.signature}\n\n${found.documentation}`;
          return { dom };
        },
      };
    });
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: latest.current.text,
        extensions: [
          lineNumbers(),
          notesField,
          hitsGutter,
          history(),
          drawSelection(),
          highlightActiveLine(),
          EditorState.allowMultipleSelections.of(true),
          indentOnInput(),
          indentUnit.of('  '),
          bracketMatching(),
          highlightSelectionMatches(),
          search({ top: true }),
          javascript({ typescript: true }),
          syntaxHighlighting(ink),
          autocompletion({ override: [completions], icons: false }),
          hover,
          linter(() => asDiagnostics(latest.current.diagnoses, latest.current.text), { delay: 60_000 }),
          lintGutter(),
          look,
          EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': `Script ${latest.current.name}` }),
          keymap.of([...defaultKeymap, ...historyKeymap, ...searchKeymap, indentWithTab]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.onEdit(update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, [props.name]);

  // A text that came from elsewhere, such as the other side of a conflict.
  useEffect(() => {
    const made = view.current;
    if (made === null || made.state.doc.toString() === props.text) return;
    made.dispatch({ changes: { from: 0, to: made.state.doc.length, insert: props.text } });
  }, [props.text, props.name]);

  useEffect(() => {
    if (view.current !== null) forceLinting(view.current);
  }, [props.diagnoses, props.name]);

  useEffect(() => {
    view.current?.dispatch({ effects: setNotes.of(props.notes) });
  }, [props.notes, props.name]);

  useEffect(() => {
    const made = view.current;
    if (made === null || props.goTo === null || props.goTo.line > made.state.doc.lines) return;
    const { from } = made.state.doc.line(props.goTo.line);
    made.dispatch({ selection: { anchor: from }, effects: EditorView.scrollIntoView(from, { y: 'center' }) });
    made.focus();
  }, [props.goTo, props.name]);

  return <div ref={host} style={{ height: '100%', overflow: 'hidden' }} />;
}

function asDiagnostics(diagnoses: readonly Diagnosis[], text: string): Diagnostic[] {
  return diagnoses
    .filter((diagnosis) => diagnosis.from <= text.length)
    .map((diagnosis) => ({ from: diagnosis.from, to: Math.min(diagnosis.to, text.length), severity: diagnosis.severity, message: diagnosis.says }));
}
