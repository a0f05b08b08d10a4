/**
 * The processor time of a thread, as Linux tells it (proc(5): /proc/thread-self, /proc/PID/task/TID/stat, fields 14 and
 * 15). Node.js tells that of another thread only from version 24 on.
 */
import { readFileSync, readlinkSync } from 'node:fs';
import * as z from 'zod';

/** Milliseconds of a clock tick, in which those fields count: USER_HZ is 100 on all of Linux (time(7)). */
const CLOCK_TICK = 10;

/** What a thread says of itself as soon as it is there. */
export const ThreadSchema = z.object({ thread: z.int().positive() });

/** What a thread says when it takes up a task; its number is null where the system does not tell. */
export const BegunSchema = ThreadSchema.extend({ thread: ThreadSchema.shape.thread.nullable() });

/** The system's number of the thread that asks; null on systems that do not tell. */
export function threadNumber(): number | null {
  try {
    const number = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    return Number.isInteger(number) && number > 0 ? number : null;
  } catch {
    return null;
  }
}

/** Milliseconds of processor time that a thread of this process has used; null where that is not known, or it has ended. */
export function threadTime(thread: number): number | null {
  try {
    const stat = readFileSync(`/proc/self/task/${thread}/stat`, 'latin1');
    // The second field, a name in parentheses, may hold anything.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const ticks = Number(fields[11]) + Number(fields[12]);
    return Number.isFinite(ticks) ? ticks * CLOCK_TICK : null;
  } catch {
    return null;
  }
}
