// Bundles what runs in Node.js outside Next: the command line and the thread that sandboxes run in.
import { build } from 'esbuild';
import { chmodSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

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
await build({
  ...common,
  entryPoints: { 'engine.thread': 'src/workers/engine.thread.ts' },
  external: ['@jitl/*'],
});
await build({
  ...common,
  entryPoints: { 'tasks.thread': 'src/workers/tasks.thread.ts' },
  external: ['typescript-classic'],
});
// The compiler is by far the largest part and loaded only when something has to be compiled.
await build({
  ...common,
  entryPoints: { tavro: 'src/cli/main.ts' },
  splitting: true,
  chunkNames: 'cli/[name]-[hash]',
  external: ['typescript-classic'],
  banner: { js: common.banner.js },
});
await build({
  ...common,
  entryPoints: { prepare: 'src/server/prepare.ts' },
  external: ['pg-native'],
});
await build({ ...common, entryPoints: { schemas: 'src/cli/schemas.ts' } });
chmodSync(join(root, 'dist/tavro.mjs'), 0o755);
