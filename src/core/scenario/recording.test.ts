import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import type { Opening } from '../session/step';
import { masked } from './masking';
import { openingOf } from './opening';
import { castOf, openOf } from './recorded';

const form = formWith([
  text('name'),
  number('length'),
  choice('kind', ['tug']),
  rows('cargo', [text('goods'), number('weight')]),
]);

const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: { id: '7', values: { name: 'Grey Heron', cargo: [{ goods: 'Gravel', weight: 2 }] } },
  launch: {},
  clock: Date.parse('2031-05-02T09:00:00Z'),
  seed: 4,
  newId: '12',
};

describe('masking', () => {
  test('replaces letters and digits of typed texts and leaves their pattern, all else as it was', () => {
    const found = masked(
      {
        opening,
        steps: [
          { set: 'name', to: 'Ötter 12-b', at: 5 },
          { input: 'name', to: 'x1' },
          { set: 'kind', to: 'tug' },
          { set: 'length', to: 12 },
          { set: 'cargo[0].goods', to: 'Coal' },
          { addRow: 'cargo', with: [{ goods: 'Sand', weight: 1 }] },
          { addRow: 'cargo', with: { goods: 'Salt' } },
          { submit: true },
        ],
        ended: { name: 'Ötter', length: 12, cargo: [{ goods: 'Coal', weight: 1 }] },
      },
      form,
    );
    expect(found.steps).toEqual([
      { set: 'name', to: 'Xxxxx 00-x', at: 5 },
      { input: 'name', to: 'x0' },
      { set: 'kind', to: 'tug' },
      { set: 'length', to: 12 },
      { set: 'cargo[0].goods', to: 'Xxxx' },
      { addRow: 'cargo', with: [{ goods: 'Xxxx', weight: 1 }] },
      { addRow: 'cargo', with: { goods: 'Xxxx' } },
      { submit: true },
    ]);
    expect(found.opening.record!.values).toEqual({
      name: 'Xxxx Xxxxx',
      cargo: [{ goods: 'Xxxxxx', weight: 2 }],
    });
    expect(found.ended).toMatchObject({ name: 'Xxxxx', length: 12 });
  });

  test('takes a value that is no text as it is', () => {
    const steps = [{ set: 'name', to: null }];
    expect(masked({ opening, steps, ended: null }, form).steps).toEqual(steps);
  });
});

describe('an opening as scenarios say it', () => {
  test('opens as the recording did, with its own person, record and parent', () => {
    const parent = {
      form: 'vessel',
      record: '3',
      fields: [text('flag')],
      values: { flag: 'QH' },
    };
    const recorded: Opening = { ...opening, parent, zone: 'Europe/Lisbon', viewing: true };
    const cast = castOf(recorded, {
      people: [{ key: 'mira', name: 'Somebody else', roles: ['agent'] }],
      records: [{ id: '7', values: { name: 'of today' } }],
      forms: [],
    });
    const again = openingOf(openOf(recorded), form, cast);
    expect(again).toMatchObject({
      person: recorded.person,
      record: recorded.record,
      parent,
      clock: recorded.clock,
      seed: 4,
      zone: 'Europe/Lisbon',
      viewing: true,
    });
  });

  test('of a new entry is one', () => {
    const fresh = { ...opening, record: null };
    expect(openOf(fresh)).toMatchObject({ as: 'mira', record: null });
  });
});
