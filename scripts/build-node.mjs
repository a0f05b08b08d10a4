// Bundles what runs in Node.js outside Next: the command line and the thread that sandboxes run in.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { build } from 'esbuild';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const common = {
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  absWorkingDir: root,
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  minify: true,
  mainFields: ['module', 'main'],
  legalComments: 'none',
  logLevel: 'warning',
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
  },
};
/** Of what a booted machine depends on: the guest and the packages, QuickJS among them. */
const machine = createHash('sha256')
  .update(readFileSync(join(root, 'package-lock.json')))
  .update(readFileSync(join(root, 'src/core/sandbox/generated/guest.ts')))
  .update(readFileSync(join(root, 'src/core/sandbox/quickjs.ts')))
  .digest('hex');
await build({
  ...common,
  entryPoints: {
    'engine.thread': 'src/workers/engine.thread.ts',
    'search.thread': 'src/workers/search.thread.ts',
    'compare.thread': 'src/workers/compare.thread.ts',
    'make-images': 'src/workers/make-images.ts',
  },
  external: ['@jitl/*'],
  define: { TAVRO_MACHINE: JSON.stringify(machine) },
});
await import(pathToFileURL(join(root, 'dist/make-images.mjs')));
await build({
  ...common,
  entryPoints: {
    'tasks.thread': 'src/workers/tasks.thread.ts',
    'watch.thread': 'src/workers/watch.thread.ts',
  },
  external: ['typescript-classic'],
});
/** Of all that what is compiled, found in scripts and read from files depends on: the command line keeps it under that. */
function languageHash() {
  const hash = createHash('sha256').update(readFileSync(join(root, 'package-lock.json')));
  hash.update(readFileSync(join(root, 'src/core/limits.ts')));
  for (const room of [
    'form',
    'language',
    'problems',
    'scenario',
    'script',
    'session',
    'wire',
    'workspace',
  ])
    for (const path of readdirSync(join(root, 'src/core', room), { recursive: true }).sort())
      if (path.endsWith('.ts') && !path.endsWith('.test.ts'))
        hash.update(path).update(readFileSync(join(root, 'src/core', room, path)));
  return hash.digest('hex');
}
// Chunks of earlier builds have other names.
rmSync(join(root, 'dist/cli'), { recursive: true, force: true });
/** Puts the command line's own way to load TypeScript in the place of the package. */
const compiler = {
  name: 'compiler',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^typescript-classic$/ }, () => ({
      path: join(root, 'src/cli/typescript.ts'),
    })),
};
await build({
  ...common,
  entryPoints: { 'make-compiler-cache': 'src/cli/make-compiler-cache.ts' },
});
execFileSync('node', ['dist/make-compiler-cache.mjs'], { cwd: root });
// The compiler is by far the largest part and loaded only when something has to be compiled.
await build({
  ...common,
  entryPoints: { tavro: 'src/cli/tavro.ts' },
  splitting: true,
  chunkNames: 'cli/[name]-[hash]',
  plugins: [compiler],
  define: { TAVRO_LANGUAGE: JSON.stringify(languageHash()) },
});
await build({
  ...common,
  entryPoints: {
    prepare: 'src/server/hosting/prepare.ts',
    worker: 'src/server/hosting/worker.ts',
  },
  external: ['pg-native', 'piscina', 'pg-boss'],
});
await build({ ...common, entryPoints: { schemas: 'src/cli/schemas.ts' } });
chmodSync(join(root, 'dist/tavro.mjs'), 0o755);
