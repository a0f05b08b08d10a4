import ts from 'typescript-classic';
import type { Mistake } from './mistake';

/** A behaviour that ties no handler and keeps no rule: it is read once and never does anything. */
export const idleBehaviour: Mistake = {
  code: 'idle-behaviour',
  title: 'A behaviour that does nothing',
  severity: 'warning',
  find({ flow, file }) {
    const [first] = file.statements.filter((statement) => !ts.isEmptyStatement(statement));
    if (first === undefined || flow.blocks.length > 0) return [];
    return [
      {
        from: first.getStart(file),
        to: Math.min(first.getEnd(), first.getStart(file) + 60),
        says: 'This behaviour ties nothing: no on.… and no keep. It is read once when the form opens and never does anything.',
        fixes: [],
      },
    ];
  },
};
