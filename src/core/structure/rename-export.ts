/** Renaming what a shared module exports, in the module and in every script of every form that imports it. */
import { NO_FORM } from '../script/no-form';
import { FormLanguage } from '../language/language-service';
import type { Source } from '../script/header';
import { scriptsOf } from '../script/of-form';
import { isModule, isOwn } from '../script/script-name';
import { InvalidEdit } from './edit';
import { codeUse, type Reach, type Spot } from './uses';
import { rewritten, type RenamePlan } from './rename';

export type ExportRenaming = RenamePlan['behaviours'];

/**
 * What would change in which scripts; those of several forms have the empty text as their form. `position` is where
 * the name stands in the module. Throws InvalidEdit where the name cannot be given.
 */
export function planExportRename(
  reach: Reach,
  module: string,
  position: number,
  to: string,
): ExportRenaming {
  if (!/^[A-Za-z_$][\w$]*$/.test(to))
    throw new InvalidEdit(`"${to}" is no name: letters, digits and _, beginning with a letter.`);
  if (!reach.shared.some(({ name }) => name === module))
    throw new InvalidEdit(`There is no shared module "${module}".`);
  const spots = new Map<string, { form: string; source: Source; spots: Map<number, Spot> }>();
  const modules = reach.shared.filter(({ name }) => isModule(name));
  const settings = [
    { form: NO_FORM, sources: modules },
    ...reach.forms.map(({ form, behaviours }) => ({
      form,
      sources: scriptsOf(form, behaviours, reach.shared),
    })),
  ].filter(({ sources }) => sources.some(({ name }) => name === module));
  for (const { form, sources } of settings) {
    const language = new FormLanguage(reach.libs);
    language.surround({ ...reach, form });
    for (const source of sources) language.put(source);
    const found = language.spellings(module, position);
    if (found === null)
      throw new InvalidEdit('Only what the module itself declares can be renamed here.');
    for (const { file, ...spot } of found) {
      const source = sources.find(({ name }) => name === file)!;
      const of = isOwn(file) ? form.name : '';
      const key = `${of}\n${file}`;
      const use = spots.get(key) ?? { form: of, source, spots: new Map<number, Spot>() };
      use.spots.set(spot.from, spot);
      spots.set(key, use);
    }
  }
  return [...spots.values()].flatMap(({ form, source, spots: found }) => {
    const use = codeUse(form, source, [...found.values()]);
    return use === null ? [] : [rewritten(use, source, to)];
  });
}
