// npm run check: lint with boundaries, format, types and dead code, in seconds.
import { spawnSync } from 'node:child_process';
import { needModules, root, run } from './steps.mjs';

const CHECKS = [
  ['lint and boundaries', 'oxlint', ['--quiet', 'src', 'tests', 'bench', 'scripts']],
  ['format', 'prettier', ['--check', '--log-level=warn', '.']],
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['dead code', 'knip', ['--no-progress']],
];

/** Runs all checks; gives how many passed and failed. */
export function checkAll() {
  for (const script of ['build-guest', 'build-libs']) run('node', [`scripts/${script}.mjs`]);
  let passed = 0;
  for (const [name, command, args] of CHECKS) {
    const { status } = spawnSync(`node_modules/.bin/${command}`, args, {
      cwd: root,
      stdio: 'inherit',
    });
    console.log(`tavro: ${name} ${status === 0 ? 'passed' : 'failed'}`);
    if (status === 0) passed++;
  }
  return { passed, failed: CHECKS.length - passed };
}

if (import.meta.url === `file://${process.argv[1]}`) {
  needModules();
  process.exit(checkAll().failed === 0 ? 0 : 1);
}
