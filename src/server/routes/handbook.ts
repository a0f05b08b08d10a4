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
  const pagesIn = (room: string, group: string) =>
    readdirSync(join(folder, room))
      .filter((name) => name.endsWith('.md'))
      .sort()
      .map((name) =>
        pageOf(`${room}/${name.replace(/\.md$/, '')}`, group, read(`${room}/${name}`)),
      );
  return [
    pageOf('language', 'Writing', read('scripts.md')),
    pageOf('editor', 'Writing', read('editor.md')),
    pageOf('debugging', 'Writing', read('debugging.md')),
    pageOf('testing', 'Writing', read('testing.md')),
    pageOf('invariants', 'Writing', read('invariants.md')),
    pageOf('semantics', 'Writing', read('semantics.md')),
    pageOf('finding', 'Writing', read('finding.md')),
    ...pagesIn('mistakes', 'Mistakes'),
    ...pagesIn('findings', 'Findings'),
    ...referencePages(),
  ];
}
