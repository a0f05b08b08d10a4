/** Drawing a page in the workspace that its address names, also while the database is away. */
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { isUnreachable } from '@/server/database/database';
import { here } from '@/server/routes/page';
import { DatabaseAway } from '@/ui/database-away';

/** The response being made, whose status scripts/serve.mjs lets a page set; absent under another server. */
const answer = globalThis as { tavroAnswer?: { getStore(): { statusCode: number } | undefined } };

/** A page, or words that say that the database is out of reach, with status 503; the page then comes by itself. */
export async function drawn(work: () => Promise<ReactNode>): Promise<ReactNode> {
  try {
    return await here(work);
  } catch (caught) {
    if (!isUnreachable(caught)) throw caught;
    const made = answer.tavroAnswer?.getStore();
    if (made !== undefined) made.statusCode = 503;
    return <DatabaseAway />;
  }
}

/** The metadata of a page; a plain title while the database is out of reach. */
export async function titled(work: () => Promise<Metadata>): Promise<Metadata> {
  try {
    return await here(work);
  } catch (caught) {
    if (!isUnreachable(caught)) throw caught;
    return { title: 'The database is out of reach' };
  }
}
