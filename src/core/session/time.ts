/** Letting the session's clock move on; what becomes due on the way goes on in order, each as a settling of its own. */
import { SUBMIT_WAITS } from '../limits';
import { words } from '../wire/failures';
import type { Clock } from './clock';
import type { Pages } from './pages';
import type { Progress } from './progress';
import type { Settling } from './settling';
import type { Waiting } from './waiting';

export class Time {
  constructor(
    private readonly clock: Clock,
    private readonly waiting: Waiting,
    private readonly settling: Settling,
    private readonly progress: Progress,
    private readonly pages: Pages,
  ) {}

  /** `until` in milliseconds since 1970-01-01T00:00:00Z. The clock never goes back. */
  pass(until: number, cause: number | null): void {
    for (let call = this.waiting.next(until); call !== null; call = this.waiting.next(until)) {
      this.clock.now = Math.max(this.clock.now, call.due);
      this.progress.begin(false);
      this.settling.resume(call, cause);
      this.settling.settle(cause);
      this.pages.keep(cause);
    }
    this.clock.now = Math.max(this.clock.now, until);
  }

  /** Waits until no run is open. What it waited for in vain, or null when all have ended. */
  waitOut(cause: number | null): string | null {
    const until = this.clock.now + SUBMIT_WAITS;
    while (this.waiting.runs.length > 0) {
      const call = this.waiting.next(until);
      if (call === null)
        return words.waitedTooLong(
          [...new Set(this.waiting.calls.map(({ name }) => name))].join(' and '),
        );
      this.pass(call.due, cause);
    }
    return null;
  }
}
