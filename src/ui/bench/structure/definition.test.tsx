/** The definition of one part, edited on a whole bench. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import {
  button,
  choice,
  formWith,
  number,
  page,
  rows,
  section,
  text,
  track,
} from '../../../../tests/support/forms';
import { placeOf } from '@/core/structure/edit';
import { Definition } from './definition';

afterEach(() => vi.unstubAllGlobals());

const FORM = {
  ...formWith([]),
  pages: [
    page('main', [
      section('stay', [
        text('vessel'),
        number('draught'),
        choice('pilot', ['own']),
        rows('cargo', [text('goods')]),
      ]),
      section('other', [text('note')]),
    ]),
    page('second', [section('more', [text('licence')])]),
  ],
  buttons: [button('fill')],
  tracks: [track('works', ['asked'])],
};

async function definitionOf(part: string) {
  const { bench } = benchOf({ form: FORM });
  await bench.structure.prepare();
  drawn(<Definition bench={bench} part={part as never} />);
  return {
    bench,
    now: () =>
      placeOf(bench.core.form(), part as never)!.definition as unknown as Record<string, unknown>,
  };
}
const labels = () =>
  [...document.querySelectorAll('label')].map(
    (one) =>
      // What stands in a list is not its label.
      (one.firstElementChild?.tagName === 'INPUT'
        ? one.textContent
        : one.firstElementChild?.textContent) ?? '',
  );
const put = (label: string | RegExp, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fireEvent.blur(screen.getByLabelText(label));
};

const OF_FIELDS = [
  'Help, below the field',
  'Hint, until a script says another',
  'Warning, until a script says another',
];

test.each<[string, string, string[], string[]]>([
  [
    'vessel',
    'text',
    [
      'Label',
      ...OF_FIELDS,
      'required',
      'only scripts write it',
      'keeps its space',
      'locked from the start',
      'hidden from the start',
      'When hidden',
      'Width',
      'Mask',
      'Move to',
    ],
    ['Title', 'Columns'],
  ],
  ['cargo.goods', 'text', ['Label', 'required'], ['Move to']],
  [
    'stay',
    'section',
    ['Title', 'keeps its space', 'locked from the start', 'Columns', 'Move to'],
    ['required', 'Width', ...OF_FIELDS],
  ],
  [
    'main',
    'page',
    ['Title', 'locked from the start', 'hidden from the start'],
    ['keeps its space', 'required', 'Move to'],
  ],
  ['fill', 'button', ['Label', 'Stands in', 'locked from the start'], ['required', 'Move to']],
  [
    'works',
    'track',
    ['Title', 'hidden from the start', 'Stage it begins at'],
    ['locked from the start', 'required'],
  ],
])('%s, a %s, has what it has and nothing else', async (part, kind, there, not) => {
  await definitionOf(part);
  expect(screen.getAllByText(new RegExp(`^${kind}`)).length).toBeGreaterThan(0);
  expect(labels()).toEqual(expect.arrayContaining(there));
  for (const label of not) expect(labels()).not.toContain(label);
});

test('what is entered is how it is defined, and what is taken back is gone', async () => {
  const { now } = await definitionOf('vessel');
  put('Label', 'Name of the vessel');
  put('Help, below the field', 'As on the hull.');
  fireEvent.click(screen.getByLabelText('required'));
  put('When hidden', 'clear');
  put('Width', 'half');
  expect(now()).toMatchObject({
    label: 'Name of the vessel',
    help: 'As on the hull.',
    required: true,
    whenHidden: 'clear',
    width: 'half',
  });
});

test('a label is never empty', async () => {
  const { now } = await definitionOf('vessel');
  put('Label', ' ');
  expect(now().label).toBe('Vessel');
});

test('a field moves to the end of another section, and a section to another page', async () => {
  const { bench } = await definitionOf('vessel');
  put('Move to', 'other');
  const [main] = bench.core.form().pages;
  expect(main!.sections.map(({ fields }) => fields.map(({ name }) => name))).toEqual([
    ['draught', 'pilot', 'cargo'],
    ['note', 'vessel'],
  ]);
});

test('a section moves to another page', async () => {
  const { bench } = await definitionOf('stay');
  put('Move to', 'second');
  expect(bench.core.form().pages.map(({ sections }) => sections.map(({ name }) => name))).toEqual([
    ['other'],
    ['more', 'stay'],
  ]);
});

test.each([
  ['pilot', 'Options'],
  ['works', 'Stages'],
])('%s has its %s', async (part, title) => {
  await definitionOf(part);
  expect(screen.getByRole('group', { name: title })).toBeTruthy();
});

test('a part that is gone says so', async () => {
  const { bench } = await definitionOf('vessel');
  bench.structure.edit({ do: 'remove', part: 'vessel' } as never);
  await waitFor(() => expect(screen.getByText('This part is gone.')).toBeTruthy());
});
