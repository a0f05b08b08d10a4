/**
 * Nothing of one workspace is visible in another: everything in one is marked by a word, and no route of the others
 * ever answers with it, nor changes anything there, though forms, tables and records have the same names in all.
 */
import { Client } from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addressOf, base, OWN_ORIGIN, report, routes } from './support';

const WORD = 'Zephyrine';
const JSON_TYPE = { ...OWN_ORIGIN, 'content-type': 'application/json' };
const database = new Client({ connectionString: process.env.DATABASE_URL! });
let schema: string;

const send = (method: string, path: string, body?: unknown) =>
  fetch(`${base}${path}`, {
    method,
    headers: JSON_TYPE,
    redirect: 'manual',
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });

async function copied(title: string): Promise<void> {
  const made = await send('POST', '/api/workspaces', { title, copyOf: 'home' });
  expect([made.status, ((await made.json()) as { name: string }).name]).toEqual([
    201,
    title.toLowerCase(),
  ]);
}

/** Everything that is kept in a workspace, in one line; of the marked one where none is named. */
async function kept(of = schema): Promise<string> {
  const { rows } = await database.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = $1 and table_type = 'BASE TABLE' order by 1",
    [of],
  );
  const sums = await Promise.all(
    rows.map(
      async ({ name }) =>
        (
          await database.query<{ sum: string }>(
            `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '' order by t::text)), '') as sum from ${of}."${name}" t`,
          )
        ).rows[0]!.sum,
    ),
  );
  return sums.join(' ');
}

beforeAll(async () => {
  await database.connect();
  await copied('Marked');
  await copied('Other');
  const { rows } = await database.query<{ schema: string }>(
    "select schema from tavro.workspace where name = 'marked'",
  );
  schema = rows[0]!.schema;
  // Whatever people have typed carries the word; nothing of it was read before.
  await database.query(`
    update ${schema}.document set content = replace(content::text, '"title": "', '"title": "${WORD} ')::jsonb where content is not null;
    update ${schema}.document set content = to_jsonb('// ${WORD}' || chr(10) || (content #>> '{}')) where kind = 'behaviour' and content is not null;
    update ${schema}.document set content = replace(replace(content::text, '"name": "Mira', '"name": "${WORD}'), '"label": "', '"label": "${WORD} ')::jsonb where kind in ('head', 'form') and content is not null;
    update ${schema}.revision set content = to_jsonb('// ${WORD}'::text) where jsonb_typeof(content) = 'string';
    update ${schema}.record set "values" = "values" || '{"vessel": "${WORD}", "name": "${WORD}"}';
    update ${schema}.record_revision set "values" = "values" || '{"vessel": "${WORD}", "name": "${WORD}"}';
    update ${schema}.release set content = replace(content::text, '"title": "', '"title": "${WORD} ')::jsonb;
  `);
});

afterAll(async () => {
  for (const name of ['marked', 'other']) await send('DELETE', `/api/workspaces/${name}`);
  await database.end();
});

const QUERIES: Record<string, string> = {
  '/api/search': `?wanted=${WORD}`,
  '/api/fill/[form]/children': '?record=1',
  '/api/fill/[form]/files': `?record=2&field=plan&name=x&digest=${'0'.repeat(64)}`,
  '/api/forms/[form]/uses': '?part=vessel',
  '/api/forms/[form]/records/export': '?as=jsonl',
  '/api/workspace': '?records=yes',
};
/** The list of workspaces is about all of them. */
const OF_ALL = ['/workspaces', '/api/workspaces', '/api/folders'];

test('what is in one workspace is read there and nowhere else', async () => {
  let tried = 0;
  let marked = 0;
  const about = routes().filter((route) => !OF_ALL.some((one) => route.startsWith(one)));
  expect(about.length).toBeGreaterThan(25);
  for (const route of about) {
    const path = `${addressOf(route)}${QUERIES[route] ?? ''}`;
    const there = await (await send('GET', `/w/marked${path}`)).text();
    if (there.includes(WORD)) marked++;
    for (const prefix of ['', '/w/other', '/w/home']) {
      const answer = await send('GET', `${prefix}${path}`);
      // A search answers with what was searched for only where it is found.
      expect((await answer.text()).includes(WORD), `${prefix}${path}`).toBe(false);
      expect(answer.status, `${prefix}${path}`).toBeLessThan(500);
      tried++;
    }
  }
  // Most routes show something of what people have typed.
  expect(marked).toBeGreaterThan(12);
  report('Routes asked in other workspaces for what is in one', tried, 'nothing of it was shown');
});

