/** Work of one sort spread over several hosts, each of which takes the next piece when it is done with one. */

/** Results in the order of the pieces. The first error ends it: pieces that are under way are finished first. */
export async function spread<H, P, R>(
  hosts: readonly H[],
  pieces: readonly P[],
  work: (host: H, piece: P) => Promise<R>,
): Promise<R[]> {
  const results: R[] = [];
  let next = 0;
  await Promise.all(
    hosts.map(async (host) => {
      try {
        while (next < pieces.length) {
          const at = next++;
          results[at] = await work(host, pieces[at]!);
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
