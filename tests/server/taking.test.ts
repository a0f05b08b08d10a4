/** Folders taken into a workspace: what would change, taken in one go, undone in one go; whatever a workspace holds comes through the database equal. */
import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { readWorkspace, type Workspace } from '../../src/core/workspace/workspace';
import { digestsOf } from '../../src/core/workspace/taking';
import { writeWorkspace } from '../../src/core/workspace/write';
import { textsIn } from '../../src/core/workspace/zip';
import { Refusal } from '../../src/server/http/refusal';
import { readDocument, saveDocument } from '../../src/server/revisions/documents';
import { readBehaviours, readForms, readShared, readTables } from '../../src/server/content/read';
import { inWorkspace, HOME } from '../../src/server/database/current-workspace';
import { packWorkspace } from '../../src/server/workspaces/folder';
import { addWorkspace } from '../../src/server/hosting/manage';
import { findWorkspace } from '../../src/server/workspaces/registry';
import {
  planTaking,
  readBrought,
  readTakings,
  take,
  undoTaking,
} from '../../src/server/workspaces/taking';
import { readFolder } from '../../src/workers/files';
import { anyWorkspace } from '../support/random-workspaces';
import { freshDatabase } from './support';
import { shareOf } from '../support/thorough';

beforeAll(() => freshDatabase('tavro_taking_test'));

const digest = (text: string) => createHash('sha256').update(text).digest('hex');
const files = () => readFolder('demo');
const brought = (texts: Map<string, string>) => readBrought({ files: [...texts] });
const says = async (work: Promise<unknown>): Promise<string> => {
  const caught = await work.then(
    () => null,
    (error: unknown) => error,
  );
  if (!(caught instanceof Refusal)) throw caught ?? new Error('nothing was refused');
  return caught.message;
};
/** The workspace's folder as it is now. */
const folder = async () => textsIn(await packWorkspace('home', true));
const content = (texts: ReadonlyMap<string, string>) =>
  [...texts].filter(([path]) => !path.startsWith('.')).toSorted();

const PILOT = 'forms/berth_visit/behaviours/20-pilot.ts';

test('a folder that holds the same changes nothing', async () => {
  expect(await planTaking(await brought(files()), true)).toEqual([]);
  expect(
    await planTaking(await readBrought({ zip: await packWorkspace('home', true) }), true),
  ).toEqual([]);
});

test('what is new, changed and removed is shown, taken in one go, and undone in one go', async () => {
  const before = content(await folder());
  const theirs = files();
  theirs.set(PILOT, `${theirs.get(PILOT)!}// more\n`);
  theirs.set('shared/money.ts', 'export const FREE = 0;\n');
  theirs.set(
    'tables/berths.csv',
    theirs.get('tables/berths.csv')!.split('\n').slice(0, -2).join('\n').concat('\n'),
  );
  theirs.delete('forms/vessel/scenarios/visited.json');
  theirs.set(
    'forms/vessel/records.json',
    theirs.get('forms/vessel/records.json')!.replace('"length": ', '"length": 1'),
  );
  const incoming = await brought(theirs);
  const plan = await planTaking(incoming, true);
  expect(plan.map(({ unit, is, conflict }) => [unit, is, conflict])).toEqual([
    [PILOT, 'changed', false],
    ['forms/vessel/records.json', 'changed', false],
    ['forms/vessel/scenarios/visited.json', 'removed', false],
    ['shared/money.ts', 'new', false],
    ['tables/berths.json', 'changed', false],
  ]);
  expect(plan.every(({ says: words }) => words.length > 0)).toBe(true);
  // Records on request only.
  expect(
    (await planTaking(incoming, false)).some(({ unit }) => unit.endsWith('records.json')),
  ).toBe(false);

  const { id, saved } = await take(
    incoming,
    plan.map(({ unit }) => unit),
    'a folder',
    'mira',
  );
  expect(saved).toBe(5);
  expect(content(await folder())).toEqual(content(theirs));
  expect(await planTaking(incoming, true)).toEqual([]);
  expect(await readTakings()).toMatchObject([{ id, what: 'a folder', by: 'mira', count: 5 }]);

  await undoTaking(id!, 'teo');
  expect(content(await folder())).toEqual(before);
  expect(await readTakings()).toEqual([]);
  expect(await says(undoTaking(id!, 'teo'))).toContain('nothing of that');
});

test('chosen parts alone are taken, and a part that needs another is refused with it', async () => {
  const theirs = files();
  theirs.set('tables/quays.json', theirs.get('tables/berths.json')!);
  theirs.set('tables/quays.csv', theirs.get('tables/berths.csv')!);
  const form = 'forms/works_permit/form.json';
  theirs.set(form, theirs.get(form)!.replace('"table": "berths"', '"table": "quays"'));
  expect(theirs.get(form)).toContain('"quays"');
  const incoming = await brought(theirs);
  expect(await says(take(incoming, [form], 'a part', 'mira'))).toMatch(
    /works_permit\/form.json:\d+: .*there is no table "quays"/,
  );
  expect((await readTables()).some(({ name }) => name === 'quays')).toBe(false);
  const { id } = await take(incoming, [form, 'tables/quays.json'], 'both', 'mira');
  expect((await readTables()).some(({ name }) => name === 'quays')).toBe(true);
  await undoTaking(id!, 'mira');
  expect(content(await folder())).toEqual(content(files()));
});

