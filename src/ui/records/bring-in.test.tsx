import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn } from '../../../tests/support/drawn';
import { RECORDS_AT_ONCE } from '@/core/limits';
import { Window } from '../window';
import { BringIn } from './bring-in';

const read = (count: number) => ({
  records: Array.from({ length: count }, (_, i) => ({ line: i + 2, id: null, values: {} })),
  errors: [] as { line: number; says: string }[],
  leftOut: [] as string[],
});

type Answer = { line: number; says: string | null }[];

/** The window, the file read as `found`, and each batch entered as `enter` answers. */
async function bringing(
  found: ReturnType<typeof read>,
  enter: (lines: number[], batch: number) => Answer | { refused: string } | Promise<Answer>,
) {
  let batch = 0;
  const sent = answering(async ({ path, body }) => {
    if (path.endsWith('/read')) return { body: found };
    const lines = (body as { records: { line: number }[] }).records.map(({ line }) => line);
    const answer = await enter(lines, batch++);
    return 'refused' in answer ? { status: 503, body: { says: answer.refused } } : { body: answer };
  });
  const onDone = vi.fn();
  drawn(
    <Window open onClose={onDone}>
      <BringIn form="visit" title="Visit" onDone={onDone} />
    </Window>,
  );
  await pick('visits.csv');
  await screen.findByRole('status');
  return { sent, onDone, batches: () => sent.filter(({ path }) => path.endsWith('/import')) };
}

async function pick(name: string) {
  const file = new File(['x'], name);
  file.text = () => Promise.resolve('x');
  fireEvent.change(await screen.findByLabelText('File with records'), {
    target: { files: [file] },
  });
}
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const status = () => screen.getByRole('status').textContent;
const all = (lines: number[]): Answer => lines.map((line) => ({ line, says: null }));

test('lines are entered batch by batch, and the window says so', async () => {
  const count = RECORDS_AT_ONCE + 1;
  const { batches, onDone } = await bringing(read(count), all);
  expect(status()).toBe(`visits.csv: ${count} records can be entered.`);
  fireEvent.click(button(`Enter ${count} records`));
  await waitFor(() => expect(status()).toBe(`✓ ${count} of ${count} records entered`));
  expect(batches()).toHaveLength(2);
  fireEvent.click(button('Close'));
  expect(onDone).toHaveBeenCalledExactlyOnceWith(true);
});

test('what cannot be read, what scripts compute and what is refused is named', async () => {
  const found = {
    ...read(2),
    errors: [{ line: 4, says: 'draught is no number' }],
    leftOut: ['dues', 'stay'],
  };
  await bringing(found, (lines) =>
    lines.map((line) => ({ line, says: line === 3 ? 'Too deep.' : null })),
  );
  expect(status()).toBe('visits.csv: 2 records can be entered, 1 cannot be read.');
  expect(screen.getByText('Left out, since scripts compute them: dues, stay.')).toBeTruthy();
  expect(screen.getByText('line 4: draught is no number')).toBeTruthy();
  fireEvent.click(button('Enter 2 records'));
  await waitFor(() => expect(status()).toBe('1 of 2 records entered, 2 records refused'));
  expect(screen.getByText('line 3: Too deep.')).toBeTruthy();
});

test('a batch that the server does not take ends it, with the line to go on from', async () => {
  const count = RECORDS_AT_ONCE * 2;
  const { batches, onDone } = await bringing(read(count), (lines, batch) =>
    batch === 0 ? all(lines) : { refused: 'The server is busy.' },
  );
  fireEvent.click(button(`Enter ${count} records`));
  const notice = await screen.findByText(/on nothing is entered/);
  expect(notice.textContent).toBe(
    `From line ${RECORDS_AT_ONCE + 2} on nothing is entered: The server is busy. Bring those lines in again.`,
  );
  expect(batches()).toHaveLength(2);
  fireEvent.click(button('Close'));
  expect(onDone).toHaveBeenCalledExactlyOnceWith(true);
});

test('it can be stopped; what is entered stays', async () => {
  const count = RECORDS_AT_ONCE * 3;
  let go: (answer: Answer) => void = () => undefined;
  const { batches } = await bringing(
    read(count),
    () => new Promise<Answer>((resolve) => (go = resolve)),
  );
  fireEvent.click(button(`Enter ${count} records`));
  await waitFor(() => expect(batches()).toHaveLength(1));
  expect(status()).toBe(`0 of ${count} records entered…`);
  fireEvent.click(button('Stop'));
  go(all([2, 3]));
  await screen.findByText('You stopped it; what is entered stays.');
  expect(batches()).toHaveLength(1);
});

test('with nothing to enter, or nothing entered, nothing has changed', async () => {
  const { onDone } = await bringing(read(0), all);
  expect(button('Enter 0 records').disabled).toBe(true);
  fireEvent.click(button('Close'));
  expect(onDone).toHaveBeenCalledExactlyOnceWith(false);
});

test.each([
  ['a.jsonl', 'jsonl'],
  ['a.NDJSON', 'jsonl'],
  ['a.json', 'json'],
  ['a.csv', 'csv'],
  ['json', 'csv'],
])('%s is read as %s', async (name, as) => {
  const sent = answering(() => ({ body: read(1) }));
  drawn(
    <Window open onClose={() => undefined}>
      <BringIn form="visit" title="Visit" onDone={() => undefined} />
    </Window>,
  );
  await pick(name);
  await screen.findByRole('status');
  expect(sent[0]!.body).toEqual({ text: 'x', as });
});

test('a file that cannot be read says why, and another can be chosen', async () => {
  answering(() => ({ status: 400, body: { says: 'Line 1 has no columns.' } }));
  drawn(
    <Window open onClose={() => undefined}>
      <BringIn form="visit" title="Visit" onDone={() => undefined} />
    </Window>,
  );
  await pick('a.csv');
  expect((await screen.findByRole('alert')).textContent).toContain('Line 1 has no columns.');
  expect(button(/^Choose CSV/)).toBeTruthy();
});
