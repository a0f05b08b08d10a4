import ts from 'typescript-classic';
import { nearest } from '../../wire/failures';
import type { Finding, Mistake } from './mistake';

/** A launch parameter asked for by a name that the form does not declare, and that is nearly one of those it does. */
export const launchOfNoName: Mistake = {
  code: 'launch-of-no-name',
  title: 'A launch parameter that the form does not declare',
  severity: 'error',
  find({ file, parts }) {
    const names = (parts.form.launch ?? []).map(({ name }) => name);
    const found: Finding[] = [];
    const look = (node: ts.Node): void => {
      if (ts.isPropertyAccessExpression(node) && node.expression.getText(file) === 'form.launch') {
        const meant = names.includes(node.name.text) ? null : nearest(node.name.text, names);
        const [from, to] = [node.name.getStart(file), node.name.getEnd()];
        if (meant !== null)
          found.push({
            from,
            to,
            says: `The form declares the launch parameter ${meant}, and none that is called ${node.name.text}.`,
            fixes: [{ title: `Use ${meant}`, edits: [{ from, to, text: meant }] }],
          });
      }
      ts.forEachChild(node, look);
    };
    look(file);
    return found;
  },
};
