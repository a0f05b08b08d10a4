import { SEARCH_HITS } from '@/core/limits';
import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { searchScripts } from '@/server/content/search';

const Query = z.strictObject({
  wanted: z.string().min(1).max(200),
  pattern: z.literal('yes').optional(),
  exact: z.literal('yes').optional(),
});

/** Searches all scripts of the workspace. */
export async function GET(request: Request) {
  return answer(request, async () => {
    const { wanted, pattern, exact } = readQuery(request, Query);
    const hits = await searchScripts({
      wanted,
      pattern: pattern !== undefined,
      exact: exact !== undefined,
    });
    return Response.json({ hits, cut: hits.length === SEARCH_HITS });
  });
}
