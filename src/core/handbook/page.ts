/** A page of the handbook: its text as Markdown, and the examples in it, which the tests run. */

import { fromMarkdown } from 'mdast-util-from-markdown';
import { toString } from 'mdast-util-to-string';

export interface Page {
  /** Such as `mistakes/label-for-key`. */
  id: string;
  group: string;
  title: string;
  markdown: string;
}

export interface Example {
  /** The form of the demo it is written for. */
  form: string;
  /** What it shows: code as it should be, or a fault. */
  sort: 'right' | 'wrong';
  code: string;
}

/** A page from a file that begins with its title. */
export function pageOf(id: string, group: string, text: string): Page {
  const [first] = fromMarkdown(text).children;
  return first?.type === 'heading' && first.depth === 1
    ? { id, group, title: toString(first), markdown: text.slice(endOf(first)).trimStart() }
    : { id, group, title: id, markdown: text };
}

/** The examples of a page: fenced blocks that say their form, as in `ts berth_visit` or `ts vessel wrong`. */
export function examplesIn(markdown: string): Example[] {
  return fromMarkdown(markdown).children.flatMap((node): Example[] => {
    if (node.type !== 'code' || node.lang !== 'ts' || !node.meta) return [];
    const [form, sort] = node.meta.split(' ');
    return [{ form: form!, sort: sort === 'wrong' ? 'wrong' : 'right', code: `${node.value}\n` }];
  });
}

/** The parts of a page by their headings of the second level, for searching. */
export function sectionsOfPage({
  id,
  title,
  markdown,
}: Page): { id: string; page: string; title: string; text: string }[] {
  const headings = fromMarkdown(markdown).children.filter(
    (node) => node.type === 'heading' && node.depth === 2,
  );
  const starts = headings.map((heading) => heading.position!.start.offset!);
  return [
    { title, text: markdown.slice(0, starts[0]) },
    ...headings.map((heading, i) => ({
      title: `${title}: ${toString(heading)}`,
      text: markdown.slice(endOf(heading), starts[i + 1]).trimStart(),
    })),
  ].map((part, i) => ({ id: `${id}#${i}`, page: id, ...part }));
}

type Node = ReturnType<typeof fromMarkdown>['children'][number];

function endOf(node: Node): number {
  return node.position!.end.offset!;
}
