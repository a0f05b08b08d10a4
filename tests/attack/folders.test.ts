/** Broken workspace folders on the command line: file, line and words, no jargon of a parser, no stack, within seconds. */
import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { report, someOf } from './support';

const tavro = (args: string[]) =>
  spawnSync('node', ['dist/tavro.mjs', ...args], {
    encoding: 'utf8',
    timeout: 60_000,
    maxBuffer: 64 * 1024 * 1024,
  });

interface Broken {
  what: string;
  /** What is done to a copy of the demo. */
  breaks: (folder: string) => void;
  /** Where and what is said; null where it is no fault. */
  says: RegExp | null;
}

const FORM = 'forms/vessel/form.json';
const write = (file: string, content: string | Buffer) => (folder: string) => {
  mkdirSync(dirname(join(folder, file)), { recursive: true });
  writeFileSync(join(folder, file), content);
};
const edit = (file: string, from: string | RegExp, to: string) => (folder: string) => {
  const before = readFileSync(join(folder, file), 'utf8');
  const after = before.replace(from, to);
  if (after === before) throw new Error(`nothing of ${file} is ${String(from)}`);
  writeFileSync(join(folder, file), after);
};
const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`;
const rows = (count: number, row: (i: number) => string) =>
  Array.from({ length: count }, (_, i) => row(i)).join('\n');

const BROKEN: readonly Broken[] = [
  {
    what: 'no folder',
    breaks: (folder) => rmSync(folder, { recursive: true }),
    says: /there is none of that name/,
  },
  {
    what: 'an empty folder',
    breaks: (folder) => {
      rmSync(folder, { recursive: true });
      mkdirSync(folder);
    },
    says: /^workspace\.json:1: this file is missing/m,
  },
  { what: 'a byte order mark', breaks: edit('workspace.json', /^/, '\ufeff'), says: null },
  { what: 'line ends of Windows', breaks: edit('workspace.json', /\n/g, '\r\n'), says: null },
  {
    what: 'an empty file',
    breaks: write(FORM, ''),
    says: /^forms\/vessel\/form\.json:1: the file is empty/m,
  },
  { what: 'only spaces', breaks: write(FORM, '  \n '), says: /^forms\/vessel\/form\.json:\d: / },
  {
    what: 'a comma too many',
    breaks: edit(FORM, /,\n/, ',,\n'),
    says: /form\.json:\d+: is not JSON: /,
  },
  {
    what: 'a comma missing',
    breaks: edit(FORM, /",\n/, '"\n'),
    says: /form\.json:\d+: is not JSON: a comma is missing/,
  },
  { what: 'a comment', breaks: edit(FORM, /\{/, '{ // x\n'), says: /JSON has no comments/ },
  {
    what: 'single quotes',
    breaks: write(FORM, "{'name': 1}"),
    says: /form\.json:1: is not JSON: /,
  },
  {
    what: 'a text that is not closed',
    breaks: edit(FORM, /"title": "/, '"title": "x\n'),
    says: /form\.json:\d+: is not JSON: /,
  },
  {
    what: 'an odd escape',
    breaks: edit(FORM, /"title": "/, '"title": "\\q'),
    says: /a backslash is followed/,
  },
  {
    what: 'an odd \\u',
    breaks: edit(FORM, /"title": "/, '"title": "\\u12'),
    says: /form\.json:\d+: is not JSON: /,
  },
  {
    what: 'the file cut off',
    breaks: (folder) =>
      writeFileSync(join(folder, FORM), readFileSync(join(folder, FORM), 'utf8').slice(0, 400)),
    says: /form\.json:\d+: is not JSON: /,
  },
  {
    what: 'a key twice',
    breaks: edit(FORM, /"title"/, '"title": "Twice",\n  "title"'),
    says: /form\.json:\d+: the key "title" is there twice/,
  },
  {
    what: 'nested 5,000 deep',
    breaks: write(FORM, deep(5000)),
    says: /form\.json:1: is nested deeper than/,
  },
  {
    what: 'nested 100,000 deep',
    breaks: write(FORM, deep(100_000)),
    says: /is nested deeper than/,
  },
  { what: 'a list', breaks: write(FORM, '[]'), says: /^forms\/vessel\/form\.json:1: / },
  { what: 'a text', breaks: write(FORM, '"x"'), says: /^forms\/vessel\/form\.json:1: / },
  {
    what: 'a key of JavaScript’s',
    breaks: edit(FORM, /"title"/, '"__proto__": {}, "title"'),
    says: /uses the key "__proto__"/,
  },
  {
    what: 'a field of JavaScript’s name',
    breaks: edit(FORM, /"name": "imo"/, '"name": "constructor"'),
    says: /not "constructor"/,
  },
  {
    what: 'a NUL',
    breaks: edit(FORM, /"title": "/, '"title": "\\u0000'),
    says: /has a NUL character/,
  },
  {
    what: 'half a character',
    breaks: edit(FORM, /"title": "/, '"title": "\\ud800'),
    says: /half a character/,
  },
  {
    what: 'bytes that are no UTF-8',
    breaks: write(FORM, Buffer.from([0x7b, 0x0a, 0xff, 0xfe])),
    says: /form\.json:2: is not a text in UTF-8/,
  },
  {
    what: 'an unknown kind of field',
    breaks: edit(FORM, /"kind": "text"/, '"kind": "txt"'),
    says: /form\.json:\d+: /,
  },
  {
    what: 'an unknown key',
    breaks: edit(FORM, /"kind": "text"/, '"kind": "text", "colour": "red"'),
    says: /form\.json:\d+: /,
  },
  {
    what: 'a pattern that is none',
    breaks: edit(FORM, /"kind": "text"/, '"kind": "text", "pattern": "(("'),
    says: /is not a regular expression/,
  },
  {
    what: 'another name than its folder',
    breaks: edit(FORM, /"name": "vessel"/, '"name": "boat"'),
    says: /its folder is called "vessel"/,
  },
  {
    what: 'a folder with an odd name',
    breaks: (folder) =>
      cpSync(join(folder, 'forms/vessel'), join(folder, 'forms/a(b'), { recursive: true }),
    says: /forms\/a\(b\/form\.json:\d+: /,
  },
  {
    what: 'a behaviour that is binary',
    breaks: write('forms/vessel/behaviours/99-x.ts', Buffer.from([0, 1, 2, 0xff, 0xfe, 0x80])),
    says: /behaviours\/99-x\.ts:1: is not a text in UTF-8/,
  },
  {
    what: 'a behaviour with a NUL',
    breaks: write('forms/vessel/behaviours/99-x.ts', 'log("\0");'),
    says: /99-x\.ts:1: has a NUL/,
  },
  {
    what: 'a behaviour with an odd name',
    breaks: write('forms/vessel/behaviours/X Y.ts', 'log(1);'),
    says: /a behaviour is named like/,
  },
  {
    what: 'a behaviour of 600,000 characters',
    breaks: write('forms/vessel/behaviours/99-x.ts', `//${'x'.repeat(600_000)}`),
    says: /has 600002 characters/,
  },
  {
    what: 'a behaviour that does not parse',
    breaks: write('forms/vessel/behaviours/99-x.ts', 'on.load( => )'),
    says: /99-x\.ts:1/,
  },
  {
    what: 'a behaviour nested 3,000 deep',
    breaks: write(
      'forms/vessel/behaviours/99-x.ts',
      `log(${'('.repeat(3000)}1${')'.repeat(3000)});`,
    ),
    says: /nested too deep/,
  },
  {
    what: 'a behaviour with an unfinished comment',
    breaks: write('forms/vessel/behaviours/99-x.ts', '/** Follow-ups of a'),
    says: /99-x\.ts:1/,
  },
  {
    what: 'a behaviour that never ends',
    breaks: write(
      'forms/vessel/behaviours/99-x.ts',
      'const l: unknown[] = []; l.length = 2 ** 32 - 1; l.indexOf(1);',
    ),
    says: /99-x|scenario/,
  },
  {
    what: '600 behaviours',
    breaks: (folder) => {
      for (let i = 0; i < 600; i++)
        writeFileSync(join(folder, `forms/vessel/behaviours/9-x${i}.ts`), '');
    },
    says: /at most 500/,
  },
  {
    what: 'a table without its rows',
    breaks: (folder) => rmSync(join(folder, 'tables/berths.csv')),
    says: /tables\/berths\.csv:1: this file is missing/,
  },
  {
    what: 'a table with a column twice',
    breaks: edit(
      'tables/berths.json',
      /"columns": \[/,
      '"columns": [{ "name": "code", "kind": "text" },',
    ),
    says: /is there twice/,
  },
  {
    what: 'CSV that is none',
    breaks: write('tables/berths.csv', '"a\nb'),
    says: /tables\/berths\.csv:\d+: /,
  },
  {
    what: 'CSV with 20,000 columns of one name',
    breaks: write('tables/berths.csv', `${'a,'.repeat(20_000)}a\n`),
    says: /there are 20001 columns/,
  },
  {
    what: 'CSV with 300,000 rows of another kind',
    breaks: (folder) => {
      const head = readFileSync(join(folder, 'tables/berths.csv'), 'utf8').split('\n')[0]!;
      writeFileSync(
        join(folder, 'tables/berths.csv'),
        `${head}\n${rows(300_000, (i) =>
          head
            .split(',')
            .map(() => `x${i}`)
            .join(','),
        )}`,
      );
    },
    says: /berths\.csv:2: [^]*there are more errors/,
  },
  {
    what: 'CSV with a key twice',
    breaks: (folder) => {
      const file = join(folder, 'tables/berths.csv');
      const [head, first] = readFileSync(file, 'utf8').split('\n');
      writeFileSync(file, `${head}\n${first}\n${first}\n`);
    },
    says: /berths\.csv:3: [^]*is there twice/,
  },
  {
    what: 'records with an id twice',
    breaks: edit('forms/vessel/records.json', /"id": "v-021"/, '"id": "v-017"'),
    says: /records\.json:\d+: [^]*the id "v-017" is there twice/,
  },
  {
    what: 'people with a key twice',
    breaks: edit('workspace.json', /"key": "teo"/, '"key": "mira"'),
    says: /workspace\.json:\d+: [^]*the key "mira" is there twice/,
  },
  {
    what: 'a person with a role that there is not',
    breaks: edit(
      'workspace.json',
      /"roles": \["agent"\]|"roles": \[\n\s+"agent"\n\s+\]/,
      '"roles": ["nobody"]',
    ),
    says: /there is no role "nobody"/,
  },
  {
    what: 'a scenario of somebody unknown',
    breaks: edit('forms/vessel/scenarios/visited.json', /"as": "mira"/, '"as": "nobody"'),
    says: /visited\.json:\d+: [^]*there is no person "nobody"/,
  },
  {
    what: 'a scenario with 6,000 steps',
    breaks: (folder) =>
      writeFileSync(
        join(folder, 'forms/vessel/scenarios/x.json'),
        JSON.stringify({
          title: 'X',
          open: { as: 'mira' },
          steps: Array.from({ length: 6000 }, () => ({ wait: 0 })),
        }),
      ),
    says: /at most 5000 steps/,
  },
  {
    what: 'a link that leads nowhere',
    breaks: (folder) => symlinkSync('/nowhere', join(folder, 'forms/vessel/behaviours/98-x.ts')),
    says: /98-x\.ts:1: is a link\. Only files and folders of its own are read/,
  },
  {
    what: 'a folder that leads back to itself',
    breaks: (folder) => symlinkSync(folder, join(folder, 'forms/vessel/behaviours/loop')),
    says: null,
  },
  {
    what: 'a folder where a file should be',
    breaks: (folder) => {
      rmSync(join(folder, FORM));
      mkdirSync(join(folder, FORM));
    },
    says: /form\.json:1: this file is missing/,
  },
  {
    what: 'a file that may not be read',
    breaks: (folder) => chmodSync(join(folder, FORM), 0o000),
    says: process.getuid?.() === 0 ? null : /may not be read/,
  },
];

