import * as z from 'zod';
import { Name } from '@/core/form/definition';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { beginSearch, lastSearch } from '@/server/searches/searches';

/** How far the last search for faults is; null where there was none. */
export async function GET(request: Request) {
  return answer(request, async () => Response.json(await lastSearch()));
}

const Body = z.strictObject({
  /** All where none is named. */
  forms: z.array(Name).min(1).max(1000).optional(),
  depth: z.enum(['quick', 'deep']),
  /** Whether to look for faults, or for what has changed for people since each form's last release. */
  what: z.enum(['faults', 'changes']).default('faults'),
});

/** Begins a search of forms; the former one ends. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { forms, depth, what } = await readBody(request, Body);
    const id = await beginSearch(forms ?? null, depth, (await currentPerson()).key, what);
    return Response.json({ id }, { status: 202 });
  });
}
