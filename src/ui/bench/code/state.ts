/** What is known of the code on the bench: texts, what is wrong with them, and the place that is looked at. */
import type { PartFinding } from '@/core/language/mistakes/idle-part';
import type { Diagnostic } from '@/core/language/answers';
import type { CompiledScript } from '@/core/session/tie';
import type { Line } from '@/core/wire/line';
import type { Saving } from '../../draft/draft';

export interface Behaviour {
  name: string;
  text: string;
  revision: number;
  saving: Saving<string>;
  diagnostics: Diagnostic[];
  /** The last text that compiled, which is what runs. */
  running: CompiledScript | null;
  /** Why the text as it is now does not run. */
  broken: { says: string; line: Line | null } | null;
}

export interface CodeState {
  behaviours: Behaviour[];
  /** The behaviour that is open, by name; empty where there is none. */
  active: string;
  /** The editor goes to this place; counted, so that the same place can be gone to twice. */
  goTo: { behaviour: string; line: number; takesFocus: boolean; count: number } | null;
  /** Whether the language worker is ready and has looked at every behaviour once. */
  checked: boolean;
  /** Parts that wait for a script and have none. */
  idle: PartFinding[];
  /** Where a name is used, while that is shown. */
  uses: { of: string; places: UsePlace[] } | null;
}

/** A place that uses a name: a line of a behaviour, or a scenario. */
export type UsePlace =
  | { is: 'line'; form: string; behaviour: string; title: string; line: number; text: string }
  | { is: 'scenario'; form: string; name: string; title: string; steps: number[] };

/** What the editor that is open can be told. */
export interface EditorHandle {
  insert(text: string): void;
  format(): void;
  define(): void;
  uses(): void;
  rename(): void;
  fix(): void;
}
