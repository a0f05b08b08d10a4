/** What an engine throws when it was cut short by time or could not begin, and trying again. Apart from the engine, which pages load late. */

/**
 * A session did not come to its end in time: something asked on the way, or turned round, never ends, or the machine is
 * too busy. No script is to blame; it was not done and can be tried again.
 */
export class TookTooLong extends Error {
  constructor() {
    super('That took too long and was stopped.');
  }
}

/** A worker whose code cannot be loaded, as from a server that is out of reach. Asked again, the engine starts another. */
export class CannotStart extends Error {
  constructor(cause: unknown) {
    super('What the form runs in could not be loaded.', { cause });
  }
}

/** Pauses between tries of what was cut short by time, in milliseconds: a busy machine may be less busy then. */
export const PAUSES: readonly number[] = [1000, 4000, 15_000];

/** Does what an engine is asked, and again where it was cut short by time. Throws TookTooLong in the end. */
export async function untilDone<T>(work: () => Promise<T>, pauses = PAUSES): Promise<T> {
  for (const pause of pauses) {
    try {
      return await work();
    } catch (caught) {
      if (!(caught instanceof TookTooLong)) throw caught;
    }
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
  return work();
}

/** Whether a failure says nothing but that there was no time. */
export function wasCutShort(caught: unknown): boolean {
  return caught instanceof TookTooLong || caught instanceof CannotStart;
}
