/** What a run reported in detail, in order. `site` numbers a place of a script (`script/sites.ts`). */
import type { Value } from '../form/value';
import type { Line } from '../wire/line';

/** A place: the script without its ending, and the number of the site within it. */
export interface SitePlace {
  script: string;
  site: number;
}

export type Detail =
  | ({ is: 'enter'; frame: number; values: readonly Value[] } & SitePlace)
  | { is: 'leave' | 'suspend'; frame: number }
  | { is: 'resume'; frame: number; value: Value }
  | ({ is: 'statement'; frame: number; values: readonly Value[] } & SitePlace)
  | ({ is: 'begin'; frame: number } & SitePlace)
  /** `turned` says that it was made to come out the other way round; `value` is what it had come to. */
  | ({ is: 'condition'; frame: number; value: Value; turned?: true } & SitePlace)
  | ({ is: 'switch' | 'operand'; frame: number; value: Value } & SitePlace)
  /** A value that was assigned, a condition or what was returned, by the number of its expression. */
  | { is: 'value'; script: string; line: number; expression: number; value: Value }
  | { is: 'read'; part: string; aspect: string; value: Value }
  | { is: 'said'; part: string; aspect: string; value: Value; withdrawn?: true; line: Line }
  | { is: 'asked'; what: string; value: Value }
  /** A handler stopped its event. */
  | { is: 'stopped'; part: string | null; says: string }
  /** An entry of the tape, by its number. */
  | { is: 'entry'; n: number };

/** A run in detail. */
export interface DetailedRun {
  /** The number of its entry on the tape. */
  entry: number;
  details: Detail[];
  /** There was more than is kept. */
  cut: boolean;
}
