/** What runs the guest: QuickJS (`quickjs.ts`), or in tests this engine itself over a plain buffer. */

/** What the session's end calls in the guest without arguments; all else stands in the cells. */
export const ENTRIES = [
  'surround',
  'load',
  'loadModule',
  'loadService',
  'answer',
  'run',
  'resume',
  'drop',
  'lost',
] as const;
export type GuestEntry = (typeof ENTRIES)[number];

export interface Machine {
  /** The memory both see; to be asked for again after each call, since the machine's memory may have moved. */
  readonly cells: Int32Array;
  readonly floats: Float64Array;
  /** Calls the guest. False when it was stopped in the middle: interrupted, or out of memory. Throws MachineDied. */
  call(entry: GuestEntry): boolean;
  /** The last call that was stopped was stopped for its time. */
  readonly wasInterrupted: boolean;
  putText(text: string): void;
  putLoose(place: number, text: string): void;
  /** The text that the guest wants to hand over. */
  given(): string;
  cut(texts: number, kept: number): void;
  /** Whether a text is spelled as a pattern says; null when the pattern had to be stopped. */
  fits(pattern: string, text: string): boolean | null;
  /** Whom the guest asks. It must not throw. */
  answerWith(ask: () => void): void;
}

/** The machine ended in the middle of a call; it must not be used again. */
export class MachineDied extends Error {}

/** There was no room, or no time, for a text that had to be handed over. The machine can go on once the run is over. */
export class OutOfRoom extends Error {}
