/** What the live form waits for, over a bench whose session really waits. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { formWith, text } from '../../../../tests/support/forms';
import type { Service } from '@/core/form/service';
import { seenAt } from '@/core/scenario/seen';
import { useRoom } from '../../use-room';
import type { Bench } from '../create-bench';
import { WaitingBar } from './waiting';

afterEach(() => vi.unstubAllGlobals());

const REGISTER: Service = {
  name: 'register',
  title: 'Register',
  // In the form's own time, which passes by itself: longer than the test takes.
  delay: 600_000,
  functions: {
    find: {
      parameters: [{ name: 'code', kind: 'text' }],
      answers: { from: 'table', table: 'berths', where: { code: 'code' } },
    },
  },
};
const BERTHS = {
  name: 'berths',
  title: 'Berths',
  key: 'code',
  label: 'code',
  columns: [{ name: 'code', kind: 'text' as const }],
  rows: [{ code: 'a' }, { code: 'b' }],
};
const SCRIPT = `on.change(fields.code, async () => {
  const [first] = await Promise.all([
    services.register.find({ code: fields.code.value }),
    services.register.find({ code: "b" }),
  ]);
  fields.found.value = JSON.stringify(first);
});
on.change(fields.note, async () => { await after(500_000); });`;

function Bar({ bench, frozen }: { bench: Bench; frozen: boolean }) {
  const { answers, at } = useRoom(bench.form.session, (state) => ({
    answers: state.answers,
    at: state.at,
  }));
  const seen = seenAt(answers, at);
  return seen === null ? null : <WaitingBar bench={bench} seen={seen} frozen={frozen} />;
}

/** The bar after a step. */
async function after(set: string, to: string, frozen = false) {
  const { bench } = benchOf({
    form: formWith([text('code'), text('note'), text('found')]),
    services: [REGISTER],
    tables: [BERTHS],
    behaviours: { '10-a.ts': SCRIPT },
  });
  await bench.form.begin();
  await bench.form.step({ set, to });
  drawn(<Bar bench={bench} frozen={frozen} />);
  const found = () =>
    seenAt(bench.form.session.state.answers, bench.form.session.state.at)!.parts.found!.value;
  return { bench, found, bar: () => screen.queryByRole('status')?.textContent };
}
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

test('what is waited for stands there, how long still, and how often', async () => {
  const { bar } = await after('code', 'a');
  expect(bar()).toContain('Waiting for register.find');
  expect(bar()).toContain(', 600000 ms more, and 1 more like it');
});

test('a pause is waited out, and cannot be answered', async () => {
  const { bar } = await after('note', 'x');
  expect(bar()).toBe('Waiting for after, 500000 ms more');
  expect(screen.queryByRole('button')).toBeNull();
});

test('nothing is waited for, and nothing stands there', async () => {
  const { bar } = await after('found', 'x');
  expect(bar()).toBeUndefined();
});

test('standing in the past nothing is answered', async () => {
  const { bar } = await after('code', 'a', true);
  expect(bar()).toContain('Waiting for register.find');
  expect(screen.queryByRole('button')).toBeNull();
});

test('a call is answered by hand, beginning with what the service would say', async () => {
  const { bench, bar } = await after('code', 'a');
  fireEvent.click(button('Answer…'));
  const answer = await screen.findByLabelText<HTMLTextAreaElement>(
    'What register.find answers, as JSON',
  );
  expect(JSON.parse(answer.value)).toEqual({ code: 'a' });
  fireEvent.change(answer, { target: { value: 'by hand' } });
  fireEvent.click(button('Send this answer'));
  expect(screen.getByRole('alert').textContent).toContain('This is not JSON.');
  fireEvent.change(answer, { target: { value: '"by hand"' } });
  fireEvent.click(button('Send this answer'));
  await waitFor(() => expect(bar()).not.toContain('more like it'));
  expect(bench.form.session.state.steps.at(-1)).toEqual({
    answer: 'register.find',
    with: 'by hand',
  });
  expect(screen.queryByLabelText(/as JSON/)).toBeNull();
});

test('nothing found is an answer too; a call can be made to fail', async () => {
  const { bench, bar } = await after('code', 'a');
  fireEvent.click(button('Answer…'));
  fireEvent.click(await screen.findByRole('button', { name: 'Nothing found' }));
  await waitFor(() => expect(bar()).not.toContain('more like it'));
  fireEvent.click(button('Fail'));
  await waitFor(() => expect(bar()).toBeUndefined());
  expect(bench.form.session.state.steps.slice(1)).toEqual([
    { answer: 'register.find', with: null },
    { answer: 'register.find', fails: 'failed by hand' },
  ]);
});

test('what is asked for by hand can be put away again', async () => {
  await after('code', 'a');
  fireEvent.click(button('Answer…'));
  expect(button('Answer…').getAttribute('aria-expanded')).toBe('true');
  fireEvent.click(button('Answer…'));
  expect(button('Answer…').getAttribute('aria-expanded')).toBe('false');
  expect(screen.queryByText('Working out what it would answer…')).toBeNull();
});
