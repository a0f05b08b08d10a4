import { callsOf, isDateOfField } from './dates';
import { Kinds } from './kinds-of';
import type { Mistake } from './mistake';

/** What reads the same of a plain date, where there is something. */
const OF_PLAIN_DATE: Record<string, string> = {
  getDate: 'day',
  getFullYear: 'year',
};

/** A day without a time of day read as a moment: west of Greenwich it is the day before. */
export const localDay: Mistake = {
  code: 'local-day',
  title: 'A day that is another one west of Greenwich',
  severity: 'error',
  find: ({ flow, parts, file }) =>
    flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, parts);
      return callsOf(block, /^get(?:Date|Day|Month|FullYear|Hours)$/).flatMap(
        ({ call, name, on }) => {
          if (!isDateOfField(on, kinds, block, parts)) return [];
          const made = kinds.behind(on).getText(file);
          const member = OF_PLAIN_DATE[name];
          const date = made.slice(made.indexOf('(') + 1, -1);
          const text = `Temporal.PlainDate.from(${date}).${member}`;
          const [from, to] = [call.getStart(file), call.getEnd()];
          return [
            {
              from,
              to,
              says: `${made} is midnight UTC, and ${name}() reads it in the local time zone: west of Greenwich that is the day before. A date has no time, so ask Temporal.PlainDate.`,
              fixes:
                member === undefined
                  ? []
                  : [{ title: `Write ${text}`, edits: [{ from, to, text }] }],
            },
          ];
        },
      );
    }),
};
