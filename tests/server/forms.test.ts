/** Forms as a whole: what the page of forms says of them, copies, titles, removal. Against a real PostgreSQL. */
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { changesInWords } from '../../src/core/workspace/overview';
import { database } from '../../src/server/database/database';
import { indexForm, insertRelease } from '../../src/server/releases/releases';
import { readRecord } from '../../src/server/records/read';
import { addSample } from '../../src/server/fillings/samples';
import { saveRecord } from '../../src/server/records/save';
import { readDocument, saveDocument } from '../../src/server/revisions/documents';
import {
  addForm,
  copyForm,
  removeForm,
  renameForm,
  restoreForm,
} from '../../src/server/content/forms';
import {
  readOverview,
  readRecordCounts,
  readRemovedForms,
} from '../../src/server/content/overview';
import { workspaceProblems } from '../../src/server/content/problems';
import { readBehaviours, readForm, readForms, readScenarios } from '../../src/server/content/read';
import { renamePart } from '../../src/server/content/structure';
import { freshDatabase, revisionOf } from './support';

const BY = 'tolle';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_forms_test');
});
afterAll(() => end());

const rowOf = async (name: string) => (await readOverview()).find((row) => row.name === name)!;
const says = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (caught: unknown) => (caught as Error).message,
  );

test('records are counted for each form, as the page of forms counts them', async () => {
  const overview = await readOverview();
  expect(await readRecordCounts()).toEqual(
    overview.map(({ name, title, records, release }) => ({
      name,
      title,
      records,
      released: release !== null,
    })),
  );
  expect(overview.some(({ records }) => records.count > 0)).toBe(true);
});

test('what changed since the release: nothing, then what was changed, whoever changed it', async () => {
  expect((await rowOf('berth_visit')).release).toBeNull();
  const { form } = await insertRelease('berth_visit');
  await indexForm(form);
  const changed = async () => changesInWords((await rowOf('berth_visit')).release!.changes!);
  expect([(await rowOf('berth_visit')).release!.number, await changed()]).toEqual([1, '']);
  const [behaviour] = await readBehaviours('berth_visit');
  const key = { kind: 'behaviour', form: 'berth_visit', name: behaviour!.name } as const;
  await saveDocument(key, `${behaviour!.text}\n`, behaviour!.revision, BY);
  expect(await changed()).toBe('1 behaviour');
  // A table that the form offers counts, one that only others use does not.
  for (const name of ['berths', 'movements']) {
    const table = await readDocument({ kind: 'table', name });
    await saveDocument(
      { kind: 'table', name },
      { ...table!.content, title: 'Other' },
      table!.revision,
      BY,
    );
  }
  await renameForm('berth_visit', 'Visit of a berth', BY);
  expect(await changed()).toBe('structure, 1 behaviour and 1 table');
  expect((await rowOf('berth_visit')).touched.by).toBe(BY);
  await insertRelease('berth_visit');
  expect(await changed()).toBe('');
  // Changed and changed back is not changed.
  await saveDocument(key, `${behaviour!.text}\n\n`, behaviour!.revision + 1, BY);
  await saveDocument(key, `${behaviour!.text}\n`, behaviour!.revision + 2, BY);
  expect(await changed()).toBe('');
});

test('the check of the workspace leaves its counts, which go out of date with the next change', async () => {
  expect((await rowOf('vessel')).check).toBeNull();
  for (let over = false; !over;) {
    const { done, of } = await workspaceProblems(60_000);
    over = of > 0 && done === of;
  }
  expect((await rowOf('vessel')).check).toEqual({ errors: 0, warnings: 0, current: true });
  const key = { kind: 'behaviour', form: 'vessel', name: '90-wrong.ts' } as const;
  await saveDocument(key, 'fields.nothing.value = 1;', 0, BY);
  expect((await rowOf('vessel')).check).toMatchObject({ errors: 0, current: false });
  await workspaceProblems(60_000);
  expect((await rowOf('vessel')).check).toMatchObject({ current: true });
  expect((await rowOf('vessel')).check!.errors).toBeGreaterThan(0);
});

