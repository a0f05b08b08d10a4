/**
 * TypeScript for the command line, with what V8 compiled of it when Tavro was built (`make-compiler-cache.ts`): loading
 * it and compiling the first scripts takes a third of the time. scripts/build-node.mjs puts this module in the place of
 * the package. What V8 does not accept, such as the cache of another version of it, is left aside.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Script } from 'node:vm';
import type ts from 'typescript-classic';

const require = createRequire(import.meta.url);
const path = require.resolve('typescript-classic');

/** Bundled into dist/cli/ or dist/; the cache is in dist/. */
const here = dirname(fileURLToPath(import.meta.url));
export const COMPILER_CACHE = join(here.endsWith('cli') ? dirname(here) : here, 'typescript.cache');

/** Loads the compiler; `script` gives what V8 has compiled of it. */
export function loadCompiler(cachedData?: Buffer): { compiler: typeof ts; script: Script } {
  // As Node.js wraps a CommonJS module.
  const source = `(function (exports, require, module, __filename, __dirname) {${readFileSync(path, 'utf8')}\n})`;
  const script = new Script(source, {
    filename: path,
    ...(cachedData === undefined ? {} : { cachedData }),
  });
  const made = { exports: {} };
  const run = script.runInThisContext() as (...given: unknown[]) => void;
  run(made.exports, require, made, path, dirname(path));
  return { compiler: made.exports as typeof ts, script };
}

function cached(): Buffer | undefined {
  try {
    return readFileSync(COMPILER_CACHE);
  } catch {
    return undefined;
  }
}

export default loadCompiler(cached()).compiler;
