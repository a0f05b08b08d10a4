/** Searches of whole workspaces: chunks in a queue, taken by any number of workers, lost by none and counted once. */
import { asAccepted } from '../../src/core/compare/accepted';
import type { Difference } from '../../src/core/compare/difference';
import { makeRelease } from '../../src/server/releases/releases';
import { saveDocument } from '../../src/server/revisions/documents';
import { accept } from '../../src/server/releases/accepted';
import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import { sql } from 'drizzle-orm';
import type { Finding } from '../../src/core/explore/finding';
import { DEFAULT_CLOCK } from '../../src/core/scenario/opening';
import type { Material } from '../../src/core/session/material';
import { ownScript, saveScript } from '../../src/server/content/behaviours';
import { readOverview } from '../../src/server/content/overview';
import { database } from '../../src/server/database/database';
import {
  ChunkSchema,
  closeQueue,
  openQueue,
  QUEUE,
  type Chunk,
} from '../../src/server/searches/queue';
import {
  beginSearch,
  foundIn,
  lastSearch,
  SEEDS,
  searchAtNight,
  stopSearch,
} from '../../src/server/searches/searches';
import { doChunk, type Work } from '../../src/server/searches/work';
import { WorkFailed } from '../../src/workers/watched';
import { freshDatabase, revisionOf } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_searches_test');
});
afterEach(closeQueue);
afterAll(() => end());

const opening = {
  person: { key: 'mira', name: 'Mira', roles: [] },
  record: null,
  launch: {},
  clock: Date.parse(DEFAULT_CLOCK),
  seed: 1,
  newId: 'new',
};
const finding = (part: string, steps: number): Finding => ({
  kind: 'not-back',
  level: 'wrong',
  part,
  aspect: 'required',
  lines: [{ behaviour: '10-register', line: 3 }],
  says: `${part} stays`,
  way: { opening, steps: Array.from({ length: steps }, () => ({ submit: true as const })) },
  other: null,
  met: null,
  also: [],
});

/** What seeds find in place of a search: the first one the longer way, the others the shorter. */
const stands: Work['search'] = ({ seed }) =>
  Promise.resolve({
    findings: [finding('imo', seed === 1 ? 3 : 2)],
    sessions: 100,
    steps: 300,
    cut: false,
    reached: { fields: 1, filled: 1, conditions: 0, bothWays: 0, unseen: [] },
  });

/** Does a chunk of a search. */
const did = (chunk: Chunk, search: Work['search']) =>
  doChunk(chunk, { search, compare: () => Promise.reject(new Error('nothing is compared')) });

/** The chunks that wait in the queue, in their order. */
async function waiting(): Promise<Chunk[]> {
  const { rows } = await database().execute(
    sql`select data from pgboss.job where name = ${QUEUE} and state = 'created' order by created_on, id`,
  );
  return (rows as { data: unknown }[]).map(({ data }) => ChunkSchema.parse(data));
}

const rowOf = async (form: string) => (await readOverview()).find(({ name }) => name === form)!;

test('a search is begun for each form and seed, done chunk by chunk, and stands in the row of its form', async () => {
  const id = await beginSearch(null, 'quick', 'mira');
  const chunks = (await waiting()).filter(({ search }) => search === id);
  expect(chunks).toHaveLength(5 * SEEDS.quick);
  expect(await lastSearch()).toMatchObject({ id, by: 'mira', done: 0, of: 10, stopped: false });
  const [first, second] = chunks.filter(({ form }) => form === 'vessel');
  // The later seed first: what is kept is the same.
  await did(second!, stands);
  expect(await rowOf('vessel')).toMatchObject({ found: { wrong: 1, current: true } });
  await did(first!, stands);
  expect(await foundIn('vessel')).toEqual([finding('imo', 2)]);
  expect((await lastSearch())!.forms.find(({ form }) => form === 'vessel')).toMatchObject({
    done: 2,
    of: 2,
    sessions: 200,
  });
});

