import type ts from 'typescript-classic';
import { actsOf } from '../acts';
import type { Finding, Mistake } from './mistake';

/** A rule that asks the clock or chance: time passing is no change, so the rule does not run again. */
export const clockInRule: Mistake = {
  code: 'clock-in-rule',
  title: 'A rule that asks the clock or chance',
  severity: 'warning',
  find({ flow, file }) {
    const found = new Map<ts.Node, Finding>();
    for (const block of flow.blocks.filter(({ sort }) => sort === 'rule')) {
      for (const { node, what } of actsOf(block, 'clock')) {
        found.set(node, {
          from: node.getStart(file),
          to: node.getEnd(),
          says: `${what} is asked in a rule, but a rule runs again only when a part it reads changes, not when time passes. Take the moment in a handler and keep it in a field; for a day use Temporal.Now.plainDateISO().`,
          fixes: [],
        });
      }
    }
    return [...found.values()];
  },
};
