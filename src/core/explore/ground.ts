/** What a search goes over: a form with all that stands around it, and something that plays its sessions. */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Person, Table } from '../form/table';
import type { SampleRecord } from '../scenario/opening';
import type { Answer, Opening, Step } from '../session/step';

export interface Ground {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  people: readonly Person[];
  records: readonly SampleRecord[];
  /** Milliseconds since 1970-01-01T00:00:00Z at which sessions begin. */
  clock: number;
}

/** A moment of a session to go on from. */
export interface Moment {
  /** Goes back to it, whatever has been opened and done since. */
  restore(): void;
  /** It is not gone back to any more. */
  release(): void;
}

/** Plays one session at a time; its scripts are traced, so that each answer has its tape. */
export interface Stage {
  open(opening: Opening): Answer;
  do(step: Step): Answer;
  /** Keeps how the session stands; null where that cannot be kept, and every session is played from its opening. */
  checkpoint(): Moment | null;
}
