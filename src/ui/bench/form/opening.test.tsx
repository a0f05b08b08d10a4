/** How the form is opened: what is entered is how it opens, and what is usual is left out. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { formWith, lookup, text } from '../../../../tests/support/forms';
import type { Open } from '@/core/scenario/definition';
import { Window } from '../../window';
import { OpeningDialog } from './opening';

afterEach(() => vi.unstubAllGlobals());

const FORM = formWith([text('vessel')], {
  launch: [
    { name: 'berth', kind: 'text' },
    { name: 'urgent', kind: 'yes_no' },
  ],
});

const BERTHS = {
  name: 'berths',
  title: 'Berths',
  key: 'code',
  label: 'code',
  columns: [{ name: 'code', kind: 'text' as const }],
  rows: [{ code: 'a' }],
};

async function opening(open: Partial<Open> = {}) {
  const { bench } = benchOf({
    form: FORM,
    services: [lookup],
    tables: [BERTHS],
    behaviours: {
      '10-a.ts': 'on.load(async () => { await services.register.find({ code: "a" }); });',
    },
  });
  await bench.form.begin();
  if (Object.keys(open).length > 0)
    await bench.form.reopen({ ...bench.form.session.state.open, ...open });
  const onDone = vi.fn();
  drawn(
    <Window open onClose={onDone}>
      <OpeningDialog bench={bench} onDone={onDone} />
    </Window>,
  );
  await screen.findByRole('button', { name: 'Open like this' });
  const before = bench.form.session.state.open;
  return {
    onDone,
    /** How it is opened once this is pressed. */
    async opened() {
      fireEvent.click(screen.getByRole('button', { name: 'Open like this' }));
      await waitFor(() => expect(bench.form.session.state.open).not.toBe(before));
      return bench.form.session.state.open;
    },
    press: () => fireEvent.click(screen.getByRole('button', { name: 'Open like this' })),
    same: () => bench.form.session.state.open === before,
  };
}
const change = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

test('as it stands it opens as before, and says nothing of what is usual', async () => {
  const { opened, onDone } = await opening();
  const open = await opened();
  expect(open).toEqual({ as: 'mira', record: null, clock: '2031-05-02T09:00:00Z' });
  expect(onDone).toHaveBeenCalledTimes(1);
});

test('it is only viewed, at another time in another zone', async () => {
  const { opened } = await opening();
  fireEvent.click(screen.getByLabelText('The record is only viewed'));
  change(/^At/, '14:30');
  change(/^At/, '');
  change('Time zone', ' Europe/Vienna ');
  expect(await opened()).toMatchObject({
    viewing: true,
    zone: 'Europe/Vienna',
    clock: '2031-05-02T12:30:00Z',
  });
});

test('what it was opened with stands there, and can be taken back', async () => {
  const { opened } = await opening({
    viewing: true,
    zone: 'Europe/Vienna',
    clock: '2031-05-02T12:30:00Z',
    launch: { berth: 'n1' },
    services: { 'register.find': { delay: 0 } },
  });
  expect(screen.getByLabelText<HTMLInputElement>(/^At/).value).toBe('14:30');
  expect(screen.getByLabelText<HTMLInputElement>('The record is only viewed').checked).toBe(true);
  expect(screen.getByLabelText<HTMLTextAreaElement>(/^Launch parameters/).value).toBe('berth=n1');
  expect(screen.getByLabelText<HTMLSelectElement>('register.find').value).toBe('quick');
  fireEvent.click(screen.getByLabelText('The record is only viewed'));
  change('Time zone', 'UTC');
  change(/^Launch parameters/, '');
  change('register.find', 'defined');
  const open = await opened();
  for (const key of ['viewing', 'zone', 'launch', 'services']) expect(open).not.toHaveProperty(key);
});

test.each([
  ['quick', { delay: 0 }],
  ['slow', { delay: 4000 }],
  ['late', { delay: 20_000 }],
  ['fails', { fails: 'set to fail on the bench' }],
  ['byHand', { byHand: true }],
])('a service is %s in this session', async (key, mood) => {
  const { opened } = await opening();
  change('register.find', key);
  expect((await opened()).services).toEqual({ 'register.find': mood });
});

test('launch parameters are read by the kinds they are declared with, which are named', async () => {
  const { opened } = await opening();
  expect(screen.getByText(/declared:/).textContent).toBe(
    '; declared: berth (text), urgent (yes or no)',
  );
  change(/^Launch parameters/, 'berth=n1\nurgent=true');
  expect((await opened()).launch).toEqual({ berth: 'n1', urgent: true });
});

test.each([
  [/^Launch parameters/, 'urgent=perhaps', /urgent/i],
  [/^Launch parameters/, 'no equals sign', /line 1|=/],
  ['Time zone', 'Atlantis', /“Atlantis” is not the name of a time zone/],
])('what cannot be is said, and nothing opens: %s %s', async (label, value, says) => {
  const { press, same, onDone } = await opening();
  change(label, value);
  press();
  expect((await screen.findByRole('alert')).textContent).toMatch(says);
  expect(same()).toBe(true);
  expect(onDone).not.toHaveBeenCalled();
});
