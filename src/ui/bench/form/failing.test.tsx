/** The bar above the live form: what must always hold and does not. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { seenAt } from '@/core/scenario/seen';
import { namesFor } from '@/core/tape/words';
import { useRoom } from '../../use-room';
import type { Bench } from '../create-bench';
import { Failing } from './failing';

afterEach(() => vi.unstubAllGlobals());

const names = namesFor(VISIT, [{ name: '10-a.ts', title: 'Masters' }], []);

function Bar({ bench }: { bench: Bench }) {
  const answers = useRoom(bench.form.session, (state) => state.answers);
  return <Failing bench={bench} seen={seenAt(answers, answers.length - 1)} names={names} />;
}

test('an invariant is named while it does not hold, with its line, and asked why', async () => {
  const { bench } = benchOf({
    behaviours: {
      '10-a.ts':
        '\nalways("no master alone", () => fields.master.empty || !fields.vessel.empty);\n',
    },
  });
  await bench.form.begin();
  drawn(<Bar bench={bench} />);
  expect(screen.queryByText(/does not hold/)).toBeNull();
  await act(() => bench.form.step({ set: 'master', to: 'Ida' }));
  const bar = screen.getByText(/“no master alone” does not hold/);
  expect(bar.textContent).toContain('Masters, line 2');
  await act(async () =>
    fireEvent.click(screen.getByLabelText('Why does “no master alone” not hold?')),
  );
  await waitFor(() =>
    expect(bench.tape.store.getState().decision).toMatchObject({
      decided: 'judged',
      value: false,
      step: 1,
    }),
  );
  await act(() => bench.form.step({ set: 'vessel', to: 'Tern' }));
  expect(screen.queryByText(/does not hold/)).toBeNull();
});
