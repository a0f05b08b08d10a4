/**
 * Every route with every method, as nobody and from elsewhere, with bodies that are mangled, oversized or forged: no
 * answer is a fault of the server, each refusal says why, and nothing is saved.
 */
import { request as httpRequest } from 'node:http';
import { Client } from 'pg';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { addressOf, base, OWN_ORIGIN, report, routes, someOf, thorough } from './support';

const database = new Client({ connectionString: process.env.DATABASE_URL! });
beforeAll(async () => {
  await database.connect();
  // Something to be attacked: a form that can be filled in.
  await fetch(`${base}/api/forms/berth_visit/releases`, { method: 'POST', headers: OWN_ORIGIN });
});
afterAll(() => database.end());

/** Everything that is saved, in one line. How scenarios came out is looked up again by whoever asks for problems. */
async function saved(): Promise<string> {
  const tables = [
    'document',
    'revision',
    'release',
    'record',
    'record_revision',
    'record_number',
    'filling',
    'file_content',
  ];
  const sums = await Promise.all(
    tables.map(
      async (table) =>
        (
          await database.query<{ sum: string }>(
            `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '' order by t::text)), '') as sum from ${table} t`,
          )
        ).rows[0]!.sum,
    ),
  );
  return sums.join(' ');
}

/** Milliseconds after which a request counts as hanging, on however busy a machine. */
const ANSWERED = 600_000;

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'];
const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`;

interface Shape {
  what: string;
  headers?: Record<string, string>;
  body?: string | Buffer;
  query?: string;
}

const JSON_TYPE = { 'content-type': 'application/json' };
const MINE = { ...JSON_TYPE, ...OWN_ORIGIN };

/** What is wrong with a request. */
const SHAPES: readonly Shape[] = [
  { what: 'from nobody', headers: JSON_TYPE, body: '{}' },
  {
    what: 'from another site',
    headers: { ...JSON_TYPE, origin: 'https://elsewhere.example' },
    body: '{}',
  },
  {
    what: 'from another site, by a form',
    headers: {
      'content-type': 'text/plain',
      origin: 'https://elsewhere.example',
      'sec-fetch-site': 'cross-site',
    },
    body: '{"key":"mira"}',
  },
  {
    what: 'from another port',
    headers: { ...JSON_TYPE, origin: 'http://127.0.0.1:9', 'sec-fetch-site': 'same-site' },
    body: '{}',
  },
  { what: 'with an origin that is none', headers: { ...JSON_TYPE, origin: 'null' }, body: '{}' },
  { what: 'for another host', headers: { ...MINE, host: 'evil.example' }, body: '{}' },
  { what: 'as another type', headers: { ...OWN_ORIGIN, 'content-type': 'text/plain' }, body: '{}' },
  {
    what: 'as a form',
    headers: { ...OWN_ORIGIN, 'content-type': 'application/x-www-form-urlencoded' },
    body: 'key=mira',
  },
  { what: 'without a body', headers: MINE },
  { what: 'that is no JSON', headers: MINE, body: '{"a":' },
  { what: 'that is no UTF-8', headers: MINE, body: Buffer.from([0x22, 0xff, 0xfe, 0x22]) },
  { what: 'that is a list', headers: MINE, body: '[]' },
  { what: 'that is null', headers: MINE, body: 'null' },
  { what: 'nested 5,000 deep', headers: MINE, body: deep(5000) },
  {
    what: 'with values nested 200 deep',
    headers: MINE,
    body: `{"values":{"x":${deep(200)}},"steps":[{"set":"x","to":${deep(200)}}]}`,
  },
  { what: 'with a NUL', headers: MINE, body: '{"title":"a\\u0000b","text":"\\u0000","from":0}' },
  {
    what: 'with half a character',
    headers: MINE,
    body: '{"title":"\\ud800","text":"\\ud800","from":0}',
  },
  {
    what: 'with a key of JavaScript’s',
    headers: MINE,
    body: '{"__proto__":{"polluted":1},"constructor":{"prototype":{"polluted":1}}}',
  },
  {
    what: 'of 3 MB',
    headers: MINE,
    body: JSON.stringify({ text: 'x'.repeat(3_000_000), from: 0 }),
  },
  { what: 'that says it has 100 GB', headers: { ...MINE, 'content-length': '100000000000' } },
  { what: 'with more than is asked for', headers: MINE, body: '{"title":"x","nothing":1}' },
  {
    what: 'with numbers that are none',
    headers: MINE,
    body: '{"from":1e400,"title":12,"text":-1e999}',
  },
  {
    what: 'with a query that nobody knows',
    headers: MINE,
    query: '?nothing=1&from=-1&part=&wanted=&record=%00',
  },
  {
    what: 'with a query said twice',
    headers: MINE,
    query: '?from=1&from=2&wanted=a&wanted=b&record=1&record=2',
  },
  { what: 'with a query that cannot be read', headers: MINE, query: '?from=%ff&wanted=%c0%80' },
  {
    what: 'with a query for SQL',
    headers: MINE,
    query: `?from=1%20or%201=1&wanted=${encodeURIComponent("'; drop table record; --")}&record=${encodeURIComponent("1' or '1'='1")}&sort=${encodeURIComponent('vessel; drop table record')}`,
  },
];

/** Makes exactly this request; `fetch` would set headers of its own. */
function ask(
  method: string,
  path: string,
  { headers = {}, body }: Shape,
): Promise<{ status: number; text: string }> {
  const url = new URL(base);
  return new Promise((resolve, reject) => {
    const sent = httpRequest(
      {
        host: url.hostname,
        port: url.port,
        method,
        path,
        headers: {
          ...(body === undefined || 'content-length' in headers
            ? {}
            : { 'content-length': Buffer.byteLength(body) }),
          ...headers,
        },
        timeout: ANSWERED,
      },
      (response) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () =>
          resolve({ status: response.statusCode!, text: Buffer.concat(chunks).toString('utf8') }),
        );
        response.on('error', reject);
      },
    );
    sent.on('timeout', () => sent.destroy(new Error('no answer')));
    // A server that has refused a body need not read it to its end.
    sent.on('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EPIPE' || error.code === 'ECONNRESET'
        ? resolve({ status: 413, text: '{"says":"closed"}' })
        : reject(error),
    );
    if (body === undefined) sent.flushHeaders();
    if ('content-length' in headers)
      setTimeout(
        () => sent.destroy(Object.assign(new Error('given up'), { code: 'ECONNRESET' })),
        300,
      );
    else sent.end(body);
  });
}

let asked = 0;
afterAll(() =>
  report(
    'Requests to every route with every method',
    asked,
    'no answer was a fault of the server (5xx), every refusal of the API said why, nothing was saved',
  ),
);

const all = routes();

test('the walk meets every route', () => {
  expect(all.length).toBeGreaterThan(30);
});

// As curl asks for it in docs/git.md: neither a body nor what kind it would be.
test('a release is asked for without a body, and not with a broken one', async () => {
  const asked = (init: RequestInit) =>
    fetch(`${base}/api/forms/crew_change/releases`, {
      method: 'POST',
      ...init,
      headers: { ...OWN_ORIGIN, ...init.headers },
    });
  expect((await asked({})).status).toBe(201);
  expect((await asked({ body: '{' })).status).toBe(415);
  const json = { 'content-type': 'application/json' };
  expect((await asked({ body: '{', headers: json })).status).toBe(400);
  expect((await asked({ body: '{"reson": "x"}', headers: json })).status).toBe(400);
});

describe.each(all)('%s', (route) => {
  const path = addressOf(route);
  test('refuses what is wrong, and saves nothing', async () => {
    const before = await saved();
    for (const shape of someOf(SHAPES, 6)) {
      for (const method of thorough ? METHODS : ['GET', 'POST', 'PUT', 'DELETE']) {
        // A release is made by a request of this app that says nothing more.
        if (
          route === '/api/forms/[form]/releases' &&
          method === 'POST' &&
          shape.headers?.origin === OWN_ORIGIN.origin &&
          !('host' in shape.headers)
        )
          continue;
        const query = shape.query ?? '';
        const { status, text } = await ask(
          method,
          `${path}${query}`,
          method === 'GET' || method === 'HEAD'
            ? {
                what: shape.what,
                ...(shape.headers === undefined
                  ? {}
                  : {
                      headers: Object.fromEntries(
                        Object.entries(shape.headers).filter(([name]) => name !== 'content-length'),
                      ),
                    }),
              }
            : shape,
        );
        asked++;
        const which = `${method} ${path}${query} ${shape.what}: ${status} ${text.slice(0, 200)}`;
        expect(status, which).toBeLessThan(500);
        if (method !== 'GET' && method !== 'HEAD' && method !== 'OPTIONS')
          expect(status, which).toBeGreaterThanOrEqual(400);
        if (status >= 400 && status !== 405 && route.startsWith('/api/') && method !== 'HEAD')
          expect((JSON.parse(text) as { says: string }).says.length, which).toBeGreaterThan(5);
      }
    }
    expect(await saved()).toBe(before);
  });

  test.each(
    someOf(
      [
        '%ff',
        '%00',
        '%2e%2e%2f%2e%2e%2fetc%2fpasswd',
        '__proto__',
        'constructor',
        'toString',
        "'%20or%201=1--",
        'x'.repeat(3000),
        '%ed%a0%80',
        '..;/',
      ],
      4,
    ),
  )('whatever stands for a name: %s', async (name) => {
    if (!route.includes('[')) return;
    const before = await saved();
    for (const method of ['GET', 'PUT', 'DELETE', 'POST']) {
      const { status, text } = await ask(method, route.replace(/\[\w+\]/g, name), {
        what: 'odd name',
        headers: MINE,
        ...(method === 'GET' ? {} : { body: '{}' }),
      });
      asked++;
      expect(status, `${method} ${route} ${name}: ${text.slice(0, 200)}`).toBeLessThan(500);
    }
    expect(await saved()).toBe(before);
  });
});

test('redirects have their headers, methods that nobody knows are refused, and files of the app carry no policy', async () => {
  const { headers, status } = await fetch(`${base}/people/`, { redirect: 'manual' });
  expect([status, headers.get('x-frame-options'), headers.get('x-content-type-options')]).toEqual([
    308,
    'DENY',
    'nosniff',
  ]);
  expect(headers.get('content-security-policy')).toContain("default-src 'none'");
  for (const path of ['/', '/api/handbook', '/w/nobody/api/forms'])
    expect((await ask('TRACE', path, { what: 'traced' })).status, path).toBe(405);
  // Workers are held to the policy that their script comes with.
  const file = /\/_next\/static\/[^"]+\.js/.exec(await (await fetch(`${base}/`)).text())![0];
  const script = await fetch(`${base}${file}`);
  expect([script.status, script.headers.get('content-security-policy')]).toEqual([200, null]);
});

test('every page and answer says what may be done with it', async () => {
  for (const path of [
    '/',
    '/bench/berth_visit',
    '/fill/berth_visit',
    '/records/berth_visit',
    '/people',
    '/nothing',
    '/api/handbook',
    '/api/nothing',
  ]) {
    const { headers } = await fetch(`${base}${path}`);
    expect(headers.get('content-security-policy'), path).toMatch(/frame-ancestors 'none'/);
    expect(headers.get('content-security-policy'), path).not.toMatch(
      /script-src[^;]*'unsafe-inline'/,
    );
    expect([headers.get('x-content-type-options'), headers.get('referrer-policy')], path).toEqual([
      'nosniff',
      'same-origin',
    ]);
  }
  const [one, other] = await Promise.all(
    [1, 2].map(
      async () =>
        /'nonce-([^']+)'/.exec(
          (await fetch(`${base}/`)).headers.get('content-security-policy')!,
        )![1],
    ),
  );
  expect(one).not.toBe(other);
});
