'use client';
/** What a page asks of the server after it has come: kept by what was asked for, so that late answers are dropped. */
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { get } from './api';

/** The server refused, or could not be reached; the message says which, in words for whoever asked. */
export class Refused extends Error {}

/** For pages that ask. One client for each page and each visit: on the server nothing of one request meets the next. */
export function ServerData({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false } },
      }),
  );
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

/** What a path answers. Throws Refused. */
export async function answerOf<T>(path: string): Promise<{ status: number; body: T }> {
  const reply = await get<T>(path);
  if (!reply.ok) throw new Refused(reply.says);
  return reply;
}

/** What a path answers, under `data`; asked once more when `again` differs. No path, no question. */
export function useAnswer<T>(path: string | null, again: unknown = null) {
  return useQuery({
    queryKey: [path, again],
    queryFn: async () => (await answerOf<T>(path!)).body,
    enabled: path !== null,
    // Asked again, the last answer stays in view until the next has come.
    placeholderData: (before, of) => (of?.queryKey[0] === path ? before : undefined),
  });
}
