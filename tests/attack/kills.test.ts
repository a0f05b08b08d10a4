/**
 * The server or its database is killed while people save: whatever was acknowledged is there afterwards, nothing is there
 * twice, and who was told that nothing was saved was told the truth.
 */
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { afterAll, expect, test } from 'vitest';
import { App } from './app';
import { report, thorough } from './support';
import { VISIT } from '../support/visit';

const app = new App(Number(process.env.TAVRO_KILL_PORT ?? 3931));
const { at, headers } = app;
const url = process.env.DATABASE_URL!;
afterAll(() => app.kill());

async function query<T>(text: string, values: unknown[] = []): Promise<T[]> {
  for (let i = 0; ; i++) {
    const client = new Client({ connectionString: url });
    // It may be one of the connections that are ended.
    client.on('error', () => undefined);
    try {
      await client.connect();
      return (await client.query(text, values)).rows as T[];
    } catch (caught) {
      if (i > 100) throw caught;
      await new Promise((resolve) => setTimeout(resolve, 100));
    } finally {
      await client.end().catch(() => undefined);
    }
  }
}

/** Ends what it names in the middle of the work. */
const WAYS = {
  'the connections of the database': () =>
    query(
      'select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and datname = current_database()',
    ),
  'the server': async () => {
    await app.kill();
    await app.start();
  },
  'the database': async () => {
    const data = (await query<{ data_directory: string }>('show data_directory'))[0]!
      .data_directory;
    const [{ pid }] = (await query<{ pid: number }>(
      "select pg_postmaster_pid_like as pid from (select (regexp_match(pg_read_file('postmaster.pid'), '^\\d+'))[1]::int as pg_postmaster_pid_like) p",
    )) as [{ pid: number }];
    // As by the kernel when memory runs out: nothing is written on the way down.
    spawnSync('pkill', ['-9', '-P', String(pid)]);
    process.kill(pid, 'SIGKILL');
    expect(data.length).toBeGreaterThan(0);
    await new Promise((resolve) => setTimeout(resolve, 300));
    const { status, stderr } = spawnSync('bash', ['scripts/postgres.sh', 'start'], {
      encoding: 'utf8',
      env: process.env,
    });
    expect([status, stderr]).toEqual([0, expect.any(String)]);
  },
} as const;

interface Told {
  key: string;
  text: string;
  is: 'saved' | 'not saved' | 'unknown';
  revision: number;
}

