/** What comparing stands on: former versions of a form, accepted differences, and the steps of filling-ins that are kept. */
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { Accepted } from '../../src/core/compare/accepted';
import { VersionName } from '../../src/core/workspace/versions';
import type { Head } from '../../src/core/workspace/head';
import { database } from '../../src/server/database/database';
import { keptFillings, keptAsRecording, tidyKept } from '../../src/server/fillings/kept';
import { submit } from '../../src/server/fillings/submitting';
import { removeRecord } from '../../src/server/records/save';
import { accept, acceptedOf, takeBack } from '../../src/server/releases/accepted';
import { readRecording } from '../../src/server/releases/recordings';
import { changesSinceRelease, putBack } from '../../src/server/releases/releasing';
import { makeRelease, newestRelease } from '../../src/server/releases/releases';
import { formerVersion, versionsOf } from '../../src/server/releases/versions';
import { saveDocument, removeDocument } from '../../src/server/revisions/documents';
import { addPastRun } from '../../src/server/content/scenarios';
import { readHead } from '../../src/server/content/read';
import { saveHead } from '../../src/server/content/reference-data';
import { begin, freshDatabase, revisionOf } from './support';
import { stepsOf, VISIT } from '../support/visit';

const FORM = 'berth_visit';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_comparing_test');
  await makeRelease(FORM);
});
afterAll(() => end());

const mira = async () => (await readHead()).people[0]!;

const STEPS = stepsOf({ ...VISIT, vessel: 'Aurelle 7' });

async function fillIn(): Promise<string> {
  const { id: filling } = await begin(FORM, null);
  const saved = await submit(FORM, { filling, steps: STEPS }, await mira());
  expect(saved.kind).toBe('saved');
  return (saved as { id: string }).id;
}

async function keep(fillings: Head['fillings']): Promise<void> {
  const { revision, fillings: _, ...head } = await readHead();
  const now = fillings === undefined ? head : { ...head, fillings };
  expect((await saveHead(now, revision, 'mira')).saved).toBe(true);
  await tidyKept(database(), fillings);
}

const PILOT = { kind: 'behaviour', form: FORM, name: '20-pilot.ts' } as const;

async function write(text: string): Promise<void> {
  const saved = await saveDocument(PILOT, text, await revisionOf(PILOT), 'mira');
  expect(saved.saved).toBe(true);
}

const textOf = ({ sources }: { sources: readonly { name: string; text: string }[] }) =>
  sources.find(({ name }) => name === '20-pilot.ts')?.text ?? null;

test('a form is found as it was at every moment something was saved, and in each release', async () => {
  const first = textOf(await formerVersion(FORM, { release: 1 }))!;
  await write('/** One. */\n');
  await write('/** Two. */\n');
  const { releases, revisions } = await versionsOf(FORM);
  expect(releases).toMatchObject([{ number: 1 }]);
  expect(revisions.slice(0, 2)).toMatchObject([
    { kind: 'behaviour', name: '20-pilot.ts', by: 'mira' },
    { kind: 'behaviour', name: '20-pilot.ts', by: 'mira' },
  ]);
  const [two, one, before] = revisions;
  // What was saved at that very moment is part of it.
  expect(textOf(await formerVersion(FORM, { at: two!.at }))).toBe('/** Two. */\n');
  expect(textOf(await formerVersion(FORM, { at: one!.at }))).toBe('/** One. */\n');
  expect(textOf(await formerVersion(FORM, { at: before!.at }))).toBe(first);
  const gone = await removeDocument(PILOT, await revisionOf(PILOT), 'mira');
  expect(gone.saved).toBe(true);
  const now = new Date(Date.now() + 1000).toISOString();
  expect(textOf(await formerVersion(FORM, { at: now }))).toBe(null);
  expect(textOf(await formerVersion(FORM, { at: two!.at }))).toBe('/** Two. */\n');
  await write(first);
});

test('a version that there is not is refused, and so is a name that is none', async () => {
  await expect(formerVersion(FORM, { release: 99 })).rejects.toThrow('There is no release 99.');
  await expect(formerVersion(FORM, { at: '2001-01-01T00:00:00Z' })).rejects.toThrow(
    'There was no such form then.',
  );
  await expect(versionsOf('nowhere')).rejects.toThrow();
  expect(VersionName.parse('release-3')).toEqual({ release: 3 });
  expect(VersionName.parse('at-2031-05-02T09:00:00.123456Z')).toEqual({
    at: '2031-05-02T09:00:00.123456Z',
  });
  for (const none of ['release-0', 'release-x', 'at-yesterday', "at-2031'; drop table release", ''])
    expect(VersionName.safeParse(none).success).toBe(false);
});

test('the last time all scenarios passed is when they last did, not when they began to', async () => {
  const run = (failed: number) =>
    addPastRun(FORM, { passed: 7 - failed, failed, failing: failed > 0 ? ['Dues'] : [] }, 'mira');
  expect((await versionsOf(FORM)).right).toBe(null);
  await run(0);
  const first = (await versionsOf(FORM)).right!;
  await run(0);
  const later = (await versionsOf(FORM)).right!;
  expect(later > first).toBe(true);
  await run(1);
  expect((await versionsOf(FORM)).right).toBe(later);
});

