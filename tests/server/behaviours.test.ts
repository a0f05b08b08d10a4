/** Behaviours as a set in the database: revisions, deleting and coming back, order. Against a real PostgreSQL. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { makeRelease, newestRelease } from '../../src/server/releases/releases';
import {
  scriptHistory,
  ownScript,
  orderBehaviours,
  removeScript,
  saveScript,
} from '../../src/server/content/behaviours';
import { readOverview } from '../../src/server/content/overview';
import { workspaceProblems } from '../../src/server/content/problems';
import { readBehaviours, readScenarios } from '../../src/server/content/read';
import { addScenario } from '../../src/server/content/scenarios';
import { searchScripts } from '../../src/server/content/search';
import { freshDatabase, revisionOf } from './support';

const BY = 'mira';
const remove = async (form: string, name: string) =>
  removeScript(ownScript(form, name), await revisionOf({ kind: 'behaviour', form, name }), BY);

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_behaviours_test');
});
afterAll(() => end());

/** Checking is waited for to its end. */
const PATIENCE = 1_000_000;

const namesOf = async (form: string) => (await readBehaviours(form)).map(({ name }) => name);

test('every text that was saved is kept, the newest first', async () => {
  await saveScript(ownScript('vessel', '20-visits.ts'), 'on.load(() => log(1));', 1, BY);
  await saveScript(ownScript('vessel', '20-visits.ts'), 'on.load(() => log(2));', 2, BY);
  const revisions = await scriptHistory(ownScript('vessel', '20-visits.ts'));
  expect(revisions.map(({ revision, text }) => [revision, text.slice(0, 22)])).toEqual([
    [3, 'on.load(() => log(2));'],
    [2, 'on.load(() => log(1));'],
    [1, '/** Visits: a vessel t'],
  ]);
  expect(revisions.every(({ savedAt }) => !Number.isNaN(Date.parse(savedAt)))).toBe(true);
  await saveScript(ownScript('vessel', '20-visits.ts'), revisions[2]!.text, 3, BY);
});

test('one that was deleted comes back with its revisions and goes on counting', async () => {
  await saveScript(ownScript('vessel', '90-new.ts'), 'log(1);', 0, BY);
  await remove('vessel', '90-new.ts');
  expect(await namesOf('vessel')).not.toContain('90-new.ts');
  // The removal has a number of its own.
  expect(await saveScript(ownScript('vessel', '90-new.ts'), 'log(2);', 0, BY)).toEqual({
    saved: true,
    revision: 3,
  });
  expect(
    (await scriptHistory(ownScript('vessel', '90-new.ts'))).map(({ revision, savedBy }) => [
      revision,
      savedBy,
    ]),
  ).toEqual([
    [3, BY],
    [1, BY],
  ]);
  await remove('vessel', '90-new.ts');
});

test('another order renumbers files, and revisions and scenarios follow', async () => {
  await addScenario(
    'vessel',
    {
      title: 'Fails',
      open: { as: 'mira' },
      steps: [{ submit: true }, { expect: { '@errors': [{ behaviour: '30-measures' }] } as never }],
    },
    BY,
  );
  expect(
    await orderBehaviours('vessel', ['30-measures.ts', '10-register.ts', '20-visits.ts'], BY),
  ).toEqual([{ from: '30-measures.ts', to: '5-measures.ts' }]);
  expect(await namesOf('vessel')).toEqual(['5-measures.ts', '10-register.ts', '20-visits.ts']);
  expect(await scriptHistory(ownScript('vessel', '5-measures.ts'))).toHaveLength(1);
  const scenario = (await readScenarios('vessel')).find(({ name }) => name === 'fails')!;
  expect(scenario.scenario.steps[1]).toEqual({
    expect: { '@errors': [{ behaviour: '5-measures' }] },
  });
  // Where names change places, none is lost on the way.
  await orderBehaviours('vessel', ['20-visits.ts', '5-measures.ts', '10-register.ts'], BY);
  expect(await namesOf('vessel')).toEqual(['2-visits.ts', '5-measures.ts', '10-register.ts']);
  expect(await scriptHistory(ownScript('vessel', '2-visits.ts'))).toHaveLength(4);
});

test('an order of other behaviours than there are is refused', async () => {
  await expect(orderBehaviours('vessel', ['10-register.ts'], BY)).rejects.toMatchObject({
    status: 409,
  });
  await expect(
    orderBehaviours('vessel', ['2-visits.ts', '5-measures.ts', '99-other.ts'], BY),
  ).rejects.toMatchObject({ status: 409 });
  await expect(
    orderBehaviours('vessel', ['2-visits.ts', '5-measures.ts', '5-measures.ts'], BY),
  ).rejects.toMatchObject({ status: 409 });
});

test('one that is off is saved and not released', async () => {
  await saveScript(
    ownScript('crew_change', '40-off.ts'),
    '/**\n * Off: not now.\n * @off\n */\nkeep(() => { fields.day.shown = false; });',
    0,
    BY,
  );
  await makeRelease('crew_change');
  const release = (await newestRelease('crew_change'))!;
  expect(release.material.scripts.map(({ name }) => name)).toEqual([
    '10-flags',
    '20-papers',
    '30-numbers',
  ]);
  expect(release.sources.map(({ name }) => name)).toContain('40-off.ts');
});

test('all scripts of the workspace are searched', async () => {
  const hits = await searchScripts({ wanted: 'form.clear', pattern: false, exact: true });
  expect(hits.map(({ form, name }) => `${form}/${name}`)).toEqual(['/behaviours/90-start-over.ts']);
  expect(await searchScripts({ wanted: 'Math.sin', pattern: false, exact: true })).toMatchObject([
    { form: null, name: 'tide_gauge.level', line: 2 },
  ]);
});

test('the problems of the workspace: types, mistakes, parts and scenarios of every form', async () => {
  await saveScript(
    ownScript('works_permit', '50-slip.ts'),
    'on.load(() => { log(fields.nope); fields.leader.value = 3; });',
    0,
    BY,
  );
  await remove('waste_declaration', '30-fee.ts');
  const { problems, done, of } = await workspaceProblems(PATIENCE);
  expect([done, of]).toEqual([5, 5]);
  expect(
    new Set(
      problems.map(({ form, sort, severity, code }) => `${form} ${sort} ${severity} ${code}`),
    ),
  ).toEqual(
    new Set([
      'vessel scenario error scenario',
      'waste_declaration scenario error scenario',
      'works_permit scenario error scenario',
      'works_permit types error TS2339',
      'works_permit mistake error wrong-kind',
      'waste_declaration mistake warning idle-part',
    ]),
  );
  expect(problems.find(({ code }) => code === 'wrong-kind')).toMatchObject({
    at: { is: 'behaviour', name: '50-slip.ts', line: 1 },
    says: 'Leader on site (leader) takes a text, not 3.',
  });
  // Errors first, so the part without a script is last.
  expect(problems.at(-1)!.at).toEqual({ is: 'part', part: 'fee' });
  // The page of forms says how the scenarios came out, until something they depend on is saved.
  const row = async () => (await readOverview()).find(({ name }) => name === 'works_permit')!.run!;
  expect(await row()).toMatchObject({ failed: expect.any(Number), current: true });
  expect((await row()).failed).toBeGreaterThan(0);
  await remove('works_permit', '50-slip.ts');
  expect((await row()).current).toBe(false);
  expect(
    (await workspaceProblems(PATIENCE)).problems.some(({ form }) => form === 'works_permit'),
  ).toBe(false);
});
