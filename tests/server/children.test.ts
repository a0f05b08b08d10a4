/** Parents and children, rows and files on the server. Against a real PostgreSQL and the real sandbox. */
import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Values } from '../../src/core/form/value';
import type { TimedStep } from '../../src/core/session/step';
import { database } from '../../src/server/database/database';
import { keepFile, readFile } from '../../src/server/fillings/files';
import { ownFilling, parentOf } from '../../src/server/fillings/handing-out';
import { submit } from '../../src/server/fillings/submitting';
import { tidyFillings } from '../../src/server/fillings/tidy';
import { childrenOf, neighboursOf, readRecord } from '../../src/server/records/read';
import { makeRelease } from '../../src/server/releases/releases';
import { readForm, readHead } from '../../src/server/content/read';
import { begin, freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_children_test');
  for (const form of ['vessel', 'berth_visit', 'works_permit', 'crew_change'])
    await makeRelease(form);
});
afterAll(() => end());

const mira = async () => (await readHead()).people[0]!;
const VISIT: TimedStep[] = [
  { set: 'vessel_kind', to: 'coaster' },
  { set: 'contact', to: 'crew@marrow.example' },
  { set: 'arrival', to: '2031-06-01' },
  { set: 'departure', to: '2031-06-02' },
  { set: 'berth', to: 'nq3' },
  { set: 'pilot_choice', to: 'none' },
  { submit: true },
];

describe('a form opened from another', () => {
  test('reads the parent as it was saved, hands back what it asked for, and only that passes in the parent', async () => {
    const parent = await begin('vessel', 'v-021');
    const child = await begin('berth_visit', null, {
      launch: { vessel_record: 'v-021' },
      parent: parent.id,
    });
    expect(child.opening.parent).toMatchObject({
      form: 'vessel',
      record: 'v-021',
      values: { name: 'Marrow Star' },
    });
    const saved = await submit('berth_visit', { filling: child.id, steps: VISIT }, await mira());
    const { id } = saved as { id: string };
    expect(saved).toMatchObject({
      kind: 'saved',
      values: { vessel: 'Marrow Star', vessel_record: 'v-021', length: 92 },
      toParent: [{ set: 'latest_visit', to: id }],
    });
    const forged = await submit(
      'vessel',
      {
        filling: parent.id,
        steps: [{ fromChild: 'latest_visit', to: 'forged' }, { submit: true }],
      },
      await mira(),
    );
    expect(forged).toMatchObject({
      kind: 'refused',
      says: 'No form opened from here set "latest_visit" to that.',
    });
    const kept = await submit(
      'vessel',
      { filling: parent.id, steps: [{ fromChild: 'latest_visit', to: id }, { submit: true }] },
      await mira(),
    );
    expect(kept).toMatchObject({ kind: 'saved', values: { latest_visit: id, standing: 'known' } });
  });

  test('a parent that is not saved cannot be opened from', async () => {
    const parent = await begin('vessel', null);
    expect(await parentOf(parent.id)).toBeNull();
    expect(await ownFilling('vessel', parent.id, await mira())).toMatchObject({ id: parent.id });
    await expect(
      ownFilling('vessel', parent.id, (await readHead()).people[1]!),
    ).rejects.toMatchObject({ status: 404 });
  });

  test('the records that refer to one are listed', async () => {
    const lists = await childrenOf((await readForm('vessel'))!, 'v-033');
    expect(lists.visits!.records.map(({ id }) => id)).toEqual(['2']);
    expect((await childrenOf((await readForm('vessel'))!, null)).visits!.records).toEqual([]);
  });

  test('neighbours stand in the order of the list', async () => {
    expect(await neighboursOf('crew_change', '1')).toEqual({ previous: null, next: null });
    expect((await neighboursOf('berth_visit', '2')).next).toBe('1');
  });
});

test('what was handed out and never sent is cleared away after thirty days, with its files; what was saved stays', async () => {
  const [left, saved] = [await begin('crew_change', null), await begin('crew_change', '1')];
  await keepFile(
    { id: left.id, savedAs: null, form: 'crew_change' },
    'people_rows.scan',
    { name: 'x', type: '' },
    Buffer.from('x'),
  );
  expect(
    await submit('crew_change', { filling: saved.id, steps: [{ submit: true }] }, await mira()),
  ).toMatchObject({ kind: 'saved' });
  expect(await tidyFillings(database(), Date.now() + 29 * 86_400_000)).toBe(0);
  expect(await tidyFillings(database(), Date.now() + 31 * 86_400_000)).toBeGreaterThan(0);
  await expect(ownFilling('crew_change', left.id, await mira())).rejects.toMatchObject({
    status: 404,
  });
  expect(await ownFilling('crew_change', saved.id, await mira())).toMatchObject({ savedAs: '1' });
});

