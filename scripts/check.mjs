// npm run check: lint, who imports whom, format, types and dead code, in seconds.
import { spawn } from 'node:child_process';
import { needModules, root, run } from './steps.mjs';

const CHECKS = [
  ['lint', 'oxlint', ['--quiet', 'src', 'tests', 'bench', 'scripts']],
  ['boundaries', 'node', ['scripts/rooms.mjs']],
  ['format', 'prettier', ['--check', '--log-level=warn', '.']],
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['dead code', 'knip', ['--no-progress']],
];

/** Runs all checks beside each other; gives how many passed and failed. */
export async function checkAll() {
  for (const script of ['build-guest', 'build-libs']) run('node', [`scripts/${script}.mjs`]);
  const outcomes = await Promise.all(CHECKS.map(checkOne));
  const passed = outcomes.filter((isRight) => isRight).length;
  return { passed, failed: CHECKS.length - passed };
}

/** Whether a check passed; what it says is printed when it is over, so that none speaks into another. */
function checkOne([name, command, args]) {
  return new Promise((resolve) => {
    const program = command === 'node' ? process.execPath : `node_modules/.bin/${command}`;
    const child = spawn(program, args, { cwd: root });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => said.push(text));
    child.once('error', (caught) => said.push(Buffer.from(`${caught}\n`)));
    child.once('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      console.log(`tavro: ${name} ${status === 0 ? 'passed' : 'failed'}`);
      resolve(status === 0);
    });
  });
}

if (import.meta.url === `file://${process.argv[1]}`) {
  needModules();
  process.exit((await checkAll()).failed === 0 ? 0 : 1);
}
