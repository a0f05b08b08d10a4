/** Recordings of filling-ins: kept by people, by the server itself and from files; played again to the same end. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { RECORDINGS_BY_SERVER } from '../../src/core/limits';
import { startModule } from '../../src/core/sandbox/quickjs';
import { Sandbox } from '../../src/core/sandbox/sandbox';
import { RecordingSchema, type Recording } from '../../src/core/scenario/recording';
import { seenAt } from '../../src/core/scenario/seen';
import type { TimedStep } from '../../src/core/session/step';
import { database } from '../../src/server/database/database';
import { submit } from '../../src/server/fillings/submitting';
import { listRecords } from '../../src/server/records/list';
import {
  bringIn,
  idOf,
  keepByServer,
  keepForPerson,
  listRecordings,
  readRecording,
  removeRecording,
} from '../../src/server/releases/recordings';
import { makeRelease, releaseNumbered } from '../../src/server/releases/releases';
import * as schema from '../../src/server/database/schema';
import { readForm, readHead } from '../../src/server/content/read';
import { begin, freshDatabase } from './support';
import { stepsOf, VISIT } from '../support/visit';

const FORM = 'berth_visit';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_recordings_test');
  await makeRelease(FORM);
});
afterAll(() => end());

const mira = async () => (await readHead()).people[0]!;

const GOOD = stepsOf({ ...VISIT, vessel: 'Aurelle 7' });

async function kept(
  steps: TimedStep[],
  { says = '', masks = false } = {},
): Promise<{ id: number; recording: Recording; filling: string }> {
  const { id: filling, release, opening } = await begin(FORM, null);
  const done = { filling, release, opening, steps, ended: null };
  const id = await keepForPerson(done, { says, masks }, await mira());
  return { id, recording: (await readRecording(id))!, filling };
}

describe('a recording that a person keeps', () => {
  test('holds the opening, the steps with their times and the release', async () => {
    const steps: TimedStep[] = [{ set: 'length', to: 42.5, at: 12 }];
    const { id, recording } = await kept(steps, { says: 'No berth is offered.' });
    expect(recording).toMatchObject({
      recording: 1,
      form: FORM,
      release: 1,
      because: 'asked',
      says: 'No berth is offered.',
      masked: false,
      steps,
      opening: { person: { key: 'mira' }, record: null },
    });
    expect((await listRecordings({ form: FORM }))[0]).toMatchObject({
      id,
      keptBy: 'mira',
      record: null,
    });
  });

  test('plays to the same end as it did, in its release', async () => {
    const { recording } = await kept(GOOD.slice(0, -1));
    const release = (await releaseNumbered(FORM, recording.release!))!;
    const sandbox = new Sandbox(await startModule(), { temporal: true });
    sandbox.load(release.material);
    const answers = [
      sandbox.open(recording.opening),
      ...recording.steps.map((step) => sandbox.step(step)),
    ];
    expect(seenAt(answers, answers.length - 1).parts.dues!.value).toBe(51);
    expect(answers.flatMap(({ errors }) => errors)).toEqual([]);
  });

  test('is masked where they want it, and keeps its pattern', async () => {
    const { recording } = await kept(GOOD, { masks: true });
    const to = (field: string) =>
      recording.steps.find((step) => 'set' in step && step.set === field) as { to: unknown };
    expect(to('vessel').to).toBe('Xxxxxxx 0');
    expect(to('contact').to).toBe('xxxx@xxxxxxx.xxxxxxx');
    // What behaviours decide by stays.
    expect(to('berth').to).toBe('sq1');
    expect(to('length').to).toBe(42.5);
    expect(JSON.stringify(recording)).not.toContain('Aurelle');
    expect(recording.masked).toBe(true);
  });

  test('is linked to the record once that is saved', async () => {
    const { id, filling } = await kept(GOOD);
    const saved = await submit(FORM, { filling, steps: GOOD }, await mira());
    const record = (saved as { id: string }).id;
    expect(await listRecordings({ form: FORM, record })).toMatchObject([{ id, record }]);
    const page = await listRecords((await readForm(FORM))!, { narrowed: [] });
    expect(page.records.find((one) => one.id === record)!.recordings).toBe(1);
    expect(page.records.some((one) => one.recordings === undefined)).toBe(true);
  });
});

describe('a recording that the server keeps by itself', () => {
  const newest = async () => (await listRecordings({ form: FORM }))[0]!;

  test('is of a step that it could not do', async () => {
    const { id } = await begin(FORM, null);
    const steps: TimedStep[] = [{ set: 'dues', to: 1 }, { submit: true }];
    const result = await submit(FORM, { filling: id, steps }, await mira());
    expect(result.kind).toBe('refused');
    expect(await newest()).toMatchObject({
      because: 'refused',
      says: (result as { says: string }).says,
    });
    expect((await readRecording((await newest()).id))!.steps).toEqual(steps);
  });

  test('is of other values than the browser showed, with those', async () => {
    const { id } = await begin(FORM, null);
    const submission = { filling: id, steps: GOOD, shown: { dues: 7 } };
    expect((await submit(FORM, submission, await mira())).kind).toBe('differs');
    const { id: recording, because, says } = await newest();
    expect(because).toBe('differs');
    expect(says).toContain('Dues');
    expect((await readRecording(recording))!.ended).toEqual({ dues: 7 });
    // Sending it again keeps no second one.
    await submit(FORM, submission, await mira());
    expect((await newest()).id).toBe(recording);
  });

  test('is none where all went well, or where only something has to be mended', async () => {
    const before = await newest();
    const good = await begin(FORM, null);
    await submit(FORM, { filling: good.id, steps: GOOD }, await mira());
    const stopped = await begin(FORM, null);
    await submit(FORM, { filling: stopped.id, steps: [{ submit: true }] }, await mira());
    expect((await newest()).id).toBe(before.id);
  });

  test('is one of the newest, and none so large that it fills the disk', async () => {
    const { release, opening } = await begin(FORM, null);
    const done = { filling: null, release, opening, steps: [], ended: null };
    for (let i = 0; i < RECORDINGS_BY_SERVER + 5; i++)
      await keepByServer(done, 'failed', `time ${i}`, await mira());
    const all = await database()
      .select({ because: schema.recording.because, says: schema.recording.says })
      .from(schema.recording);
    expect(all.filter(({ because }) => because !== 'asked')).toHaveLength(RECORDINGS_BY_SERVER);
    expect(all.some(({ says }) => says === 'time 0')).toBe(false);
    expect(all.some(({ because }) => because === 'asked')).toBe(true);
    const large: TimedStep[] = Array.from({ length: 4 }, () => ({
      set: 'vessel',
      to: 'x'.repeat(90_000),
    }));
    await keepByServer({ ...done, steps: large }, 'failed', 'large', await mira());
    expect((await listRecordings())[0]!.says).not.toBe('large');
  });
});

test('a recording goes out as JSON and comes in again as the same; removed it is gone', async () => {
  const { recording } = await kept(GOOD);
  const text = JSON.stringify(recording);
  const id = await bringIn(RecordingSchema.parse(JSON.parse(text)), await mira());
  expect(await readRecording(id)).toEqual(recording);
  expect(await removeRecording(id, 'vessel')).toBe(false);
  expect(await removeRecording(id, FORM)).toBe(true);
  expect([await readRecording(id), await removeRecording(id, FORM)]).toEqual([null, false]);
});

test('what is no recording is none', () => {
  const good = {
    recording: 1,
    form: FORM,
    release: 1,
    keptAt: '2031-05-02T09:00:00Z',
    because: 'asked',
    says: '',
    masked: false,
    opening: {
      person: { key: 'mira', name: 'Mira', roles: [] },
      record: null,
      launch: {},
      clock: 0,
      seed: 1,
      newId: '1',
    },
    steps: [],
    ended: null,
  };
  expect(RecordingSchema.safeParse(good).success).toBe(true);
  for (const wrong of [
    { recording: 2 },
    { form: '../x' },
    { release: 0 },
    { steps: [{ nonsense: 1 }] },
    { steps: [{ set: 'a' }] },
    { opening: {} },
    { because: 'bored' },
    { more: 1 },
  ])
    expect(RecordingSchema.safeParse({ ...good, ...wrong }).success, JSON.stringify(wrong)).toBe(
      false,
    );
  for (const text of ['', '0', '-1', '1.5', '1e3', 'x', '9999999999', '1 or 1=1'])
    expect(idOf(text), text).toBeNull();
  expect(idOf('12')).toBe(12);
});