test('a chunk that is done twice counts once', async () => {
  const id = await beginSearch(['vessel'], 'quick', null);
  const [chunk] = (await waiting()).filter(({ search }) => search === id);
  await Promise.all([did(chunk!, stands), did(chunk!, stands)]);
  expect(await lastSearch()).toMatchObject({ done: 1, of: 2, forms: [{ sessions: 100 }] });
});

test('one that was stopped, and one that another took the place of, is left alone', async () => {
  const former = await beginSearch(['vessel'], 'quick', null);
  const id = await beginSearch(['vessel'], 'quick', null);
  const searched = async (search: number) => {
    let asked = 0;
    for (const chunk of (await waiting()).filter((one) => one.search === search))
      await did(chunk, (request) => (asked++, stands(request)));
    return asked;
  };
  expect(await searched(former)).toBe(0);
  await stopSearch(id);
  expect(await searched(id)).toBe(0);
  await expect(stopSearch(999)).rejects.toMatchObject({ status: 404 });
});

test('a search that comes to no end says so, any other failure is left to the next worker', async () => {
  const id = await beginSearch(['vessel'], 'quick', null);
  const [first, second] = (await waiting()).filter(({ search }) => search === id);
  await did(first!, () => Promise.reject(new WorkFailed('It was busy for too long.')));
  expect((await lastSearch())!.forms[0]).toMatchObject({
    done: 1,
    says: 'It was busy for too long.',
  });
  await expect(did(second!, () => Promise.reject(new Error('gone')))).rejects.toThrow('gone');
  expect(await lastSearch()).toMatchObject({ done: 1, of: 2 });
});

test('what was found in former code is not of the form any more, and a form that does not compile is named', async () => {
  const id = await beginSearch(['vessel'], 'quick', null);
  for (const chunk of (await waiting()).filter(({ search }) => search === id))
    await did(chunk, stands);
  expect(await foundIn('vessel')).toHaveLength(1);
  const key = ownScript('vessel', '10-register.ts');
  await saveScript(key, '/** Register: broken. */\nkeep(() => {', await revisionOf(key), 'mira');
  expect(await foundIn('vessel')).toEqual([]);
  expect(await rowOf('vessel')).toMatchObject({ found: { wrong: 1, current: false } });
  const again = await beginSearch(['vessel'], 'quick', null);
  let asked = 0;
  for (const chunk of (await waiting()).filter(({ search }) => search === again))
    await did(chunk, (request) => (asked++, stands(request)));
  expect(asked).toBe(0);
  expect(await lastSearch()).toMatchObject({ of: 0, forms: [{ form: 'vessel' }] });
  expect((await lastSearch())!.forms[0]!.says).toContain('Register does not compile');
});

test('at night the forms that have changed since are searched deep', async () => {
  const id = (await searchAtNight())!;
  expect((await lastSearch())!.forms.map(({ form }) => form)).toContain('crew_change');
  for (const chunk of (await waiting()).filter(({ search }) => search === id))
    await did(chunk, (request) =>
      stands(request).then((done) => ({ ...done, sessions: request.sessions })),
    );
  await searchAtNight();
  expect((await lastSearch())!.forms.map(({ form }) => form)).toEqual(['vessel']);
});

test('a chunk whose worker is gone is given to another one, and nothing is lost', async () => {
  const id = await beginSearch(['crew_change'], 'quick', null);
  await database().execute(
    sql`delete from pgboss.job where (data ->> 'search')::int is distinct from ${id}`,
  );
  const dies = await openQueue({ expires: 2, maintenance: 1 });
  await dies.updateQueue(QUEUE, { name: QUEUE, retryLimit: 5, expireInSeconds: 2 });
  // Killed in the middle: the chunk is its own, and nobody answers.
  expect(await dies.fetch(QUEUE)).toHaveLength(1);
  await dies.stop({ graceful: false, wait: true });
  await database().execute(
    sql`update pgboss.job set expire_in = interval '1 second' where name = ${QUEUE}`,
  );
  const lives = await openQueue({ expires: 2, maintenance: 1 });
  try {
    await lives.work(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async ([job]) =>
      did(ChunkSchema.parse(job!.data), stands),
    );
    await expect
      .poll(async () => (await lastSearch())!.done, { timeout: 1_200_000, interval: 200 })
      .toBe(SEEDS.quick);
    expect(await lastSearch()).toMatchObject({ id, forms: [{ sessions: 200 }] });
  } finally {
    await lives.stop({ graceful: false, wait: true });
  }
}, 300_000);

