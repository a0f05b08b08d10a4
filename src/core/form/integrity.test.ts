import { expect, test } from 'vitest';
import {
  berths,
  button,
  choice,
  formWith,
  number,
  reference,
  text,
} from '../../../tests/support/forms';
import { FormSchema } from './definition';
import { definitionErrors } from './integrity';

test('a sound definition has no errors', () => {
  expect(
    definitionErrors(formWith([text('note'), reference('berth', 'berths', { default: 'nq1' })]), [
      berths,
    ]),
  ).toEqual([]);
});

test('errors name their place: clashing names, unknown tables, wrong defaults, keys twice, unknown sections', () => {
  const form = formWith(
    [
      text('stay'),
      reference('berth', 'quays'),
      number('length', { default: 'x' }),
      choice('pilot', ['own', 'own']),
    ],
    { buttons: [button('go', { section: 'nowhere' })] },
  );
  expect(definitionErrors(form, [berths])).toEqual([
    {
      path: ['pages', 0, 'sections', 0, 'fields', 0, 'name'],
      says: '"stay" already names a section; every part needs a name of its own',
    },
    { path: ['pages', 0, 'sections', 0, 'fields', 1, 'table'], says: 'there is no table "quays"' },
    {
      path: ['pages', 0, 'sections', 0, 'fields', 2, 'default'],
      says: 'is "x", but a number takes a finite number',
    },
    {
      path: ['pages', 0, 'sections', 0, 'fields', 3, 'options', 1, 'key'],
      says: 'the key "own" is there twice',
    },
    { path: ['buttons', 0, 'section'], says: 'there is no section "nowhere"' },
  ]);
});

test('a name that scripts could not write is refused by the schema', () => {
  expect(FormSchema.safeParse(formWith([text('Not a name')])).success).toBe(false);
});
