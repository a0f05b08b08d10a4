/** Semantics 26: the server never trusts the browser. Against a real PostgreSQL and the real sandbox. */
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { TimedStep } from '../../src/core/session/step';
import { beginFilling, handOut } from '../../src/server/fillings/handing-out';
import { submit } from '../../src/server/fillings/submitting';
import { readRecord, recordHistory } from '../../src/server/records/read';
import { CannotRelease, makeRelease, newestRelease } from '../../src/server/releases/releases';
import { database } from '../../src/server/database/database';
import * as schema from '../../src/server/database/schema';
import { ownScript, saveScript as save, scriptHistory } from '../../src/server/content/behaviours';
import { readBehaviours, readHead } from '../../src/server/content/read';
import { begin, freshDatabase } from './support';
import { stepsOf, VISIT } from '../support/visit';

const saveScript = (key: Parameters<typeof save>[0], text: string, from: number) =>
  save(key, text, from, 'mira');
const countOf = (form: string) => database().$count(schema.record, eq(schema.record.form, form));

const FORM = 'berth_visit';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_server_test');
  await makeRelease(FORM);
});
afterAll(() => end());

const mira = async () => (await readHead()).people[0]!;
const teo = async () => (await readHead()).people[1]!;

const GOOD = stepsOf(VISIT);

const fresh = async (recordId?: string) => (await begin(FORM, recordId ?? null)).id;

const send = async (steps: TimedStep[], more: object = {}, recordId?: string) =>
  submit(FORM, { filling: await fresh(recordId), steps, ...more }, await mira());

/** What must not be saved is not saved. */
async function savesNothing<T>(work: () => Promise<T>): Promise<T> {
  const before = await countOf(FORM);
  const result = await work();
  expect(await countOf(FORM)).toBe(before);
  return result;
}

describe('26 a submission', () => {
  test('is done again on the server, and what comes out of that is saved', async () => {
    const result = await send(GOOD);
    expect(result).toMatchObject({
      status: 201,
      kind: 'saved',
      values: { vessel: 'Aurelle', dues: 51 },
    });
    const record = await readRecord(FORM, (result as { id: string }).id);
    expect(record).toMatchObject({
      values: { dues: 51, pilot_boarding: null },
      release: 1,
      savedBy: 'mira',
      revision: 1,
    });
  });

  test('sent twice is saved once', async () => {
    const filling = await fresh();
    const first = await submit(FORM, { filling, steps: GOOD }, await mira());
    const again = await savesNothing(async () =>
      submit(FORM, { filling, steps: GOOD }, await mira()),
    );
    expect(again).toEqual(first);
  });

  test.each([
    ['a locked field', { set: 'dues', to: 1 }, 'Dues is locked'],
    ['a hidden field', { set: 'pilot_licence', to: 'QH-0417' }, 'Pilot licence is hidden'],
    ['an unknown field', { set: 'nothing', to: 1 }, 'there is no field "nothing"'],
    ['a key not on offer', { set: 'berth', to: 'nq9' }, 'takes one of the keys'],
    ['a wrong kind', { set: 'length', to: 'long' }, 'takes a finite number'],
  ])(
    'with a step that the person could not have done is refused: %s',
    async (_what, step, says) => {
      const result = await savesNothing(() => send([step as TimedStep, ...GOOD]));
      expect(result).toMatchObject({ status: 422, kind: 'refused' });
      expect((result as { says: string }).says).toContain(says);
    },
  );

  test('that does not pass the checks is stopped with the reason', async () => {
    expect(await savesNothing(() => send([{ submit: true }]))).toMatchObject({
      status: 422,
      kind: 'stopped',
      outcome: { stoppedBy: 'vessel' },
    });
  });

  test('whose values differ from those shown names them before anything is saved', async () => {
    const shown = { ...((await send(GOOD)) as { values: Record<string, number> }).values, dues: 1 };
    const result = await savesNothing(() => send(GOOD, { shown }));
    expect(result).toMatchObject({
      status: 409,
      kind: 'differs',
      differences: [{ field: 'dues', label: 'Dues', browser: 1, server: 51 }],
    });
    expect(await send(GOOD, { shown: (result as { values: object }).values })).toMatchObject({
      status: 201,
    });
  });

  test('by somebody else than it was handed to is refused', async () => {
    const filling = await fresh();
    await expect(
      savesNothing(async () => submit(FORM, { filling, steps: GOOD }, await teo())),
    ).rejects.toMatchObject({
      status: 404,
      message: 'This form was not handed out to you. Open it again.',
    });
  });

  test('that was never handed out, or for another form, is refused', async () => {
    await expect(
      submit(FORM, { filling: '6f6c0d7e-7c1b-4b0e-8a53-2f3c1d9e0a11', steps: GOOD }, await mira()),
    ).rejects.toMatchObject({ status: 404 });
    const filling = await fresh();
    await expect(submit('other', { filling, steps: GOOD }, await mira())).rejects.toMatchObject({
      status: 404,
    });
  });

  test('with times that cannot be is refused', async () => {
    expect(
      await send([{ wait: 0, at: 500 }, { wait: 0, at: 400 }, { submit: true }]),
    ).toMatchObject({ status: 422, says: 'Step 2 is earlier than the one before it.' });
    expect(await send([{ submit: true, at: 86_400_000 }])).toMatchObject({
      status: 422,
      says: 'Step 1 lies in the future.',
    });
  });

  test('of values alone gets steps in the order of the definition', async () => {
    const values = Object.fromEntries(
      GOOD.flatMap((step) => ('set' in step ? [[step.set, step.to]] : [])),
    );
    expect(await submit(FORM, { values }, await mira())).toMatchObject({
      status: 201,
      values: { dues: 51 },
    });
    expect(
      await savesNothing(async () =>
        submit(FORM, { values: { ...values, dues: 1 } }, await mira()),
      ),
    ).toMatchObject({ status: 422, kind: 'refused' });
    expect(await submit(FORM, { values: { nothing: 1 } }, await mira())).toMatchObject({
      status: 422,
      says: 'The form has no field "nothing".',
    });
  });
});

