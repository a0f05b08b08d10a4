'use client';
/** The editor of one behaviour: CodeMirror with the language worker behind it, and what the last step did at each line. */
import { closeBrackets, closeBracketsKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import {
  bracketMatching,
  codeFolding,
  foldGutter,
  foldKeymap,
  indentOnInput,
  indentUnit,
} from '@codemirror/language';
import { forceLinting, linter, lintGutter, lintKeymap, type Diagnostic } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState, StateEffect } from '@codemirror/state';
import {
  crosshairCursor,
  drawSelection,
  EditorView,
  highlightActiveLine,
  keymap,
  lineNumbers,
  rectangularSelection,
} from '@codemirror/view';
import { useEffect, useRef } from 'react';
import { useStore } from 'zustand';
import { baseName, isModule } from '@/core/script/script-name';
import type { Finding } from '@/core/explore/finding';
import type { Fix } from '@/core/language/mistakes/mistake';
import type { Diagnostic as ScriptDiagnostic } from '@/core/language/answers';
import type { LineNote } from '@/core/tape/lines';
import { helpFor, lightUp, type HelpProps } from './editor-help';
import { editorLook } from './editor-look';
import {
  breakpointGutter,
  pressedBeside,
  setBreakpoints,
  setStanding,
  standingLine,
} from './editor-breakpoints';
import { gapsOf } from '@/core/testing/coverage';
import { coverageGutter, setGaps } from './editor-coverage';
import { lineNotes, setNotes } from './editor-notes';
import type { Bench } from '../create-bench';
import type { EditorHandle } from './state';

/** What is wrong is another, though the text is the same. */
const lookAgain = StateEffect.define<null>();

export interface EditorProps {
  bench: Bench;
  name: string;
  text: string;
  diagnostics: readonly ScriptDiagnostic[];
  /** What the search has found at lines. */
  found: readonly { line: number; says: string; finding: Finding }[];
  notes: readonly LineNote[];
  /** The line that is stood on; null for none. */
  standing: number | null;
  goTo: { line: number; takesFocus: boolean; count: number } | null;
  valueNow: HelpProps['valueNow'];
  /** Asks for a new name of something that belongs to the behaviour alone. */
  onRename: (old: string, apply: (to: string) => void) => void;
}

