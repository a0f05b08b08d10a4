/** Differences between the last release and the form as it is that somebody has accepted as meant. */
import { createHash } from 'node:crypto';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { Accepted, AcceptedBy } from '../../core/compare/accepted';
import { AcceptedSchema } from '../../core/compare/accepted-schema';
import { ACCEPTED_CHARACTERS, ACCEPTED_DIFFERENCES } from '../../core/limits';
import { existingForm } from '../content/forms';
import { database, type Transaction } from '../database/database';
import { acceptedDifference, formChanged } from '../database/schema';
import { Refusal } from '../http/refusal';

/** In the order in which they were accepted. Throws a Refusal where there is no such form. */
export async function acceptedOf(form: string): Promise<AcceptedBy[]> {
  await existingForm(form);
  const rows = await database()
    .select()
    .from(acceptedDifference)
    .where(eq(acceptedDifference.form, form))
    .orderBy(asc(acceptedDifference.at), asc(acceptedDifference.key));
  return rows.map(({ key, content, by, at }) => ({
    key,
    accepted: AcceptedSchema.parse(content),
    by,
    at: at.toISOString(),
  }));
}

/** Accepts a difference, once. Throws a Refusal (409) where there are too many. */
export async function accept(form: string, accepted: Accepted, by: string): Promise<AcceptedBy> {
  await existingForm(form);
  const { part, aspect, before, after, lines } = accepted;
  const told = JSON.stringify([part, aspect, before, after, lines.before, lines.after]);
  if (told.length > ACCEPTED_CHARACTERS)
    throw new Refusal(413, 'What differs is too large to be accepted. Keep it as a scenario.');
  const key = createHash('sha256').update(told).digest('hex');
  const [there] = await database()
    .select({ count: sql<number>`count(*)::int` })
    .from(acceptedDifference)
    .where(eq(acceptedDifference.form, form));
  if (there!.count >= ACCEPTED_DIFFERENCES)
    throw new Refusal(
      409,
      `${ACCEPTED_DIFFERENCES} differences are accepted already. Make a release first.`,
    );
  const at = new Date();
  await database()
    .insert(acceptedDifference)
    .values({ form, key, content: accepted, by, at })
    .onConflictDoNothing();
  await forgetCount(form);
  return { key, accepted, by, at: at.toISOString() };
}

/** Takes it back. Throws a Refusal (404) where nobody has accepted it. */
export async function takeBack(form: string, key: string): Promise<void> {
  const gone = await database()
    .delete(acceptedDifference)
    .where(and(eq(acceptedDifference.form, form), eq(acceptedDifference.key, key)))
    .returning({ key: acceptedDifference.key });
  if (gone.length === 0) throw new Refusal(404, 'Nobody has accepted that.');
  await forgetCount(form);
}

/** The next release has what was accepted. */
export async function forgetAccepted(form: string, within: Transaction): Promise<void> {
  await within.delete(acceptedDifference).where(eq(acceptedDifference.form, form));
}

/** How many are not accepted is not known until the form is compared again. */
async function forgetCount(form: string): Promise<void> {
  await database().delete(formChanged).where(eq(formChanged.form, form));
}
