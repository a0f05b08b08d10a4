/** A comparison in a worker, whichever the host. */
import type { Compared } from '../core/compare/compare';
import type { Difference } from '../core/compare/difference';
import { CompareReplySchema, type CompareReply, type CompareRequest } from './compare-calls';
import { watchedWork, type WorkPort } from './watched';

export type CompareListener = (sessions: number, differences: readonly Difference[]) => void;

/** Runs one comparison and ends its worker. `stop` ends it early. Throws WorkFailed. */
export function watchedComparison(
  port: WorkPort<CompareRequest>,
  request: CompareRequest,
  progress?: CompareListener,
  stop?: AbortSignal,
): Promise<Compared> {
  return watchedWork<CompareRequest, CompareReply, Compared>(
    port,
    request,
    CompareReplySchema,
    (reply) => {
      if (reply.type === 'done') return reply.compared;
      progress?.(reply.sessions, reply.differences);
      return undefined;
    },
    stop,
  );
}
