import { describe, expect, test } from 'vitest';
import { glimpse, type Sight } from './glimpse';
import { MOST_ITEMS } from './plain';

const SIGHT: Sight = { readsAs: () => null, isProxy: () => false, temporal: () => null };
const list = (length: number) => Array.from({ length }, (_, i) => i);

describe('of a list, a map and an object as many items are shown as there is room for', () => {
  test.each([MOST_ITEMS - 1, MOST_ITEMS])('%i, all of them', (length) => {
    const all = list(length);
    expect(glimpse(all, SIGHT)).toEqual(all);
    const entries = all.map((i): [string, number] => [`k${i}`, i]);
    expect(glimpse(new Map(entries), SIGHT)).toEqual(Object.fromEntries(entries));
    expect(glimpse(Object.fromEntries(entries), SIGHT)).toEqual(Object.fromEntries(entries));
  });

  test('one more, without it', () => {
    const all = list(MOST_ITEMS + 1);
    expect(glimpse(all, SIGHT)).toEqual([...list(MOST_ITEMS), '… 1 more']);
    const entries = all.map((i): [string, number] => [`k${i}`, i]);
    const shown = Object.fromEntries(entries.slice(0, MOST_ITEMS));
    expect(glimpse(new Map(entries), SIGHT)).toEqual(shown);
    expect(glimpse(Object.fromEntries(entries), SIGHT)).toEqual(shown);
  });
});
