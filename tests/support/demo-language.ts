/** The language of the demo's forms, to hold sources against: what is found in one behaviour beside others. */
import { libs } from '../../src/core/language/generated/libs';
import { FormLanguage } from '../../src/core/language/language-service';
import type { Diagnostic } from '../../src/core/language/answers';
import { isModule } from '../../src/core/script/script-name';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { readFolder } from '../../src/workers/files';

export const demo = readWorkspace(readFolder('demo'));

const languages = new Map<string, FormLanguage>();

export function languageOf(form: string): FormLanguage {
  const kept = languages.get(form);
  if (kept !== undefined) return kept;
  const entry = demo.forms.find((one) => one.form.name === form)!;
  const made = new FormLanguage(libs);
  made.surround({ ...demo, form: entry.form });
  for (const script of demo.shared) if (isModule(script.name)) made.put(script);
  languages.set(form, made);
  return made;
}

/** What is found in a behaviour of a form of the demo, with another one beside it where that matters. */
export function foundIn(form: string, text: string, beside?: string, name = 'x.ts'): Diagnostic[] {
  const language = languageOf(form);
  language.put({ name, text });
  if (beside !== undefined) language.put({ name: 'beside.ts', text: beside });
  const found = language.diagnose(name);
  language.remove(name);
  language.remove('beside.ts');
  return found;
}

/** The text with the edits of a fix made. */
export function mended(
  text: string,
  edits: readonly { from: number; to: number; text: string }[],
): string {
  return edits
    .toSorted((a, b) => b.from - a.from)
    .reduce((now, edit) => now.slice(0, edit.from) + edit.text + now.slice(edit.to), text);
}
