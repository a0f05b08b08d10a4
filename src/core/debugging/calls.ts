/** The calls of a tape on the session's clock: from when to when each was open, and what ended it. */
import type { Value } from '../form/value';
import type { Run, Tape } from '../tape/tape';

export interface CallSpan {
  /** The entry of the call. */
  entry: number;
  name: string;
  args: Value;
  /** Milliseconds on the session's clock; `to` is null while it waits. */
  from: number;
  to: number | null;
  how: 'answered' | 'failed' | 'superseded' | null;
}

export function callsOn(tape: Tape): CallSpan[] {
  const spans = new Map<number, CallSpan>();
  let clock = 0;
  for (const entry of tape.entries) {
    if (entry.type === 'opened' || entry.type === 'step') clock = entry.clock;
    if (entry.type === 'call')
      spans.set(entry.n, {
        entry: entry.n,
        name: entry.name,
        args: entry.args,
        from: clock,
        to: null,
        how: null,
      });
    if (entry.type === 'answered') {
      clock = Math.max(clock, Number.isFinite(entry.clock) ? entry.clock : clock);
      const span = entry.call === null ? undefined : spans.get(entry.call);
      if (span !== undefined)
        Object.assign(span, { to: clock, how: entry.fails === null ? 'answered' : 'failed' });
    }
    if (entry.type !== 'superseded') continue;
    for (const span of spans.values()) {
      const run = tape.causeOf(tape.entry(span.entry)!);
      if (
        span.to === null &&
        run?.type === 'run' &&
        (run as Run).behaviour === entry.behaviour &&
        (run as Run).line === entry.line
      )
        Object.assign(span, { to: clock, how: 'superseded' });
    }
  }
  return [...spans.values()];
}
