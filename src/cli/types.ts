/**
 * `tavro types`: the typings of a workspace's forms, so that any TypeScript editor understands its behaviours. Without
 * `--form` they are written into the folder, each with a tsconfig.json; with it one is printed.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { typingsOf } from '../core/language/typings';
import { NO_FORM } from '../core/script/no-form';
import { scriptsOf } from '../core/script/of-form';
import { isModule, isOwn, MODULES } from '../core/script/script-name';
import { formOf, open, type Call, type Command } from './call';
import { print } from './print';

/** What makes an editor see a script as Tavro does: a module of its own among the form's names and nothing else. */
const tsconfig = (up: string, include: readonly string[]) => ({
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
    paths: { [`${MODULES}*`]: [`${up}${MODULES}*`] },
  },
  include: [`${up}temporal.d.ts`, ...include],
});

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  if (call.form !== undefined) {
    print(`${typingsOf({ ...workspace, form: formOf(call, workspace).form })}\n`);
    return 0;
  }
  const { libs } = await import('../core/language/generated/libs');
  const write = (path: string, text: string) => {
    writeFileSync(join(call.folder, path), text);
    print(`wrote ${join(call.folder, path)}\n`);
  };
  write('temporal.d.ts', libs['temporal.d.ts']!);
  const json = (path: string, content: object) =>
    write(path, `${JSON.stringify(content, null, 2)}\n`);
  for (const { form, behaviours } of workspace.forms) {
    const several = scriptsOf(form, behaviours, workspace.shared)
      .filter(({ name }) => !isOwn(name) && !isModule(name))
      .map(({ name }) => `../../${name}`);
    write(`forms/${form.name}/form.d.ts`, `${typingsOf({ ...workspace, form })}\n`);
    json(
      `forms/${form.name}/tsconfig.json`,
      tsconfig('../../', ['form.d.ts', 'behaviours/*', ...several]),
    );
  }
  if (workspace.shared.some(({ name }) => isModule(name))) {
    write(`${MODULES}workspace.d.ts`, `${typingsOf({ ...workspace, form: NO_FORM })}\n`);
    json(`${MODULES}tsconfig.json`, tsconfig('../', ['*']));
  }
  return 0;
}

export const types: Command = {
  says: "Writes each form's typings and a tsconfig.json, so that any editor knows its names.",
  options: { form: { value: 'FORM', says: "prints this form's typings instead" } },
  run,
};
