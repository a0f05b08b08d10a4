import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { namesFor } from '@/core/tape/words';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { StepsStrip } from './steps-strip';

beforeEach(() => {
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(() => vi.unstubAllGlobals());

function Strip({ bench }: { bench: Bench }) {
  const { steps, answers, at } = useRoom(bench.form.session, (state) => state);
  return (
    <StepsStrip
      bench={bench}
      steps={steps}
      answers={answers}
      at={at}
      openedAs="new"
      names={namesFor(VISIT, [], [])}
      who="Mira"
    />
  );
}

async function strip() {
  const { bench } = benchOf({
    behaviours: {
      '10-a.ts': 'on.change(fields.master, () => { throw new Error("no"); });',
    },
  });
  await bench.form.begin();
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  await bench.form.step({ set: 'master', to: 'Ann' });
  drawn(<Strip bench={bench} />);
  const { session } = bench.form;
  return {
    bench,
    at: () => session.state.at,
    current: () => document.querySelector('[aria-current="step"]')?.textContent,
  };
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

test('each step has a marker; one at which something failed says so', async () => {
  const { current } = await strip();
  expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
    'opened new',
    'Vessel Tern',
    '× Master Ann',
  ]);
  expect(current()).toBe('× Master Ann');
});

test('one goes back and forth along them, no further than the ends', async () => {
  const { at, current } = await strip();
  const [before, after] = ['The step before', 'The step after'].map((name) =>
    screen.getByRole<HTMLButtonElement>('button', { name }),
  );
  expect([before!.disabled, after!.disabled]).toEqual([false, true]);
  press('The step before');
  await waitFor(() => expect(at()).toBe(1));
  expect(current()).toBe('Vessel Tern');
  press('opened new');
  await waitFor(() => expect(at()).toBe(0));
  expect([before!.disabled, after!.disabled]).toEqual([true, false]);
  press('The step after');
  await waitFor(() => expect(at()).toBe(1));
});

test('the last step is undone, and only from the end', async () => {
  const { bench, at } = await strip();
  const undo = screen.getByRole<HTMLButtonElement>('button', { name: 'Undo step' });
  press('The step before');
  await waitFor(() => expect(at()).toBe(1));
  expect(undo.disabled).toBe(true);
  press('The step after');
  await waitFor(() => expect(at()).toBe(2));
  await act(async () => void fireEvent.click(undo));
  await waitFor(() =>
    expect(bench.form.session.state.steps).toEqual([{ set: 'vessel', to: 'Tern' }]),
  );
});
