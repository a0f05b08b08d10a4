/** Writes what V8 compiles of TypeScript while it compiles scripts; bundled and run by scripts/build-node.mjs. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { setFlagsFromString } from 'node:v8';
import { COMPILER_CACHE, loadCompiler } from './typescript';

// V8 accepts a cache only under the flags it was made with, which are those of `thread.ts`.
setFlagsFromString('--liftoff-only');
const { compiler, script } = loadCompiler();
const folder = 'demo/forms/berth_visit/behaviours';
for (const name of readdirSync(folder)) {
  const text = readFileSync(`${folder}/${name}`, 'utf8');
  compiler.createSourceFile(name, text, compiler.ScriptTarget.ES2022, true);
  compiler.transpileModule(text, {
    fileName: name,
    compilerOptions: {
      target: compiler.ScriptTarget.ES2022,
      module: compiler.ModuleKind.ESNext,
      isolatedModules: true,
    },
  });
}
writeFileSync(COMPILER_CACHE, script.createCachedData());
