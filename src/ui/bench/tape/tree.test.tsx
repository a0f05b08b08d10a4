/** The tree of the tape over a real session: narrowed, opened and closed, and stood on. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { useStore } from 'zustand';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { Tape } from '@/core/tape/tape';
import { namesFor } from '@/core/tape/words';
import type { Bench } from '../create-bench';
import { TapeTree, useListed } from './tree';

beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(900);
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(900);
  vi.spyOn(HTMLElement.prototype, 'offsetWidth', 'get').mockReturnValue(900);
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const SCRIPT = `keep("master", () => { fields.master.required = fields.vessel.value === "Tern"; });
on.change(fields.vessel, () => { if (fields.vessel.value === "Auk") throw new Error("no auks"); });
on.change(fields.vessel, () => {});`;

function Tree({ bench, tape, asked }: { bench: Bench; tape: Tape; asked: string | null }) {
  const names = namesFor(VISIT, [{ name: '10-a.ts', title: 'Master' }], []);
  const [scope, setScope] = useState<'step' | 'all'>('all');
  const all = useListed({ bench, tape, names, who: 'Mira' });
  useStore(bench.tape.store);
  return (
    <TapeTree
      bench={bench}
      tape={tape}
      names={names}
      who="Mira"
      asked={asked}
      all={all}
      scope={scope}
      onScope={setScope}
    />
  );
}

async function treeOf(asked: string | null = null) {
  const { bench } = benchOf({ behaviours: { '10-a.ts': SCRIPT } });
  await bench.form.begin();
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  await bench.form.step({ set: 'vessel', to: 'Auk' });
  const tape = new Tape(bench.form.session.state.answers.flatMap((answer) => answer.tape));
  drawn(<Tree bench={bench} tape={tape} asked={asked} />);
  return {
    bench,
    rows: () => screen.queryAllByRole('treeitem').map((one) => one.textContent),
    narrow: (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } }),
    tree: () => screen.getByRole('tree'),
  };
}

test('everything stands below what caused it, what failed is marked', async () => {
  const { rows } = await treeOf();
  expect(rows()).toEqual([
    '▾opened a new entry as mira',
    '▾rule “master”1 fuel',
    'Master: not requiredline 1',
    '▾Mira set Vessel to Tern',
    '▾Vessel: nothing → Tern',
    '▾rule “master”1 fuel',
    'Master: requiredline 1',
    '▾Mira set Vessel to Auk',
    '▾Vessel: Tern → Auk',
    '▾change of Vessel',
    '▾× Master failed on change of Vessel1 fuel',
    '× Master, line 2, threw: no auksline 2',
    '▾rule “master”1 fuel',
    'Master: not requiredline 1',
  ]);
  const level = (of: RegExp) =>
    screen
      .getAllByRole('treeitem')
      .find((one) => of.test(one.textContent!))!
      .getAttribute('aria-level');
  expect(level(/opened a new entry/)).toBe('1');
  expect(Number(level(/Master.*required/))).toBeGreaterThan(1);
});

test('it is narrowed by sort, by behaviour and by words, and widened again', async () => {
  const { rows, narrow, bench } = await treeOf();
  const all = rows().length;
  narrow('Which sort of entry', 'errors');
  expect(rows().length).toBeLessThan(all);
  expect(rows().every((row) => !row!.includes('required'))).toBe(true);
  expect(bench.tape.store.getState().filter.sorts).toEqual(['errors']);
  narrow('Which sort of entry', '');
  expect(bench.tape.store.getState().filter.sorts).toEqual([]);
  narrow('Which behaviour', '10-a');
  expect(bench.tape.store.getState().filter.behaviour).toBe('10-a');
  narrow('Which behaviour', '');
  expect(bench.tape.store.getState().filter.behaviour).toBeNull();
  narrow('Find on the tape', 'nothing like it');
  expect(screen.getByText('Nothing of that kind is on the tape.')).toBeTruthy();
  narrow('Find on the tape', '');
  expect(rows()).toHaveLength(all);
  expect(screen.queryByText('Nothing of that kind is on the tape.')).toBeNull();
});

test('narrowed to a part it says so, and is widened by a press', async () => {
  const { bench, rows } = await treeOf();
  const all = rows().length;
  expect(screen.queryByTitle('List everything again')).toBeNull();
  bench.tape.filter({ part: 'master' });
  await waitFor(() =>
    expect(screen.getByTitle('List everything again').textContent).toBe('Master ×'),
  );
  expect(rows().length).toBeLessThan(all);
  fireEvent.click(screen.getByTitle('List everything again'));
  expect(rows()).toHaveLength(all);
});

test('steps are listed one at a time or all', async () => {
  const { narrow } = await treeOf();
  narrow('Which steps', 'step');
  expect(screen.getByLabelText<HTMLSelectElement>('Which steps').value).toBe('step');
});

test('an entry is closed and opened with all that it caused', async () => {
  const { rows } = await treeOf();
  const all = rows().length;
  const [first] = screen.getAllByRole('button', { name: 'Close' });
  const item = first!.closest('[role=treeitem]')!;
  expect(item.getAttribute('aria-expanded')).toBe('true');
  fireEvent.click(first!);
  expect(rows().length).toBeLessThan(all);
  expect(item.getAttribute('aria-expanded')).toBe('false');
  fireEvent.click(screen.getAllByRole('button', { name: 'Open' })[0]!);
  expect(rows()).toHaveLength(all);
});

test('an entry that is pressed is stood on; by Enter and the space bar it is closed and opened', async () => {
  const { bench, rows, tree } = await treeOf();
  const all = rows().length;
  fireEvent.keyDown(tree(), { key: 'Enter' });
  expect(rows()).toHaveLength(all);
  fireEvent.click(screen.getByText(/opened a new entry/));
  await waitFor(() => expect(bench.tape.store.getState().standing).toMatchObject({ detail: null }));
  expect(document.activeElement).toBe(tree());
  const selected = await screen.findByRole('treeitem', { selected: true });
  expect(selected.textContent).toContain('opened a new entry');
  expect(tree().getAttribute('aria-activedescendant')).toBe(selected.id);
  const open = rows().length;
  fireEvent.keyDown(tree(), { key: 'a' });
  expect(rows()).toHaveLength(open);
  fireEvent.keyDown(tree(), { key: ' ' });
  expect(rows().length).toBeLessThan(open);
  fireEvent.keyDown(tree(), { key: 'Enter' });
  expect(rows()).toHaveLength(open);
});

test('runs that changed nothing are counted until somebody wants them', async () => {
  const { rows, bench } = await treeOf();
  const quiet = screen.queryAllByText(/changed nothing$/);
  expect(quiet.length).toBeGreaterThan(0);
  const before = rows().length;
  fireEvent.click(quiet[0]!);
  expect(bench.tape.store.getState().filter.quiet).toBe(true);
  expect(rows().length).toBeGreaterThan(before);
  expect(screen.queryAllByText(/changed nothing$/)).toEqual([]);
});
