/** The form as people meet it, over a real session: what is drawn, marked and handed on, decided without a browser. */
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { choice, date, number, page, section, text, track } from '../../../tests/support/forms';
import { sheetOf } from '../../../tests/support/sheet';

const FORM = {
  name: 'visit',
  title: 'Visit',
  pages: [
    page('main', [
      section('stay', [
        text('vessel', { required: true, minLength: 3 }),
        choice('pilot', ['own', 'none']),
        date('arrival'),
        number('hours', { locked: true }),
      ]),
      section('permits', [text('licence')], { hidden: true }),
    ]),
  ],
  tracks: [track('works', ['asked', 'done'])],
};
const SCRIPTS = {
  a: `keep(() => {
    sections.permits.shown = fields.pilot.value === "own";
    fields.licence.required = fields.pilot.value === "own";
    tracks.works.stage = fields.arrival.empty ? "asked" : "done";
    fields.vessel.warning = fields.vessel.value === "Tern" ? "Known to be late." : undefined;
  });`,
};

test('what a script shows is drawn, and said to those who do not see it', async () => {
  const user = userEvent.setup();
  const { steps } = sheetOf({ form: FORM, scripts: SCRIPTS });
  expect(screen.queryByLabelText(/Licence/)).toBeNull();
  await user.selectOptions(screen.getByLabelText(/Pilot/), 'own');
  expect(steps).toEqual([{ set: 'pilot', to: 'own' }]);
  expect(screen.getByLabelText(/Licence/).getAttribute('aria-required')).toBe('true');
  expect(screen.getByTestId('announcements').textContent).toContain('Permits is shown.');
  await user.selectOptions(screen.getByLabelText(/Pilot/), 'none');
  expect(screen.queryByLabelText(/Licence/)).toBeNull();
});

test('a locked field cannot be typed into; a frozen sheet takes nothing', async () => {
  const user = userEvent.setup();
  sheetOf({ form: FORM, scripts: SCRIPTS });
  expect(screen.getByLabelText(/Hours/).hasAttribute('readonly')).toBe(true);
  const { steps } = sheetOf({ form: FORM, scripts: SCRIPTS }, { frozen: true, depth: 1 });
  const [, second] = screen.getAllByLabelText(/Vessel/);
  await user.type(second!, 'Tern').catch(() => undefined);
  await user.tab();
  expect(steps).toEqual([]);
});

test('what is wrong stands beside the field, which says so; a warning does not', async () => {
  const user = userEvent.setup();
  const { does } = sheetOf({ form: FORM, scripts: SCRIPTS });
  const vessel = () => screen.getByLabelText(/Vessel/);
  await user.type(vessel(), 'Te');
  await user.tab();
  expect(vessel().getAttribute('aria-invalid')).toBe('false');
  does({ submit: true });
  expect(vessel().getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByText('At least 3 characters; these are 2.')).toBeTruthy();
  const described = vessel().getAttribute('aria-describedby')!.split(' ');
  expect(described.map((id) => document.getElementById(id)!.textContent).join(' ')).toContain(
    'At least 3 characters; these are 2.',
  );
  await user.clear(vessel());
  await user.type(vessel(), 'Tern');
  await user.tab();
  expect(vessel().getAttribute('aria-invalid')).toBe('false');
  expect(screen.getByText('Known to be late.')).toBeTruthy();
});

test('a date is taken as it is typed, and a track is at its stage', async () => {
  const user = userEvent.setup();
  const { steps } = sheetOf({ form: FORM, scripts: SCRIPTS });
  const stages = () =>
    within(screen.getByRole('list', { name: 'Works' }))
      .getAllByRole('listitem')
      .filter((item) => item.getAttribute('aria-current') === 'step')
      .map((item) => item.textContent);
  expect(stages()).toEqual(['Asked']);
  await user.type(screen.getByLabelText(/Arrival/), '2031/5/2');
  await user.tab();
  expect(steps).toEqual([{ set: 'arrival', to: '2031-05-02' }]);
  expect(stages()).toEqual(['Done']);
});

test('sheets over one another keep their ids apart', () => {
  sheetOf({ form: FORM });
  sheetOf({ form: FORM }, { depth: 1 });
  sheetOf({ form: FORM }, { depth: 2 });
  const ids = [...document.querySelectorAll('[id]')].map(({ id }) => id);
  expect(ids.length).toBeGreaterThan(12);
  expect(new Set(ids).size).toBe(ids.length);
  for (const region of screen.getAllByRole('region'))
    expect(region.contains(document.getElementById(region.getAttribute('aria-labelledby')!))).toBe(
      true,
    );
});
