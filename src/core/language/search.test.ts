import { SEARCH_HITS } from '../limits';
import { expect, test } from 'vitest';
import { searched } from './search';

const scripts = [
  {
    form: 'a',
    name: '10-x.ts',
    text: 'on.load(() => {\n  fields.Berth.value = fields.berth.value;\n});',
  },
  { form: 'b', name: '10-y.ts', text: 'log("(berth)");' },
];
const found = (wanted: string, more: { pattern?: boolean; exact?: boolean } = {}) =>
  searched(scripts, { wanted, pattern: more.pattern ?? false, exact: more.exact ?? false }).map(
    ({ form, line, from, to, text }) => `${form}:${line} ${text.slice(from, to)}`,
  );

test('every place in every script, whatever the capitals, or just as spelled', () => {
  expect(found('berth')).toEqual(['a:2 Berth', 'a:2 berth', 'b:1 berth']);
  expect(found('berth', { exact: true })).toEqual(['a:2 berth', 'b:1 berth']);
});

test('a text means itself, a pattern what it says', () => {
  expect(found('(berth)')).toEqual(['b:1 (berth)']);
  expect(found('fields\\.\\w+\\.value', { pattern: true })).toEqual([
    'a:2 fields.Berth.value',
    'a:2 fields.berth.value',
  ]);
  expect(found('x*', { pattern: true })).toEqual([]);
  expect(found('')).toEqual([]);
  expect(() => found('(', { pattern: true })).toThrow(SyntaxError);
});

test('no more than anybody would read', () => {
  expect(
    searched([{ form: 'a', name: 'x', text: 'a'.repeat(SEARCH_HITS * 2) }], {
      wanted: 'a',
      pattern: false,
      exact: true,
    }),
  ).toHaveLength(SEARCH_HITS);
});
