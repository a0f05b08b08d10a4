import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { lookup } from '../../../../tests/support/forms';
import { namesFor } from '@/core/tape/words';
import { ComparePane, DifferenceList } from './compare-pane';

afterEach(() => vi.unstubAllGlobals());

const NAMES = namesFor(VISIT, [], []);

async function paneOf(open: object = {}) {
  const { bench } = benchOf({
    behaviours: {
      '10-a.ts': 'on.load(() => { fields.vessel.required = new Date().getFullYear() > 2031; });',
    },
    services: [lookup],
    tables: [
      {
        name: 'berths',
        title: 'Berths',
        key: 'code',
        label: 'code',
        columns: [
          { name: 'code', kind: 'text' },
          { name: 'depth', kind: 'number' },
        ],
        rows: [],
      },
    ],
  });
  await bench.form.begin();
  if (Object.keys(open).length > 0)
    await bench.form.reopen({ ...bench.form.session.state.open, ...open });
  const compare = vi.spyOn(bench.tape, 'compare');
  drawn(<ComparePane bench={bench} names={NAMES} />);
  const list = screen.getByLabelText<HTMLSelectElement>('Under which conditions');
  return {
    bench,
    compare,
    offered: () => [...list.options].map(({ text }) => text),
    choose: (label: string) => {
      const option = [...list.options].find(({ text }) => text === label)!;
      fireEvent.change(list, { target: { value: option.value } });
      fireEvent.click(screen.getByRole('button', { name: 'Compare' }));
    },
  };
}

test('other people, a year later and services in other moods are offered', async () => {
  const { offered } = await paneOf();
  expect(offered()).toEqual(['a year later', 'Berth register fails', 'Berth register takes 10 s']);
});

test.each([
  ['a year later', {}, { clock: '2032-05-02T09:00:00Z' }],
  ['a year later', { clock: '2031-12-31T23:00:00Z' }, { clock: '2032-12-31T23:00:00Z' }],
  ['Berth register fails', {}, { services: { register: { fails: 'does not answer' } } }],
  [
    'Berth register takes 10 s',
    { services: { other: { delay: 0 } } },
    { services: { other: { delay: 0 }, register: { delay: 10_000 } } },
  ],
])('%s of %j is %j', async (label, open, asked) => {
  const { compare, choose } = await paneOf(open);
  choose(label);
  expect(compare).toHaveBeenCalledExactlyOnceWith(label, asked);
});

test('what differs at the end is listed', async () => {
  const { choose } = await paneOf();
  expect(screen.getByText('Nothing has been edited since these steps were done.')).toBeTruthy();
  choose('a year later');
  await waitFor(() =>
    expect(screen.getByRole('listitem').textContent).toBe(
      'Vessel, required: not required → required',
    ),
  );
});

const difference = (part: string, aspect: string, before: unknown, after: unknown) =>
  ({ part, aspect, before, after }) as never;

test('aspects are told by what they became, values as they are', () => {
  drawn(
    <DifferenceList
      names={NAMES}
      differences={[
        difference('vessel', 'shown', true, false),
        difference('vessel', 'locked', false, true),
        difference('vessel', 'value', true, 'Tern'),
        difference('master', 'value', undefined, null),
      ]}
    />,
  );
  expect(screen.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    'Vessel, shown: shown → hidden',
    'Vessel, locked: unlocked → locked',
    'Vessel, value: true → Tern',
    'Master, value: not there → nothing',
  ]);
});

test('many are counted, none is said', () => {
  const many = Array.from({ length: 62 }, () => difference('vessel', 'value', 1, 2));
  drawn(<DifferenceList names={NAMES} differences={many} />);
  expect(screen.getAllByRole('listitem')).toHaveLength(61);
  expect(screen.getByText('and 2 more')).toBeTruthy();
});

test('where nothing differs it says so', () => {
  drawn(<DifferenceList names={NAMES} differences={[]} />);
  expect(screen.getByText('Nothing differs.')).toBeTruthy();
});
