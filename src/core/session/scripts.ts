/**
 * The scripts of a form, as a session needs them: whatever runs them (`sandbox/`) does what is said here, and asks back
 * through `Asked`. Nothing that comes from there is believed: a run's end is no more than its end, what it read and
 * said went through the session.
 */
import type { Fits } from '../form/kinds';
import type { Value } from '../form/value';
import type { FailureCode } from '../wire/failures';
import type { Event } from './progress';
import type { Row } from './rows';
import type { Desk } from './desk';
import type { Valued } from './entries';
import type { Line } from '../wire/line';

/** What a run is given: nothing for a rule, its row for a rule of rows, its event for a handler. */
export type Given =
  | { is: 'nothing' }
  | { is: 'row'; row: Row }
  | { is: 'event'; event: Event; /** Its number while it can be stopped, else 0. */ stops: number };

/** How a run, or a stretch of one, came back. */
export interface Ended {
  failure: { code: FailureCode; says: string } | null;
  /** It is an invariant, and says that it does not hold. */
  broken: boolean;
  /** It waits for a call, or for a promise of the script's own. */
  open: boolean;
  /** Where the script was last, 1-based. */
  line: Line;
  fuel: number;
  /** How often each line ran, as pairs of line and count, and the values met; null in an untraced run. */
  trace: {
    lines: [Line, number][];
    values: Valued[];
    cut: boolean;
  } | null;
}

export interface Scripts {
  /** Runs a tie. `run` is a number by which it is known while it waits. */
  run(tie: number, run: number, given: Given, desk: Desk): Ended;
  /** Goes on with a run after the call of this number has come to something. */
  resume(
    run: number,
    call: number,
    came: { ok: true; value: Value | undefined } | { ok: false; reason: string },
    desk: Desk,
  ): Ended;
  /** Nothing of this run goes on any more. */
  drop(run: number): void;
  /** Whether a text as a whole is spelled as a pattern says: run where it can be stopped, and null when it had to be. */
  fits: Fits;
  /** What the script of a service, `service.function`, answers; null when there is none. */
  answer(
    service: string,
    args: Value,
  ): { ok: true; value: Value } | { ok: false; line: Line } | null;
}
