import { describe, expect, test } from 'vitest';
import { DATE_STYLES, readDate, readDateAndTime, readTime, showDate, STYLES } from './date-style';

describe('dates', () => {
  test.each([
    ['2031-05-02', 'ymd', '2031-05-02'],
    ['2031/5/2', 'dmy', '2031-05-02'],
    ['20310502', 'mdy', '2031-05-02'],
    ['2.5.2031', 'dmy', '2031-05-02'],
    ['2. 5. 2031', 'dmy', '2031-05-02'],
    ['2 5 31', 'dmy', '2031-05-02'],
    ['5/2/31', 'mdy', '2031-05-02'],
    ['02-05-31', 'ymd', '2031-05-02'],
    [' 29.02.2028 ', 'dmy', '2028-02-29'],
    ['29.02.2031', 'dmy', null],
    ['13/13/2031', 'mdy', null],
    ['31.12.69', 'dmy', '1969-12-31'],
    ['31.12.68', 'dmy', '2068-12-31'],
    ['2031-05', 'ymd', null],
    ['tomorrow', 'ymd', null],
    ['', 'ymd', null],
  ] as const)('%j in the order %s', (text, order, date) =>
    expect(readDate(text, order)).toBe(date),
  );

  test('what is shown in a style is read back in it', () => {
    for (const style of DATE_STYLES)
      for (const date of ['2031-05-02', '1999-12-31', '0099-01-01'])
        expect(readDate(showDate(date, style), STYLES[style].order)).toBe(date);
  });

  test('in each style', () => {
    expect(DATE_STYLES.map((style) => showDate('2031-05-02', style))).toEqual([
      '2031-05-02',
      '02.05.2031',
      '02/05/2031',
      '05/02/2031',
    ]);
    expect(showDate('soon', 'dmy_points')).toBe('soon');
  });
});

test.each([
  ['9:05', '09:05'],
  ['09.05', '09:05'],
  ['0905', '09:05'],
  ['905', '09:05'],
  ['9', '09:00'],
  ['23:59:30', '23:59'],
  ['24:00', null],
  ['9:60', null],
  ['noon', null],
])('the time %j', (text, time) => expect(readTime(text)).toBe(time));

test.each([
  ['2031-05-02 9:05', 'ymd', '2031-05-02T09:05'],
  ['2031-05-02T09:05', 'ymd', '2031-05-02T09:05'],
  ['2.5.2031 9', 'dmy', '2031-05-02T09:00'],
  ['2. 5. 2031 9:30', 'dmy', '2031-05-02T09:30'],
  ['2031-05-02', 'ymd', null],
  ['9:05', 'ymd', null],
] as const)('the moment %j', (text, order, moment) =>
  expect(readDateAndTime(text, order)).toBe(moment),
);
