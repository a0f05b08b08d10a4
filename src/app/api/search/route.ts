import * as z from 'zod';
import { MOST_HITS, searched } from '@/core/language/search';
import { answer, Refusal } from '@/server/request';
import { readScripts } from '@/server/store';

const Query = z.object({ wanted: z.string().min(1).max(200), pattern: z.literal('yes').optional(), exact: z.literal('yes').optional() });

/** Searches all scripts of the workspace. */
export async function GET(request: Request) {
  return answer(async () => {
    const query = Query.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!query.success) throw new Refusal(400, 'Say what to search for, in 200 characters at most.');
    const { wanted, pattern, exact } = query.data;
    try {
      const hits = searched(await readScripts(), { wanted, pattern: pattern !== undefined, exact: exact !== undefined });
      return Response.json({ hits, cut: hits.length === MOST_HITS });
    } catch (caught) {
      if (caught instanceof SyntaxError) throw new Refusal(400, `“${wanted}” is not a pattern: ${caught.message}`);
      throw caught;
    }
  });
}
