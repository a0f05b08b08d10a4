import { expect, test } from 'vitest';
import { formWith, number, section, text, yesNo } from '../../../tests/support/forms';
import { direct } from '../../../tests/support/hosts';
import { linesOf } from './field-lines';

const half = { width: 'half' };

test('9 a hidden part closes up; one with keepsSpace leaves its place empty', () => {
  const fields = [
    text('a', half),
    text('b', half),
    number('c', half),
    text('kept', { ...half, keepsSpace: true }),
    text('d', half),
    text('whole'),
    yesNo('off'),
  ];
  const form = formWith(fields);
  const open = direct(
    {
      form,
      scripts: {
        a: 'keep("r", () => { const off = fields.off.value === true; fields.b.shown = !off; fields.kept.shown = !off; fields.whole.shown = !off; });',
      },
    },
    false,
  );
  const lines = () =>
    linesOf(section('stay', fields), open.seen).map((line) => line.map(({ name }) => name));
  expect(lines()).toEqual([['a', 'b'], ['c', 'kept'], ['d'], ['whole'], ['off']]);
  open.do({ set: 'off', to: true });
  // b and whole close up, kept holds its place beside d.
  expect([lines(), open.part('kept').onScreen]).toEqual([
    [['a', 'c'], ['kept', 'd'], ['off']],
    false,
  ]);
});

test('as many half fields stand beside each other as the section has columns', () => {
  const fields = ['a', 'b', 'c', 'd'].map((name) => text(name, half));
  const { seen } = direct({ form: formWith(fields) }, false);
  expect(linesOf(section('stay', fields, { columns: 3 }), seen).map((line) => line.length)).toEqual(
    [3, 1],
  );
});
