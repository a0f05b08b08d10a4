/** What the docs point at is there: links to files, and the modules that docs/architecture.md names. */
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
  symlinkSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { expect, test } from 'vitest';

const files = ['docs', 'drizzle', 'scripts', 'src', 'tests']
  .flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((path) => join(folder, path)),
  )
  .concat(readdirSync('.'));
const texts = files
  .filter((file) => file.endsWith('.md'))
  .map((file) => ({ file, text: readFileSync(file, 'utf8') }));

test('links lead to files of the repository', () => {
  const links = texts.flatMap(({ file, text }) =>
    [...text.matchAll(/\]\((?!https?:)([^)#\s]+)(?:#[^)]*)?\)/g)].map(([, to]) => ({ file, to })),
  );
  expect(links.length).toBeGreaterThan(30);
  expect(links.filter(({ file, to }) => !existsSync(join(dirname(file), to!)))).toEqual([]);
});

test('modules that the architecture names exist', () => {
  const { text } = texts.find(({ file }) => file === 'docs/architecture.md')!;
  const named = [...text.matchAll(/`([\w/.-]+\.(?:tsx?|mjs|sql))`/g)].map(([, name]) => name!);
  expect(named.length).toBeGreaterThan(50);
  const isThere = (name: string) => files.some((file) => `/${file}`.endsWith(`/${name}`));
  expect(named.filter((name) => !isThere(name))).toEqual([]);
});

test('folders import each other as the pictures of the architecture say', () => {
  const { status, stderr } = spawnSync('node', ['scripts/rooms.mjs'], { encoding: 'utf8' });
  expect([status, stderr]).toEqual([0, '']);
});

test('an import without an arrow, an arrow without an import and a circle are named', () => {
  const folder = mkdtempSync(join(tmpdir(), 'rooms-'));
  for (const part of ['scripts', 'src', 'docs'])
    cpSync(part, join(folder, part), { recursive: true });
  symlinkSync(join(process.cwd(), 'node_modules'), join(folder, 'node_modules'));
  const doc = join(folder, 'docs/architecture.md');
  writeFileSync(
    doc,
    readFileSync(doc, 'utf8')
      .replace('  guest --> wire\n', '  guest --> script\n')
      .replace('  routes --> workspaces\n', '  routes --> workspaces\n  http --> routes\n'),
  );
  const { status, stderr } = spawnSync('node', ['scripts/rooms.mjs'], {
    cwd: folder,
    encoding: 'utf8',
  });
  expect(status).toBe(1);
  expect(stderr).toContain('core/guest/face.ts imports src/core/wire/');
  expect(stderr).toContain('no import needs guest --> script in the picture of src/core');
  expect(stderr).toContain('http --> routes of src/server is part of a circle');
  rmSync(folder, { recursive: true });
});
