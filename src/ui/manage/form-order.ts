/** The order and the search of the page of forms. */
import type { FormRow } from '@/core/workspace/overview';

export const COLUMNS = ['form', 'problems', 'scenarios', 'release', 'records', 'touched'] as const;
export type FormColumn = (typeof COLUMNS)[number];

export interface Order {
  by: FormColumn;
  backwards: boolean;
}

/** Columns in which what one looks for is the most or the latest. */
export function firstBackwards(column: FormColumn): boolean {
  return column !== 'form';
}

/** What is compared first; the title decides between equals. */
const RANKS: Readonly<Record<Exclude<FormColumn, 'form'>, (row: FormRow) => number | string>> = {
  problems: ({ check, found }) =>
    (check === null ? -1 : check.errors * 1000 + check.warnings) + (found?.wrong ?? 0) * 1000,
  scenarios: ({ run }) => (run === null ? -1 : run.failed),
  release: ({ release }) => release?.createdAt ?? '',
  records: ({ records }) => records.count + (records.more ? 1 : 0),
  touched: ({ touched }) => touched.at,
};

/** The forms that a search finds by title or technical name, in order. */
export function listed(forms: readonly FormRow[], search: string, order: Order): FormRow[] {
  const wanted = search.trim().toLowerCase();
  const found = forms.filter(
    ({ name, title }) => name.includes(wanted) || title.toLowerCase().includes(wanted),
  );
  const byTitle = (a: FormRow, b: FormRow) => a.title.localeCompare(b.title, 'en');
  const sign = order.backwards ? -1 : 1;
  if (order.by === 'form') return found.sort((a, b) => sign * byTitle(a, b));
  const rank = RANKS[order.by];
  return found.sort((a, b) => {
    const [x, y] = [rank(a), rank(b)];
    return x === y ? byTitle(a, b) : x < y ? -sign : sign;
  });
}
