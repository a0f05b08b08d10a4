/** What sessions are made of: the form with all that stands around it, and what its scripts did when they were loaded. */
import type { Form } from '../form/definition';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import type { Failure } from '../wire/failures';
import type { CompiledScript, Tied } from './tie';

export interface Material {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  /** The compiled scripts of services, named `service.function`. */
  answering: readonly CompiledScript[];
  scripts: readonly CompiledScript[];
  /** The shared modules that scripts import from; each stands behind those that it imports itself. */
  modules: readonly CompiledScript[];
  traced: boolean;
  /** False where people fill in the form: invariants are for developers, and do not run there. */
  invariants?: boolean | undefined;
  /** The mutant that is switched on while the scripts are loaded, from 1 (`script/mutants.ts`). */
  mutant?: number | undefined;
}

/** What the scripts' top levels came to: the beginning of every session with them. */
export interface Loaded {
  tied: readonly Tied[];
  /** Behaviours that failed there are out for good. */
  failures: readonly Failure[];
}
