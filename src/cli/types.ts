/**
 * `tavro types`: the typings of a workspace's forms, so that any TypeScript editor understands its behaviours. Without
 * `--form` they are written into the folder, each with a tsconfig.json; with it one is printed.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { typingsOf } from '../core/language/typings';
import { formOf, open, type Call, type Command } from './call';

/** What makes an editor see a behaviour as Tavro does: a module of its own among the form's names and nothing else. */
const TSCONFIG = {
  compilerOptions: {
    target: 'ES2022',
    module: 'ESNext',
    moduleDetection: 'force',
    lib: ['ES2022', 'ES2023.Array'],
    types: [],
    strict: true,
    noEmit: true,
    allowJs: true,
    checkJs: true,
    skipLibCheck: true,
  },
  include: ['form.d.ts', '../../temporal.d.ts', 'behaviours/*'],
};

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  if (call.form !== undefined) {
    process.stdout.write(`${typingsOf({ ...workspace, form: formOf(call, workspace).form })}\n`);
    return 0;
  }
  const { libs } = await import('../core/language/generated/libs');
  const write = (path: string, text: string) => {
    writeFileSync(join(call.folder, path), text);
    process.stdout.write(`wrote ${join(call.folder, path)}\n`);
  };
  write('temporal.d.ts', libs['temporal.d.ts']!);
  for (const { form } of workspace.forms) {
    write(`forms/${form.name}/form.d.ts`, `${typingsOf({ ...workspace, form })}\n`);
    write(`forms/${form.name}/tsconfig.json`, `${JSON.stringify(TSCONFIG, null, 2)}\n`);
  }
  return 0;
}

export const types: Command = {
  says: "Writes each form's typings and a tsconfig.json, so that any editor knows its names.",
  options: { form: { value: 'FORM', says: "prints this form's typings instead" } },
  run,
};
