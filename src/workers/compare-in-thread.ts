/** A comparison in a thread of its own. */
import type { Compared } from '../core/compare/compare';
import { CompareReplySchema, type CompareReply, type CompareRequest } from './compare-calls';
import { watchedWork } from './watched';
import { portOfThread } from './work-in-thread';

/** Compares two versions in a new thread. Throws WorkFailed. */
export function compareInThread(threadFile: string, request: CompareRequest): Promise<Compared> {
  return watchedWork<CompareRequest, CompareReply, Compared>(
    portOfThread(threadFile),
    request,
    CompareReplySchema,
    (reply) => (reply.type === 'done' ? reply.compared : undefined),
  );
}
