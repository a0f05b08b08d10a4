/**
 * The title and purpose of a behaviour, which stand in its leading doc comment: `/** Title: purpose. *\/`. The tag `@off`
 * there turns it off: it is kept and checked, and takes no part in the form. `@forms` says which forms a behaviour for
 * several forms is for.
 */
import type { Form } from '../form/definition';
import { fieldsOf, sectionsOf } from '../form/fields';
import { fileName, isModule } from './script-name';

/** A source of a script, by its name (`script-name.ts`). */
export interface Source {
  name: string;
  text: string;
}

export interface Header {
  title: string;
  purpose: string;
  /** From the number its file name begins with; behaviours without one come last, by name. */
  order: number | null;
  off: boolean;
  /** Which forms it is for, where `@forms` says so. */
  forms: ForForms | null;
}

/** The forms a behaviour is for: those named, or every one that has all the parts named. */
export type ForForms = { named: string[] } | { with: string[] };

/** Alone on its line, as tags stand. */
const OFF = /^[ \t]*@off[ \t]*$/m;
const FORMS = /^[ \t]*@forms[ \t]+(\S.*?)[ \t]*$/m;

const LEADING_COMMENT = /^\s*\/\*\*([\s\S]*?)\*\//;

export function readHeader(source: Source): Header {
  const file = fileName(source.name);
  const number = /^(\d+)-/.exec(file);
  const order = number === null ? null : Number(number[1]);
  const fallback = file
    .replace(/^\d+-/, '')
    .replace(/\.[jt]s$/, '')
    .replace(/[-_]/g, ' ');
  const comment = LEADING_COMMENT.exec(source.text);
  if (comment === null) return { title: fallback, purpose: '', order, off: false, forms: null };
  const lines = comment[1]!.replace(/^[ \t]*\*[ \t]?/gm, '');
  const off = OFF.test(lines);
  const forms = FORMS.exec(lines);
  const rest = { order, off, forms: forms === null ? null : forFormsIn(forms[1]!) };
  const text = lines.replace(OFF, '').replace(FORMS, '').trim().replace(/\s+/g, ' ');
  const colon = text.indexOf(': ');
  if (colon > 0 && colon <= 60)
    return { title: text.slice(0, colon), purpose: text.slice(colon + 2), ...rest };
  return { title: text.replace(/\.$/, '').slice(0, 60) || fallback, purpose: '', ...rest };
}

const listed = (text: string) => text.split(/[\s,]+/).filter((name) => name !== '');

function forFormsIn(text: string): ForForms {
  const parts = /^with[ \t]+(.+)$/.exec(text);
  return parts === null ? { named: listed(text) } : { with: listed(parts[1]!) };
}

/** What `@forms` says, as it is written there. */
export function forFormsInWords(forms: ForForms): string {
  return 'named' in forms ? forms.named.join(', ') : `with ${forms.with.join(', ')}`;
}

/** Whether a behaviour for several forms is for this one. */
export function isFor(forms: ForForms | null, form: Form): boolean {
  if (forms === null) return false;
  if ('named' in forms) return forms.named.includes(form.name);
  const parts = new Set([
    ...fieldsOf(form).flatMap((field) => [
      field.name,
      ...(field.kind === 'rows' ? field.fields.map((cell) => `${field.name}.${cell.name}`) : []),
    ]),
    ...[form.pages, sectionsOf(form), form.buttons ?? [], form.tracks ?? []].flatMap((some) =>
      some.map(({ name }) => name),
    ),
  ]);
  return forms.with.length > 0 && forms.with.every((name) => parts.has(name));
}

/** The source with another header; what follows the header stays as it is. */
export function withHeader(
  { text }: Pick<Source, 'text'>,
  { title, purpose, off, forms }: Omit<Header, 'order'>,
): string {
  const clean = (words: string) => words.replace(/\*\//g, '* /').replace(/\s+/g, ' ').trim();
  const line = purpose.trim() === '' ? clean(title) : `${clean(title)}: ${clean(purpose)}`;
  const tags = [
    ...(forms === null ? [] : [`@forms ${clean(forFormsInWords(forms))}`]),
    ...(off ? ['@off'] : []),
  ];
  const header =
    tags.length === 0
      ? `/** ${line} */`
      : `/**\n${[line, ...tags].map((one) => ` * ${one}`).join('\n')}\n */`;
  const comment = LEADING_COMMENT.exec(text);
  return comment === null
    ? `${header}\n\n${text.trimStart()}`
    : `${header}${text.slice(comment[0].length)}`;
}

/** The behaviours that take part in the form, in the order in which they run. */
export function takingPart<T extends Source>(sources: readonly T[]): T[] {
  return inOrder(sources).filter((source) => !isModule(source.name) && !readHeader(source).off);
}

/** The order in which behaviours run: by number, then by name, those without a number last. */
export function inOrder<T extends { name: string }>(sources: readonly T[]): T[] {
  const order = (source: T) => Number(/^(\d+)-/.exec(fileName(source.name))?.[1] ?? Infinity);
  const byName = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return [...sources].sort(
    (a, b) =>
      order(a) - order(b) || byName(fileName(a.name), fileName(b.name)) || byName(a.name, b.name),
  );
}
