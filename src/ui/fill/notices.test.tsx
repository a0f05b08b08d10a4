import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import { formWith, number, text } from '../../../tests/support/forms';
import { FillNotices, SavedAs } from './notices';

type Props = Parameters<typeof FillNotices>[0];

const FORM = formWith([text('vessel'), number('draught'), text('note')]);

function noticesOf(
  submission: Partial<Props['submission']> = {},
  session: { seen?: object; answer?: object; left?: object } = {},
  says: string | null = null,
) {
  const [send, backToFilling, onTakeLeft] = [vi.fn(), vi.fn(), vi.fn()];
  drawn(
    <FillNotices
      ref={null}
      form={FORM}
      session={
        {
          seen: { failing: [] },
          answer: null,
          left: null,
          ...session,
        } as unknown as Props['session']
      }
      submission={
        {
          outcome: { kind: 'none' },
          stops: null,
          send,
          backToFilling,
          ...submission,
        } as unknown as Props['submission']
      }
      says={says}
      onTakeLeft={onTakeLeft}
    />,
  );
  return { send, backToFilling, onTakeLeft };
}
const alerts = () => screen.queryAllByRole('alert').map((one) => one.textContent);
const statuses = () => screen.queryAllByRole('status').map((one) => one.textContent);

test('with nothing to say nothing stands above the form', () => {
  noticesOf();
  expect([...alerts(), ...statuses()]).toEqual([]);
});

test('what the server refuses is said, and that nothing is lost', () => {
  noticesOf({ outcome: { kind: 'refused', says: 'It is closed.' } } as never);
  expect(alerts()).toEqual(['×It is closed. What you entered is still here.']);
});

test('while it is saved it says so', () => {
  noticesOf({ outcome: { kind: 'sending' } } as never);
  expect(statuses()).toEqual(['iSaving…']);
});

test.each([
  [[{ says: 'Vessel is required.' }], 'Vessel is required.'],
  [[{ says: 'a' }, { says: 'b' }], '2 fields need attention.'],
])('what has to be mended: %j', (stops, says) => {
  noticesOf({ stops } as never);
  expect(alerts()).toEqual([`×Not saved yet. ${says}`]);
});

test('what a script says, and what of it fails', () => {
  noticesOf(
    {},
    {
      answer: {
        messages: [
          { tone: 'warning', text: 'Low tide.' },
          { tone: 'error', text: 'No.' },
        ],
      },
      seen: {
        failing: [
          { behaviour: 'Pilot', line: 7 },
          { behaviour: 'Dues', line: null },
        ],
      },
    },
    'The parent is gone.',
  );
  expect(alerts()).toEqual(['×The parent is gone.', '×No.']);
  expect(statuses()[0]).toContain('(Pilot, line 7)');
  expect(statuses()[1]).toContain('(Dues)');
  expect(statuses()[2]).toBe('!Low tide.');
});

test('where the server comes to other values both are shown, and one is saved or nothing', async () => {
  const { send, backToFilling } = noticesOf({
    outcome: {
      kind: 'differs',
      says: 'The server differs.',
      values: { draught: 5 },
      differences: [
        { label: 'Draught', browser: 4, server: 5 },
        { label: 'Cargo', browser: null, server: [{ goods: 'ore' }] },
      ],
    },
  } as never);
  fireEvent.click(await screen.findByRole('button', { name: 'Save what the server says' }));
  expect(send).toHaveBeenCalledExactlyOnceWith({ draught: 5 }, undefined);
  expect(screen.getAllByRole('row').map((one) => one.textContent)).toEqual([
    'FieldYou sawThe server says',
    'Draught45',
    'Cargonothing[{"goods":"ore"}]',
  ]);
  const [, back] = screen.getAllByRole('button');
  fireEvent.click(back!);
  expect(backToFilling).toHaveBeenCalledExactlyOnceWith('Nothing was saved.');
});

test('of a record that was saved meanwhile only what differs is shown', async () => {
  const { send } = noticesOf({
    outcome: {
      kind: 'conflict',
      says: 'Mira saved it.',
      mine: { vessel: 'Tern', draught: 4, note: 'x' },
      theirs: { revision: 3, values: { vessel: 'Tern', draught: 5 } },
    },
  } as never);
  fireEvent.click(await screen.findByRole('button', { name: 'Save mine over it' }));
  expect(send).toHaveBeenCalledExactlyOnceWith({ vessel: 'Tern', draught: 4, note: 'x' }, 3);
  expect(
    screen
      .getAllByRole('row')
      .slice(1)
      .map((one) => one.textContent),
  ).toEqual(['Draught45', 'Notexnothing']);
});

test('what an earlier visit left is offered', () => {
  const { onTakeLeft } = noticesOf({}, { left: { at: '2031-05-02T09:00:00Z' } });
  const [take] = screen.getAllByRole('button');
  fireEvent.click(take!);
  expect(onTakeLeft).toHaveBeenCalledExactlyOnceWith(true);
});

test('a saved record can be opened, another one filled in, and all of them listed', () => {
  drawn(<SavedAs form="visit" id="a/1" />);
  expect(screen.getByRole('status').textContent).toContain('Saved as record a/1');
  expect(screen.getAllByRole('link').map((one) => one.getAttribute('href'))).toEqual([
    '/fill/visit?record=a%2F1',
    '/fill/visit',
    '/records/visit',
  ]);
});
