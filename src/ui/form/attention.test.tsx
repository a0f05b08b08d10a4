/** What is announced of what scripts show and hide, and where the focus is when a script takes its place away. */
import { act, screen } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { formWith, page, rows, section, text } from '../../../tests/support/forms';
import { sheetOf } from '../../../tests/support/sheet';

beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(2000);
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(2000);
  vi.spyOn(HTMLElement.prototype, 'offsetWidth', 'get').mockReturnValue(800);
  // As of CSSOM, for the names that rows have.
  vi.stubGlobal('CSS', { escape: (name: string) => name.replace(/[^\w-]/g, '\\$&') });
  return () => {
    vi.restoreAllMocks();
    vi.unstubAllGlobals();
  };
});

const FORM = {
  ...formWith([]),
  pages: [
    page('main', [
      section('first', [text('hide'), text('vessel'), text('master')]),
      section('last', [text('berth')]),
    ]),
    page('second', [section('more', [text('note')])]),
  ],
};
const SCRIPT = `keep(() => {
  const gone = fields.hide.value ?? "";
  fields.vessel.shown = !gone.includes("vessel");
  fields.master.shown = !gone.includes("master");
  sections.last.shown = !gone.includes("last");
});`;

const announced = () => screen.getByTestId('announcements').textContent;
const focused = () => document.activeElement?.closest('[data-part]')?.getAttribute('data-part');

test('what is shown and hidden is announced by label; what was so from the start is not', () => {
  const { does } = sheetOf({ form: FORM, scripts: { a: SCRIPT } });
  expect(announced()).toBe('');
  does({ set: 'hide', to: 'vessel last' });
  expect(announced()).toBe('Vessel is hidden. Last is hidden.');
  does({ set: 'hide', to: 'last' });
  expect(announced()).toBe('Vessel is shown.');
  // What was announced last stays where nothing else is to say.
  does({ set: 'berth', to: 'n1' });
  expect(announced()).toBe('Vessel is shown.');
});

test('turning a page announces nothing', () => {
  const { does } = sheetOf({
    form: FORM,
    scripts: { a: 'on.pageChange(() => { fields.vessel.shown = false; });' },
  });
  does({ turnTo: 'second' });
  expect(announced()).toBe('');
});

const CARGO = formWith([
  text('hide'),
  rows('cargo', [text('goods'), text('flash_point')]),
  text('after'),
]);
const OF_ROWS = `keep.each(fields.cargo, (row) => {
  row.fields.flash_point.shown = row.fields.goods.value !== fields.hide.value;
});`;
const loaded = {
  form: CARGO,
  scripts: { a: OF_ROWS },
  record: { id: '1', values: { cargo: [{ goods: 'oil' }, { goods: 'grain' }, { goods: 'ore' }] } },
};

test('cells that turn are announced with their row; those of a new row are not', async () => {
  const { does } = sheetOf(loaded);
  await screen.findAllByLabelText(/Flash point/);
  does({ set: 'hide', to: 'grain' });
  expect(announced()).toBe('Flash point in row 2 is hidden.');
  does({ set: 'hide', to: 'oil' });
  expect(announced()).toBe('Flash point in row 1 is hidden. Flash point in row 2 is shown.');
  does({ set: 'hide', to: 'gas' });
  does({ addRow: 'cargo', with: { goods: 'gas' } });
  expect(announced()).toBe('Flash point in row 1 is shown.');
});

test('the focus of what goes is taken by the next input, whatever section it is in', () => {
  const { does } = sheetOf({ form: FORM, scripts: { a: SCRIPT } });
  act(() => screen.getByLabelText(/Vessel/).focus());
  does({ set: 'hide', to: 'vessel' });
  expect(focused()).toBe('master');
  does({ set: 'hide', to: 'vessel master' });
  expect(focused()).toBe('berth');
});

test('with nothing below, the sheet has it', () => {
  const { does } = sheetOf({ form: FORM, scripts: { a: SCRIPT } });
  act(() => screen.getByLabelText(/Berth/).focus());
  does({ set: 'hide', to: 'last' });
  expect(document.activeElement).not.toBe(document.body);
  expect(focused()).toBeUndefined();
});

test('a focus that was let go of, or is elsewhere, stays', () => {
  const { does } = sheetOf({ form: FORM, scripts: { a: SCRIPT } });
  act(() => screen.getByLabelText(/Vessel/).focus());
  act(() => screen.getByLabelText(/Vessel/).blur());
  does({ set: 'berth', to: 'n1' });
  expect(document.activeElement).toBe(document.body);
  act(() => screen.getByLabelText(/Vessel/).focus());
  act(() => screen.getByLabelText(/Hide/).focus());
  does({ set: 'hide', to: 'vessel' });
  expect(focused()).toBe('hide');
});

test('of a cell that goes the focus is taken by its row', async () => {
  const { does } = sheetOf(loaded);
  const [, second] = await screen.findAllByLabelText(/Flash point/);
  act(() => second!.focus());
  does({ set: 'hide', to: 'grain' });
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Goods, row 2');
});
