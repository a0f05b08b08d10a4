/** From a need to a behaviour: what is picked, what comes of it, and how it proves itself. */
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { choice, formWith, number, text } from '../../../../tests/support/forms';
import { direct } from '../../../../tests/support/hosts';
import type { Form } from '@/core/form/definition';
import { Window } from '../../window';
import { Starters } from './starters';
import type { TriedOut } from './trying';

afterEach(() => vi.unstubAllGlobals());

const FORM = formWith([
  choice('pilot', ['own', 'none']),
  text('licence'),
  text('reason'),
  number('weight'),
  number('rate'),
  number('dues'),
]);

const PASSED: TriedOut = { text: 'set in the common way', failure: null, ways: [], results: [] };

/** `until` holds back what comes of trying it out. */
async function startersOf(
  tried: Partial<TriedOut> = {},
  form: Form = FORM,
  until: Promise<void> = Promise.resolve(),
) {
  const { bench } = benchOf({ form });
  const tryOut = vi
    .spyOn(bench.behaviours, 'tryOut')
    .mockImplementation(() => until.then(() => ({ ...PASSED, ...tried })));
  const take = vi.spyOn(bench.behaviours, 'takeStarter').mockResolvedValue(undefined);
  const onDone = vi.fn();
  drawn(
    <Window open onClose={onDone}>
      <Starters bench={bench} onDone={onDone} />
    </Window>,
  );
  await screen.findByRole('navigation', { name: 'Needs' });
  return { tryOut, take, onDone };
}
const need = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const code = () => screen.getByTestId('starter-code').textContent;
const picks = () => within(screen.getByRole('group', { name: 'What to pick' }));
const add = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Add it as a behaviour' });

test('it begins with the first need and what stands there first', async () => {
  const { tryOut } = await startersOf();
  expect(screen.getByRole('button', { current: true }).textContent).toBe(
    'Show or require parts by a choice',
  );
  expect(code()).toContain('fields.pilot.value === "own"');
  await waitFor(() => expect(code()).toBe('set in the common way'));
  await waitFor(() => expect(tryOut).toHaveBeenCalledTimes(1));
});

test('each pick changes what comes of it, and is tried out once they rest', async () => {
  const { tryOut } = await startersOf();
  fireEvent.click(picks().getByLabelText('None (none)'));
  fireEvent.click(picks().getByLabelText('Reason (reason)'));
  fireEvent.click(picks().getByLabelText('require'));
  await waitFor(() => {
    const [tried] = tryOut.mock.calls.at(-1)!;
    expect(tried).toContain('fields.pilot.value === "none"');
    expect(tried).toContain('fields.reason.required');
  });
});

test('a list of one and a text to write are picks as well', async () => {
  const { tryOut } = await startersOf();
  need('Replace the form by a message');
  fireEvent.change(picks().getByLabelText('Say instead'), { target: { value: 'No more.' } });
  await waitFor(() => expect(tryOut.mock.calls.at(-1)![0]).toContain('"No more."'));
  need('Compute a number from other fields');
  fireEvent.change(picks().getByLabelText('It is'), { target: { value: 'product' } });
  await waitFor(() => expect(tryOut.mock.calls.at(-1)![0]).toContain(' * '));
});

test('with the last box unticked there is nothing to make, until one is ticked again', async () => {
  const { onDone } = await startersOf();
  fireEvent.click(picks().getByLabelText('Own (own)'));
  expect(screen.getByRole('status').textContent).toContain('Choose at least one of “When it is”.');
  expect(add().disabled).toBe(true);
  expect(screen.queryByTestId('starter-code')).toBeNull();
  fireEvent.click(add());
  expect(onDone).not.toHaveBeenCalled();
  fireEvent.click(picks().getByLabelText('None (none)'));
  expect(add().disabled).toBe(false);
  expect(screen.queryByText(/Choose at least one/)).toBeNull();
});

test('what was picked for one need is kept while another is looked at', async () => {
  await startersOf();
  fireEvent.click(picks().getByLabelText('None (none)'));
  need('Replace the form by a message');
  expect(screen.getByRole('button', { current: true }).textContent).toBe(
    'Replace the form by a message',
  );
  need('Show or require parts by a choice');
  expect(picks().getByLabelText<HTMLInputElement>('None (none)').checked).toBe(true);
});

