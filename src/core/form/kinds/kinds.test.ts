import { describe, expect, test } from 'vitest';
import { berths, choice, date, money, number, reference, text, yesNo } from '../../../../tests/support/forms';
import { indexTable } from '../table-index';
import { accept, faultOf, textOf } from '.';

const around = { options: null, table: () => indexTable(berths) };

describe('how values read to people', () => {
  test.each([
    [text('note'), 'x', 'x'],
    [number('length', { unit: 'm', decimals: 1 }), 12, '12.0 m'],
    [number('length'), 1.25, '1.25'],
    [money('dues', { currency: 'crowns' }), 3.5, '3.50 crowns'],
    [date('arrival'), '2031-05-03', '2031-05-03'],
    [yesNo('power'), false, 'No'],
    [choice('pilot', ['own']), 'own', 'Own'],
    [choice('pilot', ['own']), 'gone', 'gone'],
    [reference('berth', 'berths'), 'nq1', 'North quay 1'],
    [number('length'), null, ''],
  ])('%o with %o', (field, value, reads) => {
    expect(textOf(value, field, around)).toBe(reads);
  });
});

test('a choice also takes a key that a script offers now', () => {
  expect(accept('late', choice('pilot', ['own']), { ...around, options: [{ key: 'late', label: 'Late' }] })).toEqual({ ok: true, value: 'late' });
});

test('the first fault is told, required before all', () => {
  expect(faultOf(null, text('note', { minLength: 3 }), true)).toMatchObject({ code: 'valueMissing' });
  expect(faultOf(null, text('note', { minLength: 3 }), false)).toBeNull();
  expect(faultOf('a', text('note', { minLength: 3, pattern: '[b-z]+' }), true)).toMatchObject({ code: 'patternMismatch' });
});