/** Saves one behaviour over and over, each time another text, until it is told to stop; keeps what it was told. */
async function saveOn(key: string, until: () => boolean, told: Told[]): Promise<void> {
  let from = Number(
    (
      await query<{ revision: number }>(
        "select revision from document where kind = 'behaviour' and form = 'vessel' and name = $1 and content is not null",
        [key],
      )
    )[0]?.revision ?? 0,
  );
  for (let i = 0; !until(); i++) {
    const text = `// ${key} ${from} ${i} ${Math.random()}`;
    const reply = await fetch(`${at}/api/forms/vessel/behaviours/${key}`, {
      method: 'PUT',
      headers,
      body: JSON.stringify({ text, from }),
    }).then(
      async (response) => ({
        status: response.status,
        body: (await response.json().catch(() => null)) as {
          revision?: number;
          says?: string;
          theirs?: { revision: number; text: string };
        } | null,
      }),
      () => null,
    );
    if (reply?.status === 200 && reply.body !== null) {
      from = reply.body.revision!;
      told.push({ key, text, is: 'saved', revision: from });
    } else if (reply?.status === 409 && reply.body !== null) {
      // What was cut off before was saved after all.
      expect(
        told.filter((one) => one.text === reply.body!.theirs!.text).map(({ is }) => is),
        `${key}: ${reply.body.theirs!.text}`,
      ).toEqual(['unknown']);
      from = reply.body.theirs!.revision;
    } else {
      told.push({
        key,
        text,
        is: reply?.body?.says?.includes('Nothing was saved') === true ? 'not saved' : 'unknown',
        revision: from,
      });
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}

/** Fills the form in over and over; keeps the ids it was told. */
async function submitOn(until: () => boolean, ids: string[]): Promise<void> {
  while (!until()) {
    const reply = await fetch(`${at}/api/fill/berth_visit/submissions`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ values: VISIT }),
    }).then(
      async (response) => ({
        status: response.status,
        body: (await response.json().catch(() => null)) as { id?: string } | null,
      }),
      () => null,
    );
    // An answer that broke off acknowledges nothing.
    if (reply?.status === 201 && reply.body !== null) ids.push(reply.body.id!);
    else await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

test('what was acknowledged is there', async () => {
  const rounds = thorough ? 42 : 3;
  await app.start();
  await fetch(`${at}/api/forms/berth_visit/releases`, { method: 'POST', headers });
  const told: Told[] = [];
  const ids: string[] = [];
  for (let round = 0; round < rounds; round++) {
    let over = false;
    const people = Promise.all([
      ...Array.from({ length: 5 }, (_, i) => saveOn(`9${i}-kill.ts`, () => over, told)),
      submitOn(() => over, ids),
      submitOn(() => over, ids),
    ]);
    await new Promise((resolve) => setTimeout(resolve, 250 + ((round * 97) % 400)));
    await Object.values(WAYS)[round % 3]!();
    await new Promise((resolve) => setTimeout(resolve, 400));
    over = true;
    await people;
  }
  const kept = await query<{ name: string; number: number; content: string }>(
    "select d.name, r.number, r.content from revision r join document d on d.id = r.document where d.kind = 'behaviour' and d.name like '9_-kill.ts'",
  );
  const byText = new Map(kept.map((row) => [row.content, row]));
  const saved = told.filter(({ is }) => is === 'saved');
  for (const { key, text, revision } of saved)
    expect(byText.get(text), `${key} ${text}`).toMatchObject({ name: key, number: revision });
  for (const { text } of told.filter(({ is }) => is === 'not saved'))
    expect(byText.has(text), text).toBe(false);
  // Each revision once, none left out, and none that nobody sent.
  const sent = new Set(told.map(({ text }) => text));
  expect(kept.every(({ content }) => sent.has(content))).toBe(true);
  for (const name of new Set(kept.map((row) => row.name))) {
    const numbers = kept
      .filter((row) => row.name === name)
      .map(({ number }) => number)
      .toSorted((a, b) => a - b);
    expect(numbers).toEqual(numbers.map((_, i) => i + 1));
  }
  const records = new Set(
    (await query<{ id: string }>("select id from record where form = 'berth_visit'")).map(
      ({ id }) => id,
    ),
  );
  expect(ids.filter((id) => !records.has(id))).toEqual([]);
  expect(new Set(ids).size).toBe(ids.length);
  expect([saved.length, ids.length].every((count) => count > rounds)).toBe(true);
  report(
    'Kills of the server, its database and their connections',
    rounds,
    `${(saved.length + ids.length).toLocaleString('en-GB')} acknowledged writes, none lost and none twice; ${told.filter(({ is }) => is === 'not saved').length} that were said not to be saved were not`,
  );
}, 1_200_000);

/** So many rounds of each, killed after times that lie apart. */
const ROUNDS = thorough ? 6 : 1;
const later = (round: number, most: number) =>
  new Promise((resolve) => setTimeout(resolve, 40 + ((round * 0.382 * most) % most)));
const afterwards = async () => {
  await app.kill();
  app.prepare();
  await app.start();
};

const listed = () =>
  query<{ name: string }>('select name from tavro.workspace where removed_at is null');

test('in the middle of a workspace made from a zip, there is one, or nothing of it', async () => {
  await app.kill();
  await app.start();
  const zip = Buffer.from(await (await fetch(`${at}/api/workspace`)).arrayBuffer());
  let made = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const before = new Set((await listed()).map(({ name }) => name));
    const making = fetch(`${at}/api/workspaces/zip`, {
      method: 'POST',
      headers: { origin: at, 'content-type': 'application/zip' },
      body: zip,
    }).then(
      ({ status }) => status,
      () => null,
    );
    await later(round, 2500);
    await afterwards();
    if ((await making) === 201) made++;
    const [{ left }] = (await query<{ left: number }>(
      "select count(*)::int as left from pg_namespace where nspname ~ '^ws_' and nspname not in (select schema from tavro.workspace)",
    )) as [{ left: number }];
    expect(left).toBe(0);
    for (const { name } of await listed()) {
      if (before.has(name)) continue;
      expect((await app.ask('GET', `/w/${name}/api/forms/vessel/records`))!.status).toBe(200);
      expect((await app.ask('DELETE', `/api/workspaces/${name}`))!.status).toBe(200);
    }
  }
  report(
    'Kills in the middle of a workspace made from a zip',
    ROUNDS,
    `the workspace was there whole (${made} times), or nothing of it was left once the app had started again`,
  );
}, 1_200_000);

