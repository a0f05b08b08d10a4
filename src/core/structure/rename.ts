/**
 * Renaming a part's technical name, carried through everything that names it: the form, behaviours, scenarios, records,
 * the lists of other forms. A plan is made first, for people to read; nothing is changed until it is taken over.
 */
import { Name, type Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Scenario } from '../scenario/definition';
import { namesTaken, placeOf, InvalidEdit, type PartName, type PartSort } from './edit';
import type { Source } from '../script/header';
import { isOwn } from '../script/script-name';
import { renameInScenario } from './in-scenario';
import { usesOf, type CodeUse, type FormSources, type Reach, type Uses } from './uses';

export interface RenamePlan {
  form: string;
  part: PartName;
  /** The key of an option or a stage of the part where that is changed; null where the part gets another name. */
  key: string | null;
  to: string;
  sort: PartSort;
  /** Forms whose definition changes. */
  forms: Form[];
  behaviours: {
    form: string;
    name: string;
    title: string;
    text: string;
    lines: { line: number; before: string; after: string }[];
  }[];
  scenarios: { form: string; name: string; title: string; scenario: Scenario }[];
  /** Texts that may mean the part, and code for several forms that names it; they are left as they are. */
  mentions: Uses['mentions'];
  /** Whether records may hold it. */
  inRecords: boolean;
}

/** What would change. Throws InvalidEdit when the name cannot be given. */
export function planRename(reach: Reach, formName: string, part: PartName, to: string): RenamePlan {
  const own = reach.forms.find(({ form }) => form.name === formName);
  const place = own === undefined ? null : placeOf(own.form, part);
  if (own === undefined || place === null) throw new InvalidEdit(`The form has no part "${part}".`);
  const read = Name.safeParse(to);
  if (!read.success) throw new InvalidEdit(read.error.issues[0]!.message);
  if (namesTaken(own.form, place).has(to))
    throw new InvalidEdit(`"${to}" already names a part; every part needs a name of its own.`);
  const uses = usesOf(reach, formName, part);
  return {
    form: formName,
    part,
    key: null,
    to,
    sort: place.sort,
    forms: renamedForms(reach.forms, formName, part, to, place.sort),
    behaviours: uses.code
      .filter(({ behaviour }) => isOwn(behaviour))
      .map((use) => rewritten(use, sourceOf(use, reach.forms), to)),
    scenarios: own.scenarios
      .filter(({ name }) => uses.scenarios.some((use) => use.name === name))
      .map(({ name, scenario }) => ({
        form: formName,
        name,
        title: scenario.title,
        scenario: renameInScenario(scenario, part, to, place.sort),
      })),
    mentions: [...uses.mentions, ...mentionsIn(uses.code)],
    inRecords: place.sort === 'field' || place.sort === 'cell',
  };
}

function sourceOf({ form: of, behaviour }: CodeUse, forms: readonly FormSources[]): Source {
  return forms
    .find(({ form }) => form.name === of)!
    .behaviours.find(({ name }) => name === behaviour)!;
}

/** Code for several forms names the part of others too, so that people decide what it says. */
function mentionsIn(code: readonly CodeUse[]): Uses['mentions'] {
  return code
    .filter(({ behaviour }) => !isOwn(behaviour))
    .flatMap(({ form, behaviour, lines, text }) =>
      lines.map((line, i) => ({ form, behaviour, line, text: text[i]! })),
    );
}

/** A behaviour that uses the new name: `to` stands between what each spot has before and after it. */
export function rewritten(
  use: CodeUse,
  source: Source,
  to: string,
): RenamePlan['behaviours'][number] {
  let text = '';
  let from = 0;
  for (const spot of use.spots) {
    text += source.text.slice(from, spot.from) + spot.before + to + spot.after;
    from = spot.to;
  }
  text += source.text.slice(from);
  const [before, after] = [source.text.split('\n'), text.split('\n')];
  return {
    form: use.form,
    name: use.behaviour,
    title: use.title,
    text,
    lines: use.lines.map((line) => ({
      line,
      before: before[line - 1]!.trim(),
      after: after[line - 1]!.trim(),
    })),
  };
}

function renamedForms(
  forms: readonly FormSources[],
  formName: string,
  part: PartName,
  to: string,
  sort: PartSort,
): Form[] {
  return forms.flatMap(({ form }) => {
    const next = JSON.parse(JSON.stringify(form)) as Form;
    if (form.name === formName) renameInForm(next, part, to, sort);
    if (sort === 'field') renameInLists(next, formName, part, to);
    return JSON.stringify(next) === JSON.stringify(form) ? [] : [next];
  });
}

function renameInForm(form: Form, part: PartName, to: string, sort: PartSort): void {
  const [owner, cell] = part.split('.');
  const rename = (named: { name: string }) => {
    if (named.name === (cell ?? owner)) named.name = to;
  };
  switch (sort) {
    case 'cell':
      for (const field of fieldsOf(form))
        if (field.kind === 'rows' && field.name === owner) field.fields.forEach(rename);
      return;
    case 'field':
      for (const page of form.pages)
        for (const section of page.sections) section.fields.forEach(rename);
      return;
    case 'section':
      for (const page of form.pages) page.sections.forEach(rename);
      for (const placed of [...(form.buttons ?? []), ...(form.children ?? [])])
        if (placed.section === part) placed.section = to;
      return;
    case 'page':
      return form.pages.forEach(rename);
    case 'button':
      return form.buttons?.forEach(rename);
    case 'track':
      return form.tracks?.forEach(rename);
    case 'list':
      return form.children?.forEach(rename);
  }
}

function renameInLists(form: Form, formName: string, field: string, to: string): void {
  for (const list of form.children ?? []) {
    if (list.form !== formName) continue;
    if (list.field === field) list.field = to;
    list.columns = list.columns.map((column) => (column === field ? to : column));
  }
}
