/** The title and purpose of a behaviour, which stand in its leading doc comment: `/** Title: purpose. *\/`. */
import type { Source } from './compile';

export interface Header {
  title: string;
  purpose: string;
  /** From the number its file name begins with; behaviours without one come last, by name. */
  order: number | null;
}

const LEADING_COMMENT = /^\s*\/\*\*([\s\S]*?)\*\//;

export function readHeader(source: Pick<Source, 'name' | 'text'>): Header {
  const number = /^(\d+)-/.exec(source.name);
  const order = number === null ? null : Number(number[1]);
  const fallback = source.name.replace(/^\d+-/, '').replace(/\.[jt]s$/, '').replace(/[-_]/g, ' ');
  const comment = LEADING_COMMENT.exec(source.text);
  if (comment === null) return { title: fallback, purpose: '', order };
  const text = comment[1]!.replace(/^[ \t]*\*[ \t]?/gm, '').trim().replace(/\s+/g, ' ');
  const colon = text.indexOf(': ');
  if (colon > 0 && colon <= 60) return { title: text.slice(0, colon), purpose: text.slice(colon + 2), order };
  return { title: text.replace(/\.$/, '').slice(0, 60) || fallback, purpose: '', order };
}

/** The order in which behaviours run: by number, then by name, those without a number last (edges 14). */
export function inOrder<T extends { name: string }>(sources: readonly T[]): T[] {
  const order = (source: T) => Number(/^(\d+)-/.exec(source.name)?.[1] ?? Infinity);
  return [...sources].sort((a, b) => order(a) - order(b) || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
}
