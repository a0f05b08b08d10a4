/** `tavro find`: what is printed, what a pipeline goes by, and that what is found is there when it is played. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { copyOfDemo, tavro } from '../support/command-line';
import { thorough } from '../support/thorough';

/** The demo, with a field of the waste declaration that is required once and stays so. */
const FAULTY = copyOfDemo();
const FILE = join(FAULTY, 'forms/waste_declaration/behaviours/95-stays.ts');
writeFileSync(
  FILE,
  '/** Stays. */\non.change(fields.keeps_some, ({ value }) => {\n  if (value === true) fields.collected_on.required = true;\n});\n',
);
const find = (...args: string[]) =>
  tavro(['find', FAULTY, '--form', 'waste_declaration', '--sessions', '200', ...args]);
/** What a first call says, which others are compared with. */
let first: ReturnType<typeof asJson> | null = null;
const asJsonOnce = () => (first ??= asJson());

interface Found {
  file: string;
  line: number;
  column: number;
  kind: string;
  level: string;
  part: string;
  aspect: string;
  way: { form: string; opening: object; steps: object[] };
  other: { opening: object; steps: object[] } | null;
}

const asJson = (...args: string[]) => {
  const { status, stdout } = find('--reporter', 'json', ...args);
  const [{ findings }] = JSON.parse(stdout) as [{ findings: Found[] }];
  return { status, findings };
};

test('names the line, says what happens and how to get there, and fails', () => {
  const { status, stdout } = find();
  expect(status).toBe(1);
  expect(stdout).toContain(`${FILE}:3:3: wrong: `);
  expect(stdout).toMatch(
    /compared with new, as .*\nwaste_declaration: \d+ found in 200 sessions, \d+ steps\n$/s,
  );
});

test('the same seed and sessions find the same, in any order of the same call', () => {
  expect(asJson().findings).toEqual(asJsonOnce().findings);
});

test('what is found is there when it is played, and no step of it can be left out', () => {
  const { findings } = asJsonOnce();
  const mine = findings.find(({ file, part }) => file === FILE && part === 'collected_on')!;
  expect(mine).toMatchObject({ kind: 'not-back', aspect: 'required', line: 3, column: 3 });
  const requiredAfter = ({ opening, steps }: Found['way']) => {
    const file = join(mkdtempSync(join(tmpdir(), 'tavro-way-')), 'way.json');
    writeFileSync(file, JSON.stringify({ form: 'waste_declaration', opening, steps }));
    const { stdout } = tavro(['play', FAULTY, '--steps', file]);
    const { parts } = JSON.parse(stdout) as { parts: { collected_on: { required: boolean } } };
    return parts.collected_on.required;
  };
  expect(requiredAfter(mine.way)).toBe(true);
  expect(requiredAfter({ ...mine.way, steps: mine.other!.steps })).toBe(false);
  // Without either step nothing is left that was not there before.
  for (const [i] of mine.way.steps.entries())
    expect(requiredAfter({ ...mine.way, steps: mine.way.steps.toSpliced(i, 1) })).toBe(
      'to' in mine.way.steps[1 - i]! && (mine.way.steps[1 - i] as { to: unknown }).to === true,
    );
  expect(mine.way.steps).toHaveLength(2);
});

test('what a baseline lists fails nothing; what is new does', () => {
  const known = join(mkdtempSync(join(tmpdir(), 'tavro-known-')), 'known.json');
  expect(find('--accept', known).status).toBe(1);
  expect((JSON.parse(readFileSync(known, 'utf8')) as Found[])[0]).toMatchObject({
    form: 'waste_declaration',
  });
  const again = find('--baseline', known);
  expect(again.status).toBe(0);
  expect(again.stdout).toMatch(/^waste_declaration: nothing found in 200 sessions/m);
  writeFileSync(known, '[]');
  expect(find('--baseline', known).status).toBe(1);
  writeFileSync(known, '{}');
  expect(find('--baseline', known)).toMatchObject({
    status: 2,
    stderr: `tavro: ${known} is no list of known findings; make it anew with --accept ${known}.\n`,
  });
});