test('all chunks of a form go over what it was when the first of them was taken', async () => {
  const key = ownScript('vessel', '10-register.ts');
  const save = async (text: string) => saveScript(key, text, await revisionOf(key), 'mira');
  await save('/** Register: first. */\nkeep(() => { fields.imo.hint = "first"; });');
  const id = await beginSearch(['vessel'], 'quick', null);
  await save('/** Register: second. */\nkeep(() => { fields.imo.hint = "second"; });');
  const codes: string[] = [];
  const noting: Work['search'] = (request) => {
    const { scripts } = request.material as Material;
    codes.push(scripts.map(({ code }) => code).join());
    return stands(request);
  };
  const [one, other] = (await waiting()).filter(({ search }) => search === id);
  await did(one!, noting);
  expect(await rowOf('vessel')).toMatchObject({ found: { current: true } });
  await save('/** Register: third. */\nkeep(() => { fields.imo.hint = "third"; });');
  await did(other!, noting);
  expect(codes).toHaveLength(2);
  expect(codes[0]).toContain('second');
  expect(codes[1]).toBe(codes[0]);
  expect(await rowOf('vessel')).toMatchObject({ found: { current: false } });
});

test('forms that have changed are compared with their release, and how much changed for people stands in the row', async () => {
  await makeRelease('vessel');
  await expect(beginSearch(null, 'quick', 'mira', 'changes')).rejects.toThrow(
    'No form has changed since its last release.',
  );
  const key = { kind: 'behaviour', form: 'vessel', name: '90-late.ts' } as const;
  const text = 'keep("berth", () => { fields.length.required = fields.kind.value === "tug"; });\n';
  expect((await saveDocument(key, text, 0, 'mira')).saved).toBe(true);
  const id = await beginSearch(null, 'quick', 'mira', 'changes');
  const chunks = (await waiting()).filter(({ search }) => search === id);
  expect(chunks.map(({ form, seed }) => `${form} ${seed}`).toSorted()).toEqual([
    'vessel 1',
    'vessel 2',
  ]);
  expect(await lastSearch()).toMatchObject({ what: 'changes', done: 0, of: 2 });
  const difference: Difference = {
    part: 'length',
    aspect: 'required',
    before: false,
    after: true,
    way: { opening, steps: [{ set: 'kind', to: 'tug' }] },
    lines: { before: null, after: { behaviour: '90-late', line: 1 } },
    follows: null,
    also: [],
  };
  const work: Work = {
    search: () => Promise.reject(new Error('nothing is searched')),
    compare: ({ before, after, seed }) => {
      expect(before.sources.map(({ name }) => name)).not.toContain('90-late.ts');
      expect(after.sources.map(({ name }) => name)).toContain('90-late.ts');
      return Promise.resolve({
        differences: seed === 1 ? [difference] : [],
        sessions: 50,
        lines: [],
        cut: false,
      });
    },
  };
  for (const chunk of chunks) await doChunk(chunk, work);
  expect((await rowOf('vessel')).release).toMatchObject({
    forPeople: { count: 1, current: true },
  });
  // Accepted, it is not known how many are left until the form is compared again.
  const sources = { before: [], after: [{ name: '90-late.ts', text }] };
  await accept('vessel', asAccepted(difference, sources), 'mira');
  expect((await rowOf('vessel')).release!.forPeople).toBe(null);
  const again = await beginSearch(['vessel'], 'quick', 'mira', 'changes');
  for (const chunk of (await waiting()).filter(({ search }) => search === again))
    await doChunk(chunk, work);
  expect((await rowOf('vessel')).release!.forPeople).toEqual({ count: 0, current: true });
});
