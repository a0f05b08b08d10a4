/**
 * The server or its database is killed while people save: whatever was acknowledged is there afterwards, nothing is there
 * twice, and who was told that nothing was saved was told the truth.
 */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { Client } from 'pg';
import { afterAll, expect, test } from 'vitest';
import { report, thorough } from './support';

const PORT = Number(process.env.TAVRO_KILL_PORT ?? 3931);
const at = `http://127.0.0.1:${PORT}`;
const headers = { origin: at, 'content-type': 'application/json' };
const url = process.env.DATABASE_URL!;

let server: ChildProcess | null = null;
afterAll(() => void server?.kill('SIGKILL'));

async function start(): Promise<void> {
  server = spawn(
    'node',
    ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(PORT)],
    {
      env: { ...process.env, DATABASE_URL: url, NODE_ENV: 'production' },
      stdio: 'ignore',
      detached: true,
    },
  );
  for (let i = 0; i < 200; i++) {
    if (
      await fetch(`${at}/api/handbook`).then(
        ({ ok }) => ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the app did not come up');
}

async function query<T>(text: string, values: unknown[] = []): Promise<T[]> {
  for (let i = 0; ; i++) {
    const client = new Client({ connectionString: url });
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
    process.kill(-server!.pid!, 'SIGKILL');
    await new Promise((resolve) => setTimeout(resolve, 100));
    await start();
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
  const values = {
    vessel: 'Aurelle',
    vessel_kind: 'survey',
    length: 42.5,
    draught: 3.1,
    contact: 'desk@varrick.example',
    arrival: '2031-06-01',
    departure: '2031-06-02',
    berth: 'sq1',
    pilot_choice: 'none',
  };
  while (!until()) {
    const reply = await fetch(`${at}/api/fill/berth_visit/submissions`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ values }),
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
  await start();
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
