/** A comparison beside a page. */
import type { Compared } from '../core/compare/compare';
import type { CompareRequest } from './compare-calls';
import { watchedComparison, type CompareListener } from './compare-watched';
import { portOfWorker } from './work-in-browser';

/** Compares two versions in a new worker. Throws WorkFailed, also when it is stopped. */
export function compareInWorker(
  request: CompareRequest,
  progress: CompareListener,
  stop: AbortSignal,
): Promise<Compared> {
  const worker = new Worker(new URL('./compare.worker.ts', import.meta.url), { type: 'module' });
  return watchedComparison(portOfWorker(worker), request, progress, stop);
}
