/** What is wrong with the code that forms share, that of services included, apart from what each form finds in it. */
import type { Form } from '../form/definition';
import { nearest } from '../wire/failures';
import type { Surface } from '../language/typings';
import type { FormLanguage } from '../language/language-service';
import { isFor, readHeader, type Source } from '../script/header';
import { NO_FORM } from '../script/no-form';
import { isModule } from '../script/script-name';
import { ofDiagnostic, type Problem } from './problems';
import { problemsInServices } from './services';
import { fieldsOf } from '../form/fields';

/** Modules by their types, and behaviours for several forms by the forms that they name. Problems have the empty text as their form. */
export function problemsInShared(
  shared: readonly Source[],
  { forms, ...rest }: Omit<Surface, 'form'> & { forms: readonly Form[] },
  language: FormLanguage,
): Problem[] {
  language.surround({ ...rest, form: NO_FORM });
  const modules = shared.filter(({ name }) => isModule(name));
  for (const one of modules) language.put(one);
  return [
    ...modules.flatMap((one) =>
      language.diagnose(one.name).map((found) => ofDiagnostic('', one, found)),
    ),
    ...shared
      .filter(({ name }) => !isModule(name))
      .flatMap((source) => problemsOfForms(source, forms)),
    ...problemsInServices(rest, language),
  ];
}

function problemsOfForms(source: Source, forms: readonly Form[]): Problem[] {
  const { title, forms: wanted } = readHeader(source);
  const problem = (severity: Problem['severity'], says: string): Problem => ({
    form: '',
    at: { is: 'behaviour', name: source.name, title, line: lineOfForms(source.text), column: 1 },
    sort: 'types',
    severity,
    says,
    code: 'forms',
  });
  if (wanted === null)
    return [
      problem(
        'error',
        `Says for which forms it is nowhere. Add a line to its first comment: "@forms ${namesOf(forms)}", or "@forms with ${partOf(forms)}" for every form with that part.`,
      ),
    ];
  if ('with' in wanted)
    return forms.some((form) => isFor(wanted, form))
      ? []
      : [problem('warning', `No form has all the parts ${wanted.with.join(', ')}.`)];
  const names = forms.map(({ name }) => name);
  return wanted.named
    .filter((name) => !names.includes(name))
    .map((name) => {
      const near = nearest(name, names);
      return problem(
        'error',
        `There is no form "${name}".${near === null ? '' : ` Did you mean ${near}?`}`,
      );
    });
}

function lineOfForms(text: string): number {
  const at = text.search(/@forms\b/);
  return at < 0 ? 1 : text.slice(0, at).split('\n').length;
}

/** Forms at hand, as an example. */
const namesOf = (forms: readonly Form[]): string =>
  forms
    .slice(0, 2)
    .map(({ name }) => name)
    .join(', ');

const partOf = (forms: readonly Form[]): string => forms.flatMap(fieldsOf)[0]?.name ?? 'amount';
