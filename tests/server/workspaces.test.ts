/** Workspaces as wholes: made, copied, called otherwise, archived, removed and restored; out as a folder and in again. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { packed, textsIn } from '../../src/core/workspace/zip';

import { readWorkspace } from '../../src/core/workspace/workspace';
import { writeWorkspace } from '../../src/core/workspace/write';
import { database } from '../../src/server/database/database';
import { saveRecord } from '../../src/server/records/save';
import { readRecord } from '../../src/server/records/read';
import { insertRelease, newestRelease } from '../../src/server/releases/releases';
import { readBehaviours, readForm, readForms, readHead } from '../../src/server/content/read';
import { saveDocument } from '../../src/server/revisions/documents';
import { HOME, inWorkspace } from '../../src/server/database/current-workspace';
import { packWorkspace } from '../../src/server/workspaces/folder';
import { workspaceFromZip } from '../../src/server/hosting/from-zip';
import { dropRemoved, dropUnfinished, withNewSchema } from '../../src/server/workspaces/making';
import {
  addWorkspace,
  archiveWorkspace,
  copyWorkspace,
  readWorkspaces,
  removeWorkspace,
  renameWorkspace,
  restoreWorkspace,
} from '../../src/server/hosting/manage';
import { askRegistry, findWorkspace, listWorkspaces } from '../../src/server/workspaces/registry';
import { readFolder } from '../../src/workers/files';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_workspaces_test');
  await askRegistry('insert into workspace (name, schema, title) values ($1, $2, $3)', [
    HOME.name,
    HOME.schema,
    'The demo',
  ]);
});
afterAll(() => end());

const within = async <T>(name: string, work: () => Promise<T>): Promise<T> =>
  inWorkspace((await findWorkspace(name))!, work);
const says = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (caught: unknown) => (caught as Error).message,
  );
const rowOf = async (name: string) =>
  (await readWorkspaces()).workspaces.find((row) => row.name === name);

test('a new workspace is empty or has one form, and somebody is there to open it', async () => {
  expect(await addWorkspace('Ferry office', 'Crossing')).toBe('ferry-office');
  expect(await addWorkspace('Ferry office', null)).toBe('ferry-office-2');
  await within('ferry-office', async () => {
    expect((await readForms()).map(({ name }) => name)).toEqual(['crossing']);
    expect((await readHead()).people).toHaveLength(1);
  });
  expect(await within('ferry-office-2', readForms)).toEqual([]);
  expect(await rowOf('ferry-office')).toMatchObject({
    title: 'Ferry office',
    forms: 1,
    first: false,
  });
  expect((await rowOf('home'))!.forms).toBe(5);
});

test('a copy has everything and shares nothing', async () => {
  const before = await insertRelease('vessel');
  expect(await copyWorkspace('home', 'Copy')).toBe('copy');
  await within('copy', async () => {
    expect((await readHead()).title).toBe('Copy');
    expect((await newestRelease('vessel'))!.number).toBe(before.number);
    expect((await readRecord('vessel', 'v-021'))!.values.name).toBe('Marrow Star');
    const [first] = await readBehaviours('vessel');
    const key = { kind: 'behaviour', form: 'vessel', name: first!.name } as const;
    await saveDocument(key, '// of the copy\n', first!.revision, 'mira');
    await saveRecord({ form: 'vessel', id: 'v-021' }, { name: 'Copied' }, 1, 'mira');
    // Numbers go on where they were, so that nothing new takes the place of something copied.
    expect((await insertRelease('vessel')).number).toBe(before.number + 1);
  });
  expect((await readBehaviours('vessel'))[0]!.text).not.toContain('of the copy');
  expect((await readRecord('vessel', 'v-021'))!.values.name).toBe('Marrow Star');
  expect((await newestRelease('vessel'))!.number).toBe(before.number);
});

test('titles change, addresses stay', async () => {
  await renameWorkspace('copy', 'Another harbour');
  expect((await rowOf('copy'))!.title).toBe('Another harbour');
  expect((await within('copy', readHead)).title).toBe('Another harbour');
});

test('the archive keeps a workspace out of the way, and as it is', async () => {
  await archiveWorkspace('copy', true);
  expect((await rowOf('copy'))!.archived).toBe(true);
  expect((await within('copy', readForms)).length).toBe(5);
  await archiveWorkspace('copy', false);
  expect((await rowOf('copy'))!.archived).toBe(false);
});

test('what was removed is there for nobody, can be restored, and is dropped after thirty days', async () => {
  await removeWorkspace('ferry-office-2');
  expect(await findWorkspace('ferry-office-2')).toBeNull();
  expect((await readWorkspaces()).removed).toEqual([
    { name: 'ferry-office-2', title: 'Ferry office' },
  ]);
  // Its name is kept for it.
  expect(await addWorkspace('Ferry office 2', null)).toBe('ferry-office-2-2');
  await restoreWorkspace('ferry-office-2');
  expect(await findWorkspace('ferry-office-2')).not.toBeNull();
  await removeWorkspace('ferry-office-2');
  await dropRemoved(Date.now() + 29 * 86_400_000);
  expect(await listWorkspaces()).toHaveLength(5);
  const { schema } = (await listWorkspaces()).find(({ name }) => name === 'ferry-office-2')!;
  await dropRemoved(Date.now() + 31 * 86_400_000);
  expect((await listWorkspaces()).map(({ name }) => name)).not.toContain('ferry-office-2');
  const { rows } = await database().execute(
    `select 1 from information_schema.schemata where schema_name = '${schema}'`,
  );
  expect(rows).toEqual([]);
});

test('what cannot be done is refused in words', async () => {
  expect(await says(removeWorkspace('home'))).toContain('cannot be removed');
  expect(await says(removeWorkspace('nowhere'))).toBe('There is no workspace "nowhere".');
  expect(await says(copyWorkspace('nowhere', 'X'))).toBe('There is no workspace "nowhere".');
  expect(await says(restoreWorkspace('home'))).toBe('No workspace "home" can be restored.');
});

const unpacked = (zip: Uint8Array) => readWorkspace(textsIn(zip));

test('the demo goes through the database and comes out as its folder, to the byte', async () => {
  const out = unpacked(await packWorkspace('home', true));
  expect([...writeWorkspace(out)].toSorted()).toEqual([...readFolder('demo')].toSorted());
  // Without records only those that scenarios open go along, so that it can be read again.
  const brief = unpacked(await packWorkspace('home', false));
  expect(brief.forms.flatMap(({ records }) => records.map(({ id }) => id)).toSorted()).toEqual(
    [
      ...new Set(
        readWorkspace(readFolder('demo')).forms.flatMap(({ form, scenarios }) =>
          scenarios.flatMap(({ scenario: { open } }) => [
            ...(open?.record == null ? [] : [`${form.name} ${open.record}`]),
            ...(open?.parent === undefined ? [] : [`${open.parent.form} ${open.parent.record}`]),
          ]),
        ),
      ),
    ]
      .map((one) => one.split(' ')[1]!)
      .toSorted(),
  );
});

test('a zip becomes a workspace, and a broken one leaves nothing behind', async () => {
  const demo = readWorkspace(readFolder('demo'));
  const name = await workspaceFromZip(packed({ ...demo, title: 'From afar' }, 'x', String));
  expect(name).toBe('from-afar');
  await within(name, async () => {
    expect((await newestRelease('berth_visit'))!.number).toBe(1);
    expect((await readForm('berth_visit'))!.title).toBe('Berth visit request');
  });
  const before = await listWorkspaces();
  expect(await says(workspaceFromZip(Buffer.from('junk')))).toContain('no zip, or is damaged');
  expect(await listWorkspaces()).toEqual(before);
});

test('a workspace whose app was killed while it was made is dropped by the next start, and none that is being made', async () => {
  const schemas = async () =>
    (await askRegistry("select nspname from pg_namespace where nspname ~ '^ws_'")).length;
  const before = await schemas();
  // What a killed app leaves behind: a schema on no list, and no lock on it.
  await askRegistry('create schema ws_777777');
  await askRegistry('create table ws_777777.half (done text)');
  let during = 0;
  await withNewSchema(async () => {
    expect(await schemas()).toBe(before + 2);
    await dropUnfinished();
    during = await schemas();
    return Promise.reject(new Error('enough'));
  }).catch(() => undefined);
  expect(during).toBe(before + 1);
  expect(await schemas()).toBe(before);
});
