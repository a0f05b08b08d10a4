/** What pages ask of the server, answered by hand. */
import { onTestFinished, vi } from 'vitest';
import type { Sent } from './bench';

/** Answers until the test is over, 200 unless said; gives what was asked. */
export function answering(
  answer: (sent: Sent) => { status?: number; body?: unknown } | Promise<{ body?: unknown }>,
): Sent[] {
  const all: Sent[] = [];
  onTestFinished(() => void vi.unstubAllGlobals());
  vi.stubGlobal(
    'fetch',
    async (path: string, { method = 'GET', body }: { method?: string; body?: string } = {}) => {
      const sent = {
        method,
        path,
        body: body === undefined ? null : (JSON.parse(body) as unknown),
      };
      all.push(sent);
      const { status = 200, body: answered } = { status: 200, ...(await answer(sent)) };
      return answered === undefined
        ? new Response(null, { status: status === 200 ? 204 : status })
        : Response.json(answered, { status });
    },
  );
  return all;
}
