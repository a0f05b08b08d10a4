import type { Mistake } from './mistake';
import { oneWay } from './one-way';

const MOST_LISTED = 6;

/** A column of a table compared with a text that none of its rows has. */
export const textOfNoRow: Mistake = {
  code: 'text-of-no-row',
  title: 'A text that no row of the table has',
  severity: 'warning',
  find: ({ parts, ...subject }) =>
    oneWay({ parts, ...subject }, 'table', ({ access, holds }) => {
      const column = access.spelled.slice('row.'.length);
      const texts = [...new Set(parts.column(access.part, column))].filter((one) => one !== null);
      const listed = texts.slice(0, MOST_LISTED).map((one) => JSON.stringify(one));
      if (texts.length > MOST_LISTED) listed.push(`${texts.length - MOST_LISTED} more`);
      return `${holds ? 'This always holds' : 'This never holds'}: in the rows that ${parts.called(access.part)} offers, ${column} is ${listed.length === 0 ? 'always empty' : listed.join(', ')}.`;
    }),
};
