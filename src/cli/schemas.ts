/** Writes the JSON Schemas into docs/schemas; `npm run schemas`. A test fails when they are not up to date. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { schemaFiles } from '../core/workspace/schemas';

mkdirSync('docs/schemas', { recursive: true });
for (const [name, text] of schemaFiles()) writeFileSync(`docs/schemas/${name}`, text);
