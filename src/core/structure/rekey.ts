/**
 * Changing the key of an option or a stage, carried through everything that holds it: the definition, behaviours,
 * scenarios, records. Planned like a renaming. Which texts of a script mean the key is found by trying: under the new
 * definition, a text that means it is wrong until it is changed.
 */
import { scriptsOf } from '../script/of-form';
import { isOwn } from '../script/script-name';
import ts from 'typescript-classic';
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import type { Source } from '../script/header';
import { parse } from '../language/parse';
import { FormLanguage } from '../language/language-service';
import { edited, placeOf, InvalidEdit, type PartName, type PartSort } from './edit';
import { rewritten, type RenamePlan } from './rename';
import { rekeyed, rekeyInScenario } from './in-scenario';
import { codeUse, type FormSources, type Reach, type Spot } from './uses';

/** What would change. Throws InvalidEdit when the key cannot be changed to that. */
export function planRekey(
  reach: Reach,
  formName: string,
  part: PartName,
  key: string,
  to: string,
): RenamePlan {
  const own = reach.forms.find(({ form }) => form.name === formName);
  const place = own === undefined ? null : placeOf(own.form, part);
  if (own === undefined || place === null) throw new InvalidEdit(`The form has no part "${part}".`);
  const next = rekeyedForm(own.form, part, key, to);
  const { sort } = place;
  const behaviours: RenamePlan['behaviours'] = [];
  const mentions: RenamePlan['mentions'] = [];
  const language = new FormLanguage(reach.libs);
  language.surround({ ...reach, form: next });
  for (const source of scriptsOf(own.form, own.behaviours, reach.shared)) {
    const texts = textsEqualTo(source, key);
    if (texts.length === 0) continue;
    // Code for several forms may mean the key of another one; people decide what it says.
    const meant = isOwn(source.name) ? textsMeant(language, source, texts, to) : [];
    const use = codeUse(
      formName,
      source,
      meant.map((text) => spotOf(text, to)),
    );
    if (use !== null) behaviours.push(rewritten(use, source, ''));
    for (const text of texts)
      if (!meant.includes(text))
        mentions.push({
          form: formName,
          behaviour: source.name,
          line: text.line,
          text: text.shown,
        });
  }
  return {
    form: formName,
    part,
    key,
    to,
    sort,
    forms: [next],
    behaviours,
    scenarios: scenariosRekeyed(own, part, key, to, sort),
    mentions,
    inRecords: sort === 'field' || sort === 'cell',
  };
}

function rekeyedForm(form: Form, part: PartName, key: string, to: string): Form {
  const definition = placeOf(form, part)!.definition as unknown as Record<string, unknown>;
  const list = 'stages' in definition ? 'stages' : 'options';
  const options = (definition[list] ?? []) as { key: string; label: string }[];
  if (!options.some((option) => option.key === key))
    throw new InvalidEdit(`"${part}" has no option with the key "${key}".`);
  if (to === '' || to.length > 200)
    throw new InvalidEdit('A key has between 1 and 200 characters.');
  if (options.some((option) => option.key === to))
    throw new InvalidEdit(`"${to}" is the key of another option of "${part}".`);
  const change: Record<string, unknown> = {
    [list]: options.map((option) => (option.key === key ? { ...option, key: to } : option)),
  };
  for (const held of ['default', 'stage'])
    if (definition[held] !== undefined) change[held] = rekeyed(definition[held] as Value, key, to);
  return edited(form, { do: 'change', part, to: change });
}

/** A text of a script, or a name in an object, that equals the key. */
interface KeyText {
  from: number;
  to: number;
  line: number;
  /** The line it stands in. */
  shown: string;
  quote: string;
}

function textsEqualTo(source: Source, key: string): KeyText[] {
  const { file } = parse(source);
  const found: KeyText[] = [];
  const look = (node: ts.Node): void => {
    const isName =
      ts.isIdentifier(node) &&
      node.text === key &&
      ts.isPropertyAssignment(node.parent) &&
      node.parent.name === node;
    if (isName || (ts.isStringLiteralLike(node) && node.text === key)) {
      const from = node.getStart(file);
      const { line } = file.getLineAndCharacterOfPosition(from);
      found.push({
        from,
        to: node.getEnd(),
        line: line + 1,
        shown: source.text.split('\n')[line]!.trim(),
        quote: isName ? '' : source.text[from]!,
      });
    }
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

function spotOf({ from, to, quote }: KeyText, key: string): Spot {
  return { from, to, before: spelled(key, quote), after: '' };
}

/** A key as it stands in a script: between the quotes that were there, or as a name where it can be one. */
function spelled(key: string, quote: string): string {
  if (quote === '' && /^[A-Za-z_$][\w$]*$/.test(key)) return key;
  const plain = JSON.stringify(key);
  if (quote !== "'" && quote !== '`') return plain;
  const inner = plain.slice(1, -1).replaceAll('\\"', '"').replaceAll(quote, `\\${quote}`);
  return quote + (quote === '`' ? inner.replaceAll('${', '\\${') : inner) + quote;
}

/** Those of the texts without which less is wrong once they are changed. */
function textsMeant(
  language: FormLanguage,
  source: Source,
  texts: readonly KeyText[],
  to: string,
): KeyText[] {
  const wrong = (text: string) => {
    language.put({ name: source.name, text });
    return language.diagnose(source.name).length;
  };
  const before = wrong(source.text);
  return texts.filter((text) => {
    const { from, to: end } = text;
    const changed = spelled(to, text.quote);
    return wrong(source.text.slice(0, from) + changed + source.text.slice(end)) < before;
  });
}

function scenariosRekeyed(
  { form, scenarios }: FormSources,
  part: PartName,
  key: string,
  to: string,
  sort: PartSort,
): RenamePlan['scenarios'] {
  return scenarios.flatMap(({ name, scenario }) => {
    const next = rekeyInScenario(scenario, part, key, to, sort);
    return JSON.stringify(next) === JSON.stringify(scenario)
      ? []
      : [{ form: form.name, name, title: scenario.title, scenario: next }];
  });
}
