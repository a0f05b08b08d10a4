import { expect, test } from 'vitest';
import type { FormRow } from '@/core/workspace/overview';
import { firstBackwards, listed, type FormColumn } from './form-order';

const row = (name: string, title: string, rest: Partial<FormRow> = {}): FormRow => ({
  name,
  title,
  revision: 1,
  behaviours: 0,
  scenarios: 0,
  run: null,
  check: null,
  found: null,
  records: { count: 0, more: false },
  release: null,
  touched: { at: '2031-05-01T10:00:00Z', by: 'mira' },
  ...rest,
});
const forms = [
  row('berth', 'Berth visit', {
    check: { errors: 0, warnings: 12, current: true },
    records: { count: 1000, more: true },
  }),
  row('crane', 'Crane booking', {
    check: { errors: 1, warnings: 0, current: true },
    records: { count: 1000, more: false },
    run: { passed: 3, failed: 1, at: '2031-05-01T10:00:00Z', current: true, coverage: null },
    release: { number: 2, createdAt: '2031-04-01T10:00:00Z', changes: null, forPeople: null },
  }),
  row('anchor', 'anchorage', { touched: { at: '2031-06-01T10:00:00Z', by: null } }),
];
const names = (by: FormColumn, backwards = firstBackwards(by), search = '') =>
  listed(forms, search, { by, backwards }).map(({ name }) => name);

test('by title whatever its case, and backwards', () => {
  expect(names('form')).toEqual(['anchor', 'berth', 'crane']);
  expect(names('form', true)).toEqual(['crane', 'berth', 'anchor']);
});

test('the worst, the most and the latest come first; what is equal is in the order of titles', () => {
  expect(names('problems')).toEqual(['crane', 'berth', 'anchor']);
  expect(names('scenarios')).toEqual(['crane', 'anchor', 'berth']);
  expect(names('release')).toEqual(['crane', 'anchor', 'berth']);
  expect(names('records')).toEqual(['berth', 'crane', 'anchor']);
  expect(names('touched')).toEqual(['anchor', 'berth', 'crane']);
});

test('searched in titles and technical names', () => {
  expect(names('form', false, ' BERTH ')).toEqual(['berth']);
  expect(names('form', false, 'crane')).toEqual(['crane']);
  expect(names('form', false, 'none')).toEqual([]);
});
