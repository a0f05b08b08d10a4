/** Breakpoints in the gutter, and the line of the moment that is looked at. */
import { RangeSet, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, gutter, GutterMarker, type DecorationSet } from '@codemirror/view';

export const setBreakpoints = StateEffect.define<readonly number[]>();
export const setStanding = StateEffect.define<number | null>();

class Dot extends GutterMarker {
  override toDOM(): Node {
    const dot = document.createElement('span');
    dot.className = 'tv-breakpoint';
    dot.textContent = '●';
    dot.title = 'Breakpoint; press to remove it';
    return dot;
  }
}

const DOT = new Dot();

const breakpoints = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update(set, transaction) {
    let next = set.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(setBreakpoints))
        next = RangeSet.of(
          effect.value
            .filter((line) => line <= transaction.state.doc.lines)
            .toSorted((a, b) => a - b)
            .map((line) => DOT.range(transaction.state.doc.line(line).from)),
        );
    return next;
  },
});

/** What a gutter listens to; `press` is told the line beside which somebody pressed. */
export function pressedBeside(press: (line: number) => void) {
  return {
    mousedown(view: EditorView, block: { from: number }): boolean {
      press(view.state.doc.lineAt(block.from).number);
      return true;
    },
  };
}

export function breakpointGutter(press: (line: number) => void): Extension {
  return [
    breakpoints,
    gutter({
      class: 'tv-breakpoints',
      markers: (view) => view.state.field(breakpoints),
      initialSpacer: () => DOT,
      domEventHandlers: pressedBeside(press),
    }),
  ];
}

const NONE: DecorationSet = Decoration.none;

export const standingLine = StateField.define<DecorationSet>({
  create: () => NONE,
  update(set, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setStanding))
        return effect.value === null || effect.value > transaction.state.doc.lines
          ? NONE
          : Decoration.set([
              Decoration.line({ class: 'tv-standing' }).range(
                transaction.state.doc.line(effect.value).from,
              ),
            ]);
    return transaction.docChanged ? NONE : set;
  },
  provide: (field) => EditorView.decorations.from(field),
});
