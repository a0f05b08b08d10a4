/** The worker's half of one piece of work: its request is read, it says that it is alive, how far it is, and why it failed. */
import * as z from 'zod';
import { heart } from '../core/sandbox/heart';

/** What every such worker says besides its own. */
export const USUAL_REPLIES = [
  z.strictObject({ type: z.literal('alive') }),
  z.strictObject({ type: z.literal('failed'), how: z.string() }),
] as const;
export type UsualReply = z.infer<(typeof USUAL_REPLIES)[number]>;

/** Milliseconds between two words about how far the work is. */
const PROGRESS_EACH = 250;

export function serveWork<S extends z.ZodType>(
  requests: S,
  reply: (message: UsualReply) => void,
  work: (request: z.output<S>, alive: () => void) => Promise<void>,
): (message: unknown) => Promise<void> {
  return async (message) => {
    const parsed = requests.safeParse(message);
    if (!parsed.success) {
      reply({ type: 'failed', how: `not a request: ${parsed.error.message}` });
      return;
    }
    const alive = heart(reply);
    try {
      await work(parsed.data, alive);
    } catch (caught) {
      reply({ type: 'failed', how: String(caught) });
    }
  };
}

/** Tells how far the work is, but not more often than somebody reads it; gives whether there is time left. */
export function tellingUntil(until: number | null): (tell: () => void) => boolean {
  let toldAt = Date.now();
  return (tell) => {
    const now = Date.now();
    if (now - toldAt > PROGRESS_EACH) {
      toldAt = now;
      tell();
    }
    return until === null || now < until;
  };
}
