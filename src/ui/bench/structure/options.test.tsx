/** The options of a field and the stages of a track, edited on a whole bench. */
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, type BenchOptions } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { choice, formWith, track } from '../../../../tests/support/forms';
import type { Option } from '@/core/form/definition';
import { useMaterial } from '../common/use-bench';
import type { Bench } from '../create-bench';
import { placeOf } from '@/core/structure/edit';
import { Options } from './options';

afterEach(() => vi.unstubAllGlobals());
// jsdom scrolls nothing.
Element.prototype.scrollIntoView = () => undefined;

const FORM = formWith([choice('pilot', ['own', 'none', 'tug'])], {
  tracks: [track('works', ['asked'])],
});
const NO_USE = { mentions: [], scenarios: [], records: { count: 0, more: false } };

function Shown({ bench, list }: { bench: Bench; list: 'options' | 'stages' }) {
  useMaterial(bench);
  const part = list === 'options' ? 'pilot' : 'works';
  return (
    <Options bench={bench} part={part} list={list} options={listOf(bench, list)} title="Options" />
  );
}

function listOf(bench: Bench, list: 'options' | 'stages'): Option[] {
  const part = list === 'options' ? 'pilot' : 'works';
  return (placeOf(bench.core.form(), part)!.definition as unknown as Record<string, Option[]>)[
    list
  ]!;
}

/** The options on a bench whose server says where a key is used. */
async function optionsWith(
  uses: object | null = NO_USE,
  list: 'options' | 'stages' = 'options',
  answers?: BenchOptions['answers'],
) {
  const { bench, sent } = benchOf({
    form: FORM,
    answers: (asked) =>
      asked.path.includes('/uses')
        ? uses === null
          ? { status: 500, body: { says: 'No.' } }
          : { status: 200, body: uses }
        : (answers?.(asked) ?? { status: 200, body: { revision: 2 } }),
  });
  await bench.structure.prepare();
  drawn(<Shown bench={bench} list={list} />);
  return {
    bench,
    sent,
    now: () => listOf(bench, list).map(({ key, label }) => `${key} ${label}`),
  };
}

const enter = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fireEvent.blur(screen.getByLabelText(label));
};
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
const BEGUN = ['own Own', 'none None', 'tug Tug'];

test('a label changes freely, and is never empty', async () => {
  const { now } = await optionsWith();
  enter('Label of Own', ' Own pilot ');
  enter('Label of Tug', '  ');
  expect(now()).toEqual(['own Own pilot', 'none None', 'tug Tug']);
});

test('options move up and down, as far as there is room', async () => {
  const { now } = await optionsWith();
  expect([button('Own up').disabled, button('Tug down').disabled]).toEqual([true, true]);
  expect([button('Own down').disabled, button('Tug up').disabled]).toEqual([false, false]);
  fireEvent.click(button('Own down'));
  fireEvent.click(button('Tug up'));
  expect(now()).toEqual(['none None', 'tug Tug', 'own Own']);
});

test('a key that nobody uses changes and goes without a question', async () => {
  const { now, sent } = await optionsWith();
  enter('Key of Own', 'mine');
  await waitFor(() => expect(now()).toEqual(['mine Own', 'none None', 'tug Tug']));
  expect(sent[0]!.path).toBe('/api/forms/visit/uses?part=pilot&key=own');
  enter('Key of Own', ' ');
  fireEvent.click(button('Remove None'));
  await waitFor(() => expect(now()).toEqual(['mine Own', 'tug Tug']));
});

test('before a key in use goes it is said where it is used, and whether it goes is decided', async () => {
  const { now } = await optionsWith({
    mentions: Array.from({ length: 5 }, (_, i) => ({ behaviour: 'Pilot', line: i + 1, text: '' })),
    scenarios: ['A', 'B', 'C', 'D'],
    records: { count: 2, more: false },
  });
  fireEvent.click(button('Remove Own'));
  const decision = await screen.findByRole('group', { name: 'The key own is in use' });
  expect(decision.textContent).toContain(
    'Pilot, line 1; Pilot, line 2; Pilot, line 3; Pilot, line 4; scenario “A”; scenario “B”; scenario “C”; 2 records.',
  );
  fireEvent.click(within(decision).getByRole('button', { name: 'Keep it' }));
  expect(now()).toEqual(BEGUN);
  expect(screen.queryByRole('group', { name: /in use/ })).toBeNull();
  fireEvent.click(button('Remove Own'));
  fireEvent.click(await screen.findByRole('button', { name: 'Remove it all the same' }));
  expect(now()).toEqual(['none None', 'tug Tug']);
});

test('what cannot be looked up is not taken for unused', async () => {
  const { now } = await optionsWith(null);
  fireEvent.click(button('Remove Own'));
  expect((await screen.findByRole('group', { name: /in use/ })).textContent).toContain(
    'It could not be looked up whether it is in use.',
  );
  expect(now()).toEqual(BEGUN);
});

