/** Where a session stands: how it was opened, on which record and page it is, what the person is doing. */
import type { Value } from '../form/value';
import type { Restore } from './checkpoint';
import type { Part } from './parts';
import type { Opening } from './step';

export class Situation {
  isNew = true;
  /** The id that a new record is saved under. */
  newId: string;
  /** The record that is open; null for a new entry that is not saved yet. */
  record: string | null = null;
  page: Part | null = null;
  focused: Part | null = null;
  /** What is typed and not yet committed. */
  typing: { part: Part; value: Value } | null = null;
  /** `submit` handlers are running or waited for. */
  submitting = false;

  constructor(
    /** How the session was opened. */
    readonly opening: Opening,
  ) {
    this.newId = opening.newId;
  }

  get viewing(): boolean {
    return this.opening.viewing === true;
  }

  checkpoint(): Restore {
    const { isNew, newId, record, page, focused, typing, submitting } = this;
    return () => {
      Object.assign(this, { isNew, newId, record, page, focused, typing, submitting });
    };
  }
}
