/** An answer of its own, thrown out of a route's work: a status and words that say what to do. */
export class Refusal extends Error {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  constructor(status: number, says: string, headers: Record<string, string> = {}) {
    super(says);
    this.status = status;
    this.headers = headers;
  }
}

/** What was asked was not done for want of time, which is nobody's fault: it can be asked again (503, RFC 9110, 15.6.4). */
export class CutShort extends Refusal {
  /** Seconds after which it is worth trying again. */
  readonly retryAfter: number;
  constructor(retryAfter = 10, says = 'The server is busy. Try again in a few seconds.') {
    super(503, says, { 'retry-after': String(retryAfter) });
    this.retryAfter = retryAfter;
  }
}