test('a need that the form has nothing for says what is missing', async () => {
  const { tryOut } = await startersOf({}, formWith([text('vessel')]));
  expect(screen.getByRole('status').textContent).toBe(
    'The form has no choice, yes/no or reference to decide by.',
  );
  expect(screen.queryByRole('group', { name: 'What to pick' })).toBeNull();
  expect(add().disabled).toBe(true);
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(tryOut).not.toHaveBeenCalled();
});

const passing = (passed: boolean, says = '') =>
  ({ passed, misses: passed ? [] : [{ says }] }) as never;

test.each<[Partial<TriedOut>, string]>([
  [{ results: [] }, 'no scenario comes with it'],
  [{ results: [passing(true)] }, '✓ its scenario passes beside the other behaviours'],
  [
    { results: [passing(true), passing(true)] },
    '✓ its 2 scenarios pass beside the other behaviours',
  ],
  [
    { results: [passing(true), passing(false, 'licence is hidden')] },
    '× beside the other behaviours: licence is hidden',
  ],
  [{ failure: 'It does not compile.' }, '× It does not compile.'],
])('how it proves itself, %j, is said', async (tried, says) => {
  let come = () => {};
  await startersOf(tried, FORM, new Promise((resolve) => (come = resolve)));
  expect(await screen.findByText('trying it out…')).toBeTruthy();
  come();
  expect(
    await screen.findByText(
      (_, element) => element!.tagName === 'SPAN' && element!.textContent === says,
    ),
  ).toBeTruthy();
});

test('it is added as it is shown, with its scenarios, and the window closes', async () => {
  const { take, onDone } = await startersOf();
  await waitFor(() => expect(code()).toBe('set in the common way'));
  fireEvent.click(add());
  expect(onDone).toHaveBeenCalledTimes(1);
  expect(take.mock.calls[0]!.slice(0, 2)).toEqual(['Licence by Pilot', 'set in the common way']);
  expect(take.mock.calls[0]![2].length).toBeGreaterThan(0);
});

test('cancelled nothing is added', async () => {
  const { take, onDone } = await startersOf();
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  expect([onDone.mock.calls.length, take.mock.calls.length]).toEqual([1, 0]);
});

/** What is seen of the form with this script, once something is chosen. */
function wayOf(script: string, value: string | null) {
  const use = direct({ form: FORM, scripts: { a: script } });
  if (value !== null) use.do({ set: 'pilot', to: value });
  return { seen: use.seen, toParent: [], refused: null };
}

test('of each way only what differs is told', async () => {
  const script = `keep(() => {
    const own = fields.pilot.value === "own";
    fields.licence.shown = own;
    fields.licence.required = own;
    fields.licence.hint = own ? "As on the card." : null;
    fields.licence.warning = own ? "Old." : null;
    fields.licence.problem = own ? "Wrong." : null;
    fields.licence.locked = own;
    fields.licence.value = own ? "A1" : null;
  });`;
  await startersOf({
    ways: [wayOf(script, 'own'), wayOf(script, 'none'), wayOf(script, null)],
  });
  const table = await screen.findByRole('table');
  expect(
    within(table)
      .getAllByRole('row')
      .map((one) => one.textContent),
  ).toEqual([
    'WhenLicence',
    'Own (own)shown, required, locked, holds A1, “As on the card.”, ! “Old.”, × “Wrong.”',
    'None (none)hidden, not required, open, holds nothing, no hint, no warning, no problem',
    'nothinghidden, not required, open, holds nothing, no hint, no warning, no problem',
  ]);
});

test('where nothing differs the part is at least there; a way that is refused says why', async () => {
  const plain = wayOf('', null);
  await startersOf({ ways: [plain, plain, { ...plain, refused: 'Pilot is locked.' }] });
  const table = await screen.findByRole('table');
  expect(
    within(table)
      .getAllByRole('row')
      .slice(1)
      .map((one) => one.textContent),
  ).toEqual(['Own (own)shown', 'None (none)shown', 'nothingrefused: Pilot is locked.']);
});

test('ways that do not belong to what is picked now are not shown', async () => {
  await startersOf({ ways: [wayOf('', null)] });
  await screen.findByText('no scenario comes with it');
  expect(screen.queryByRole('table')).toBeNull();
});
