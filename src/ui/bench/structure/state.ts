/** What is known while the structure of a form is edited. */
import type { Form } from '@/core/form/definition';
import type { PartName, PartSort } from '@/core/structure/edit';
import type { History } from '@/core/structure/history';
import type { Saving } from '../../draft/draft';
import type { Renamed } from '../common/material';

export interface StructureState {
  history: History<Form>;
  /** The part whose definition is shown; a cell as `rows.cell`. */
  selected: PartName | null;
  saving: Saving<Form>;
  /** Why the last edit could not be done. */
  says: string | null;
  /** Whether the label of the part that is shown has the focus from the start. */
  atLabel: boolean;
  /** What was renamed everywhere just now, which can be undone. */
  renamed: Renamed | null;
  /** What edits are made with has been loaded. */
  isReady: boolean;
}

/** What a renaming would change, or has changed. */
export interface Renaming {
  plan: {
    part: string;
    key: string | null;
    to: string;
    sort: PartSort;
    behaviours: {
      form: string;
      name: string;
      title: string;
      lines: { line: number; before: string; after: string }[];
    }[];
    mentions: { behaviour: string; line: number; text: string }[];
    forms: string[];
    scenarios: { name: string; title: string }[];
  };
  records: { count: number; more: boolean };
  applied: boolean;
}
