// Bundles what runs in a machine beside the scripts, and the Temporal polyfill for the same machine, into string modules
// that the sandbox imports. Run by every command that needs them; takes a fraction of a second.
import { build } from 'esbuild';
import { mkdirSync, readFileSync, writeFileSync, existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

async function bundle(options) {
  const result = await build({
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    minify: true,
    absWorkingDir: root,
    ...options,
  });
  return result.outputFiles[0].text;
}

const guest = await bundle({ entryPoints: ['src/core/guest/main.ts'] });
const temporal = await bundle({
  // The polyfill asks for Intl when it loads: it gets the one of guest/intl.ts, which scripts do not.
  stdin: {
    contents: "import { Temporal } from 'temporal-polyfill'; globalThis.Temporal = Temporal;",
    resolveDir: root,
  },
});

const target = join(root, 'src/core/sandbox/generated/guest.ts');
mkdirSync(dirname(target), { recursive: true });
const text = `// Made by scripts/build-guest.mjs.\nexport const guest = ${JSON.stringify(guest)};\nexport const temporal = ${JSON.stringify(temporal)};\n`;
if (!existsSync(target) || readFileSync(target, 'utf8') !== text) writeFileSync(target, text);