describe('a record that somebody else saved meanwhile', () => {
  const change = (draught: number): TimedStep[] => [
    { set: 'draught', to: draught },
    { submit: true },
  ];

  test('is a conflict that shows both, and nothing is saved until one is chosen', async () => {
    const filling = await fresh('2');
    expect(await send(change(8.5), {}, '2')).toMatchObject({ status: 201, revision: 2 });
    const late = await submit(FORM, { filling, steps: change(8.1) }, await mira());
    expect(late).toMatchObject({
      status: 409,
      kind: 'conflict',
      theirs: { values: { draught: 8.5 }, revision: 2 },
      mine: { draught: 8.1 },
    });
    expect((await readRecord(FORM, '2'))!.values.draught).toBe(8.5);
    expect(
      await submit(FORM, { filling, steps: change(8.1), overRevision: 2 }, await mira()),
    ).toMatchObject({ status: 201, revision: 3 });
    expect((await readRecord(FORM, '2'))!.values.draught).toBe(8.1);
    // Every state it had is kept, with who saved it.
    expect(
      (await recordHistory(FORM, '2')).map(({ revision, values, savedBy }) => [
        revision,
        values!.draught,
        savedBy,
      ]),
    ).toEqual([
      [3, 8.1, 'mira'],
      [2, 8.5, 'mira'],
      [1, expect.any(Number), 'mira'],
    ]);
  });
});