test('in the middle of a folder taken in, all of it is in, or nothing', async () => {
  const files: [string, string][] = ['a', 'b', 'c', 'd'].map((name, i) => [
    `forms/vessel/behaviours/8${i}-taken-${name}.ts`,
    '',
  ]);
  const zip = await (await fetch(`${at}/api/workspace`)).arrayBuffer();
  const { textsIn } = await import('../../src/core/workspace/zip');
  const there = [...textsIn(new Uint8Array(zip))].filter(([path]) => !path.includes('-taken-'));
  for (let round = 0; round < ROUNDS; round++) {
    const mine = files.map(([path]): [string, string] => [path, `// round ${round}\n`]);
    const taking = app.ask('POST', '/api/workspace/takings', {
      folder: { files: [...there, ...mine] },
      units: mine.map(([path]) => path),
      what: 'an attack',
    });
    await later(round, 700);
    await afterwards();
    const answer = await taking;
    const kept = await query<{ content: string }>(
      "select content #>> '{}' as content from document where name like '%-taken-%' and content is not null",
    );
    const ofRound = kept.filter(({ content }) => content === `// round ${round}\n`).length;
    expect([0, files.length]).toContain(ofRound);
    if (answer !== null && answer.status < 300) expect(ofRound).toBe(files.length);
  }
  report('Kills in the middle of a folder taken in', ROUNDS, 'all of it was in, or nothing');
}, 1_200_000);

test('in the middle of a release, it is made whole, or not', async () => {
  for (let round = 0; round < ROUNDS; round++) {
    const releasing = app.ask('POST', '/api/forms/crew_change/releases', {});
    await later(round, 1200);
    await afterwards();
    const answer = await releasing;
    const releases = await query<{ number: number; whole: boolean }>(
      "select number, content ? 'scripts' and content ? 'form' and content ? 'sources' as whole from release where form = 'crew_change' order by number",
    );
    expect(releases.map(({ number }) => number)).toEqual(releases.map((_, i) => i + 1));
    expect(releases.every(({ whole }) => whole)).toBe(true);
    if (answer?.status === 201)
      expect(releases.some(({ number }) => number === answer.body!.number)).toBe(true);
    expect((await app.ask('POST', '/api/fill/crew_change/handouts', {}))!.status).toBe(201);
  }
  report('Kills in the middle of a release', ROUNDS, 'it was made whole, or not');
}, 1_200_000);

test('in the middle of a live folder’s sync, no text is lost on either side', async () => {
  const above = mkdtempSync(join(tmpdir(), 'tavro-kill-'));
  const folder = join(above, 'demo');
  cpSync('demo', folder, { recursive: true });
  const live = new App(app.port + 1, { TAVRO_FOLDERS: folder });
  const file = join(folder, 'forms/vessel/behaviours/10-register.ts');
  const before = readFileSync(file, 'utf8');
  try {
    for (let round = 0; round < ROUNDS; round++) {
      await live.start();
      const [{ schema }] = (await query<{ schema: string }>(
        'select schema from tavro.workspace where folder = $1 and removed_at is null',
        [folder],
      )) as [{ schema: string }];
      const text = `// round ${round}\n${before}`;
      writeFileSync(file, text);
      await later(round, 900);
      await live.kill();
      await live.start();
      for (let i = 0; ; i++) {
        const [row] = await query<{ content: string }>(
          `select content #>> '{}' as content from ${schema}.document where kind = 'behaviour' and form = 'vessel' and name = '10-register.ts'`,
        );
        if (row!.content === text) break;
        expect(i, 'the folder’s text is in the app').toBeLessThan(300);
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
      expect(readFileSync(file, 'utf8')).toBe(text);
      await live.kill();
    }
  } finally {
    await live.kill();
    const rows = await query<{ name: string }>(
      'select name from tavro.workspace where folder = $1 and removed_at is null',
      [folder],
    );
    for (const { name } of rows) await app.ask('DELETE', `/api/workspaces/${name}`);
    rmSync(above, { recursive: true, force: true });
  }
  report(
    'Kills in the middle of a live folder’s sync',
    ROUNDS,
    'both sides had the text afterwards',
  );
}, 1_200_000);

test('in the middle of the first start and its migrations, the next start goes on', async () => {
  for (let round = 0; round < ROUNDS; round++) {
    const name = `tavro_killed_${round}`;
    await query(`drop database if exists ${name} with (force)`);
    await query(`create database ${name}`);
    const own = new URL(url);
    own.pathname = `/${name}`;
    const env = { ...process.env, DATABASE_URL: own.href };
    const preparing = spawn('node', ['dist/prepare.mjs'], { env, stdio: 'ignore' });
    const gone = new Promise((resolve) => preparing.once('exit', resolve));
    await later(round, 2500);
    preparing.kill('SIGKILL');
    await gone;
    const { status, stderr } = spawnSync('node', ['dist/prepare.mjs'], { env, encoding: 'utf8' });
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    const client = new Client({ connectionString: own.href });
    await client.connect();
    const { rows } = await client.query(
      "select (select count(*)::int from document where kind = 'form' and content is not null) as forms, (select count(distinct form)::int from release) as released",
    );
    await client.end();
    expect(rows).toEqual([{ forms: 5, released: 5 }]);
    await query(`drop database ${name} with (force)`);
  }
  report(
    'Kills in the middle of the first start and its migrations',
    ROUNDS,
    'the next start went on to the whole demo',
  );
}, 1_200_000);