export default function Editor(props: EditorProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  useEffect(() => {
    latest.current = props;
  });

  useEffect(() => {
    const { bench, name } = latest.current;
    const text = () => made.state.doc.toString();
    const cursor = () => made.state.selection.main.head;
    const onDefine = async (position: number) => {
      const target = await bench.core.languageWorker().define(name, position);
      if (target?.is === 'part') bench.form.reveal(target.part);
      else if (target?.is === 'place' && target.file === name) goToOffset(made, target.from);
      else if (target?.is === 'place') bench.code.goToOffset(target.file, target.from);
    };
    const onUses = async (position: number) => {
      const target = await bench.core.languageWorker().define(name, position);
      if (target?.is === 'part') await bench.code.usesOfPart(target.part);
      else
        bench.code.usesOfName(
          wordAt(made, position),
          await bench.core.languageWorker().references(name, position),
        );
    };
    const onRename = async (position: number) => {
      const target = await bench.core.languageWorker().define(name, position);
      if (target?.is === 'part') return bench.goTo({ is: 'part', part: target.part });
      // What a module declares may be used by any form.
      if (target?.is === 'place' && isModule(target.file))
        return latest.current.onRename(wordAt(made, position), (to) => {
          void bench.code.renameExport(target.file, target.from, to);
        });
      latest.current.onRename(wordAt(made, position), (to) => {
        void bench.core
          .languageWorker()
          .rename(name, position, to)
          .then(
            (edits) =>
              edits !== null &&
              made.dispatch({
                changes: edits.map(({ from, to: end, text: insert }) => ({
                  from,
                  to: end,
                  insert,
                })),
              }),
          );
      });
    };
    const handle: EditorHandle = {
      insert(given) {
        made.dispatch(made.state.replaceSelection(given), {
          scrollIntoView: true,
          userEvent: 'input.paste',
        });
        made.focus();
      },
      format() {
        void bench.core
          .languageWorker()
          .format({ name, text: text() }, cursor())
          .then((formatted) => {
            if (formatted === null)
              return bench.screen.say('This does not parse, so it was not formatted.');
            if (formatted.text !== text())
              made.dispatch({
                changes: { from: 0, to: made.state.doc.length, insert: formatted.text },
                selection: { anchor: Math.min(formatted.position, formatted.text.length) },
                scrollIntoView: true,
              });
          });
      },
      define: () => void onDefine(cursor()),
      uses: () => void onUses(cursor()),
      rename: () => void onRename(cursor()),
      fix() {
        const line = made.state.doc.lineAt(cursor());
        const near = latest.current.diagnostics
          .filter(({ from, to }) => from <= line.to && to >= line.from)
          .toSorted((a, b) => distance(a, cursor()) - distance(b, cursor()));
        const found = latest.current.text;
        const [ours] = near.flatMap(({ fixes }) => fixes);
        if (ours !== undefined) return mend(made, ours, found);
        // What the compiler would do is asked for only now, since it takes its time.
        void Promise.all(
          near.map((diagnosis) => bench.core.languageWorker().compilerFixes(name, diagnosis)),
        ).then((all) => {
          const [theirs] = all.flat();
          if (theirs === undefined)
            bench.screen.say('Nothing in this line can be mended by itself.');
          else mend(made, theirs, found);
        });
      },
    };
    const act = (what: keyof EditorHandle) => () => {
      (handle[what] as () => void)();
      return true;
    };
    const pressed = (line: number) =>
      void bench.tape.addBreakpoint({ is: 'line', script: baseName(name), line });
    const made: EditorView = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: latest.current.text,
        selection: {
          anchor: Math.min(bench.code.cursors.get(name) ?? 0, latest.current.text.length),
        },
        extensions: [
          breakpointGutter(pressed),
          lineNumbers({ domEventHandlers: pressedBeside(pressed) }),
          standingLine,
          lineNotes,
          coverageGutter,
          codeFolding(),
          foldGutter({ openText: '⌄', closedText: '›' }),
          history(),
          drawSelection(),
          rectangularSelection(),
          crosshairCursor(),
          highlightActiveLine(),
          EditorState.allowMultipleSelections.of(true),
          EditorState.readOnly.of(bench.core.isReleased),
          indentOnInput(),
          indentUnit.of('  '),
          bracketMatching(),
          closeBrackets(),
          highlightSelectionMatches(),
          search({ top: true }),
          javascript({ typescript: true }),
          helpFor({
            bench,
            name,
            text,
            valueNow: (part) => latest.current.valueNow(part),
            onDefine: (at) => void onDefine(at),
            onUses: (at) => void onUses(at),
            onRename: (at) => void onRename(at),
          }),
          linter(
            (editor) => [
              ...asDiagnostics(latest.current.diagnostics, latest.current.text, bench),
              ...ofFound(latest.current.found, editor, bench),
            ],
            {
              delay: 60_000,
              needsRefresh: ({ transactions }) =>
                transactions.some(({ effects }) => effects.some((one) => one.is(lookAgain))),
            },
          ),
          lintGutter(),
          editorLook,
          EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': `Script ${name}` }),
          EditorView.domEventHandlers({
            mousedown(event, editor) {
              if (!event.ctrlKey && !event.metaKey) return false;
              const position = editor.posAtCoords({ x: event.clientX, y: event.clientY });
              if (position === null) return false;
              void onDefine(position);
              return true;
            },
          }),
          keymap.of([
            { key: 'F12', run: act('define') },
            { key: 'Shift-F12', run: act('uses') },
            { key: 'F2', run: act('rename') },
            { key: 'Mod-.', run: act('fix') },
            { key: 'Shift-Alt-f', run: act('format') },
            ...closeBracketsKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            ...searchKeymap,
            ...foldKeymap,
            ...lintKeymap,
            indentWithTab,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) bench.code.edit(name, update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = made;
    if (cursor() > 0)
      made.dispatch({ effects: EditorView.scrollIntoView(cursor(), { y: 'center' }) });
    const detach = bench.code.attach(handle);
    const dim = bench.screen.light.subscribe(({ part, from }) => {
      if (from === 'form') lightUp(made, part);
    });
    return () => {
      bench.code.cursors.set(name, cursor());
      detach();
      dim();
      made.destroy();
    };
  }, [props.name]);

  // A text that came from elsewhere, such as the other side of a conflict or a former revision.
  useEffect(() => {
    const made = view.current;
    if (made === null || made.state.doc.toString() === props.text) return;
    made.dispatch({ changes: { from: 0, to: made.state.doc.length, insert: props.text } });
  }, [props.text, props.name]);

  useEffect(() => {
    view.current?.dispatch({ effects: lookAgain.of(null) });
    if (view.current !== null) forceLinting(view.current);
  }, [props.diagnostics, props.found, props.name]);

  useEffect(() => {
    view.current?.dispatch({ effects: setNotes.of(props.notes) });
  }, [props.notes, props.name]);

  const measured = useStore(props.bench.tests.store, ({ coverage }) =>
    coverage.scripts?.find((one) => one.name === baseName(props.name)),
  );
  useEffect(() => {
    view.current?.dispatch({
      effects: setGaps.of(measured === undefined ? [] : gapsOf(measured.coverage)),
    });
  }, [measured, props.name]);

  useEffect(() => {
    view.current?.dispatch({ effects: setStanding.of(props.standing) });
  }, [props.standing, props.name]);

  const breakpoints = useStore(props.bench.tape.store, (state) => state.breakpoints);
  useEffect(() => {
    view.current?.dispatch({
      effects: setBreakpoints.of(
        breakpoints.flatMap(({ at }) =>
          at.is === 'line' && at.script === baseName(props.name) ? [at.line] : [],
        ),
      ),
    });
  }, [breakpoints, props.name]);

  useEffect(() => {
    const made = view.current;
    if (made === null || props.goTo === null || props.goTo.line > made.state.doc.lines) return;
    goToOffset(made, made.state.doc.line(props.goTo.line).from, props.goTo.takesFocus);
  }, [props.goTo, props.name]);

  return <div ref={host} style={{ height: '100%', overflow: 'hidden' }} />;
}

function goToOffset(view: EditorView, offset: number, takesFocus = true): void {
  view.dispatch({
    selection: { anchor: offset },
    effects: EditorView.scrollIntoView(offset, { y: 'center' }),
  });
  if (takesFocus) view.focus();
}

function wordAt(view: EditorView, position: number): string {
  const word = view.state.wordAt(position);
  return word === null ? '' : view.state.sliceDoc(word.from, word.to);
}

function distance({ from, to }: ScriptDiagnostic, position: number): number {
  return position < from ? from - position : position > to ? position - to : 0;
}

/** `found` is the text it was found in; in another one its places would be wrong. */
function mend(view: EditorView, { edits }: Fix, found: string): void {
  if (view.state.doc.toString() !== found) return;
  view.dispatch({
    changes: edits.map(({ from, to, text }) => ({ from, to, insert: text })),
    userEvent: 'input.complete',
  });
  view.focus();
}

/** What the search has found, at the lines that say it. */
function ofFound(found: EditorProps['found'], { state }: EditorView, bench: Bench): Diagnostic[] {
  return found
    .filter(({ line }) => line <= state.doc.lines)
    .map(({ line, says, finding }) => {
      const { from, to, text } = state.doc.line(line);
      return {
        from: from + text.length - text.trimStart().length,
        to,
        severity: 'error',
        message: says,
        actions: [
          { name: 'Open', apply: () => void bench.faults.open(finding) },
          { name: 'Keep as a scenario', apply: () => void bench.faults.keep(finding) },
          { name: 'All faults', apply: () => bench.tests.open('faults') },
        ],
      };
    });
}

function asDiagnostics(
  diagnostics: readonly ScriptDiagnostic[],
  text: string,
  bench: Bench,
): Diagnostic[] {
  return diagnostics
    .filter((diagnosis) => diagnosis.from <= text.length)
    .map(({ from, to, severity, says, code, fixes }) => ({
      from,
      to: Math.min(to, text.length),
      severity,
      message: says,
      actions: [
        ...fixes.map((fix) => ({
          name: fix.title,
          apply: (view: EditorView) => mend(view, fix, text),
        })),
        ...(code.startsWith('TS') || code === 'top-level'
          ? []
          : [{ name: 'Read on', apply: () => bench.screen.openHandbook(`mistakes/${code}`) }]),
      ],
    }));
}