describe('handing a form out', () => {
  const handed = async (record: string | null = null) =>
    handOut(
      (await newestRelease(FORM))!,
      await mira(),
      record === null ? null : await readRecord(FORM, record),
      { launch: {} },
    );

  test('saves nothing until something is entered, and then one filling-in however often that is said', async () => {
    const fillings = () => database().$count(schema.filling);
    const [before, { next }] = [
      await fillings(),
      (
        await database()
          .select()
          .from(schema.recordNumber)
          .where(eq(schema.recordNumber.form, FORM))
      )[0]!,
    ];
    const { ticket } = await handed();
    expect(await fillings()).toBe(before);
    const begun = await Promise.all(
      Array.from({ length: 5 }, async () => beginFilling(FORM, ticket, await mira())),
    );
    expect(new Set(begun.map(({ id }) => id)).size).toBe(1);
    expect(await fillings()).toBe(before + 1);
    expect(begun[0]!.opening.newId).toBe(String(Number(begun[0]!.opening.newId)));
    expect(Number(begun[0]!.opening.newId)).toBeGreaterThanOrEqual(next);
  });

  test('is the word of the server: a ticket that somebody else wrote or got begins nothing', async () => {
    const { ticket } = await handed();
    const [body, mark] = ticket.split('.') as [string, string];
    const forged = Buffer.from(
      JSON.stringify({
        ...(JSON.parse(Buffer.from(body, 'base64url').toString()) as object),
        person: 'teo',
        clock: 0,
      }),
    ).toString('base64url');
    for (const text of [`${forged}.${mark}`, `${body}.`, body, '', `${body}.${'A'.repeat(43)}`])
      await expect(beginFilling(FORM, text, await mira())).rejects.toMatchObject({ status: 404 });
    await expect(beginFilling(FORM, ticket, await teo())).rejects.toMatchObject({ status: 403 });
    await expect(beginFilling('vessel', ticket, await mira())).rejects.toMatchObject({
      status: 404,
    });
  });

  test('gives the record as it was when it was handed out, whatever was saved since', async () => {
    const { ticket, opening } = await handed('2');
    expect(await send([{ set: 'draught', to: 8.7 }, { submit: true }], {}, '2')).toMatchObject({
      status: 201,
    });
    expect((await beginFilling(FORM, ticket, await mira())).opening.record).toEqual(opening.record);
  });
});

describe('releases and revisions', () => {
  test('a release keeps what it was made from', async () => {
    const before = (await newestRelease(FORM))!;
    const [, pilot] = await readBehaviours(FORM);
    expect(
      await saveScript(ownScript(FORM, pilot!.name), `${pilot!.text}\n// later\n`, pilot!.revision),
    ).toEqual({ saved: true, revision: 2 });
    expect((await newestRelease(FORM))!.sources).toEqual(before.sources);
    expect((await makeRelease(FORM)).number).toBe(before.number + 1);
    expect(
      (await newestRelease(FORM))!.sources.find(({ name }) => name === pilot!.name)!.text,
    ).toContain('// later');
  });

  test('one made before expressions were numbered is still filled in', async () => {
    const { id, number } = (await newestRelease(FORM))!;
    const [row] = await database().select().from(schema.release).where(eq(schema.release.id, id));
    const content = row!.content as { scripts: { expressions?: string[] }[] };
    const scripts = content.scripts.map((script) => ({ ...script, expressions: undefined }));
    await database()
      .insert(schema.release)
      .values({ form: FORM, number: number + 1, content: { ...content, scripts } });
    expect((await newestRelease(FORM))!.number).toBe(number + 1);
    expect(await send(GOOD)).toMatchObject({ status: 201, values: { dues: 51 } });
  });

  test('a behaviour that does not parse makes no release', async () => {
    const [arrival] = await readBehaviours(FORM);
    await saveScript(ownScript(FORM, arrival!.name), 'on.load( => )', arrival!.revision);
    await expect(makeRelease(FORM)).rejects.toThrow(CannotRelease);
    await saveScript(ownScript(FORM, arrival!.name), arrival!.text, arrival!.revision + 1);
  });

  test('a save from an older revision gives the other text back and overwrites nothing', async () => {
    const [arrival] = await readBehaviours(FORM);
    const { name, revision } = arrival!;
    expect(await saveScript(ownScript(FORM, name), '/** Theirs. */', revision)).toMatchObject({
      saved: true,
    });
    expect(await saveScript(ownScript(FORM, name), '/** Mine. */', revision)).toEqual({
      saved: false,
      theirs: { name, text: '/** Theirs. */', revision: revision + 1 },
    });
    const kept = await scriptHistory(ownScript(FORM, name));
    expect(kept.map((row) => row.revision)).toEqual(
      Array.from({ length: revision + 1 }, (_, i) => revision + 1 - i),
    );
  });
});
