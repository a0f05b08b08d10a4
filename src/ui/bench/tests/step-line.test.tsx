/** A step of a scenario, changed by hand: each kind of step hands on itself with what was changed. */
import { fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import {
  button,
  formWith,
  lookup,
  number,
  page,
  rows,
  section,
  text,
} from '../../../../tests/support/forms';
import type { Step } from '@/core/session/step';
import { StepLine } from './step-line';

afterEach(() => vi.unstubAllGlobals());

const FORM = {
  ...formWith([]),
  pages: [
    page('main', [
      section('stay', [
        text('vessel'),
        number('draught'),
        rows('cargo', [text('goods'), number('weight')]),
        rows('crew', [text('name')]),
      ]),
    ]),
    page('second', [section('more', [text('note')])]),
  ],
  buttons: [button('fill'), button('clear')],
};
const BERTHS = {
  name: 'berths',
  title: 'Berths',
  key: 'code',
  label: 'code',
  columns: [
    { name: 'code', kind: 'text' as const },
    { name: 'depth', kind: 'number' as const },
  ],
  rows: [{ code: 'a', depth: 4 }],
};

function lineOf(step: Step) {
  const { bench } = benchOf({
    form: FORM,
    services: [lookup],
    tables: [BERTHS],
    behaviours: {
      '10-a.ts':
        'on.load(async () => { await services.register.find({ code: "a" }); await services.register.deeper({ than: 1 }); });',
    },
  });
  const onChange = vi.fn<(step: Step) => void>();
  const { container } = drawn(
    <StepLine
      bench={bench}
      step={step as never}
      number={3}
      words="in words"
      placesOf={() => [0, 1]}
      onChange={onChange}
    />,
  );
  return { onChange, says: () => container.textContent };
}
const put = (label: string, value: string) => {
  const input = screen.getByLabelText(label);
  fireEvent.change(input, { target: { value } });
  fireEvent.blur(input);
};

test.each<[Step, string, string, Step]>([
  [{ set: 'vessel', to: 'Tern' }, 'Value of step 3', 'Auk', { set: 'vessel', to: 'Auk' }],
  [{ set: 'vessel', to: 'Tern' }, 'Part of step 3', 'draught', { set: 'draught', to: 'Tern' }],
  [{ input: 'vessel', to: 'T' }, 'Value of step 3', 'Te', { input: 'vessel', to: 'Te' }],
  [{ input: 'vessel', to: 'T' }, 'Part of step 3', 'note', { input: 'note', to: 'T' }],
  [{ focus: 'vessel' }, 'Part of step 3', 'note', { focus: 'note' }],
  [{ blur: 'vessel' }, 'Part of step 3', 'note', { blur: 'note' }],
  [{ click: 'fill' }, 'Part of step 3', 'clear', { click: 'clear' }],
  [{ turnTo: 'main' }, 'Part of step 3', 'second', { turnTo: 'second' }],
  [{ wait: 1000 }, 'Milliseconds of step 3', '250', { wait: 250 }],
  [{ addRow: 'cargo' }, 'Part of step 3', 'crew', { addRow: 'crew' }],
  [
    { addRow: 'cargo' },
    'A cell of the row in step 3',
    'weight',
    { addRow: 'cargo', with: { weight: null } },
  ],
  [
    { addRow: 'cargo', with: { weight: 4 } },
    'Weight of step 3',
    '5',
    { addRow: 'cargo', with: { weight: 5 } },
  ],
  [{ removeRow: 'cargo[0]' }, 'Row of step 3', '3', { removeRow: 'cargo[2]' }],
  [{ removeRow: 'cargo[1]' }, 'Part of step 3', 'crew', { removeRow: 'crew[1]' }],
  [{ moveRow: 'cargo[0]', to: 1 }, 'Row of step 3', '2', { moveRow: 'cargo[1]', to: 1 }],
  [{ moveRow: 'cargo[0]', to: 1 }, 'Place of step 3', '1', { moveRow: 'cargo[0]', to: 0 }],
  [
    { answer: 'register.find', with: null },
    'Part of step 3',
    'register.deeper',
    { answer: 'register.deeper', with: null },
  ],
  [
    { answer: 'register.find', with: null },
    'Value of step 3',
    '{"code":"a"}',
    { answer: 'register.find', with: { code: 'a' } },
  ],
  [
    { answer: 'register.find', with: { code: 'a' } },
    'Answer of step 3',
    'fails',
    { answer: 'register.find', fails: 'is out of order' },
  ],
  [
    { answer: 'register.find', fails: 'closed' },
    'Answer of step 3',
    'answers',
    { answer: 'register.find', with: null },
  ],
  [
    { answer: 'register.find', fails: 'closed' },
    'Value of step 3',
    'shut',
    { answer: 'register.find', fails: 'shut' },
  ],
  [
    { answer: 'register.find', fails: 'closed' },
    'Value of step 3',
    '',
    { answer: 'register.find', fails: 'is out of order' },
  ],
  [
    { fromChild: 'vessel', to: 'Tern' },
    'Value of step 3',
    'Auk',
    { fromChild: 'vessel', to: 'Auk' },
  ],
  [
    { fromChild: 'vessel', to: 'Tern' },
    'Part of step 3',
    'note',
    { fromChild: 'note', to: 'Tern' },
  ],
])('%j with %s as %s', (step, label, value, changed) => {
  const { onChange } = lineOf(step);
  put(label, value);
  expect(onChange).toHaveBeenLastCalledWith(changed);
});

test.each<[Step, string, string]>([
  [{ wait: 1000 }, 'Milliseconds of step 3', '-1'],
  [{ wait: 1000 }, 'Milliseconds of step 3', ''],
  [{ removeRow: 'cargo[0]' }, 'Row of step 3', '0'],
  [{ removeRow: 'cargo[0]' }, 'Row of step 3', '1.5'],
  [{ addRow: 'cargo' }, 'A cell of the row in step 3', ''],
])('%j takes no %s of %j', (step, label, value) => {
  const { onChange } = lineOf(step);
  put(label, value);
  expect(onChange).not.toHaveBeenCalled();
});

test('a cell is taken out of the row that is added; the last one takes the list with it', () => {
  const { onChange } = lineOf({ addRow: 'cargo', with: { goods: 'ore', weight: 4 } });
  expect(screen.queryByLabelText('A cell of the row in step 3')).toBeNull();
  fireEvent.click(screen.getByLabelText('Without Goods in step 3'));
  expect(onChange).toHaveBeenLastCalledWith({ addRow: 'cargo', with: { weight: 4 } });
});

test('without a cell the row brings nothing', () => {
  const { onChange } = lineOf({ addRow: 'cargo', with: { goods: 'ore' } });
  fireEvent.click(screen.getByLabelText('Without Goods in step 3'));
  expect(onChange).toHaveBeenLastCalledWith({ addRow: 'cargo' });
});

test('several rows at once are counted, and not changed here', () => {
  const { says } = lineOf({ addRow: 'cargo', with: [{ goods: 'ore' }, {}] });
  expect(says()).toContain(', 2 at once');
  expect(screen.queryByLabelText('A cell of the row in step 3')).toBeNull();
});

test('a part that is gone stays under its name', () => {
  lineOf({ click: 'gone' });
  const list = screen.getByLabelText<HTMLSelectElement>('Part of step 3');
  expect([list.value, list.options.length]).toEqual(['gone', 3]);
});

test.each<Step>([{ submit: true }, { next: true }, { answer: 'register.find', usual: true }])(
  '%j is said in words',
  (step) => {
    const { says } = lineOf(step);
    expect(says()).toBe('3in words');
  },
);
