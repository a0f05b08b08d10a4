/**
 * No text that people type keeps the compiler or the editor's checks busy for ever. TypeScript 5.9 reads an unfinished
 * doc comment with a hyphen without an end, so each text is parsed in a process that can be ended.
 */
import { spawnSync } from 'node:child_process';
import { build } from 'esbuild';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { compile } from './compile';
import { parse } from './parse';
import { FormLanguage } from './language-service';
import { readFolder } from '../../workers/files';
import { readWorkspace } from '../workspace/workspace';
import { thorough } from '../../../tests/support/thorough';

const TITLES = [
  '/** a-bc',
  '/** Follow-ups of a visit',
  '/**\n * Re-open: what\n * was closed',
  '/** see {@link a-bc',
  '/** @type {a-bc',
  '/** @param a-b - x-yz',
  '/**- -ab {',
  'const a = 1; /** a-bc d-ef',
  '/** done */ on.load(() => {}); /** not-yet',
  '/** "*" a-bc\n*',
  '/** a-bc *',
];

let folder = '';
let parser = '';

beforeAll(async () => {
  const source =
    "import { compile } from './src/core/language/compile'; import { parse } from './src/core/language/parse'; import { FormLanguage } from './src/core/language/language-service'; import { libs } from './src/core/language/generated/libs'; import { readFileSync } from 'node:fs';\n" +
    "const language = new FormLanguage(libs); language.surround(JSON.parse(readFileSync(process.argv[2], 'utf8')));\n" +
    "let n = 0; for (const source of JSON.parse(readFileSync(process.argv[3], 'utf8'))) { compile(source, 'traced'); parse(source); language.put(source); language.diagnose(source.name); n++; } console.log(n);";
  const bundled = await build({
    stdin: { contents: source, resolveDir: process.cwd(), loader: 'ts' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    write: false,
    packages: 'external',
  });
  folder = mkdtempSync(join(process.cwd(), 'node_modules/.unfinished-'));
  parser = join(folder, 'parse.mjs');
  writeFileSync(parser, bundled.outputFiles[0]!.text);
});

afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('every prefix of titles and of the demo’s behaviours is answered, in TypeScript and in JavaScript', () => {
  const workspace = readWorkspace(readFolder('demo'));
  const [entry] = workspace.forms;
  const prefixes = (text: string, by: number) =>
    Array.from({ length: Math.ceil(text.length / by) }, (_, i) => text.slice(0, 1 + i * by));
  const texts = [
    ...TITLES.flatMap((text) => prefixes(text, thorough ? 1 : 4)),
    ...workspace.forms.flatMap(({ behaviours }) =>
      behaviours.flatMap(({ text }) => [
        ...prefixes(text.slice(0, 200), thorough ? 4 : 80),
        ...prefixes(text, thorough ? 97 : 1940),
      ]),
    ),
  ];
  const sources = [...new Set(texts)].flatMap((text) => [
    { name: 'x.ts', text },
    { name: 'y.js', text },
  ]);
  const write = (name: string, content: unknown) => {
    const path = join(folder, `${name}.json`);
    writeFileSync(path, JSON.stringify(content));
    return path;
  };
  const { stdout, signal } = spawnSync(
    'node',
    [parser, write('surface', { ...workspace, form: entry!.form }), write('sources', sources)],
    { encoding: 'utf8', timeout: 600_000 },
  );
  expect(signal).toBeNull();
  expect(Number(stdout)).toBe(sources.length);
}, 620_000);

test.each([
  ['3,000 nested parentheses', `log(${'('.repeat(3000)}1${')'.repeat(3000)});`],
  [
    '4,000 else if',
    `const a: number = 1;\nif (a === 0) log(0);${Array.from({ length: 4000 }, (_, i) => ` else if (a === ${i}) log(${i});`).join('\n')}`,
  ],
  ['5,000 nested lists', `log(${'['.repeat(5000)}${']'.repeat(5000)});`],
  ['a chain of 5,000 calls', `log([1]${'.map((x) => x)'.repeat(5000)});`],
])('a source that is nested too deep is refused with its line: %s', (_what, text) => {
  const source = { name: 'x.ts', text };
  expect(compile(source, 'traced').failure).toMatchObject({
    code: 'syntax',
    line: expect.any(Number),
    says: expect.stringContaining('nested too deep'),
  });
  const language = new FormLanguage({});
  language.put(source);
  expect(language.diagnose('x.ts')).toMatchObject([
    { severity: 'error', says: expect.stringContaining('nested too deep') },
  ]);
  expect(parse(source).file.statements).toHaveLength(0);
});
