/** A comparison in a thread of its own. */
import type { Compared } from '../core/compare/compare';
import type { CompareRequest } from './compare-calls';
import { watchedComparison } from './compare-watched';
import { portOfThread } from './work-in-thread';

/** Compares two versions in a new thread. Throws WorkFailed. */
export function compareInThread(threadFile: string, request: CompareRequest): Promise<Compared> {
  return watchedComparison(portOfThread(threadFile), request);
}
