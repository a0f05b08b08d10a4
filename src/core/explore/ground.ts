/** What a search goes over: a form with all that stands around it, and something that plays its sessions. */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Person, Table } from '../form/table';
import { listsChildren } from '../form/fields';
import { asParent, type FormRecords, type SampleRecord } from '../scenario/opening';
import type { Checkpoint } from '../session/checkpoint';
import type { Answer, Opening, Step } from '../session/step';
import type { Way } from './finding';

export type Parent = NonNullable<Opening['parent']>;

export interface Ground {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  people: readonly Person[];
  records: readonly SampleRecord[];
  /** Records of other forms that this one may be opened from. */
  parents: readonly Parent[];
  /** Milliseconds since 1970-01-01T00:00:00Z at which sessions begin. */
  clock: number;
  /** What people did in filling-ins, without its times: walks begin there too. None unless said. */
  done?: readonly Way[];
}

/** Plays one session at a time; its scripts are traced, so that each answer has its tape. */
export interface Stage {
  open(opening: Opening): Answer;
  do(step: Step): Answer;
  /** Keeps how the session stands; null where that cannot be kept, and every session is played from its opening. */
  checkpoint(): Checkpoint | null;
}

/** The records from which a form may be opened, by the lists of children that other forms have: of each the fullest and the emptiest. */
export function parentsOf(form: string, forms: readonly FormRecords[]): Parent[] {
  return forms
    .filter((other) => listsChildren(other.form, form))
    .flatMap(({ form: parent, records }) => {
      const filled = ({ values }: SampleRecord) =>
        Object.values(values).filter((value) => value !== null).length;
      const byFilled = records.toSorted((a, b) => filled(b) - filled(a));
      const chosen = new Set([byFilled[0], byFilled.at(-1)].flatMap((one) => one ?? []));
      return [...chosen].map((record) => asParent(parent, record));
    });
}
