/** Checks that do not cry wolf: in behaviours that are right nothing is found, whatever they look like. */
import { describe, expect, test } from 'vitest';
import { foundIn } from '../support/demo-language';
import { rightBehaviours } from './right';

test('there are at least thirty', () => {
  expect(rightBehaviours.length).toBeGreaterThanOrEqual(30);
});

describe.each(rightBehaviours)('$form: $about', ({ form, code, beside }) => {
  test('nothing is found', () => {
    const say = (text: string, other?: string) =>
      foundIn(form, text, other).map(({ line, code: name, says }) => `${line} ${name}: ${says}`);
    expect(say(code, beside)).toEqual([]);
    if (beside !== undefined) expect(say(beside, code)).toEqual([]);
  });
});