test('a record that is only viewed cannot be submitted', async () => {
  const { id: filling } = await begin('vessel', 'v-017', { viewing: true });
  expect(
    await submit(
      'vessel',
      { filling, steps: [{ set: 'name', to: 'x' }, { submit: true }] },
      await mira(),
    ),
  ).toMatchObject({
    kind: 'refused',
    says: 'Step 1 could not be done by Mira Oldane: this record is only being viewed.',
  });
});

test('a service is asked by the server itself, whatever the browser says it answered', async () => {
  const { id: filling } = await begin('vessel', null);
  const steps: TimedStep[] = [
    { set: 'imo', to: '9900021', at: 0 },
    { wait: 0, at: 400 },
    { submit: true, at: 500 },
  ];
  const result = await submit(
    'vessel',
    { filling, steps, shown: { name: 'Another name' } },
    await mira(),
  );
  expect(result).toMatchObject({ kind: 'differs' });
  expect(
    (result as { differences: { field: string; server: unknown }[] }).differences,
  ).toContainEqual(expect.objectContaining({ field: 'name', server: 'Brightwater' }));
});

test('rows of a client that sends only values become steps: cells by place, rows removed and added', async () => {
  const people: Values[] = [
    { name: 'Ilse Marant', movement: 'shore_leave' },
    { name: 'Jonas Pryde', movement: 'shore_leave' },
    {
      name: 'Third',
      movement: 'technician',
      passport: 'QX1234567',
      passport_until: '2040-01-01',
      gate_at: '08:00',
    },
  ];
  const more = await submit(
    'crew_change',
    { values: { people_rows: people }, record: '1' },
    await mira(),
  );
  expect(more).toMatchObject({
    kind: 'saved',
    values: {
      people_rows: [
        { name: 'Ilse Marant', passport: null },
        { name: 'Jonas Pryde' },
        { name: 'Third', gate_at: '08:00' },
      ],
      escorts: 1,
    },
  });
  const fewer = await submit(
    'crew_change',
    { values: { people_rows: people.slice(0, 1) }, record: '1' },
    await mira(),
  );
  expect(
    (fewer as unknown as { values: { people_rows: unknown[] } }).values.people_rows,
  ).toHaveLength(1);
});

test('a file is saved with the record only when its content has arrived, in the field it was chosen for', async () => {
  const { id: filling } = await begin('works_permit', '1');
  const keep = (content: string, savedAs: string | null = null) =>
    keepFile(
      { id: filling, savedAs, form: 'works_permit' },
      'plan',
      { name: 'plan.pdf', type: 'application/pdf' },
      Buffer.from(content),
    );
  const steps = (file: object): TimedStep[] => [
    { set: 'works_kind', to: 'lifting' },
    { set: 'plan', to: [file] as never },
    { submit: true },
  ];
  const plan = { name: 'plan.pdf', size: 6, type: 'application/pdf' };
  const lost = {
    kind: 'refused',
    says: 'The content of plan.pdf has not arrived. Choose the file again.',
  };
  expect(await submit('works_permit', { filling, steps: steps(plan) }, await mira())).toMatchObject(
    lost,
  );
  const kept = await keep('a plan');
  expect(kept).toEqual({ ...plan, digest: createHash('sha256').update('a plan').digest('hex') });
  // Neither without its digest nor under another one, whatever else was chosen under the same name.
  expect(await submit('works_permit', { filling, steps: steps(plan) }, await mira())).toMatchObject(
    lost,
  );
  expect(
    await submit(
      'works_permit',
      { filling, steps: steps({ ...kept, digest: '0'.repeat(64) }) },
      await mira(),
    ),
  ).toMatchObject(lost);
  await keep('b plan');
  const form = (await readForm('works_permit'))!;
  const read = async (field: string, digest: string | undefined) =>
    readFile(form, (await readRecord('works_permit', '1'))!, field, 'plan.pdf', digest);
  expect(await read('plan', kept.digest)).toBeNull();
  expect(await submit('works_permit', { filling, steps: steps(kept) }, await mira())).toMatchObject(
    { kind: 'saved' },
  );
  expect((await read('plan', kept.digest))!.toString()).toBe('a plan');
  expect([
    await read('other', kept.digest),
    await read('plan', createHash('sha256').update('b plan').digest('hex')),
  ]).toEqual([null, null]);
  await expect(keep('c plan', '1')).rejects.toMatchObject({ status: 409 });
});

test('seventy thousand old filling-ins are cleared away, and nothing that is young', async () => {
  const young = await begin('crew_change', null);
  await database().execute(
    sql`insert into filling (release, opening, clock) select release, opening, 1000 from filling, generate_series(1, 70000) where id = ${young.id}`,
  );
  expect(await tidyFillings(database(), Date.now())).toBeGreaterThanOrEqual(70_000);
  expect(await ownFilling('crew_change', young.id, await mira())).toMatchObject({ id: young.id });
});
