/** `tavro check`: what the editor would underline, for every behaviour, as `file:line:column: text`. */
import { formsOf, open, type Call } from './call';

export async function check(call: Call): Promise<number> {
  const workspace = open(call);
  const [{ FormLanguage }, { libs }] = await Promise.all([import('../core/language/service'), import('../core/language/generated/libs')]);
  let found = 0;
  for (const { form, behaviours } of formsOf(call, workspace)) {
    const language = new FormLanguage(libs);
    language.surround({ ...workspace, form });
    for (const behaviour of behaviours) language.put(behaviour);
    for (const { name } of behaviours) {
      for (const diagnosis of language.diagnose(name)) {
        const file = `${call.folder}/forms/${form.name}/behaviours/${name}`;
        process.stdout.write(`${file}:${diagnosis.line}:${diagnosis.column}: ${diagnosis.severity}: ${diagnosis.says} (${diagnosis.code})\n`);
        found++;
      }
    }
  }
  process.stdout.write(found === 0 ? 'nothing found\n' : `${found} found\n`);
  return found === 0 ? 0 : 1;
}
