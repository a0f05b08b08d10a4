/** Behaviours as a set in the database: revisions, deleting and coming back, order. Against a real PostgreSQL. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { searched } from '../../src/core/language/search';
import { makeRelease, newestRelease } from '../../src/server/releases';
import { workspaceProblems } from '../../src/server/problems';
import { addScenario, orderBehaviours, readBehaviours, readRevisions, readScenarios, readScripts, removeBehaviour, saveBehaviour } from '../../src/server/store';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_behaviours_test');
});
afterAll(() => end());

const namesOf = async (form: string) => (await readBehaviours(form)).map(({ name }) => name);

test('every text that was saved is kept, the newest first', async () => {
  await saveBehaviour('vessel', '20-visits.ts', 'on.load(() => log(1));', 1);
  await saveBehaviour('vessel', '20-visits.ts', 'on.load(() => log(2));', 2);
  const revisions = await readRevisions('vessel', '20-visits.ts');
  expect(revisions.map(({ revision, text }) => [revision, text.slice(0, 22)])).toEqual([[3, 'on.load(() => log(2));'], [2, 'on.load(() => log(1));'], [1, '/** Visits: a vessel t']]);
  expect(revisions.every(({ savedAt }) => !Number.isNaN(Date.parse(savedAt)))).toBe(true);
  await saveBehaviour('vessel', '20-visits.ts', revisions[2]!.text, 3);
});

test('one that was deleted comes back with its revisions and goes on counting', async () => {
  await saveBehaviour('vessel', '90-new.ts', 'log(1);', 0);
  await removeBehaviour('vessel', '90-new.ts');
  expect(await namesOf('vessel')).not.toContain('90-new.ts');
  expect(await saveBehaviour('vessel', '90-new.ts', 'log(2);', 0)).toEqual({ saved: true, revision: 2 });
  expect((await readRevisions('vessel', '90-new.ts')).map(({ revision }) => revision)).toEqual([2, 1]);
  await removeBehaviour('vessel', '90-new.ts');
});

test('another order renumbers files, and revisions and scenarios follow', async () => {
  await addScenario('vessel', { title: 'Fails', open: { as: 'mira' }, steps: [{ submit: true }, { expect: { '@errors': [{ behaviour: '30-measures' }] } as never }] });
  expect(await orderBehaviours('vessel', ['30-measures.ts', '10-register.ts', '20-visits.ts'])).toEqual([{ from: '30-measures.ts', to: '5-measures.ts' }]);
  expect(await namesOf('vessel')).toEqual(['5-measures.ts', '10-register.ts', '20-visits.ts']);
  expect(await readRevisions('vessel', '5-measures.ts')).toHaveLength(1);
  const scenario = (await readScenarios('vessel')).find(({ name }) => name === 'fails')!;
  expect(scenario.scenario.steps[1]).toEqual({ expect: { '@errors': [{ behaviour: '5-measures' }] } });
  // Where names change places, none is lost on the way.
  await orderBehaviours('vessel', ['20-visits.ts', '5-measures.ts', '10-register.ts']);
  expect(await namesOf('vessel')).toEqual(['2-visits.ts', '5-measures.ts', '10-register.ts']);
  expect(await readRevisions('vessel', '2-visits.ts')).toHaveLength(4);
});

test('an order of other behaviours than there are is refused', async () => {
  expect(await orderBehaviours('vessel', ['10-register.ts'])).toBeNull();
  expect(await orderBehaviours('vessel', ['2-visits.ts', '5-measures.ts', '99-other.ts'])).toBeNull();
});

test('one that is off is saved and not released', async () => {
  await saveBehaviour('crew_change', '40-off.ts', '/**\n * Off: not now.\n * @off\n */\nkeep(() => { fields.day.shown = false; });', 0);
  await makeRelease('crew_change');
  const release = (await newestRelease('crew_change'))!;
  expect(release.material.scripts.map(({ name }) => name)).toEqual(['10-flags', '20-papers', '30-numbers']);
  expect(release.sources.map(({ name }) => name)).toContain('40-off.ts');
});

test('all scripts of the workspace are searched', async () => {
  const hits = searched(await readScripts(), { wanted: 'form.clear', pattern: false, exact: true });
  expect(hits.map(({ form, name }) => `${form}/${name}`)).toEqual(['berth_visit/10-arrival.ts', 'waste_declaration/10-kinds.ts']);
  expect(searched(await readScripts(), { wanted: 'Math.sin', pattern: false, exact: true })).toMatchObject([{ form: null, name: 'tide_gauge.level', line: 2 }]);
});

test('the problems of the workspace: types, mistakes, parts and scenarios of every form', async () => {
  await saveBehaviour('works_permit', '50-slip.ts', 'on.load(() => { log(fields.nope); fields.leader.value = 3; });', 0);
  await removeBehaviour('waste_declaration', '30-fee.ts');
  const problems = await workspaceProblems();
  expect(new Set(problems.map(({ form, sort, severity, code }) => `${form} ${sort} ${severity} ${code}`))).toEqual(
    new Set(['vessel scenario error scenario', 'waste_declaration scenario error scenario', 'works_permit scenario error scenario', 'works_permit types error TS2339', 'works_permit mistake error wrong-kind', 'waste_declaration mistake warning idle-part']),
  );
  expect(problems.find(({ code }) => code === 'wrong-kind')).toMatchObject({ at: { is: 'behaviour', name: '50-slip.ts', line: 1 }, says: 'Leader on site (leader) takes a text, not 3.' });
  // Errors first, so the part without a script is last.
  expect(problems.at(-1)!.at).toEqual({ is: 'part', part: 'fee' });
  // The same again is not worked out again.
  expect(await workspaceProblems()).toBe(problems);
});
