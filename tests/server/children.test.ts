/** Parents and children, rows and files on the server (semantics 26, 28). Against a real PostgreSQL and the real sandbox. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Values } from '../../src/core/form/value';
import type { TimedStep } from '../../src/core/session/step';
import { keepFile, readFile } from '../../src/server/files';
import { handOut, ownFilling, parentOf, submit } from '../../src/server/fillings';
import { makeRelease, newestRelease } from '../../src/server/releases';
import { childrenOf, neighboursOf, readForm, readHead, readRecord } from '../../src/server/store';
import { database } from '../../src/server/database';
import { tidyFillings } from '../../src/server/tidy';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_children_test');
  for (const form of ['vessel', 'berth_visit', 'works_permit', 'crew_change']) await makeRelease(form);
});
afterAll(() => end());

const mira = async () => (await readHead()).people[0]!;
const handedOut = async (form: string, record: string | null, more: Partial<Parameters<typeof handOut>[3]> = {}) =>
  handOut((await newestRelease(form))!, await mira(), record === null ? null : await readRecord(form, record), { launch: {}, ...more });

const VISIT: TimedStep[] = [
  { set: 'vessel_kind', to: 'coaster' }, { set: 'contact', to: 'crew@marrow.example' }, { set: 'arrival', to: '2031-06-01' }, { set: 'departure', to: '2031-06-02' },
  { set: 'berth', to: 'nq3' }, { set: 'pilot_choice', to: 'none' }, { submit: true },
];

describe('a form opened from another', () => {
  test('reads the parent as it was saved, hands back what it asked for, and only that passes in the parent', async () => {
    const parent = await handedOut('vessel', 'v-021');
    const child = await handedOut('berth_visit', null, { launch: { vessel_record: 'v-021' }, parent: (await parentOf(parent.filling))! });
    expect(child.opening.parent).toMatchObject({ form: 'vessel', record: 'v-021', values: { name: 'Marrow Star' } });
    const saved = await submit('berth_visit', { filling: child.filling, steps: VISIT }, await mira());
    const { id } = saved as { id: string };
    expect(saved).toMatchObject({ kind: 'saved', values: { vessel: 'Marrow Star', vessel_record: 'v-021', length: 92 }, toParent: [{ set: 'latest_visit', to: id }] });
    const forged = await submit('vessel', { filling: parent.filling, steps: [{ fromChild: 'latest_visit', to: 'forged' }, { submit: true }] }, await mira());
    expect(forged).toMatchObject({ kind: 'refused', says: 'No form opened from here set "latest_visit" to that.' });
    const kept = await submit('vessel', { filling: parent.filling, steps: [{ fromChild: 'latest_visit', to: id }, { submit: true }] }, await mira());
    expect(kept).toMatchObject({ kind: 'saved', values: { latest_visit: id, standing: 'known' } });
  });

  test('a parent that is not saved cannot be opened from', async () => {
    const parent = await handedOut('vessel', null);
    expect(await parentOf(parent.filling)).toBeNull();
    expect([await ownFilling('vessel', parent.filling, await mira()), await ownFilling('vessel', parent.filling, (await readHead()).people[1]!)]).toEqual([true, false]);
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
  const [left, saved] = [await handedOut('crew_change', null), await handedOut('crew_change', '1')];
  await keepFile('crew_change', left.filling, { name: 'x', size: 1, type: '' }, Buffer.from('x'));
  expect(await submit('crew_change', { filling: saved.filling, steps: [{ submit: true }] }, await mira())).toMatchObject({ kind: 'saved' });
  expect(await tidyFillings(database(), Date.now() + 29 * 86_400_000)).toBe(0);
  expect(await tidyFillings(database(), Date.now() + 31 * 86_400_000)).toBeGreaterThan(0);
  expect([await ownFilling('crew_change', left.filling, await mira()), await ownFilling('crew_change', saved.filling, await mira())]).toEqual([false, true]);
});

test('a record that is only viewed cannot be submitted', async () => {
  const { filling } = await handedOut('vessel', 'v-017', { viewing: true });
  expect(await submit('vessel', { filling, steps: [{ set: 'name', to: 'x' }, { submit: true }] }, await mira())).toMatchObject({ kind: 'refused', says: 'Step 1 could not be done by Mira Oldane: this record is only being viewed.' });
});

test('a service is asked by the server itself, whatever the browser says it answered', async () => {
  const { filling } = await handedOut('vessel', null);
  const steps: TimedStep[] = [{ set: 'imo', to: '9900021', at: 0 }, { wait: 0, at: 400 }, { submit: true, at: 500 }];
  const result = await submit('vessel', { filling, steps, shown: { name: 'Another name' } }, await mira());
  expect(result).toMatchObject({ kind: 'differs' });
  expect((result as { differences: { field: string; server: unknown }[] }).differences).toContainEqual(expect.objectContaining({ field: 'name', server: 'Brightwater' }));
});

test('rows of a client that sends only values become steps: cells by place, rows removed and added', async () => {
  const people: Values[] = [
    { name: 'Ilse Marant', movement: 'shore_leave' },
    { name: 'Jonas Pryde', movement: 'shore_leave' },
    { name: 'Third', movement: 'technician', passport: 'QX1234567', passport_until: '2040-01-01', gate_at: '08:00' },
  ];
  const more = await submit('crew_change', { values: { people_rows: people }, record: '1' }, await mira());
  expect(more).toMatchObject({ kind: 'saved', values: { people_rows: [{ name: 'Ilse Marant', passport: null }, { name: 'Jonas Pryde' }, { name: 'Third', gate_at: '08:00' }], escorts: 1 } });
  const fewer = await submit('crew_change', { values: { people_rows: people.slice(0, 1) }, record: '1' }, await mira());
  expect((fewer as unknown as { values: { people_rows: unknown[] } }).values.people_rows).toHaveLength(1);
});

test('a file is saved with the record only when its content has arrived, in the size it is said to have', async () => {
  const { filling } = await handedOut('works_permit', '1');
  const plan = { name: 'plan.pdf', size: 6, type: 'application/pdf' };
  const steps: TimedStep[] = [{ set: 'works_kind', to: 'lifting' }, { set: 'plan', to: [plan] as never }, { submit: true }];
  const missing = await submit('works_permit', { filling, steps }, await mira());
  expect(missing).toMatchObject({ kind: 'refused', says: 'The content of plan.pdf has not arrived. Choose the file again.' });
  await keepFile('works_permit', filling, plan, Buffer.from('a plan'));
  expect(await readFile('works_permit', '1', 'plan.pdf')).toBeNull();
  expect(await submit('works_permit', { filling, steps }, await mira())).toMatchObject({ kind: 'saved' });
  expect((await readFile('works_permit', '1', 'plan.pdf'))!.content.toString()).toBe('a plan');
});
