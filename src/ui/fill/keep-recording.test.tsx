import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn } from '../../../tests/support/drawn';
import { formWith, rows, text } from '../../../tests/support/forms';
import { direct } from '../../../tests/support/hosts';
import { Window } from '../window';
import { KeepRecording } from './keep-recording';

const FORM = formWith([text('vessel'), text('note'), rows('cargo', [text('goods')])]);

async function keeping(
  begin: () => Promise<string> = () => Promise.resolve('filling-1'),
  answer: { status?: number; body: unknown } = { body: { recording: 7 } },
) {
  const use = direct({ form: FORM });
  const steps = [
    { set: 'vessel', to: 'Tern' },
    { addRow: 'cargo', with: { goods: 'ore' } },
  ];
  for (const step of steps) use.do(step as never);
  const sent = answering(() => answer);
  const onDone = vi.fn();
  drawn(
    <Window open onClose={onDone}>
      <KeepRecording
        form={FORM}
        session={{ seen: use.seen, steps: () => steps, begin } as never}
        onDone={onDone}
      />
    </Window>,
  );
  await screen.findByText('Keep a recording');
  return { sent, onDone, steps };
}
const keep = () => fireEvent.click(screen.getByRole('button', { name: 'Keep' }));

test('what was done is kept with what stands in the fields and what somebody says of it', async () => {
  const { sent, onDone, steps } = await keeping();
  fireEvent.change(screen.getByLabelText('What surprised you?'), {
    target: { value: ' Too deep. ' },
  });
  keep();
  await screen.findByText('Kept as recording 7');
  expect(sent).toEqual([
    {
      method: 'POST',
      path: '/api/fill/visit/recordings',
      body: {
        filling: 'filling-1',
        steps,
        ended: { vessel: 'Tern', note: null, cargo: [{ goods: 'ore' }] },
        says: 'Too deep.',
        masks: false,
      },
    },
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(onDone).toHaveBeenCalledTimes(1);
});

test('texts are masked where somebody wants that', async () => {
  const { sent } = await keeping();
  fireEvent.click(screen.getByLabelText('Replace the letters and digits of the texts I typed'));
  keep();
  await waitFor(() => expect(sent[0]!.body).toMatchObject({ masks: true }));
});

test('a form that cannot be begun keeps nothing, and says why', async () => {
  const { sent } = await keeping(() => Promise.reject(new Error('The server is out of reach.')));
  keep();
  expect((await screen.findByRole('alert')).textContent).toContain('The server is out of reach.');
  expect(sent).toEqual([]);
});

test('what the server refuses is said, and can be tried again', async () => {
  await keeping(undefined, { status: 413, body: { says: 'It is too long.' } });
  keep();
  expect((await screen.findByRole('alert')).textContent).toContain('It is too long.');
  expect(screen.getByRole('button', { name: 'Keep' })).toBeTruthy();
});

test('cancelled nothing is kept', async () => {
  const { sent, onDone } = await keeping();
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  expect([sent.length, onDone.mock.calls.length]).toEqual([0, 1]);
});
