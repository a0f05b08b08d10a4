/** Former versions of a form, to be used beside the form as it is. */
import * as z from 'zod';

/** Which one: `release-3`, or `at-` and the moment as of which everything is taken. */
export const VersionName = z
  .string()
  .max(60)
  .transform((name, context): WhichVersion => {
    const number = /^release-([1-9]\d{0,8})$/.exec(name)?.[1];
    if (number !== undefined) return { release: Number(number) };
    const moment = name.startsWith('at-') ? z.iso.datetime().safeParse(name.slice(3)) : null;
    if (moment?.success === true) return { at: moment.data };
    context.addIssue({ code: 'custom', message: 'is no version, such as release-3' });
    return z.NEVER;
  });
export type WhichVersion = { release: number } | { at: string };

/** What there is to compare with, the newest first. */
export interface FormVersions {
  releases: {
    number: number;
    at: string;
    by: string | null;
    /** Why it was made although something failed, or why an earlier one was put back. */
    reason: string | null;
    /** The earlier release that it puts back. */
    again: number | null;
  }[];
  /** Something that the form runs with was saved. */
  revisions: { at: string; kind: string; name: string; by: string | null }[];
  /** When all scenarios passed last; null where they never did. */
  right: string | null;
}
