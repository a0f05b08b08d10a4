import { fits } from '../../guest/patterns';
import { describe, expect, test } from 'vitest';
import {
  berths,
  choice,
  choices,
  date,
  datetime,
  file,
  money,
  number,
  reference,
  rows,
  text,
  time,
  yesNo,
} from '../../../../tests/support/forms';
import { indexTable } from '../table-index';
import { accept, faultOf } from '.';
import { textOf } from '../traits';

const around = { options: null, table: () => indexTable(berths) };

describe('what each kind accepts', () => {
  const files = [{ name: 'plan.pdf', size: 2048, type: 'application/pdf' }];
  test.each([
    [time('at'), '09:30', '09:30'],
    [time('at'), '24:00', 'a time spelled HH:MM'],
    [time('at'), '09:30:00', 'a time spelled HH:MM'],
    [datetime('moment'), '2031-05-02T09:00:00Z', '2031-05-02T09:00:00Z'],
    // Kept as given: another spelling of the same instant is another text.
    [datetime('moment'), '2031-05-02T11:00:00+02:00', '2031-05-02T11:00:00+02:00'],
    [
      datetime('moment'),
      '2031-02-30T09:00:00Z',
      'a date and time spelled as 2031-05-02T09:00:00Z (RFC 3339)',
    ],
    [
      datetime('moment'),
      '2031-05-02 09:00',
      'a date and time spelled as 2031-05-02T09:00:00Z (RFC 3339)',
    ],
    [
      choices('extras', ['water', 'power', 'crane']),
      ['crane', 'water', 'crane'],
      ['water', 'crane'],
    ],
    [choices('extras', ['water']), 'water', 'a list of its keys, such as ["water"]'],
    [choices('extras', ['water']), ['Water'], 'one of the keys "water" each; "Water" is none'],
    [choices('extras', ['water']), null, []],
    [file('papers'), files, files],
    [file('papers'), [{ name: 'x' }], 'a list of files, each { name, size, type }'],
    [rows('list', [text('a'), number('n')]), [{ n: 1 }], [{ a: null, n: 1 }]],
    [
      rows('list', [text('a')]),
      [{ b: 1 }],
      'rows of its own cells; in row 1 "b" is no cell; there are a',
    ],
    [rows('list', [text('a')]), 'x', 'a list of rows'],
  ])('%o offered %j', (field, offered, taken) => {
    const accepted = accept(offered, field, around);
    expect(accepted.ok ? accepted.value : accepted.takes).toEqual(taken);
  });
});

describe('what each kind checks', () => {
  test.each([
    [time('at', { min: '08:00', step: 15 }), '07:45', 'rangeUnderflow'],
    [time('at', { max: '17:00' }), '17:01', 'rangeOverflow'],
    [time('at', { min: '08:05', step: 15 }), '08:20', null],
    [time('at', { step: 15 }), '08:20', 'stepMismatch'],
    // As instants, whatever their offsets.
    [
      datetime('moment', { min: '2031-05-02T09:00:00Z' }),
      '2031-05-02T10:30:00+02:00',
      'rangeUnderflow',
    ],
    [datetime('moment', { max: '2031-05-02T09:00:00Z' }), '2031-05-02T10:30:00+02:00', null],
    [choices('extras', ['a', 'b', 'c'], { minCount: 2 }), ['a'], 'tooFew'],
    [choices('extras', ['a', 'b', 'c'], { maxCount: 1 }), ['a', 'b'], 'tooMany'],
    [
      file('papers'),
      [
        { name: 'a', size: 1, type: '' },
        { name: 'b', size: 1, type: '' },
      ],
      'tooMany',
    ],
    [file('papers', { maxBytes: 10 }), [{ name: 'a', size: 11, type: '' }], 'rangeOverflow'],
    [
      file('papers', { types: ['image/*'] }),
      [{ name: 'a', size: 1, type: 'application/pdf' }],
      'typeMismatch',
    ],
    [
      file('papers', { types: ['image/*', 'application/pdf'] }),
      [{ name: 'a', size: 1, type: 'application/pdf' }],
      null,
    ],
    [text('number', { mask: 'AA-999' }), 'QH-12', 'patternMismatch'],
    [text('number', { mask: 'AA-999' }), 'QH-123', null],
    [text('account', { format: 'iban' }), 'DE89370400440532013001', 'typeMismatch'],
    [text('ship', { format: 'imo' }), '9074729', null],
    [text('box', { format: 'container' }), 'CSQU3054384', 'typeMismatch'],
    [text('call', { format: 'phone' }), '030 1234', 'typeMismatch'],
    [rows('list', [text('a')], { minRows: 1 }), [], 'tooFew'],
  ])('%o holding %j', (field, value, code) => {
    expect(faultOf(value as never, field, false, fits)?.code ?? null).toBe(code);
  });
});

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
    [datetime('moment'), '2031-05-02T09:00:00Z', '2031-05-02 09:00 UTC'],
    [datetime('moment'), '2031-05-02T09:00:00+02:00', '2031-05-02 09:00 +02:00'],
    [choices('extras', ['water', 'power']), ['water', 'power'], 'Water, Power'],
    [file('papers'), [{ name: 'plan.pdf', size: 3_000_000, type: '' }], 'plan.pdf (2.9 MiB)'],
    [rows('list', [text('a')]), [{ a: null }], '1 row'],
    [choices('extras', ['water']), [], ''],
    [number('length'), null, ''],
  ])('%o with %o', (field, value, reads) => {
    expect(textOf(value as never, field, around)).toBe(reads);
  });
});

test('a choice also takes a key that a script offers now', () => {
  expect(
    accept('late', choice('pilot', ['own']), {
      ...around,
      options: [{ key: 'late', label: 'Late' }],
    }),
  ).toEqual({ ok: true, value: 'late' });
});

test('the first fault is told, required before all', () => {
  expect(faultOf(null, text('note', { minLength: 3 }), true, fits)).toMatchObject({
    code: 'valueMissing',
  });
  expect(faultOf(null, text('note', { minLength: 3 }), false, fits)).toBeNull();
  expect(faultOf('a', text('note', { minLength: 3, pattern: '[b-z]+' }), true, fits)).toMatchObject(
    { code: 'patternMismatch' },
  );
});
