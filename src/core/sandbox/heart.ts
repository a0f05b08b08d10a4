/** Signs of life, by which whoever started a worker knows that it is at work. */

/** Real milliseconds between two of them. */
const BEAT = 100;

/** Says from time to time that the machine is at work. */
export function heart(reply: (message: { type: 'alive' }) => void): () => void {
  let last = 0;
  return () => {
    const now = Date.now();
    if (now - last < BEAT) return;
    last = now;
    reply({ type: 'alive' });
  };
}
