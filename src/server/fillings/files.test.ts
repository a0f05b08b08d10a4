import { expect, test } from 'vitest';
import { file, formWith, rows, text } from '../../../tests/support/forms';
import { filesIn } from './files';

const plan = { name: 'plan.pdf', size: 4, type: 'application/pdf' };
const photo = { name: 'hull.png', size: 9, type: 'image/png' };

test('files are found in fields and in the cells of rows, each with its field', () => {
  const form = formWith([
    text('note'),
    file('plans'),
    rows('damage', [text('where'), file('photos')]),
  ]);
  const values = {
    note: 'x',
    plans: [plan, photo],
    damage: [
      { where: 'bow', photos: [photo] },
      { where: 'stern', photos: null },
      { where: 'keel' },
    ],
  } as never;
  expect(filesIn(form, values)).toEqual([
    { field: 'plans', file: plan },
    { field: 'plans', file: photo },
    { field: 'damage.photos', file: photo },
  ]);
});

test('where nothing is filled in there are none', () => {
  const form = formWith([file('plans'), rows('damage', [file('photos')])]);
  expect(filesIn(form, {})).toEqual([]);
  expect(filesIn(form, { plans: null, damage: [] })).toEqual([]);
});
