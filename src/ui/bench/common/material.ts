/** What a bench is opened with, and what it takes over from the one before it. */
import type { Finding } from '@/core/explore/finding';
import type { Form } from '@/core/form/definition';
import type { Service } from '@/core/form/service';
import type { Person, Role, Table } from '@/core/form/table';
import type { Open, Scenario } from '@/core/scenario/definition';
import type { Recording } from '@/core/scenario/recording';
import type { FormRecords, SampleRecord } from '@/core/scenario/opening';
import type { TimedStep } from '@/core/session/step';
import type { CompiledScript } from '@/core/session/tie';
import type { PartName } from '@/core/structure/edit';
import type { OtherForm } from '@/core/structure/adding';
import type { ScreenState } from './screen';

export interface BenchMaterial {
  title: string;
  form: Form;
  /** Of the form's definition. */
  revision: number;
  tables: Table[];
  services: Service[];
  /** Other forms with their records, as parents to open this one from. */
  forms: FormRecords[];
  /** The other forms of the workspace with their fields, for lists of their records. */
  others: OtherForm[];
  people: Person[];
  roles: Role[];
  records: SampleRecord[];
  /** With each script as compiled by the server, so that the form opens before the language worker is ready. */
  behaviours: { name: string; text: string; revision: number; compiled: CompiledScript }[];
  answering: CompiledScript[];
  scenarios: { name: string; scenario: Scenario; revision: number }[];
  /** What a search on the server has found in the form as it is. */
  found: Finding[];
  release: number | null;
  /** Whether the workspace is kept the same as a folder, which can change at any moment. */
  live: boolean;
  /** What is played at first; null for a form that is only opened. */
  recording: OpenedRecording | null;
}

/** A recording that the bench plays. */
export interface OpenedRecording {
  id: number;
  content: Recording;
  /** The release whose code and definition are on the bench, to be looked at alone; null for those of today. */
  release: number | null;
}

/** A part, or a key of its options, under its former and its present name. */
export interface Renamed {
  /** The part as it is called now. */
  part: PartName;
  isKey: boolean;
  from: string;
  to: string;
}

/** What a bench takes over from the one before it, whose material is out of date. */
export interface TakenOver {
  open: Open;
  steps: readonly TimedStep[];
  active: string;
  pane: ScreenState['pane'];
  renamed: Renamed | null;
  /** What the bench before it has to say. */
  says?: string;
}

/** What a link leads to on the bench: a line of a behaviour, a part of the structure, a scenario. */
export type BenchPlace =
  | { is: 'line'; behaviour: string; line: number }
  | { is: 'part'; part: string; /** Whether its label has the focus. */ atLabel?: boolean }
  | { is: 'scenario'; name: string }
  /** Something that a search has found, by its name; null for all of it. */
  | { is: 'finding'; key: string | null }
  /** What changed for people. */
  | { is: 'changes' }
  | null;
