/** What keeps the threads for tasks busy: searches that never end, pages and tables far too long. Others go on being served. */
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { base, OWN_ORIGIN, report, thorough } from './support';

const headers = { ...OWN_ORIGIN, 'content-type': 'application/json' };
async function ask(method: string, path: string, body?: unknown) {
  const response = await fetch(`${base}${path}`, {
    method,
    headers,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return {
    status: response.status,
    again: response.headers.get('retry-after'),
    says: text.startsWith('{"says"') ? (JSON.parse(text) as { says: string }).says : text,
  };
}
let tried = 0;
/** The workspace in which the work is that keeps threads busy. */
let slow = '';
afterAll(async () => {
  await ask('DELETE', `/api/workspaces/${slow}`);
  report(
    'Work that keeps the threads of tasks busy',
    tried,
    'each was answered with its reason; search, preview, releases and zips of others went on meanwhile and afterwards',
  );
});
beforeAll(async () => {
  const made = await ask('POST', '/api/workspaces', { title: 'Slow', copyOf: 'home' });
  expect(made.status).toBe(201);
  slow = (JSON.parse(made.says) as { name: string }).name;
  expect(
    (
      await ask('PUT', `/w/${slow}/api/forms/vessel/behaviours/97-letters.ts`, {
        text: `// ${'a'.repeat(60)}\n`,
        from: 0,
      })
    ).status,
  ).toBe(200);
});

/** Everything of the first workspace that needs a thread. */
async function othersAreServed(): Promise<void> {
  const answers = await Promise.all([
    ask('GET', '/api/search?wanted=fields'),
    ask('POST', '/api/tables/preview', { file: 'a.csv', text: 'code,label\na,A\n' }),
    ask('GET', '/api/workspace'),
    ask('POST', '/api/forms/crew_change/releases', {}),
  ]);
  for (const { status, says } of answers) expect([200, 201], says.slice(0, 200)).toContain(status);
}

test('searches that never end are each answered, twelve at once, and every task goes on', async () => {
  const bad = Array.from({ length: 12 }, () =>
    ask('GET', `/w/${slow}/api/search?pattern=yes&wanted=${encodeURIComponent('(a|aa)+!')}`),
  );
  tried += bad.length;
  await othersAreServed();
  for (const { status, says, again } of await Promise.all(bad)) {
    expect([400, 503], says).toContain(status);
    if (status === 503) expect(again).not.toBeNull();
    else expect(says).toMatch(/pattern takes too long/);
  }
  await othersAreServed();
}, 600_000);

test('a page of sixty thousand inputs is read in the time it is long', async () => {
  const answer = await ask('POST', `/w/${slow}/api/forms/preview`, {
    as: 'html',
    called: 'Many',
    text: `<form>${'<input name=a>'.repeat(60_000)}</form>`,
  });
  tried++;
  expect([answer.status, answer.says.slice(0, 200)]).toEqual([200, expect.any(String)]);
  expect(answer.says).toContain('only the first 2000 fields are taken');
});

test('a zip of a table of sixty million rows is refused before it is read, and keeps nobody waiting', async () => {
  const rows = thorough ? 60_000_000 : 6_000_000;
  const zip = zipSync(
    {
      'workspace.json': strToU8('{"title": "x", "roles": [], "people": []}'),
      'tables/long.json': strToU8(
        '{"title": "Long", "key": "a", "label": "a", "columns": [{"name": "a", "kind": "text"}]}',
      ),
      'tables/long.csv': new Uint8Array(Buffer.alloc(2 * rows, '1\n')),
    },
    { level: 1 },
  );
  tried++;
  // Connections that were closed while this was packed are noticed first.
  await new Promise((resolve) => setTimeout(resolve, 500));
  const taking = fetch(`${base}/api/workspaces/zip`, {
    method: 'POST',
    headers: { ...OWN_ORIGIN, 'content-type': 'application/zip' },
    body: Buffer.from(zip),
  });
  await othersAreServed();
  const answer = await taking;
  expect(answer.status).toBe(422);
  expect(((await answer.json()) as { says: string }).says).toMatch(/more than 1,000,000 lines/);
}, 300_000);
