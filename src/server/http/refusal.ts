/** An answer of its own, thrown out of a route's work: a status and words that say what to do. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    says: string,
    readonly headers: Record<string, string> = {},
  ) {
    super(says);
  }
}

/** What was asked was not done for want of time, which is nobody's fault: it can be asked again (503, RFC 9110, 15.6.4). */
export class CutShort extends Refusal {
  constructor(
    /** Seconds after which it is worth trying again. */
    readonly retryAfter = 10,
    says = 'The server is busy. Try again in a few seconds.',
  ) {
    super(503, says, { 'retry-after': String(retryAfter) });
  }
}