const PLAN = {
  applied: false,
  plan: {
    sort: 'field',
    behaviours: [
      {
        form: 'visit',
        name: '10-a.ts',
        title: 'Pilot',
        lines: [{ line: 3, before: '"own"', after: '"mine"' }],
      },
    ],
    scenarios: [{ title: 'With a pilot' }],
    mentions: [{ behaviour: 'Pilot', line: 9 }],
    forms: ['Visit', 'Crew'],
  },
  records: { count: 1, more: false },
};
const USED = { ...NO_USE, scenarios: ['A'] };

test('another key for one in use shows what it changes, and changes it everywhere or only here', async () => {
  const { now, sent } = await optionsWith(USED, 'options', ({ path }) =>
    path.endsWith('/rename') ? { status: 200, body: PLAN } : { status: 200, body: { revision: 2 } },
  );
  enter('Key of Own', 'mine');
  const shown = await screen.findByRole('region', { name: 'What renaming changes' });
  for (const says of [
    '3 "own"',
    '"mine"',
    'Scenarios: With a pilot.',
    '1 record will hold it under the new name.',
    'Definitions: Visit, Crew.',
    'Pilot, line 9',
  ])
    expect(shown.textContent).toContain(says);
  expect(now()).toEqual(BEGUN);
  const asked = () => sent.filter(({ path }) => path.endsWith('/rename')).map(({ body }) => body);
  expect(asked()).toEqual([{ part: 'pilot', key: 'own', to: 'mine', apply: false }]);
  fireEvent.change(screen.getByLabelText('New key'), { target: { value: 'ours' } });
  expect(screen.queryByRole('region', { name: 'What renaming changes' })).toBeNull();
  fireEvent.keyDown(screen.getByLabelText('New key'), { key: 'Enter' });
  await screen.findByRole('region', { name: 'What renaming changes' });
  fireEvent.click(button('Change it everywhere'));
  await waitFor(() =>
    expect(asked().at(-1)).toEqual({ part: 'pilot', key: 'own', to: 'ours', apply: true }),
  );
  fireEvent.click(button('Change it only here'));
  expect(now()).toEqual(['mine Own', 'none None', 'tug Tug']);
});

test('what a renaming would break is said; Esc takes it back', async () => {
  await optionsWith(USED, 'options', ({ path }) =>
    path.endsWith('/rename')
      ? { status: 409, body: { says: 'The key none is there already.' } }
      : { status: 200, body: { revision: 2 } },
  );
  enter('Key of Own', 'none');
  await screen.findByText('The key none is there already.');
  fireEvent.keyDown(screen.getByLabelText('New key'), { key: 'Escape' });
  expect(screen.queryByLabelText('New key')).toBeNull();
});

test('a new option has a key of its label until somebody types one', async () => {
  const { now } = await optionsWith();
  const line = screen.getByLabelText<HTMLInputElement>('Label of a new option');
  const key = screen.getByLabelText<HTMLInputElement>('Key of a new option');
  expect(button('Add').disabled).toBe(true);
  fireEvent.keyDown(line, { key: 'Enter' });
  expect(now()).toEqual(BEGUN);
  fireEvent.change(line, { target: { value: 'Deep sea' } });
  expect(key.value).toBe('deep_sea');
  fireEvent.keyDown(line, { key: 'x' });
  fireEvent.keyDown(line, { key: 'Enter' });
  expect([line.value, key.value, document.activeElement]).toEqual(['', '', line]);
  fireEvent.change(line, { target: { value: 'River' } });
  fireEvent.change(key, { target: { value: ' R1 ' } });
  fireEvent.click(button('Add'));
  expect(now().slice(3)).toEqual(['deep_sea Deep sea', 'R1 River']);
});

test('a key that is taken is not added, and nothing typed is lost', async () => {
  const { now, bench } = await optionsWith();
  const line = screen.getByLabelText<HTMLInputElement>('Label of a new option');
  fireEvent.change(line, { target: { value: 'Ours' } });
  fireEvent.change(screen.getByLabelText('Key of a new option'), { target: { value: 'own' } });
  fireEvent.click(button('Add'));
  expect(now()).toEqual(BEGUN);
  expect(line.value).toBe('Ours');
  expect(bench.structure.store.getState().says).toContain('own');
});

test('several lines are pasted as several options, one line as usual', async () => {
  const { now } = await optionsWith();
  const line = screen.getByLabelText('Label of a new option');
  const paste = (text: string) => fireEvent.paste(line, { clipboardData: { getData: () => text } });
  expect(paste('Deep sea\n')).toBe(true);
  expect(paste('Deep sea\nRiver')).toBe(false);
  expect(now()).toEqual([...BEGUN, 'deep_sea Deep sea', 'river River']);
});

test('a track keeps its last stage', async () => {
  const { now } = await optionsWith(NO_USE, 'stages');
  expect(button('Remove Asked').disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Label of a new stage'), { target: { value: 'Done' } });
  fireEvent.click(button('Add'));
  expect(now()).toEqual(['asked Asked', 'done Done']);
  expect(button('Remove Asked').disabled).toBe(false);
});
