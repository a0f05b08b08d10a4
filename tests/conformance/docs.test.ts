/** What the docs point at is there: links to files, and the modules that docs/architecture.md names. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
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