const ACCEPTED: Accepted = {
  part: 'berth',
  aspect: 'required',
  before: true,
  after: false,
  lines: { before: null, after: 'fields.berth.required = false;' },
};

test('what is accepted stays until it is taken back, or until the next release', async () => {
  const one = await accept(FORM, ACCEPTED, 'mira');
  expect(await accept(FORM, ACCEPTED, 'teo')).toMatchObject({ key: one.key });
  expect(await acceptedOf(FORM)).toEqual([one]);
  await accept(FORM, { ...ACCEPTED, lines: { before: null, after: null } }, 'mira');
  expect(await acceptedOf(FORM)).toHaveLength(2);
  await takeBack(FORM, one.key);
  await expect(takeBack(FORM, one.key)).rejects.toThrow('Nobody has accepted that.');
  const long = { ...ACCEPTED, after: 'x'.repeat(20_000) };
  await expect(accept(FORM, long, 'mira')).rejects.toThrow('too large to be accepted');
  expect(await acceptedOf(FORM)).toHaveLength(1);
  await makeRelease(FORM);
  expect(await acceptedOf(FORM)).toEqual([]);
});

test('an earlier release is put back as the next one, as it was', async () => {
  const first = textOf(await formerVersion(FORM, { release: 1 }));
  await write('/** Later. */\n');
  const { number } = await makeRelease(FORM);
  await accept(FORM, ACCEPTED, 'mira');
  const back = await putBack(FORM, 1, 'Nobody can submit.', 'mira');
  expect(back.number).toBe(number + 1);
  expect(textOf(await formerVersion(FORM, { release: back.number }))).toBe(first);
  expect((await newestRelease(FORM))!.again).toBe(1);
  expect((await versionsOf(FORM)).releases[0]).toMatchObject({
    number: back.number,
    by: 'mira',
    reason: 'Nobody can submit.',
    again: 1,
  });
  expect(await acceptedOf(FORM)).toEqual([]);
  // What is being written stays.
  expect((await changesSinceRelease(FORM)).scripts.map(({ name }) => name)).toEqual([
    '20-pilot.ts',
  ]);
  await expect(putBack(FORM, 99, 'x', 'mira')).rejects.toThrow('There is no release 99.');
  await write(first!);
});

test('steps are kept with texts masked, go with their record, and all at once when it is turned off', async () => {
  await keep(undefined);
  await fillIn();
  expect(await keptFillings(FORM, null, 10)).toEqual({ fillings: [], all: 0 });
  await keep({ most: 3, days: 30, masked: true });
  const first = await fillIn();
  const release = (await newestRelease(FORM))!.number;
  const { fillings, all } = await keptFillings(FORM, null, 10);
  expect(all).toBe(1);
  expect(fillings[0]).toMatchObject({ record: first, release, masked: true });
  expect(JSON.stringify(fillings)).not.toContain('Aurelle');
  expect(fillings[0]!.steps).toContainEqual({ set: 'berth', to: 'sq1' });
  await keep({ most: 3, days: 30, masked: false });
  const others = [await fillIn(), await fillIn(), await fillIn()];
  const kept = await keptFillings(FORM, null, 10);
  // The oldest went; the newest comes first, and pages go on from there.
  expect(kept.fillings.map(({ record }) => record)).toEqual(others.toReversed());
  expect(JSON.stringify(kept.fillings[0])).toContain('Aurelle');
  const page = await keptFillings(FORM, kept.fillings[0]!.id, 1);
  expect(page.fillings.map(({ record }) => record)).toEqual([others[1]]);
  await removeRecord({ form: FORM, id: others[1]! }, 1, 'mira');
  expect((await keptFillings(FORM, null, 10)).fillings.map(({ record }) => record)).toEqual([
    others[2],
    others[0],
  ]);
  await keep({ most: 1, days: 30, masked: false });
  expect((await keptFillings(FORM, null, 10)).all).toBe(1);
  await keep(undefined);
  await keep({ most: 3, days: 30, masked: true });
  expect((await keptFillings(FORM, null, 10)).all).toBe(0);
});

test('what is too old goes, and a filling-in opens as a recording once', async () => {
  await keep({ most: 10, days: 2, masked: true });
  const record = await fillIn();
  const { id } = (await keptFillings(FORM, null, 1)).fillings[0]!;
  const recording = await keptAsRecording(FORM, id, await mira());
  expect(await keptAsRecording(FORM, id, await mira())).toBe(recording);
  expect(await readRecording(recording)).toMatchObject({
    form: FORM,
    release: (await newestRelease(FORM))!.number,
    masked: true,
    says: `Filling-in ${id}, saved as record ${record}.`,
  });
  await database().execute(`update kept_filling set at = now() - interval '3 days'`);
  await fillIn();
  expect((await keptFillings(FORM, null, 10)).all).toBe(1);
  await expect(keptAsRecording(FORM, id, await mira())).rejects.toThrow('That filling-in is gone');
});

test('that it cannot be kept does not keep it from being saved', async () => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  await database().execute('alter table kept_filling rename to away');
  try {
    await fillIn();
    expect(said).toHaveBeenCalledTimes(1);
  } finally {
    said.mockRestore();
    await database().execute('alter table away rename to kept_filling');
  }
});