test('what is meant is answered in the code, and told once it is no longer found', () => {
  const folder = copyOfDemo();
  const file = join(folder, 'forms/waste_declaration/behaviours/95-stays.ts');
  const answer = '  // tavro: meant, not-back: once collected it stays so\n';
  const call = (...more: string[]) =>
    tavro(['find', folder, '--form', 'waste_declaration', '--sessions', '200', ...more]).stdout;
  writeFileSync(file, readFileSync(FILE, 'utf8').replace('  if (', `${answer}  if (`));
  const answered = call();
  expect(answered).not.toContain('95-stays.ts');
  expect(answered).toMatch(/, 1 answered in the code$/m);
  writeFileSync(
    file,
    `/** Stays. */\nkeep(() => {\n${answer}  fields.collected_on.required = fields.keeps_some.value === true;\n});\n`,
  );
  // A short search may well miss what is answered, so it is a hint.
  expect(call()).not.toContain('95-stays.ts');
  expect(call('--hints')).toContain(
    `${file}:3:3: may: nothing of the kind not-back is found here any more, so there is nothing to answer (meant)`,
  );
});

test('SARIF names a rule, a place and a fingerprint for each; JUnit a failure', () => {
  const log = JSON.parse(find('--reporter', 'sarif').stdout) as {
    version: string;
    runs: {
      tool: { driver: { rules: { id: string }[] } };
      results: { ruleId: string; ruleIndex: number; level: string; locations: unknown[] }[];
    }[];
  };
  expect(log.version).toBe('2.1.0');
  const [{ tool, results }] = log.runs as [(typeof log.runs)[0]];
  expect(results.length).toBeGreaterThan(0);
  for (const { ruleId, ruleIndex, level, locations } of results) {
    expect(tool.driver.rules[ruleIndex]!.id).toBe(ruleId);
    expect(level).toBe('error');
    expect(locations).toHaveLength(1);
  }
  expect(find('--reporter', 'junit').stdout).toMatch(
    /<testcase classname="waste_declaration" name="not-back collected_on"[^>]*>\n {6}<failure message="/,
  );
});

test.each([
  [['--budget', 'long'], '--budget is a time such as 30s or 5m.'],
  [['--seed', '-1'], '--seed is a whole number from 1 on.'],
  [
    ['--reporter', 'constructor'],
    'there is no reporter "constructor". There is text, json, sarif, junit.',
  ],
  [['--reporter', 'xml'], 'there is no reporter "xml". There is text, json, sarif, junit.'],
])('%j is refused', (args, says) => {
  expect(tavro(['find', 'demo', ...args])).toMatchObject({ status: 2, stderr: `tavro: ${says}\n` });
});

test('with a time it ends in time, and says how much it did', () => {
  const { stdout } = tavro(['find', FAULTY, '--form', 'waste_declaration', '--budget', '2s']);
  expect(stdout).toMatch(/waste_declaration: (\d+|nothing) found in \d+ sessions/);
});

test.runIf(thorough)('a script that keeps the machine busy ends the search, and says so', () => {
  const folder = copyOfDemo();
  writeFileSync(
    join(folder, 'forms/waste_declaration/behaviours/96-busy.ts'),
    '/** Busy. */\non.change(fields.keeps_some, () => { "a".repeat(30_000_000).replace(/(a+)+$/, "x"); /(a|aa)+!/.test("a".repeat(60)); });\n',
  );
  const { status, stderr, stdout } = tavro([
    'find',
    folder,
    '--form',
    'waste_declaration',
    '--sessions',
    '60',
  ]);
  // Either its patterns are stopped by their own limit and the run fails, or the thread is ended.
  expect([1, 2]).toContain(status);
  expect(`${stderr}${stdout}`).toMatch(/96-busy|kept the machine busy/);
});

test.runIf(thorough)(
  'a line of a shared module is named in its own file, and answered there',
  () => {
    const folder = copyOfDemo();
    const file = join(folder, 'shared/asking.ts');
    const said =
      'export const ask = (part: { required: boolean }): void => {\n  part.required = true;\n};\n';
    writeFileSync(file, said);
    writeFileSync(
      join(folder, 'forms/waste_declaration/behaviours/95-stays.ts'),
      '/** Stays. */\nimport { ask } from "shared/asking";\non.change(fields.keeps_some, ({ value }) => {\n  if (value === true) ask(fields.collected_on);\n});\n',
    );
    const call = () =>
      tavro(['find', folder, '--form', 'waste_declaration', '--sessions', '200']).stdout;
    expect(call()).toContain(`${file}:2:3: wrong: `);
    writeFileSync(
      file,
      said.replace('  part', '  // tavro: meant, not-back: it stays asked for\n  part'),
    );
    expect(call()).not.toContain(`${file}:`);
  },
);
