/**
 * Texts as they stand while somebody types: every beginning of the demo's behaviours and of two hundred odd texts, bare
 * and with the brackets that an editor closes by itself. Each is compiled, read and checked in a process of its own,
 * since a parser that never ends could not be stopped here.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { expect, test } from 'vitest';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { readFolder } from '../../src/workers/files';
import { report, thorough } from './support';

const OPENERS = [
  '/** ',
  '/**\n * ',
  '/* ',
  '// ',
  '`',
  '"',
  "'",
  '${',
  '<',
  '(',
  '{',
  '[',
  '/',
  '@',
  '#',
  '=> ',
  '...',
  'async ',
  'class ',
  'enum ',
  'type A = ',
  'let a: ',
  'import ',
  'export ',
  'new ',
];
const INSIDES = [
  'a-bc',
  'Follow-ups of a visit',
  '@type {a-bc',
  '@param a-b - x-yz',
  '{@link a-bc',
  '{{{{',
  '<A<B<',
  '"*" a-bc\n*',
];
const ODD = OPENERS.flatMap((opener) => INSIDES.map((inside) => opener + inside));
const CLOSERS: Record<string, string> = {
  '(': ')',
  '[': ']',
  '{': '}',
  '`': '`',
  '"': '"',
  "'": "'",
};

/** The text as an editor leaves it that closes what is opened. */
function closed(text: string): string {
  const open: string[] = [];
  for (const letter of text) {
    if (letter === open.at(-1)) open.pop();
    else if (CLOSERS[letter] !== undefined) open.push(CLOSERS[letter]);
  }
  return text + open.toReversed().join('');
}

const beginnings = (text: string, by: number) =>
  Array.from({ length: Math.ceil(text.length / by) }, (_, i) => text.slice(0, 1 + i * by));

test('each gets an answer', async () => {
  expect(ODD.length).toBe(200);
  const workspace = readWorkspace(readFolder('demo'));
  const demo = workspace.forms.flatMap(({ behaviours }) =>
    behaviours.flatMap(({ text }) => beginnings(text, thorough ? 1 : 41)),
  );
  const odd = ODD.flatMap((text) => beginnings(text, thorough ? 1 : 5));
  const texts = [...new Set([...demo, ...odd].flatMap((text) => [text, closed(text)]))];
  const sources = texts.flatMap((text) => [
    { name: 'x.ts', text },
    { name: 'y.js', text },
  ]);
  const folder = mkdtempSync(join(process.cwd(), 'node_modules/.texts-'));
  try {
    const source =
      "import { compile } from './src/core/language/compile'; import { flowOf } from './src/core/language/flow'; import { parse } from './src/core/language/parse'; import { FormLanguage } from './src/core/language/language-service'; import { libs } from './src/core/language/generated/libs'; import { readFileSync } from 'node:fs';\n" +
      "const language = new FormLanguage(libs); language.surround(JSON.parse(readFileSync(process.argv[2], 'utf8'))); let n = 0;\n" +
      "for (const source of JSON.parse(readFileSync(process.argv[3], 'utf8'))) { compile(source, 'traced'); flowOf(parse(source).file); if (n % 11 === 0) { language.put(source); language.diagnose(source.name); } n++; } console.log(n);";
    const bundled = await build({
      stdin: { contents: source, resolveDir: process.cwd(), loader: 'ts' },
      bundle: true,
      platform: 'node',
      format: 'esm',
      write: false,
      packages: 'external',
    });
    const script = join(folder, 'texts.mjs');
    writeFileSync(script, bundled.outputFiles[0]!.text);
    writeFileSync(
      join(folder, 'surface.json'),
      JSON.stringify({ ...workspace, form: workspace.forms[0]!.form }),
    );
    writeFileSync(join(folder, 'sources.json'), JSON.stringify(sources));
    const { stdout, stderr, signal } = spawnSync(
      'node',
      [script, join(folder, 'surface.json'), join(folder, 'sources.json')],
      { encoding: 'utf8', timeout: 1_200_000 },
    );
    expect([signal, stderr, Number(stdout)]).toEqual([null, '', sources.length]);
    report(
      'Texts as they stand while being typed, in TypeScript and JavaScript',
      sources.length,
      'each was compiled, read and, one in eleven, checked; none kept the compiler busy',
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}, 1_300_000);
