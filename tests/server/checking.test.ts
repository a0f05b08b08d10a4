/** Checking on a busy machine: what was cut short by time is no failure, and a release is what was checked. */
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { CannotStart, PAUSES, TookTooLong } from '../../src/core/sandbox/cut-short';
import { Engine } from '../../src/core/sandbox/engine';
import { CutShort, Refusal } from '../../src/server/http/refusal';
import { newestRelease } from '../../src/server/releases/releases';
import { releaseForm } from '../../src/server/releases/releasing';
import { ownScript, saveScript } from '../../src/server/content/behaviours';
import { readOverview } from '../../src/server/content/overview';
import {
  checkForm,
  forgetChecks,
  takeOver,
  workspaceProblems,
} from '../../src/server/content/problems';
import { readForm } from '../../src/server/content/read';
import { pastRuns } from '../../src/server/content/scenarios';
import { freshDatabase, revisionOf } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_checking_test');
});
afterAll(() => end());
beforeEach(() => {
  // Without pauses between tries.
  const { setTimeout } = globalThis;
  vi.spyOn(globalThis, 'setTimeout').mockImplementation(((work: () => void, wait = 0) =>
    setTimeout(work, PAUSES.includes(wait) ? 0 : wait)) as typeof setTimeout);
});
afterEach(() => {
  vi.restoreAllMocks();
  forgetChecks();
});

const rowOf = async (name: string) => (await readOverview()).find((row) => row.name === name)!;

/** Plays of engines are cut short until this many were. */
function cutShort(times: number, how: () => Error = () => new TookTooLong()) {
  const play = Engine.prototype.play;
  let left = times;
  return vi.spyOn(Engine.prototype, 'play').mockImplementation(function (this: Engine, ...given) {
    return left-- > 0 ? Promise.reject(how()) : play.apply(this, given);
  });
}

/** Until the check of the workspace is through. */
async function checked() {
  for (;;) {
    const found = await workspaceProblems(1500);
    if (found.over) return found;
  }
}

describe('a check that is cut short', () => {
  test.each([
    ['by time', () => new TookTooLong()],
    ['before it could begin', () => new CannotStart('no code')],
  ])(
    '%s is not run yet: no problem, nothing kept, and it comes out when it is asked again',
    async (_what, how) => {
      vi.spyOn(console, 'error').mockImplementation(() => undefined);
      const spy = cutShort(Infinity, how);
      const cut = await checked();
      expect(cut.problems.filter(({ sort }) => sort === 'scenario')).toEqual([]);
      expect(cut.problems.filter(({ code }) => code === 'unchecked')).toEqual([]);
      expect(cut.cutShort.map(({ name }) => name)).toContain('vessel');
      expect((await rowOf('vessel')).run).toBeNull();
      expect(await pastRuns('vessel')).toEqual([]);
      spy.mockRestore();
      const through = await checked();
      expect([
        through.cutShort,
        through.problems.filter(({ sort }) => sort === 'scenario'),
      ]).toEqual([[], []]);
      expect((await rowOf('vessel')).run).toMatchObject({ failed: 0, current: true });
      const { database } = await import('../../src/server/database/database');
      await database().execute('delete from scenario_run');
      await database().execute('delete from form_check');
    },
  );

  test('once and not again is never heard of', async () => {
    cutShort(1);
    const form = (await readForm('vessel'))!;
    const problems = await checkForm(form);
    expect(problems.filter(({ sort }) => sort === 'scenario')).toEqual([]);
  });

  test('makes no release and blames nobody; with a reason it is made, and says why', async () => {
    cutShort(Infinity);
    const caught = await releaseForm('vessel', null, 'mira').catch((error: unknown) => error);
    expect(caught).toBeInstanceOf(CutShort);
    expect(caught).toMatchObject({ status: 503, headers: { 'retry-after': '10' } });
    const { number } = await releaseForm('vessel', 'The quay waits.', 'mira');
    expect(await newestRelease('vessel')).toMatchObject({
      number,
      reason: 'The quay waits.',
      failing: [expect.stringMatching(/too busy to run the scenarios/)],
    });
  });
});

test('what a bench finds out is taken over: what was found here otherwise is looked for again', async () => {
  const form = (await readForm('vessel'))!;
  await checkForm(form);
  const again = vi.spyOn(Engine.prototype, 'play');
  await checkForm(form);
  expect(again).not.toHaveBeenCalled();
  takeOver('vessel', { passed: 1, failed: 0 });
  await checkForm(form);
  expect(again).not.toHaveBeenCalled();
  takeOver('vessel', { passed: 0, failed: 2 });
  await checkForm(form);
  expect(again).toHaveBeenCalled();
});

test('a release is what was checked: whoever saves meanwhile, whenever that is, gets 409 or a release without it', async () => {
  const script = ownScript('vessel', '10-register.ts');
  const text = (await newestText())!;
  const outcomes: string[] = [];
  for (const pause of [0, 5, 20, 60, 120, 250, 400, 600]) {
    forgetChecks();
    const releasing = releaseForm('vessel', null, 'mira').then(
      () => 'released',
      (caught: unknown) => (caught instanceof Refusal ? String(caught.status) : 'broke'),
    );
    await new Promise((resolve) => setTimeout(resolve, pause));
    // A behaviour with which scenarios fail.
    const revision = await revisionOf({
      kind: 'behaviour',
      form: 'vessel',
      name: '10-register.ts',
    });
    await saveScript(script, 'on.load(() => { throw new Error("no"); });\n', revision, 'mira');
    const outcome = await releasing;
    outcomes.push(outcome);
    if (outcome === 'released')
      expect((await newestRelease('vessel'))!.sources.map((one) => one.text)).toContain(text);
    else expect(outcome).toBe('409');
    await saveScript(script, text, revision + 1, 'mira');
  }
  expect(outcomes).toContain('409');

  async function newestText() {
    const { readScripts } = await import('../../src/server/content/read');
    return (await readScripts((await readForm('vessel'))!)).find(
      ({ name }) => name === '10-register.ts',
    )?.text;
  }
});
