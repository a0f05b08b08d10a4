import { expect, test } from 'vitest';
import { readLaunch } from './launch';
import { SCALAR_KINDS, SCALARS, type ScalarKind } from './scalar';
import type { Value } from './value';

const OFFERED: readonly Value[] = ['x', '', '12', 12, NaN, true, null, '2031-05-02', '2031-02-30'];

test('each kind holds its own values and no others', () => {
  const held = (kind: ScalarKind) => OFFERED.filter((value) => SCALARS[kind].holds(value));
  expect(Object.fromEntries(SCALAR_KINDS.map((kind) => [kind, held(kind)]))).toEqual({
    text: ['x', '', '12', '2031-05-02', '2031-02-30'],
    number: [12],
    date: ['2031-05-02'],
    yes_no: [true],
  });
});

test.each([
  ['text', ' x ', ' x '],
  ['number', '1,234.5', 1234.5],
  ['number', '0x10', undefined],
  ['number', 'many', undefined],
  ['date', ' 2031-05-02 ', '2031-05-02'],
  ['date', '2031-02-30', undefined],
  ['yes_no', 'Yes', true],
  ['yes_no', ' no', false],
  ['yes_no', 'true', true],
  ['yes_no', 'constructor', undefined],
] as const)('%s as typed: %j', (kind, text, read) => {
  expect(SCALARS[kind].read(text, 'point')).toBe(read);
});

test('what is typed is a value of the kind, or nothing', () => {
  for (const kind of SCALAR_KINDS)
    for (const text of ['x', '12', '-1.5', '2031-05-02', 'yes', 'FALSE', '1e400', '−3']) {
      const value = SCALARS[kind].read(text, 'comma');
      expect(value === undefined || SCALARS[kind].holds(value), `${kind} ${text}`).toBe(true);
    }
});

test('launch parameters are written as programs do, in whatever office', () => {
  const form = {
    launch: SCALAR_KINDS.map((kind) => ({ name: kind, kind })),
  };
  expect(
    readLaunch(form, { text: '007', number: '4.5', date: '2031-05-02', yes_no: 'false' }),
  ).toEqual({ launch: { text: '007', number: 4.5, date: '2031-05-02', yes_no: false } });
  expect(readLaunch(form, { number: 4.5, yes_no: true })).toEqual({
    launch: { text: null, number: 4.5, date: null, yes_no: true },
  });
  for (const [name, given] of [
    ['number', '4,5'],
    ['number', true],
    ['date', '02.05.2031'],
    ['yes_no', 'yes'],
    ['text', 12],
  ] as const)
    expect(readLaunch(form, { [name]: given }), `${name} ${given}`).toMatchObject({ name });
});
