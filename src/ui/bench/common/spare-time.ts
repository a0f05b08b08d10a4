/** Work that goes on beside the page: it gives way to whoever types or uses the form, and is done one piece at a time. */

/** Nobody has typed or used the form for so long, in milliseconds. */
const QUIET = 1200;

/** Whoever stopped it wants it stopped on the next bench too, until they ask for it again. */
const KEPT = 'tavro.search';

export class SpareTime {
  #cores = 1;
  #touchedAt = 0;
  #stop = new AbortController();
  #ended = false;
  #turn: Promise<unknown> = Promise.resolve();

  /** Tells what is under way to end, since it has to give way. */
  get signal(): AbortSignal {
    return this.#stop.signal;
  }

  /** The bench is gone. */
  get ended(): boolean {
    return this.#ended;
  }

  /** Once a page is there. */
  begin(): void {
    this.#cores = navigator.hardwareConcurrency || 2;
  }

  /** Things are done without being asked for: there is a core to spare, and nobody has stopped it. */
  get goesOn(): boolean {
    return this.#cores >= 2 && !isKeptStopped();
  }

  /** Stops it, on other benches too, or lets it go on. */
  keepStopped(stopped: boolean): void {
    try {
      if (stopped) localStorage.setItem(KEPT, 'stopped');
      else localStorage.removeItem(KEPT);
    } catch {
      // A browser that keeps nothing goes on by itself.
    }
  }

  /** Gives way to a person: what is under way ends at once and is begun again later. */
  giveWay(): void {
    this.#touchedAt = Date.now();
    this.#stop.abort();
    this.#stop = new AbortController();
  }

  /** Somebody asks for it now. */
  hurry(): void {
    this.#touchedAt = 0;
  }

  /** Comes back once nobody has touched anything for a while. */
  async quiet(): Promise<void> {
    while (!this.#isQuiet() && !this.#ended) await new Promise((done) => setTimeout(done, 150));
  }

  /** Does something once what others do is over. */
  inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.#turn.then(work);
    this.#turn = done.catch(() => undefined);
    return done;
  }

  end(): void {
    this.#ended = true;
    this.giveWay();
  }

  #isQuiet(): boolean {
    return Date.now() - this.#touchedAt >= QUIET && document.visibilityState === 'visible';
  }
}

function isKeptStopped(): boolean {
  try {
    return localStorage.getItem(KEPT) === 'stopped';
  } catch {
    return false;
  }
}
