/** A page of the handbook: its text as Markdown, and the examples in it, which the tests run. */

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

/** A page from a file whose first line is its title. */
export function pageOf(id: string, group: string, text: string): Page {
  const title = /^# (.+)$/m.exec(text)?.[1] ?? id;
  return { id, group, title, markdown: text.replace(/^# .+\n+/, '') };
}

/** The examples of a page: fenced blocks that say their form, as in `ts berth_visit` or `ts vessel wrong`. */
export function examplesIn(markdown: string): Example[] {
  return [...markdown.matchAll(/^```ts (\w+)(?: (right|wrong))?\n([\s\S]*?)^```$/gm)].map(
    ([, form, sort, code]) => ({
      form: form!,
      sort: sort === 'wrong' ? 'wrong' : 'right',
      code: code!,
    }),
  );
}

/** The parts of a page by their headings, for searching. */
export function sectionsOfPage({
  id,
  title,
  markdown,
}: Page): { id: string; page: string; title: string; text: string }[] {
  return markdown.split(/^## /m).map((part, i) => {
    const [head, ...rest] = i === 0 ? [title, part] : part.split('\n');
    return {
      id: `${id}#${i}`,
      page: id,
      title: i === 0 ? title : `${title}: ${head!.trim()}`,
      text: rest.join('\n'),
    };
  });
}
