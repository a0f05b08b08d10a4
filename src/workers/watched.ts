/** Long work in a worker, whichever the host: what it says on the way, and its end when a script keeps it busy. */
import type * as z from 'zod';
import { SEARCH_SILENCE } from '../core/limits';
import { TICK, WorkingTime } from '../core/sandbox/working-time';
import type { UsualReply } from './work-serve';

/** The work could not come to its end; the message says why, for people. */
export class WorkFailed extends Error {}

/** A worker that takes one request. */
export interface WorkPort<Request> {
  post(request: Request): void;
  onMessage(listener: (message: unknown) => void): void;
  /** Its code could not be loaded, or it is gone. */
  onLost(listener: (why: unknown) => void): void;
  /** Milliseconds of processor time that it has used; null where the host cannot tell. */
  used(): number | null;
  end(): void;
}

/**
 * Does one piece of work and ends its worker. `hear` is told everything else that it says, and gives what it came to, once it
 * is done. `stop` ends it early: then it is rejected with WorkFailed.
 */
export function watchedWork<Request, Reply extends { type: string }, Done>(
  port: WorkPort<Request>,
  request: Request,
  replies: z.ZodType<Reply | UsualReply>,
  hear: (reply: Exclude<Reply, UsualReply>) => Done | undefined,
  stop?: AbortSignal,
): Promise<Done> {
  const time = new WorkingTime(() => port.used());
  let heardAt = 0;
  let watch: ReturnType<typeof setInterval> | undefined;
  return new Promise<Done>((resolve, reject) => {
    const fail = (why: string) => reject(new WorkFailed(why));
    stop?.addEventListener('abort', () => fail('It was stopped.'));
    if (stop?.aborted) return fail('It was stopped.');
    watch = setInterval(() => {
      if (time.look() - heardAt > SEARCH_SILENCE)
        fail('A behaviour kept the machine busy for too long; tavro test says which one.');
    }, TICK);
    port.onLost((why) => fail(String(why)));
    port.onMessage((message) => {
      heardAt = time.look();
      const reply = replies.safeParse(message);
      if (!reply.success) return fail(`It replied what nobody asked: ${reply.error}`);
      const { data } = reply;
      if (data.type === 'alive') return;
      if (data.type === 'failed') return fail((data as { how: string }).how);
      const done = hear(data as Exclude<Reply, UsualReply>);
      if (done !== undefined) resolve(done);
    });
    port.post(request);
  }).finally(() => {
    clearInterval(watch);
    port.end();
  });
}
