/** Drawing a page in the workspace that its address names, also while the database is away. */
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { isUnreachable } from '@/server/database';
import { here } from '@/server/workspaces/page';
import { DatabaseAway } from '@/ui/database-away';

/** What scripts/serve.mjs lets be said of the answer that is being made; absent where another server runs the app. */
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

/** What the head of a page says; without a database that is nothing of its own. */
export async function titled(work: () => Promise<Metadata>): Promise<Metadata> {
  try {
    return await here(work);
  } catch (caught) {
    if (!isUnreachable(caught)) throw caught;
    return { title: 'The database is out of reach' };
  }
}
