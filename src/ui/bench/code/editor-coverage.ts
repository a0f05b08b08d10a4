/** Lines that the scenarios do not reach, and conditions that they meet one way only, in the gutter. */
import { RangeSet, StateEffect, StateField, type Extension } from '@codemirror/state';
import { gutter, GutterMarker } from '@codemirror/view';
import type { Gap } from '@/core/testing/coverage';

export const setGaps = StateEffect.define<readonly Gap[]>();

class GapMarker extends GutterMarker {
  constructor(readonly gap: Gap) {
    super();
  }
  override eq(other: GapMarker): boolean {
    return other.gap.says === this.gap.says;
  }
  override toDOM(): Node {
    const mark = document.createElement('span');
    mark.className = 'tv-gap';
    mark.textContent = this.gap.reached ? '◐' : '○';
    mark.title = `In the scenarios: ${this.gap.says}`;
    return mark;
  }
}

const gaps = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update(set, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setGaps))
        return RangeSet.of(
          effect.value
            .filter(({ line }) => line <= transaction.state.doc.lines)
            .map((gap) => new GapMarker(gap).range(transaction.state.doc.line(gap.line).from)),
        );
    // They are of the text that was measured.
    return transaction.docChanged ? RangeSet.empty : set;
  },
});

export const coverageGutter: Extension = [
  gaps,
  gutter({ class: 'tv-gaps', markers: (view) => view.state.field(gaps) }),
];
