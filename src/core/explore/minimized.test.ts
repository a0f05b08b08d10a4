import { expect, test } from 'vitest';
import { randomFrom } from '../random';
import { minimized } from './minimized';

test('the example of the paper: of 1 to 8 it takes 1, 7 and 8', () => {
  // Zeller, Hildebrandt 2002, section 3: the failure needs the changes 1, 7 and 8 of eight; quoted from memory.
  const tried: string[] = [];
  const fails = (items: readonly number[]) => {
    tried.push(items.join(''));
    return [1, 7, 8].every((one) => items.includes(one));
  };
  expect(minimized([1, 2, 3, 4, 5, 6, 7, 8], fails)).toEqual([1, 7, 8]);
  // Halves, then quarters, then what quarters leave; the second of these fails and is gone on from.
  expect(tried.slice(0, 9)).toEqual([
    '',
    '1234',
    '5678',
    '12',
    '34',
    '56',
    '78',
    '345678',
    '125678',
  ]);
});

test('nothing can be left out of what is left, whatever it takes', () => {
  const random = randomFrom(5);
  for (let i = 0; i < 200; i++) {
    const items = Array.from({ length: 1 + Math.floor(random() * 14) }, (_, n) => n);
    const needed = items.filter(() => random() < 0.3);
    const still = (some: readonly number[]) => needed.every((one) => some.includes(one));
    expect(minimized(items, still)).toEqual(needed);
  }
});

test('where order matters it is kept', () => {
  const still = (items: readonly string[]) => items.join('').includes('ab');
  expect(minimized([...'xaxyb'.replace('xy', '')], still)).toEqual(['a', 'b']);
});
