/** Work of one sort spread over several engines, each of which takes the next piece when it is done with one. */
import { availableParallelism } from 'node:os';
import type { Engine } from '../core/sandbox/engine';

/** As many engines as there are cores, but no more than pieces. */
export function enginesFor(pieces: number): number {
  return Math.max(1, Math.min(availableParallelism(), pieces));
}

/** Results in the order of the pieces. The first error ends it: pieces that are under way are finished first. */
export async function spread<P, R>(
  engines: readonly Engine[],
  pieces: readonly P[],
  work: (engine: Engine, piece: P) => Promise<R>,
): Promise<R[]> {
  const results: R[] = [];
  let next = 0;
  await Promise.all(
    engines.map(async (engine) => {
      try {
        while (next < pieces.length) {
          const at = next++;
          results[at] = await work(engine, pieces[at]!);
        }
      } catch (caught) {
        // No further piece is begun.
        next = pieces.length;
        throw caught;
      }
    }),
  );
  return results;
}
