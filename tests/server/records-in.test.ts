/** Records brought in: entered as by hand, one refused without the others, changed where their id is there. */
// oxlint-disable unicorn/no-thenable -- JSON Schema has a keyword of that name
import { afterAll, beforeAll, expect, test } from 'vitest';
import { exportedRecords } from '../../src/server/records/export';
import { enterRecords, readBroughtRecords } from '../../src/server/fillings/bring';
import { readRecord } from '../../src/server/records/read';
import { makeRelease } from '../../src/server/releases/releases';
import { Refusal } from '../../src/server/http/refusal';
import { existingForm } from '../../src/server/content/forms';
import { readHead } from '../../src/server/content/read';
import { addFormFrom, jsonSchemaOf, takenFrom } from '../../src/server/content/interchange';
import { readBehaviours } from '../../src/server/content/read';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_records_in_test');
  await makeRelease('works_permit');
});
afterAll(() => end());

const FORM = 'works_permit';
const mira = async () => (await readHead()).people[0]!;

test('each line is entered as by hand: what behaviours compute, what they refuse', async () => {
  const { records, errors } = await readBroughtRecords(
    FORM,
    'begins,ends\n2031-05-06T08:00:00Z,2031-05-06T07:00:00Z\n',
    'csv',
  );
  expect(errors).toEqual([]);
  const [refused] = await enterRecords(FORM, records, await mira());
  expect(refused).toMatchObject({ line: 2, id: null });
  expect(refused!.says).toContain('The works end before they begin.');
});

test('what went out is entered again under its ids, and changes what was changed', async () => {
  let text = '';
  for await (const piece of exportedRecords(
    await existingForm(FORM),
    'jsonl',
  ) as unknown as AsyncIterable<Uint8Array>)
    text += new TextDecoder().decode(piece);
  const { records } = await readBroughtRecords(FORM, text, 'jsonl');
  expect(records.length).toBeGreaterThan(0);
  const entered = await enterRecords(FORM, records, await mira());
  expect(entered.map(({ line }) => line)).toEqual(records.map(({ line }) => line));
  for (const one of entered)
    if (one.says === null) expect(await readRecord(FORM, one.id)).not.toBe(null);
});

test('a record that is not there is refused by its line, and the others are entered', async () => {
  const came = await enterRecords(
    FORM,
    [
      { line: 2, id: '99999', values: {} },
      { line: 3, id: null, values: { no_such: 1 } },
    ],
    await mira(),
  );
  expect(came.map(({ line, says }) => [line, says !== null])).toEqual([
    [2, true],
    [3, true],
  ]);
  expect(came[1]!.says).toContain('no field "no_such"');
});

test('a form without a release has nobody enter anything', async () => {
  const refused = await readBroughtRecords('vessel', 'name\nA\n', 'csv').catch(
    (caught: unknown) => caught,
  );
  expect(refused).toBeInstanceOf(Refusal);
  expect((refused as Refusal).message).toContain('no release yet');
});

test('a form goes out as JSON Schema, and one comes in with its conditions', async () => {
  expect(await jsonSchemaOf('berth_visit')).toMatchObject({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    properties: {
      pilot_choice: {
        oneOf: expect.arrayContaining([{ const: 'own', title: 'Own pilot' }]) as object,
      },
    },
  });
  const source = {
    text: JSON.stringify({
      title: 'Quay light',
      properties: { lit: { type: 'boolean' }, why: { type: 'string' } },
      if: { properties: { lit: { const: false } }, required: ['lit'] },
      then: { required: ['why'] },
    }),
    as: 'json-schema' as const,
    called: 'x',
  };
  expect((await takenFrom(source)).notes).toEqual([]);
  const name = await addFormFrom(source, 'Quay light', 'mira');
  expect((await existingForm(name)).title).toBe('Quay light');
  expect((await readBehaviours(name))[0]!.text).toContain('fields.why.required = ');
  const refused = await takenFrom({ ...source, text: 'nope' }).catch((caught: unknown) => caught);
  expect(refused).toBeInstanceOf(Refusal);
  expect((refused as Refusal).message).toContain('not JSON');
});
