import { describe, expect, test } from 'vitest';
import type { SaidName } from '../wire/aspects';
import { acceptAspect } from './accepting';
import type { Aspect } from './aspects';
import type { State } from './state';

const offered = (name: SaidName | 'count', value: unknown) =>
  acceptAspect({} as State, { part: { name: '@form' }, name } as unknown as Aspect, value);

describe('a message', () => {
  test('is a text and a tone', () => {
    const message = { text: 'Moored.', tone: 'info' };
    expect(offered('message', message)).toEqual(message);
  });
  test.each([
    ['a text that is none', { text: 3, tone: 'info' }],
    ['a tone that is none', { text: 'Moored.', tone: 'loud' }],
    ['no tone', { text: 'Moored.' }],
    ['nothing', null],
    ['a text alone', 'Moored.'],
  ])('is not taken with %s', (_, value) => {
    expect(() => offered('message', value)).toThrow('a text and a tone');
  });
});

test('what takes its place is a text, final or not, or nothing', () => {
  expect(offered('replaced', { text: 'Closed.', final: true })).toEqual({
    text: 'Closed.',
    final: true,
  });
  expect(offered('replaced', { text: 'Closed.', final: false })).toBe('Closed.');
  expect(offered('replaced', '')).toBeNull();
  expect(() => offered('replaced', { text: 'Closed.' })).toThrow('a text or null');
});

test('what is computed cannot be said', () => {
  expect(() => offered('count', 3)).toThrow('it can be read, not written');
});
