/** `tavro compare`: what is printed, that each difference is there when it is played on both versions, zips and revisions. */
import { execFileSync } from 'node:child_process';
import { cpSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { CompareReport } from '../../src/core/workspace/schemas';
import { readFolder } from '../../src/workers/files';
import { copyOfDemo, tavro, tavroAsync } from '../support/command-line';

const FILE = 'forms/berth_visit/behaviours/20-pilot.ts';
const CHANGED = copyOfDemo({
  file: FILE,
  from: 'fields.pilot_licence.required = choice === "own";',
  to: 'fields.pilot_licence.required = choice === "own" && fields.vessel_kind.value !== "bulk";',
});
const compare = (...args: string[]) =>
  tavro(['compare', ...args, '--form', 'berth_visit', '--sessions', '300']);

interface Reported {
  part: string;
  aspect: string;
  before: unknown;
  after: unknown;
  says: string;
  places: Record<'before' | 'after', { file: string; line: number } | null>;
  way: object;
}

test('a difference names its line, the shortest way, and what it was', () => {
  const { status, stdout } = compare('demo', CHANGED);
  expect([status, stdout]).toEqual([
    1,
    `${CHANGED}/${FILE}:8:3: Whoever sets Kind of vessel to Bulk carrier, then sets Pilot to Own pilot does not have to fill in Pilot licence. In the former version, Pilot licence is required.
    new, as Mira Oldane; Kind of vessel: bulk; Pilot: own
    formerly decided at demo/${FILE}:8:3
berth_visit: 1 difference in 300 sessions, which reached all 2 changed lines
`,
  ]);
});

test('what is reported is there when it is played on both versions', () => {
  const { stdout } = compare('demo', CHANGED, '--reporter', 'json');
  expect(CompareReport.safeParse(JSON.parse(stdout)).error).toBeUndefined();
  const [{ differences }] = (JSON.parse(stdout) as { forms: [{ differences: Reported[] }] }).forms;
  expect(differences).toHaveLength(1);
  for (const { part, aspect, before, after, way } of differences)
    for (const [folder, expected] of [
      ['demo', before],
      [CHANGED, after],
    ] as const) {
      const played = tavro(['play', folder, '--steps', '-'], JSON.stringify(way));
      const { parts } = JSON.parse(played.stdout) as {
        parts: Record<string, Record<string, unknown>>;
      };
      expect(parts[part]![aspect]).toEqual(expected);
    }
});

test('nothing differs between a folder and its zip, and the whole workspace is gone over', () => {
  const zip = join(dirname(CHANGED), 'demo.zip');
  const files = [...readFolder('demo')].map(([path, text]) => [
    path,
    new TextEncoder().encode(text),
  ]);
  writeFileSync(zip, zipSync(Object.fromEntries(files) as Record<string, Uint8Array>));
  const { status, stdout } = tavro(['compare', zip, 'demo']);
  expect(status).toBe(0);
  expect(stdout.trim().split('\n')).toHaveLength(5);
  for (const line of stdout.trim().split('\n'))
    expect(line).toMatch(/^\w+: nothing differs: nothing in it changed$/);
});

test('a folder is compared with itself as it was in a revision', () => {
  const folder = copyOfDemo();
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=t', '-c', 'user.email=t@port.example', ...args], {
      cwd: folder,
    });
  git('init', '-q');
  git('add', '.');
  git('commit', '-qm', 'before');
  cpSync(join(CHANGED, FILE), join(folder, FILE));
  const { status, stdout } = compare(folder, '--git', 'HEAD', '--reporter', 'markdown');
  expect(status).toBe(1);
  expect(stdout).toBe(`# What changes for people

## Berth visit request

- Whoever sets Kind of vessel to Bulk carrier, then sets Pilot to Own pilot does not have to fill in Pilot licence. In the former version, Pilot licence is required. (\`${folder}/${FILE}:8\`)

1 difference in 300 sessions, which reached all 2 changed lines.
`);
});

test.each([
  [['demo'], 'Two workspace folders have to be named.'],
  [['demo', 'demo', '--form', 'no'], 'there is no form "no" in both.'],
  [['demo', 'demo', '--reporter', 'constructor'], 'there is no reporter "constructor".'],
  [['demo', '--git=--output=x'], '--git is a revision, such as main or HEAD~1.'],
  [['demo', '--git', 'nobody/ever'], 'cannot read demo as it was in nobody/ever: '],
  [['nowhere.zip', 'demo'], 'nowhere.zip'],
])('a wrong call is refused in words: %j', (args, says) => {
  const { status, stdout, stderr } = tavro(['compare', ...args]);
  expect([status, stdout]).toEqual([2, '']);
  expect(stderr).toContain(says);
});

test('a release of a running app is a version, of each form the last or the one that is named', async () => {
  const zip = zipSync(
    Object.fromEntries([...readFolder('demo')].map(([path, text]) => [path, Buffer.from(text)])),
  );
  const demo = readWorkspace(readFolder('demo'));
  const entry = demo.forms.find(({ form }) => form.name === 'berth_visit')!;
  const { tables, services, shared } = demo;
  const sources = [...entry.behaviours, ...shared].map(({ name, text }) => ({ name, text }));
  const asked: string[] = [];
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url!, 'http://x');
    asked.push(pathname);
    if (pathname === '/api/workspace') return void response.end(zip);
    if (pathname.endsWith('/versions'))
      return void response.end(
        JSON.stringify({
          releases: pathname.includes('berth_visit') ? [{ number: 4 }, { number: 3 }] : [],
        }),
      );
    response.end(JSON.stringify({ form: entry.form, tables, services, answering: [], sources }));
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const app = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  try {
    const run = (version: string) =>
      tavroAsync('compare', version, CHANGED, '--form', 'berth_visit', '--sessions', '300');
    const { status, stdout } = await run(app);
    expect(status).toBe(1);
    expect(stdout).toContain(`formerly decided at ${app}/${FILE}:8:3`);
    expect(asked).toContain('/api/forms/berth_visit/versions/release-4');
    await run(`${app}@3`);
    expect(asked).toContain('/api/forms/berth_visit/versions/release-3');
    const none = await run(`${app}@9`);
    expect([none.status, none.stderr]).toEqual([2, expect.stringContaining('has a release 9')]);
    const elsewhere = await run('http://example.org');
    expect(elsewhere.stderr).toContain('the app has to run on this machine');
  } finally {
    server.close().closeAllConnections();
  }
});
