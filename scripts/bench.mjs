// npm run bench: the benchmarks of bench/, each in a process of its own; npm run bench -- NAME … does those alone.
import { readdirSync } from 'node:fs';
import { buildParts, fail, needModules, needPackages, packages, root, run } from './steps.mjs';

const all = readdirSync(`${root}/bench`)
  .filter((name) => name.endsWith('.ts'))
  .map((name) => name.replace(/\.ts$/, ''));
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !all.includes(name));
if (unknown.length > 0)
  fail(`there is no benchmark "${unknown.join('", "')}". There is ${all.join(', ')}.`);
needPackages([packages.chromium]);
needModules();
buildParts();
// Only now is it there on a new machine.
const { build } = await import('esbuild');
for (const name of asked.length === 0 ? all : asked) {
  const outfile = `dist/bench/${name}.mjs`;
  await build({
    entryPoints: [`bench/${name}.ts`],
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