const cases = someOf(BROKEN, 5);
afterAll(() =>
  report(
    'Broken folders on the command line',
    cases.length,
    'each named by file and line, in words, without a stack; what is no fault was read',
  ),
);

test.each(cases)('$what', ({ breaks, says }) => {
  const folder = join(mkdtempSync(join(tmpdir(), 'tavro-broken-')), 'demo');
  cpSync('demo', folder, { recursive: true });
  breaks(folder);
  const { status, stdout, stderr, signal } = tavro(['check', folder, '--form', 'vessel']);
  expect(signal).toBeNull();
  const said = `${stderr}${stdout}`;
  expect(said).not.toMatch(
    /\n\s+at .*\(|TypeError|RangeError|SyntaxError|node:internal|Unexpected token|Invalid(?:Symbol|Number)|undefined is not/,
  );
  if (says === null) expect([status, said]).toEqual([0, 'nothing found\n']);
  else {
    expect(said).toMatch(says);
    expect(status === 1 || status === 2).toBe(true);
  }
  rmSync(dirname(folder), { recursive: true, force: true });
});

test('what goes into a pipe is whole, however much it is', () => {
  const folder = join(mkdtempSync(join(tmpdir(), 'tavro-pipe-')), 'demo');
  cpSync('demo', folder, { recursive: true });
  writeFileSync(
    join(folder, 'forms/vessel/behaviours/99-x.ts'),
    `keep("x", () => {\n${rows(3000, (i) => `  fields.nothing_${i}.value = 1;`)}\n});`,
  );
  const { stdout, status } = spawnSync(
    'bash',
    ['-c', `node dist/tavro.mjs check ${folder} --form vessel | cat`],
    { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
  );
  const lines = stdout.trimEnd().split('\n');
  expect([
    stdout.length > 200_000,
    /^\d+ found$/.test(lines.at(-1)!),
    Number(lines.at(-1)!.split(' ')[0]) === lines.length - 1,
    status,
  ]).toEqual([true, true, true, 0]);
  const cut = spawnSync(
    'bash',
    ['-c', `node dist/tavro.mjs check ${folder} --form vessel 2>&1 | head -1`],
    { encoding: 'utf8' },
  );
  expect(cut.stdout.split('\n')).toHaveLength(2);
});
