/** Scenarios saved, brought back and checked; releases that show what they change and are refused while something fails. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ScenarioSchema } from '../../src/core/scenario/definition';
import { Refusal } from '../../src/server/http/refusal';
import { insertRelease, newestRelease } from '../../src/server/releases/releases';
import { changesSinceRelease, releaseForm } from '../../src/server/releases/releasing';
import { ownScript, saveScript } from '../../src/server/content/behaviours';
import { readScenarios } from '../../src/server/content/read';
import { RUNS_KEPT } from '../../src/core/limits';
import { readOverview } from '../../src/server/content/overview';
import {
  addPastRun,
  addScenario,
  keepScenarioRun,
  pastRuns,
  removeScenario,
  saveScenario,
} from '../../src/server/content/scenarios';
import { freshDatabase, revisionOf } from './support';

const BY = 'mira';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_testing_test');
  for (const form of ['waste_declaration', 'works_permit']) await insertRelease(form);
});
afterAll(() => end());

const refused = async (work: Promise<unknown>) => {
  const caught = await work.then(
    () => null,
    (error: unknown) => error,
  );
  expect(caught).toBeInstanceOf(Refusal);
  const { status, message } = caught as Refusal;
  return [status, message];
};
const named = async (form: string, name: string) =>
  (await readScenarios(form)).find((one) => one.name === name)!;

describe('a scenario', () => {
  test('is changed from the revision it was made from, and comes back after it was removed', async () => {
    const { scenario, revision } = await named('vessel', 'measures');
    const next = { ...scenario, title: 'Measures' };
    const saved = await saveScenario('vessel', 'measures', next, revision, BY);
    expect(saved).toMatchObject({ saved: true, revision: revision + 1 });
    expect(await saveScenario('vessel', 'measures', scenario, revision, BY)).toEqual({
      saved: false,
      says: 'Somebody else changed this scenario meanwhile. Reload to see it.',
      theirs: { content: next, revision: revision + 1 },
    });
    await removeScenario('vessel', 'measures', revision + 1, BY);
    expect(await saveScenario('vessel', 'measures', scenario, revision, BY)).toMatchObject({
      saved: false,
      theirs: { content: null, revision: 0 },
    });
    await saveScenario('vessel', 'measures', scenario, 0, BY);
    expect((await named('vessel', 'measures')).scenario).toEqual(scenario);
  });

  test('that names what is not there is refused, wherever it names it', async () => {
    const save = (more: object) =>
      saveScenario(
        'vessel',
        'new',
        ScenarioSchema.parse({ title: 'New', steps: [], ...more }),
        0,
        BY,
      );
    const opened = { open: { as: 'mira' } };
    expect(await refused(save({ startsAs: 'gone' }))).toEqual([
      400,
      'startsAs: there is no scenario "gone".',
    ]);
    expect(await refused(save({ startsAs: 'new' }))).toEqual([
      400,
      'startsAs: it starts as itself.',
    ]);
    const rows = [{ inputs: ['nobody'], expected: [] }];
    expect(
      await refused(save({ ...opened, cases: { inputs: ['@as'], expected: [], rows } })),
    ).toEqual([400, 'open.as: there is no person "nobody".']);
    const accepted = { base: {}, outcomes: [{}], rows: [] };
    expect(
      await refused(
        save({ ...opened, grid: { axes: [{ input: 'lenght', values: [1] }], accepted } }),
      ),
    ).toEqual([400, 'grid.axes.0: the form has no part "lenght".']);
  });

  test('starts as another one on the server too', async () => {
    const made = await addScenario(
      'vessel',
      ScenarioSchema.parse({
        title: 'After measures',
        startsAs: 'measures',
        steps: [{ expect: { standing: { locked: false } } }],
      }),
      BY,
    );
    expect((await changesSinceRelease('vessel')).failing).toEqual([]);
    await removeScenario('vessel', made.name, made.revision, BY);
  });
});

describe('a release', () => {
  test('says what it would change: definition, texts, scenarios', async () => {
    const first = await changesSinceRelease('waste_declaration');
    expect(first).toMatchObject({ next: 2, differences: [], scripts: [], failing: [] });
    const key = { kind: 'behaviour', form: 'waste_declaration', name: '20-roles.ts' } as const;
    await saveScript(
      ownScript(key.form, key.name),
      '/** Roles: nobody. */\n',
      await revisionOf(key),
      BY,
    );
    const { scenario, revision } = await named('waste_declaration', 'kinds');
    await saveScenario(
      'waste_declaration',
      'kinds',
      { ...scenario, title: 'Kinds of waste' },
      revision,
      BY,
    );
    const { scripts, differences } = await changesSinceRelease('waste_declaration');
    expect(scripts).toContainEqual({
      name: '20-roles.ts',
      before: expect.stringContaining('roles'),
      after: '/** Roles: nobody. */\n',
    });
    // The module that only it had imported is no part of the release any more.
    expect(scripts.map(({ name, after }) => [name, after === null])).toContainEqual([
      'shared/dates.ts',
      true,
    ]);
    expect(differences.map(({ file }) => file)).toContain(
      'forms/waste_declaration/scenarios/kinds.json',
    );
  });

  test('is refused while a scenario fails, and made with a reason that stays with it', async () => {
    const { failing } = await changesSinceRelease('waste_declaration');
    expect(failing.length).toBeGreaterThan(0);
    const [status, says] = await refused(releaseForm('waste_declaration', null, BY));
    expect([status, says]).toEqual([
      409,
      expect.stringContaining('Say why the release is made all the same'),
    ]);
    expect((await newestRelease('waste_declaration'))!.number).toBe(1);
    expect(await releaseForm('waste_declaration', 'The office agreed.', BY)).toEqual({ number: 2 });
    expect(await newestRelease('waste_declaration')).toMatchObject({
      number: 2,
      madeBy: BY,
      reason: 'The office agreed.',
      failing,
    });
    expect((await changesSinceRelease('waste_declaration')).last).toMatchObject({
      number: 2,
      reason: 'The office agreed.',
    });
  });

  test('in which nothing fails keeps no reason, and a form that is not there is refused', async () => {
    expect(await releaseForm('works_permit', 'None needed.', BY)).toEqual({ number: 2 });
    expect(await newestRelease('works_permit')).toMatchObject({
      madeBy: BY,
      reason: null,
      failing: [],
    });
    expect((await refused(releaseForm('nowhere', null, BY)))[0]).toBe(404);
  });
});

test('runs are kept where they came out otherwise, the last fifty, and what was reached stays', async () => {
  const run = { passed: 4, failed: 0, failing: [] };
  await addPastRun('works_permit', run, BY);
  await addPastRun('works_permit', run, BY);
  await addPastRun('works_permit', { passed: 3, failed: 1, failing: ['Diving'] }, 'per');
  expect(await pastRuns('works_permit')).toMatchObject([
    { passed: 3, failed: 1, failing: ['Diving'], by: 'per' },
    { passed: 4, failed: 0, failing: [], by: BY },
  ]);
  for (let i = 0; i < RUNS_KEPT + 3; i++)
    await addPastRun('works_permit', { passed: i, failed: 0, failing: [] }, BY);
  const kept = await pastRuns('works_permit');
  expect([kept.length, kept[0]!.passed]).toEqual([RUNS_KEPT, RUNS_KEPT + 2]);
  await keepScenarioRun('works_permit', { passed: 4, failed: 0, of: 'x', coverage: 83 });
  await keepScenarioRun('works_permit', { passed: 4, failed: 0, of: 'y' });
  const row = (await readOverview()).find(({ name }) => name === 'works_permit')!;
  expect(row.run).toMatchObject({ passed: 4, coverage: 83 });
});
