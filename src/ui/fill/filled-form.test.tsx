/** Filling in over a real engine, whose worker runs here: what is submitted, and what stays in place under a press. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import { stubWorker } from '../../../tests/support/worker-here';
import { page, section, text } from '../../../tests/support/forms';
import { materialFor, openingOf } from '../../../tests/support/hosts';
import { FilledForm } from './filled-form';

const FORM = {
  name: 'crossing',
  title: 'Crossing',
  pages: [page('main', [section('stay', [text('vessel', { required: true }), text('master')])])],
};
const MATERIAL = materialFor(
  { form: FORM, scripts: { calm: 'on.load(() => form.message("Have a calm crossing."));' } },
  false,
);

/** What the worker waits for before it does a step. */
let beforeStep: Promise<void>;
let submitted: { steps: { set?: string }[]; shown: Record<string, unknown> }[];

beforeEach(() => {
  beforeStep = Promise.resolve();
  submitted = [];
  stubWorker({
    before: (message) => (message.do === 'step' ? beforeStep : Promise.resolve()),
    deliver: (give) => act(give),
  });
  vi.stubGlobal('scrollTo', () => undefined);
  vi.stubGlobal('fetch', (path: string, { body }: { body: string }) => {
    if (path.endsWith('/submissions')) submitted.push(JSON.parse(body) as never);
    return Promise.resolve(
      Response.json(
        path.endsWith('/fillings') ? { filling: 'begun', newId: '7' } : { id: '7', toParent: [] },
        { status: 201 },
      ),
    );
  });
});
afterEach(() => vi.unstubAllGlobals());

async function opened(onChanged?: (changed: boolean) => void): Promise<void> {
  drawn(
    <FilledForm
      {...(onChanged === undefined ? {} : { onChanged })}
      number={1}
      material={MATERIAL}
      handout={{ ticket: 'ticket', opening: { ...openingOf({ form: FORM }), newId: '' } }}
      recordRevision={null}
      related={{}}
    />,
  );
  await screen.findByText('Have a calm crossing.');
}

test('what was entered last is submitted, however late the machine answers', async () => {
  const user = userEvent.setup();
  await opened();
  await user.type(screen.getByLabelText(/Vessel/), 'Tern');
  let answer = () => undefined as void;
  beforeStep = new Promise((resolve) => (answer = resolve));
  await user.click(screen.getByRole('button', { name: 'Submit' }));
  // The server has begun the filling-in long since.
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(submitted).toEqual([]);
  answer();
  await screen.findByText('Saved as record 7');
  expect(submitted[0]!.steps.map(({ set }) => set ?? 'submit')).toEqual(['vessel', 'submit']);
  expect(submitted[0]!.shown.vessel).toBe('Tern');
});

test('under a press everything stays where it is, so that the press ends where it began', async () => {
  const user = userEvent.setup();
  await opened();
  const submit = screen.getByRole('button', { name: 'Submit' });
  await user.click(submit);
  await screen.findByText(/Not saved yet/);
  await user.type(screen.getByLabelText(/Vessel/), 'Tern');
  await user.pointer({ keys: '[MouseLeft>]', target: submit });
  expect(document.activeElement).not.toBe(screen.getByLabelText(/Vessel/));
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(screen.queryByText(/Not saved yet/)).not.toBeNull();
  await user.pointer({ keys: '[/MouseLeft]', target: submit });
  await screen.findByText('Saved as record 7');
});

test('what is being entered counts as changed at once, before it is answered and during a press', async () => {
  const user = userEvent.setup();
  const said: boolean[] = [];
  await opened((changed) => said.push(changed));
  let answer = () => undefined as void;
  beforeStep = new Promise((resolve) => (answer = resolve));
  await user.type(screen.getByLabelText(/Vessel/), 'Tern');
  expect(said.at(-1)).toBe(false);
  await user.tab();
  expect(said.at(-1)).toBe(true);
  fireEvent.pointerDown(document.body);
  answer();
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(said.slice(said.indexOf(true))).toEqual([true]);
  fireEvent.pointerUp(document.body);
  await waitFor(() => expect(screen.queryByText('Have a calm crossing.')).toBeNull());
  expect(said.at(-1)).toBe(true);
});

test.each([
  [
    'the pointer moves without a button',
    () => fireEvent.pointerMove(document.body, { buttons: 0 }),
  ],
  ['a list is chosen from', () => fireEvent.change(document.body.appendChild(list()))],
  ['a key is pressed', () => fireEvent.keyDown(document.body)],
  ['the window is left', () => fireEvent.blur(window)],
  ['it becomes a scroll', () => fireEvent.pointerCancel(document.body)],
])('a press whose release nobody hears of is over when %s', async (_, ends) => {
  await opened();
  const message = () => screen.queryByText('Have a calm crossing.');
  const vessel = screen.getByLabelText(/Vessel/);
  fireEvent.pointerDown(document.body);
  fireEvent.pointerMove(document.body, { buttons: 1 });
  // Leaving an input says that it changed and that it lost the focus, which ends nothing.
  fireEvent.change(vessel, { target: { value: 'Tern' } });
  fireEvent.blur(vessel);
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(message()).not.toBeNull();
  ends();
  await waitFor(() => expect(message()).toBeNull());
});

test('a tap is over with its click, which comes some time after the finger was lifted', async () => {
  await opened();
  const message = () => screen.queryByText('Have a calm crossing.');
  const vessel = screen.getByLabelText(/Vessel/);
  const finger = { pointerType: 'touch' };
  fireEvent.pointerDown(document.body, finger);
  fireEvent.pointerUp(document.body, finger);
  // Only now the browser makes the presses of a mouse of it, by which the input is left.
  fireEvent.change(vessel, { target: { value: 'Tern' } });
  fireEvent.blur(vessel);
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(message()).not.toBeNull();
  fireEvent.click(document.body);
  await waitFor(() => expect(message()).toBeNull());
});

test('the other buttons of a mouse hold nothing', async () => {
  await opened();
  fireEvent.pointerDown(document.body, { button: 2 });
  fireEvent.change(screen.getByLabelText(/Vessel/), { target: { value: 'Tern' } });
  fireEvent.blur(screen.getByLabelText(/Vessel/));
  await waitFor(() => expect(screen.queryByText('Have a calm crossing.')).toBeNull());
});

const list = () => document.createElement('select');
