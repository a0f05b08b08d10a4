/** `tavro compare`: what is printed, that each difference is there when it is played on both versions, zips and revisions. */
import { execFileSync } from 'node:child_process';
import { cpSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { CompareReport } from '../../src/core/workspace/schemas';
import { readFolder } from '../../src/workers/files';
import { copyOfDemo, tavro } from '../support/command-line';

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
