// npm run bench: the benchmarks of bench/, each in a process of its own; npm run bench -- NAME … does those alone.
import { readdirSync } from 'node:fs';
import {
  buildParts,
  dropAll,
  fail,
  needModules,
  needPackages,
  packages,
  prepareDatabase,
  root,
  run,
  startDatabase,
  stopDatabase,
} from './steps.mjs';

/** Those that need a database, with the demo in it. */
const ON_DATABASE = ['queue'];
const DATABASE = { TAVRO_DATA: `${root}/.data/bench`, TAVRO_DB_PORT: '54379', TAVRO_DB: 'tavro' };

const all = readdirSync(`${root}/bench`)
  .filter((name) => name.endsWith('.ts'))
  .map((name) => name.replace(/\.ts$/, ''));
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !all.includes(name));
if (unknown.length > 0)
  fail(`there is no benchmark "${unknown.join('", "')}". There is ${all.join(', ')}.`);
needPackages([packages.postgresql, packages.chromium]);
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
  if (!ON_DATABASE.includes(name)) {
    run('node', [outfile]);
    continue;
  }
  const { url } = startDatabase(DATABASE);
  process.once('exit', () => stopDatabase(DATABASE));
  dropAll(url);
  prepareDatabase(url);
  run('node', [outfile], { DATABASE_URL: url });
}
