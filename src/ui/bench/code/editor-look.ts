/** The colours and spacing of the editor, from the tokens of the theme. */
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';

const ink = HighlightStyle.define([
  {
    tag: [tags.keyword, tags.controlKeyword, tags.operatorKeyword, tags.definitionKeyword],
    color: 'var(--tavro-colors-act)',
  },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--tavro-colors-key-ink)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--tavro-colors-key-ink)' },
  { tag: [tags.comment, tags.docComment], color: 'var(--tavro-colors-soft)' },
]);

const look = EditorView.theme({
  '&': {
    height: '100%',
    fontSize: '12px',
    backgroundColor: 'var(--tavro-colors-sheet)',
    color: 'var(--tavro-colors-ink)',
  },
  '.cm-scroller': {
    fontFamily: "'Atkinson Hyperlegible Mono Variable', monospace",
    lineHeight: '20px',
  },
  '.cm-lineNumbers .cm-gutterElement': { padding: '0 2px 0 0', minWidth: '18px' },
  '.cm-foldGutter .cm-gutterElement': { padding: '0' },
  '.cm-content': { padding: '8px 0', caretColor: 'var(--tavro-colors-ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--tavro-colors-ink)' },
  '.cm-gutters': {
    backgroundColor: 'var(--tavro-colors-sheet)',
    color: 'var(--tavro-colors-soft)',
    border: 'none',
  },
  '.tv-hits': {
    color: 'var(--tavro-colors-said)',
    fontSize: '10.5px',
    minWidth: '16px',
    paddingLeft: '3px',
    textAlign: 'left',
  },
  '.tv-gaps': { minWidth: '2px' },
  '.tv-gap': { color: 'var(--tavro-colors-said)', paddingRight: '2px', cursor: 'help' },
  '.tv-breakpoints': { width: '10px', cursor: 'pointer' },
  '.tv-breakpoint': { color: 'var(--tavro-colors-bad)', paddingLeft: '3px' },
  '.tv-standing': {
    backgroundColor: 'var(--tavro-colors-said-ground)',
    boxShadow: 'inset 3px 0 0 var(--tavro-colors-said-edge)',
  },
  '.cm-activeLine': {
    backgroundColor: 'color-mix(in srgb, var(--tavro-colors-act-ground) 45%, transparent)',
  },
  '.cm-activeLineGutter': { backgroundColor: 'transparent' },
  '.cm-selectionBackground, &.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground':
    { backgroundColor: 'color-mix(in srgb, var(--tavro-colors-act) 22%, transparent)' },
  // A long note must not widen the code; the whole of it is in its title and on the tape.
  '.tv-value, .tv-failed': {
    display: 'inline-block',
    maxWidth: '44ch',
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    whiteSpace: 'pre',
    verticalAlign: 'bottom',
    fontSize: '11.5px',
    marginLeft: '18px',
  },
  '.tv-value': { color: 'var(--tavro-colors-said)' },
  '.tv-failed': { color: 'var(--tavro-colors-bad)' },
  '.tv-failed-line': { backgroundColor: 'var(--tavro-colors-bad-ground)' },
  '.cm-tooltip': {
    backgroundColor: 'var(--tavro-colors-sheet)',
    color: 'var(--tavro-colors-ink)',
    border: '1px solid var(--tavro-colors-line)',
    borderRadius: '4px',
    maxWidth: '460px',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--tavro-colors-act)',
    color: 'var(--tavro-colors-on-act)',
  },
  '.tv-explain': { padding: '6px 10px', whiteSpace: 'pre-wrap', fontSize: '12.5px' },
  '.tv-explain .tv-now': { color: 'var(--tavro-colors-said)' },
  '.tv-acts': {
    display: 'flex',
    gap: '12px',
    padding: '4px 10px',
    borderTop: '1px solid var(--tavro-colors-line)',
    fontSize: '12.5px',
  },
  '.tv-acts button': {
    color: 'var(--tavro-colors-act)',
    textDecoration: 'underline',
    textUnderlineOffset: '3px',
    cursor: 'pointer',
  },
  '.tv-signature b': { color: 'var(--tavro-colors-act)', fontWeight: '700' },
  '.tv-lit': {
    backgroundColor: 'var(--tavro-colors-said-ground)',
    outline: '1px solid var(--tavro-colors-said-edge)',
    borderRadius: '2px',
  },
  '.cm-completionDetail': {
    fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif",
    fontStyle: 'normal',
    color: 'var(--tavro-colors-soft)',
    marginLeft: '14px',
  },
  'li[aria-selected] .cm-completionDetail': { color: 'inherit' },
  '.cm-completionInfo': { whiteSpace: 'pre-wrap', fontSize: '12px', maxWidth: '360px' },
  '.cm-foldPlaceholder': {
    backgroundColor: 'var(--tavro-colors-ground)',
    border: '1px solid var(--tavro-colors-line)',
    color: 'var(--tavro-colors-soft)',
    padding: '0 4px',
  },
  '.cm-diagnostic': {
    maxWidth: '440px',
    fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif",
    fontSize: '13px',
    borderLeft: 'none',
    padding: '5px 10px',
  },
  '.cm-diagnosticAction': {
    backgroundColor: 'transparent',
    color: 'var(--tavro-colors-act)',
    textDecoration: 'underline',
    textUnderlineOffset: '3px',
    padding: '0',
    margin: '4px 12px 0 0',
    font: 'inherit',
    cursor: 'pointer',
  },
  // A mark and a colour, in the type of the page.
  '.cm-lint-marker': { width: '1em', height: '1em', lineHeight: '1em' },
  '.cm-lint-marker-error': { content: 'none' },
  '.cm-lint-marker-warning': { content: 'none' },
  '.cm-lint-marker-error::before': {
    content: '"×"',
    color: 'var(--tavro-colors-bad)',
    fontWeight: '700',
  },
  '.cm-lint-marker-warning::before': {
    content: '"!"',
    color: 'var(--tavro-colors-said)',
    fontWeight: '700',
  },
  '.cm-gutter-lint': { width: '12px' },
  '.cm-panels': { backgroundColor: 'var(--tavro-colors-ground)', color: 'var(--tavro-colors-ink)' },
});

export const editorLook: Extension = [syntaxHighlighting(ink), look];
