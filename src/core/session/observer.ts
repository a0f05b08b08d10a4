/**
 * Whoever looks on while a session runs again (`sandbox/inspector.ts`): is told what is read, said and taped as it
 * happens, and changes nothing. Sessions that people fill in have none.
 */
import type { Value } from '../form/value';
import type { Entry } from './entries';
import type { Aspect } from './aspects';
import type { Line } from '../wire/line';
import type { Part } from './parts';

export interface Observer {
  /** A run, or one stretch of it, begins; its entry on the tape is the number. */
  begins(entry: number): void;
  ends(): void;
  read(aspect: Aspect, value: Value): void;
  /** Something was said; undefined takes back what was. */
  said(aspect: Aspect, value: Value | undefined, line: Line): void;
  /** Something was asked that is no aspect: who opened the form and how, a random number, the parent's values. */
  asked(what: string, value: unknown): void;
  /** An event was stopped, with a text on a part. */
  stopped(part: Part | null, says: string): void;
  taped(entry: Entry): void;
}
