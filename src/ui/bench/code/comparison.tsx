'use client';
/** Two texts of a script as one, with what went and what came. */
import { javascript } from '@codemirror/lang-javascript';
import { unifiedMergeView } from '@codemirror/merge';
import { EditorState } from '@codemirror/state';
import { EditorView, lineNumbers } from '@codemirror/view';
import { Box } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { editorLook } from './editor-look';

export function Comparison({
  before,
  after,
  label,
}: {
  /** Null where there was none before, so that nothing of it is new. */
  before: string | null;
  after: string;
  label: string;
}) {
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const view = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: after,
        extensions: [
          lineNumbers(),
          javascript({ typescript: true }),
          editorLook,
          differenceLook,
          EditorState.readOnly.of(true),
          EditorView.editable.of(false),
          EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': label }),
          before === null
            ? []
            : unifiedMergeView({
                original: before,
                mergeControls: false,
                highlightChanges: true,
                collapseUnchanged: { margin: 3, minSize: 6 },
              }),
        ],
      }),
    });
    return () => view.destroy();
  }, [before, after, label]);
  return <Box ref={host} flex="1" minW={0} css={{ '& .cm-editor': { height: '100%' } }} />;
}

const differenceLook = EditorView.theme({
  '.cm-deletedChunk': { backgroundColor: 'var(--tavro-colors-bad-ground)' },
  '.cm-deletedChunk::before': {
    content: '"−"',
    color: 'var(--tavro-colors-bad)',
    position: 'absolute',
    marginLeft: '-2px',
  },
  '.cm-changedLine, .cm-insertedLine': {
    backgroundColor: 'var(--tavro-colors-act-ground) !important',
  },
  '.cm-changedText, .cm-deletedText': {
    background: 'none !important',
    textDecoration: 'underline',
  },
  '.cm-collapsedLines': {
    background: 'var(--tavro-colors-ground)',
    color: 'var(--tavro-colors-soft)',
  },
  '.cm-collapsedLines::before, .cm-collapsedLines::after': { content: '"…"' },
  '.cm-changedLineGutter': { background: 'var(--tavro-colors-act)' },
  '.cm-deletedLineGutter': { background: 'var(--tavro-colors-bad)' },
});
