/** Assignments in conditions are found where ESLint's published rule no-cond-assign finds them, as oxlint implements it. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { foundIn } from '../support/demo-language';

const statements = [
  'if (x = 0) log(x);',
  'if ((x = 0)) log(x);',
  'if (x === 0) log(x);',
  'if ((x = Number(form.record)) > 0) log(x);',
  'if (!x) log(x);',
  'while (x = 0) log(x);',
  'while ((x = x - 1)) log(x);',
  'while (x > 0) x = x - 1;',
  'do { log(x); } while (x = 0);',
  'do { log(x); } while (x > 1);',
  'for (x = 0; x < 3; x = x + 1) log(x);',
  'for (; x = 0; ) log(x);',
];

test('the same statements are found', () => {
  const folder = mkdtempSync(join(tmpdir(), 'tavro-conditions-'));
  const theirs = statements.filter((statement, i) => {
    const file = join(folder, `${i}.js`);
    writeFileSync(file, `let x = 1;\n${statement}\n`);
    const { stdout } = spawnSync(
      'node_modules/.bin/oxlint',
      ['--allow', 'all', '--deny', 'no-cond-assign', '--format', 'json', file],
      { encoding: 'utf8' },
    );
    return (JSON.parse(stdout) as { diagnostics: unknown[] }).diagnostics.length > 0;
  });
  const ours = statements.filter((statement) =>
    foundIn('vessel', `on.load(() => { let x = 1; ${statement} });`).some(
      ({ code }) => code === 'assignment-in-condition',
    ),
  );
  expect(ours).toEqual(theirs);
  expect(ours.length).toBeGreaterThan(3);
});
