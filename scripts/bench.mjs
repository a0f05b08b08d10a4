// npm run bench: the benchmarks of bench/, each in a process of its own. Needs the npm packages and nothing else.
import { build } from 'esbuild';
import { readdirSync } from 'node:fs';
import { buildParts, needModules, root, run } from './steps.mjs';

needModules();
buildParts();
for (const file of readdirSync(`${root}/bench`).filter((name) => name.endsWith('.ts'))) {
  const outfile = `dist/bench/${file.replace(/\.ts$/, '.mjs')}`;
  await build({
    entryPoints: [`bench/${file}`],
    absWorkingDir: root,
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
  });
  run('node', [outfile]);
}
