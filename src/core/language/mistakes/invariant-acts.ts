import type ts from 'typescript-classic';
import type { Act } from '../acts';
import type { Finding, Mistake } from './mistake';

/** An invariant that changes something: it says whether something holds, and fails where it does more. */
export const invariantActs: Mistake = {
  code: 'invariant-acts',
  title: 'An invariant that changes something',
  severity: 'error',
  find({ flow, file }) {
    const found = new Map<ts.Node, Finding>();
    for (const { acts } of flow.blocks.filter(({ sort }) => sort === 'invariant'))
      for (const act of acts) {
        const does = doneBy(act);
        if (does !== null)
          found.set(act.node, {
            from: act.node.getStart(file),
            to: act.node.getEnd(),
            says: `${does} in an invariant, which only reads and returns whether what it says holds. Do this in a handler or a rule.`,
            fixes: [],
          });
      }
    return [...found.values()];
  },
};

/** What an act does that no invariant may; null for one that only reads. */
function doneBy(act: Act): string | null {
  switch (act.type) {
    case 'write':
      return act.op === '='
        ? `${act.part}.${act.aspect} is written`
        : `${act.part}.${act.aspect} is changed`;
    case 'part':
      return act.how === 'assigned' ? `${act.part} is written` : null;
    case 'await':
      return 'Something is waited for';
    case 'do':
      return `${act.part === null ? act.what : `${act.part}.${act.what.replace(/^.*\./, '')}`}() is called`;
    case 'clock':
      return act.what === 'Math.random()' ? 'Math.random() is asked' : null;
    case 'state':
      // What is kept for the next run to be quicker changes nothing.
      return act.put === null ? `The variable ${act.name} is ${act.how}` : null;
    default:
      return null;
  }
}