test('with what it was made from, a change on both sides is a conflict and one on this side alone is none', async () => {
  const zip = await packWorkspace('home', false);
  const theirs = new Map(textsIn(zip));
  theirs.set(PILOT, `${theirs.get(PILOT)!}// theirs\n`);
  theirs.set(
    'services/ship_register.json',
    theirs.get('services/ship_register.json')!.replace('"delay": ', '"delay": 1'),
  );
  const incoming = await brought(new Map(theirs));
  expect(incoming.base).not.toBe(null);
  const key = { kind: 'behaviour', form: 'berth_visit', name: '20-pilot.ts' } as const;
  const mine = (await readDocument(key))!;
  await saveDocument(key, `${mine.content}// mine\n`, mine.revision, 'mira');
  await saveDocument(
    { kind: 'shared', name: 'shared/here.ts' },
    'export const HERE = 1;\n',
    0,
    'mira',
  );
  expect(
    (await planTaking(incoming, false)).map(({ unit, is, conflict }) => [unit, is, conflict]),
  ).toEqual([
    [PILOT, 'changed', true],
    ['services/ship_register.json', 'changed', false],
  ]);
  // Without it whatever differs is a change, and what is only here would go.
  theirs.delete('.tavro-base.json');
  expect(
    (await planTaking(await brought(theirs), false)).map(({ unit, is, conflict }) => [
      unit,
      is,
      conflict,
    ]),
  ).toEqual([
    [PILOT, 'changed', false],
    ['services/ship_register.json', 'changed', false],
    ['shared/here.ts', 'removed', false],
  ]);
});

test('undoing writes over nothing that was saved since', async () => {
  const theirs = files();
  theirs.set('shared/more.ts', 'export const MORE = 1;\n');
  const incoming = await brought(theirs);
  const { id } = await take(incoming, ['shared/more.ts'], 'more', 'mira');
  const key = { kind: 'shared', name: 'shared/more.ts' } as const;
  await saveDocument(key, 'export const MORE = 2;\n', 1, 'teo');
  expect(await says(undoTaking(id!, 'mira'))).toContain('shared/more.ts was changed since');
  expect((await readShared()).find(({ name }) => name === key.name)!.text).toContain('2');
  expect((await readTakings())[0]!.id).toBe(id);
});

test('a form is taken with all that it has, and goes again', async () => {
  const theirs = new Map([...files()].map(([path, text]) => [path, text]));
  for (const [path, text] of files())
    if (path.startsWith('forms/works_permit/') && !path.endsWith('records.json'))
      theirs.set(
        path.replace('works_permit', 'night_permit'),
        text.replace('"name": "works_permit"', '"name": "night_permit"'),
      );
  const incoming = await brought(theirs);
  const units = (await planTaking(incoming, false)).flatMap(({ unit }) =>
    unit.includes('night_permit') ? [unit] : [],
  );
  expect(units.length).toBeGreaterThan(8);
  const { id } = await take(incoming, units, 'a form', 'mira');
  expect((await readBehaviours('night_permit')).length).toBe(4);
  await undoTaking(id!, 'mira');
  expect((await readForms()).some(({ name }) => name === 'night_permit')).toBe(false);
  expect(await readBehaviours('night_permit')).toEqual([]);
});

test('what is no folder of a workspace is refused by file and line', async () => {
  expect(await says(brought(new Map([['workspace.json', '{\n  nope\n}']])))).toMatch(
    /^workspace\.json:2: /,
  );
  expect(await says(brought(new Map()))).toContain('workspace.json:1: this file is missing');
  expect(await says(readBrought({ zip: Buffer.from('junk') }))).toContain('no zip');
});

test('workspaces of whatever a folder can hold come through the database as they were', async () => {
  const name = await addWorkspace('Random', null);
  const workspace = (await findWorkspace(name))!;
  await inWorkspace(workspace, async () => {
    await fc.assert(
      fc.asyncProperty(anyWorkspace(), async (made: Workspace) => {
        // Keys in the order of their schema, as every file that was read has them.
        const read = readWorkspace(writeWorkspace(made));
        const wanted = writeWorkspace(read);
        const incoming = await readBrought({ files: [...wanted] });
        const units = (await planTaking(incoming, true)).map(({ unit }) => unit);
        await take(incoming, units, 'random', 'mira');
        const out = textsIn(await packWorkspace('x', true));
        expect(content(out)).toEqual(content(wanted));
        expect(digestsOf(readWorkspace(out), digest)).toEqual(digestsOf(read, digest));
      }),
      { seed: 20310502, numRuns: shareOf(300) },
    );
  });
  expect((await inWorkspace(HOME, readForms)).length).toBeGreaterThan(3);
}, 240_000);
