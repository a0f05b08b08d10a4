/** The handbook: the project's own docs, and the reference made from the typings. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pageOf, type Page } from '../../core/handbook/page';
import { referencePages } from '../../core/handbook/reference';

let kept: Page[] | null = null;

export function handbook(folder = join(process.cwd(), 'docs')): Page[] {
  kept ??= readHandbook(folder);
  return kept;
}

function readHandbook(folder: string): Page[] {
  const read = (name: string) => readFileSync(join(folder, name), 'utf8');
  const mistakes = readdirSync(join(folder, 'mistakes'))
    .filter((name) => name.endsWith('.md'))
    .sort();
  return [
    pageOf('language', 'Writing', read('scripts.md')),
    pageOf('editor', 'Writing', read('editor.md')),
    pageOf('debugging', 'Writing', read('debugging.md')),
    pageOf('testing', 'Writing', read('testing.md')),
    pageOf('semantics', 'Writing', read('semantics.md')),
    ...mistakes.map((name) =>
      pageOf(`mistakes/${name.replace(/\.md$/, '')}`, 'Mistakes', read(`mistakes/${name}`)),
    ),
    ...referencePages(),
  ];
}