test('what is changed in one workspace changes nothing in another', async () => {
  // What was looked for before goes on until it is found, and is kept there.
  while ((await send('GET', '/w/marked/api/problems')).status !== 200);
  const before = await kept();
  const writes: [string, string, unknown?][] = [
    ['PUT', '/api/forms/vessel/behaviours/10-register.ts', { text: '// other', from: 1 }],
    ['DELETE', '/api/forms/works_permit/behaviours/10-track.ts?from=1'],
    ['POST', '/api/forms/vessel/releases', {}],
    ['POST', '/api/forms', { title: 'Another' }],
    ['POST', '/api/forms/vessel/copies', { title: 'Vessels' }],
    ['PUT', '/api/forms/vessel', { title: 'Ships' }],
    ['DELETE', '/api/forms/crew_change?from=1'],
    ['POST', '/api/forms/crew_change/restore', {}],
    ['PUT', '/api/forms/vessel/scenario-run', { passed: 0, failed: 9 }],
    ['GET', '/api/problems'],
    ['POST', '/api/fill/berth_visit/submissions', { values: { vessel: 'Tern', length: 20 } }],
    ['POST', '/api/fill/berth_visit/handouts', { launch: {} }],
    ['POST', '/api/person', { key: 'teo' }],
    ['PUT', '/api/workspaces/other', { title: 'Others' }],
    ['DELETE', '/api/tables/berths?from=1'],
    ['DELETE', '/api/services/ship_register?from=1'],
  ];
  let done = 0;
  for (const [method, path, body] of writes) {
    const { status } = await send(method, `/w/other${path}`, body);
    expect(status, `${method} ${path}`).toBeLessThan(500);
    if (status < 300) done++;
  }
  expect(done).toBeGreaterThan(9);
  expect(await kept()).toBe(before);
  report('Changes in one workspace, held against another', writes.length, 'nothing changed there');
});

/** Addresses behind `/w/` that name no workspace, spelled as a URL allows. */
const NO_WORKSPACE = [
  '/w/Marked',
  '/w/MARKED',
  '/w/a_b',
  '/w/__proto__',
  '/w/constructor',
  `/w/${'a'.repeat(300)}`,
  '/w/-',
  '/w/m%2561rked',
  '/w/marked%00',
  '/w/marked%20',
  '/w/%ff',
  '/w/%E2%84%AA',
  '/w/nobody',
  '/W/marked',
  '/W/home',
  '/%57/marked',
  '/w%2Fmarked',
];

test('an address that names no workspace is about none, the first one included', async () => {
  while ((await send('GET', '/api/problems')).status !== 200);
  const before = [await kept('public'), await kept()];
  let tried = 0;
  for (const prefix of NO_WORKSPACE) {
    for (const path of ['', '/', '/bench/vessel', '/records/vessel', '/workspaces']) {
      const { status } = await send('GET', `${prefix}${path}`);
      // Next.js takes a slash at the end away first.
      if (path === '/' && status === 308) continue;
      expect([404, 400], `GET ${prefix}${path}`).toContain(status);
      tried++;
    }
    for (const [method, path, body] of [
      ['GET', '/api/forms/vessel/records', undefined],
      ['GET', '/api/workspace', undefined],
      ['PUT', '/api/forms/vessel', { title: 'Ships', from: 1 }],
      ['PUT', '/api/forms/vessel/behaviours/10-register.ts', { text: '// odd', from: 1 }],
      ['POST', '/api/forms', { title: 'Odd' }],
      ['POST', '/api/forms/vessel/releases', {}],
      ['DELETE', '/api/forms/crew_change?from=1', undefined],
      ['DELETE', '/api/tables/berths?from=1', undefined],
    ] as const) {
      const { status } = await send(method, `${prefix}${path}`, body);
      expect([404, 400, 405], `${method} ${prefix}${path}`).toContain(status);
      tried++;
    }
  }
  expect([await kept('public'), await kept()]).toEqual(before);
  // Decoded once, it is the workspace's name.
  expect((await send('GET', '/w/m%61rked/api/forms/vessel/records')).status).toBe(200);
  expect(await (await send('GET', '/w/m%61rked/bench/vessel')).text()).toContain(WORD);
  report('Addresses that name no workspace', tried, 'not found, and nothing was changed anywhere');
});

test('a ticket of one workspace is none in another', async () => {
  const handed = await send('POST', '/w/other/api/fill/berth_visit/handouts', { launch: {} });
  const { handout } = (await handed.json()) as { handout: { ticket: string } };
  const begin = (prefix: string) =>
    send('POST', `${prefix}/api/fill/berth_visit/fillings`, { ticket: handout.ticket });
  expect((await begin('/w/marked')).status).toBeGreaterThanOrEqual(400);
  expect((await begin('')).status).toBeGreaterThanOrEqual(400);
  expect((await begin('/w/other')).ok).toBe(true);
});

test('a workspace that was removed answers nothing until it is back', async () => {
  await copied('Passing');
  expect((await send('GET', '/w/passing/bench/vessel')).status).toBe(200);
  expect((await send('DELETE', '/api/workspaces/passing')).status).toBe(200);
  expect((await send('GET', '/w/passing/bench/vessel')).status).toBe(404);
  expect((await send('GET', '/w/passing/api/forms/vessel/records')).status).toBe(404);
  expect((await send('POST', '/api/workspaces/passing/restore', {})).status).toBe(200);
  expect((await send('GET', '/w/passing/api/forms/vessel/records')).status).toBe(200);
  expect((await send('DELETE', '/api/workspaces/passing')).status).toBe(200);
  expect((await send('DELETE', '/api/workspaces/home')).status).toBe(422);
});

test('the header by which pages learn their workspace cannot be sent from outside', async () => {
  const answer = await fetch(`${base}/bench/vessel`, {
    headers: { 'x-tavro-workspace': 'marked' },
  });
  expect((await answer.text()).includes(WORD)).toBe(false);
});
