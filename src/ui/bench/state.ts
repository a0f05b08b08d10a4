/** What the bench knows: its material, the session that goes on, what is edited and what is looked at. */
import type { Difference } from '@/core/debugging/differences';
import type { Form } from '@/core/form/definition';
import type { Service } from '@/core/form/service';
import type { Person, Role, Table } from '@/core/form/table';
import type { PartFinding } from '@/core/language/mistakes/idle-part';
import type { Diagnostic } from '@/core/language/language-service';
import type { Open, Scenario } from '@/core/scenario/definition';
import type { Recording } from '@/core/scenario/recording';
import type { FormRecords, SampleRecord } from '@/core/scenario/opening';
import type { ScenarioResult } from '@/core/scenario/run-scenario';
import type { Answer, Step } from '@/core/session/step';
import type { CompiledScript } from '@/core/session/ties';
import type { Line } from '@/core/wire/line';
import type { OtherForm } from '@/core/structure/adding';
import type { PartName, PartSort } from '@/core/structure/edit';
import type { History } from '@/core/structure/history';
import type { Conflict } from '@/core/workspace/syncing';
import type { Saving } from '../draft/draft';

/** A live folder, as the server tells of it. */
export interface FolderState {
  folder: string;
  errors: string[];
  conflicts: Conflict[];
}

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
  /** The release whose code and definition stand on the bench, to be looked at alone; null for those of today. */
  release: number | null;
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

export interface Behaviour {
  name: string;
  text: string;
  revision: number;
  saving: Saving<string>;
  diagnostics: Diagnostic[];
  /** The last text that compiled, which is what runs. */
  running: CompiledScript | null;
  /** Why the text as it stands does not run. */
  broken: { says: string; line: Line | null } | null;
}

/** The structure of the form being edited. */
export interface Structure {
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
}

/** A part, or a key of its options, under its former and its present name. */
export interface Renamed {
  /** The part as it is called now. */
  part: PartName;
  isKey: boolean;
  from: string;
  to: string;
}

/** What a bench takes over from the one before it, whose material is out of date since something was renamed everywhere. */
export interface TakenOver {
  open: Open;
  steps: Step[];
  active: string;
  pane: BenchState['pane'];
  renamed: Renamed | null;
  /** What the bench before it has to say. */
  says?: string;
}

export interface BenchState {
  material: BenchMaterial;
  /** What stands between the outline and the live form. */
  pane: 'code' | 'structure' | 'map' | 'history' | 'tests';
  /** What stands to the right. */
  side: 'form' | 'handbook';
  /** The page and section of the handbook that is open. */
  handbook: string;
  structure: Structure;
  behaviours: Behaviour[];
  active: string;
  open: Open;
  steps: Step[];
  /** The opening's answer, then one for each step. */
  answers: Answer[];
  /** Which step is looked at; the last one while the form is in use. */
  at: number;
  listens: { input: string[]; focus: string[]; blur: string[] };
  /** What the last replay changed at the end; null where there is nothing to compare it with. */
  replayed: readonly Difference[] | null;
  busy: boolean;
  /** What the form runs in could not be loaded. */
  cannotStart: boolean;
  asked: { part: string; aspect: string | null } | null;
  names: boolean;
  scenarios: { name: string; scenario: Scenario; revision: number }[];
  results: ReadonlyMap<string, ScenarioResult>;
  runningScenarios: boolean;
  release: number | null;
  notice: { tone: 'info' | 'error'; text: string } | null;
  /** The editor goes to this place; counted, so that the same place can be gone to twice. */
  goTo: { behaviour: string; line: number; takesFocus: boolean; count: number } | null;
  /** Whether the language worker is ready and has looked at every behaviour once. */
  checked: boolean;
  /** Parts that wait for a script and have none. */
  idle: PartFinding[];
  /** Whether the title of a new behaviour is being asked for. */
  adding: boolean;
  /** A behaviour just deleted, which can be brought back. */
  deleted: { name: string; text: string } | null;
  /** What an earlier visit left unsaved: texts of behaviours by name, and a structure. */
  left: { at: number; behaviours: { name: string; text: string }[]; form: Form | null } | null;
  /** How the folder of the workspace stands; null where it has none. */
  folder: FolderState | null;
  /** Where a name is used, while that is shown. */
  uses: { of: string; places: UsePlace[] } | null;
}

/** A place that uses a name: a line of a behaviour, or a scenario. */
export type UsePlace =
  | { is: 'line'; form: string; behaviour: string; title: string; line: number; text: string }
  | { is: 'scenario'; form: string; name: string; title: string; steps: number[] };

/** What a link leads to on the bench: a line of a behaviour, a part of the structure, a scenario. */
export type BenchPlace =
  | { is: 'line'; behaviour: string; line: number }
  | { is: 'part'; part: string; /** Whether its label has the focus. */ atLabel?: boolean }
  | { is: 'scenario'; name: string }
  | null;

/** What the editor that is open can be told. */
export interface EditorHandle {
  insert(text: string): void;
  format(): void;
  define(): void;
  uses(): void;
  rename(): void;
  fix(): void;
}