test('a copy has structure, behaviours, scenarios and the records these open, under a name of its own', async () => {
  const name = await copyForm('vessel', 'Copy of Vessel', BY);
  expect(name).toBe('copy_of_vessel');
  expect(await copyForm('vessel', 'Copy of Vessel', BY)).toBe('copy_of_vessel_2');
  const [form, copy] = [(await readForm('vessel'))!, (await readForm(name))!];
  expect(copy).toEqual({ ...form, name, title: 'Copy of Vessel' });
  const texts = async (of: string) =>
    (await readBehaviours(of)).map(({ name: file, text }) => [file, text]);
  expect(await texts(name)).toEqual(await texts('vessel'));
  const scenarios = await readScenarios(name);
  expect(scenarios.map(({ scenario }) => scenario)).toEqual(
    (await readScenarios('vessel')).map(({ scenario }) => scenario),
  );
  for (const { scenario } of scenarios)
    if (scenario.open?.record != null)
      expect((await readRecord(name, scenario.open.record))?.values).toEqual(
        (await readRecord('vessel', scenario.open.record))!.values,
      );
  expect(await says(copyForm('nothing', 'X', BY))).toContain('There is no form "nothing"');
});

test('a removed form is gone from everywhere, and all of it is back when it is restored', async () => {
  const before = [await readForm('works_permit'), await readBehaviours('works_permit')];
  await removeForm('works_permit', await revisionOf({ kind: 'form', name: 'works_permit' }), BY);
  expect((await readForms()).map(({ name }) => name)).not.toContain('works_permit');
  expect(await rowOf('works_permit')).toBeUndefined();
  expect(await readRemovedForms()).toEqual([{ name: 'works_permit', title: 'Quay works permit' }]);
  // A new one of that title does not inherit anything.
  const other = await addForm('Works permit', BY);
  expect([other, await readBehaviours(other)]).toEqual(['works_permit_2', []]);
  await restoreForm('works_permit', BY);
  await restoreForm('works_permit', BY);
  expect([await readForm('works_permit'), await readBehaviours('works_permit')]).toEqual(before);
  expect(await readRemovedForms()).toEqual([]);
});

test('a form whose records another lists, one that was changed meanwhile, and none at all', async () => {
  expect(await says(removeForm('berth_visit', 1, BY))).toContain(
    'Vessel lists records of this form',
  );
  expect(await says(removeForm('crew_change', 7, BY))).toContain('changed this form meanwhile');
  expect(await says(removeForm('nothing', 1, BY))).toContain('There is no form "nothing"');
  expect(await says(restoreForm('nothing', BY))).toContain('There was no form "nothing"');
  expect(await says(renameForm('nothing', 'X', BY))).toContain('There is no form "nothing"');
});

test('another key goes through behaviours, scenarios, records and their former states, there and back', async () => {
  const state = async () => [
    (await readForm('berth_visit'))!,
    (await readBehaviours('berth_visit')).map(({ text }) => text),
    (await readScenarios('berth_visit')).map(({ scenario }) => scenario),
    (
      await database().execute(
        sql`select id, "values" from record where form = 'berth_visit' union all select id || number, "values" from record_revision where form = 'berth_visit' order by 1`,
      )
    ).rows,
  ];
  await saveRecord({ form: 'berth_visit', id: '9001' }, { pilot_choice: 'harbour_pilot' }, 0, BY);
  const before = await state();
  const key = { part: 'pilot_choice', key: 'harbour_pilot', to: 'port_pilot' };
  const planned = await renamePart('berth_visit', key, false, BY);
  expect(await state()).toEqual(before);
  expect(planned.records.count).toBeGreaterThan(0);
  expect(planned.plan.behaviours.length).toBeGreaterThan(0);
  await renamePart('berth_visit', key, true, BY);
  const after = JSON.stringify(await state());
  expect(after).toContain('port_pilot');
  expect(JSON.stringify((await readRecord('berth_visit', '9001'))!.values)).toBe(
    '{"pilot_choice":"port_pilot"}',
  );
  await renamePart(
    'berth_visit',
    { part: 'pilot_choice', key: 'port_pilot', to: 'harbour_pilot' },
    true,
    BY,
  );
  expect(await state()).toEqual(before);
});

test('samples are made while a form has no release: checked like a record, under numbers of their own', async () => {
  const form = await addForm('Sampled', BY);
  const first = await addSample(form, { first_field: 'one' }, BY);
  expect([first.id, (await readRecord(form, first.id))!.values]).toEqual([
    '1',
    { first_field: 'one' },
  ]);
  expect((await addSample(form, {}, BY)).id).toBe('2');
  expect(await says(addSample(form, { nothing: 1 }, BY))).toContain('has no field "nothing"');
  expect(await says(addSample(form, { first_field: [1] }, BY))).toContain(
    'First field takes a text',
  );
  expect(await says(addSample('nothing', {}, BY))).toContain('There is no form "nothing"');
  await insertRelease(form);
  expect(await says(addSample(form, {}, BY))).toContain('This form has a release');
});
