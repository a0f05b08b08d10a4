import { expect, test } from 'vitest';
import { launchIn, launchText, openedHow } from './opening-words';

test('launch parameters are written one a line, and read as they were written', () => {
  const launch = { agent: 'a-7', quay: 3, lit: true, none: null, list: ['x'] };
  expect(launchText(launch)).toBe('agent=a-7\nquay=3\nlit=true\nnone=null\nlist=["x"]');
  expect(launchIn(launchText(launch))).toEqual({ launch });
});

test.each([
  ['quay = 3 \n\n', { launch: { quay: 3 } }],
  ['note=a=b', { launch: { note: 'a=b' } }],
  ['', { launch: {} }],
  ['quay', { says: 'Line 1 is not name=value with a technical name.' }],
  ['a=1\nÖ=2', { says: 'Line 2 is not name=value with a technical name.' }],
])('%j', (text, read) => expect(launchIn(text)).toEqual(read));

test('how a form is opened is said where it is not as usual', () => {
  expect(openedHow({ as: 'mira' })).toBe('');
  expect(
    openedHow({
      as: 'mira',
      viewing: true,
      zone: 'Europe/Oslo',
      parent: { form: 'vessel', record: '7' },
      launch: { quay: 3, agent: 'x' },
      services: { tides: { fails: 'x' } },
    }),
  ).toBe('viewing only · Europe/Oslo · from vessel 7 · launch quay, agent · services changed');
  expect(openedHow({ as: 'mira', launch: {}, services: {} })).toBe('');
});
