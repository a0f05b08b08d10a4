/** Options both ways: what is found, from which option and by whom, and what is not. */
import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { inspectedHere, materialFor } from '../../../tests/support/hosts';
import { fieldsOf } from '../form/fields';
import type { Cast } from '../scenario/opening';
import {
  bothWays,
  contextsOf,
  drivingFields,
  findingInWords,
  grouped,
  openingInWords,
  type Grouped,
} from './both-ways';

const form = formWith([
  choice('kind', ['tug', 'ferry', 'barge']),
  number('draught'),
  text('note'),
  rows('cargo', [text('goods'), number('weight')]),
  text('berth', { hidden: true, whenHidden: 'omit' }),
]);
const cast: Cast = {
  people: [
    { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
    { key: 'joss', name: 'Joss Pell', roles: ['clerk'] },
    { key: 'ada', name: 'Ada Brand', roles: ['master'] },
  ],
  records: [
    { id: '1', values: { kind: 'tug', cargo: [{ goods: 'Sand', weight: 4 }], berth: 'North' } },
  ],
};

async function found(script: string): Promise<Grouped[]> {
  const scripts = { '10-x': script };
  const sources = [{ text: script }];
  const material = materialFor({ form, scripts }, false);
  const all = [];
  for (const field of drivingFields(form, sources))
    for (const open of contextsOf(cast, field))
      all.push(
        ...(await bothWays(
          field,
          open,
          { form, source: { tables: [] }, cast, tables: [], sources },
          (opening, steps) =>
            Promise.resolve(
              inspectedHere({ form, scripts, opening }, steps, { runs: [] }, material).answers,
            ),
        )),
      );
  return grouped(all);
}

const label = (part: string) => fieldsOf(form).find(({ name }) => name === part)?.label ?? part;
const words = (all: Grouped[]) => all.map(({ finding }) => findingInWords(finding, label));

describe('both ways', () => {
  test('finds nothing in rules, on forms with rows and with what is left out while it is hidden', async () => {
    expect(
      await found(
        'keep("n", () => { fields.note.required = fields.kind.value === "tug"; fields.cargo.hint = `${fields.cargo.sum("weight")} t`; });',
      ),
    ).toEqual([]);
  });

  test('says which option leaves something behind', async () => {
    const all = await found(
      'on.change(fields.kind, ({ value }) => { if (value === "ferry") fields.note.locked = true; });',
    );
    expect(words(all)).toContain(
      'Kind set to "ferry" and back does not come back: Note locked: false → true',
    );
  });

  test('goes from option to option, where the way back to nothing shows nothing', async () => {
    const all = await found(
      [
        'on.change(fields.kind, ({ value, previous }) => {',
        '  if (value === null) fields.note.required = false;',
        '  if (value === "barge" && previous === "tug") fields.note.required = true;',
        '});',
      ].join('\n'),
    );
    // The shortest way there is told, which is that of the record that is a tug's already.
    const back = all.find(
      ({ finding }) => finding.is === 'not back' && finding.option === 'barge',
    )!;
    expect(words([back])).toEqual([
      'Kind set to "barge" and back does not come back: Note required: false → true',
    ]);
    expect(back.openings.map((open) => openingInWords(open, cast.people))).toEqual([
      'record 1',
      'new',
      'new, as Ada Brand',
    ]);
  });

  test('tries numbers around those in the code', async () => {
    const all = await found(
      'on.change(fields.draught, ({ value }) => { if ((value ?? 0) > 9) fields.note.required = true; });',
    );
    expect(new Set(all.map(({ finding }) => finding.option))).toEqual(new Set([10]));
    // No script mentions a number beside it.
    expect(
      drivingFields(form, [{ text: 'on.load(() => log(9));' }]).map(({ name }) => name),
    ).toEqual(['kind']);
  });

  test('as each person with other roles, once', async () => {
    expect(contextsOf(cast, form.pages[0]!.sections[0]!.fields[0]!)).toEqual([
      { as: 'mira' },
      { as: 'ada' },
      { as: 'mira', record: '1' },
    ]);
    const all = await found(
      'on.change(fields.kind, ({ value }) => { if (value === "tug" && form.person.roles.includes("master")) fields.note.locked = true; });',
    );
    const where = all.flatMap(({ openings }) =>
      openings.map((open) => openingInWords(open, cast.people)),
    );
    expect(new Set(where)).toEqual(new Set(['new, as Ada Brand']));
  });
});
