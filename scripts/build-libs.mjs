// Gathers TypeScript's own library declarations and Temporal's into one module, for the language worker: ECMAScript
// alone, since scripts run where there is no page.
import { readFileSync, writeFileSync, mkdirSync, existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const libs = {};
function add(name) {
  const file = `lib.${name}.d.ts`;
  if (file in libs) return;
  const text = readFileSync(join(root, 'node_modules/typescript-classic/lib', file), 'utf8');
  libs[file] = text;
  for (const [, inner] of text.matchAll(/reference lib="([^"]+)"/g)) add(inner);
}
add('es2022');
add('es2023.array');
libs['temporal.d.ts'] = readFileSync(join(root, 'node_modules/temporal-spec/global.d.ts'), 'utf8');

const target = join(root, 'src/core/language/generated/libs.ts');
mkdirSync(dirname(target), { recursive: true });
const text = `// Made by scripts/build-libs.mjs.\nexport const libs: Record<string, string> = JSON.parse(${JSON.stringify(JSON.stringify(libs))});\n`;
if (!existsSync(target) || readFileSync(target, 'utf8') !== text) writeFileSync(target, text);
