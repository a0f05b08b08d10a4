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
