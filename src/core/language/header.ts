/**
 * The title and purpose of a behaviour, which stand in its leading doc comment: `/** Title: purpose. *\/`. The tag `@off`
 * there turns it off: it is kept and checked, and takes no part in the form.
 */

/** A source of a behaviour with the name of its file, such as `10-pilot.ts`. */
export interface Source {
  name: string;
  text: string;
}

export function baseName(file: string): string {
  return file.replace(/\.[jt]s$/, '');
}

export interface Header {
  title: string;
  purpose: string;
  /** From the number its file name begins with; behaviours without one come last, by name. */
  order: number | null;
  off: boolean;
}

/** Alone on its line, as tags stand. */
const OFF = /^[ \t]*@off[ \t]*$/m;

const LEADING_COMMENT = /^\s*\/\*\*([\s\S]*?)\*\//;

export function readHeader(source: Source): Header {
  const number = /^(\d+)-/.exec(source.name);
  const order = number === null ? null : Number(number[1]);
  const fallback = source.name
    .replace(/^\d+-/, '')
    .replace(/\.[jt]s$/, '')
    .replace(/[-_]/g, ' ');
  const comment = LEADING_COMMENT.exec(source.text);
  if (comment === null) return { title: fallback, purpose: '', order, off: false };
  const lines = comment[1]!.replace(/^[ \t]*\*[ \t]?/gm, '');
  const off = OFF.test(lines);
  const text = lines.replace(OFF, '').trim().replace(/\s+/g, ' ');
  const colon = text.indexOf(': ');
  if (colon > 0 && colon <= 60)
    return { title: text.slice(0, colon), purpose: text.slice(colon + 2), order, off };
  return { title: text.replace(/\.$/, '').slice(0, 60) || fallback, purpose: '', order, off };
}

/** The source with another header; what follows the header stays as it is. */
export function withHeader(
  { text }: Pick<Source, 'text'>,
  { title, purpose, off }: Pick<Header, 'title' | 'purpose' | 'off'>,
): string {
  const clean = (words: string) => words.replace(/\*\//g, '* /').replace(/\s+/g, ' ').trim();
  const line = purpose.trim() === '' ? clean(title) : `${clean(title)}: ${clean(purpose)}`;
  const header = off ? `/**\n * ${line}\n * @off\n */` : `/** ${line} */`;
  const comment = LEADING_COMMENT.exec(text);
  return comment === null
    ? `${header}\n\n${text.trimStart()}`
    : `${header}${text.slice(comment[0].length)}`;
}

/** The behaviours that take part in the form, in the order in which they run. */
export function takingPart<T extends Source>(sources: readonly T[]): T[] {
  return inOrder(sources).filter((source) => !readHeader(source).off);
}

/** The order in which behaviours run: by number, then by name, those without a number last. */
export function inOrder<T extends { name: string }>(sources: readonly T[]): T[] {
  const order = (source: T) => Number(/^(\d+)-/.exec(source.name)?.[1] ?? Infinity);
  return [...sources].sort(
    (a, b) => order(a) - order(b) || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0),
  );
}
