/**
 * What a mistake of the trade is: how it is looked for in a behaviour, what is said of it, and how it can be mended.
 * One file of this folder is one mistake; `index.ts` lists them. Each has a page of its code in docs/mistakes.
 */
import type ts from 'typescript-classic';
import type { Form } from '../../form/definition';
import type { Role, Table } from '../../form/table';
import type { Flow } from '../acts';
import type { KnownParts } from './known-parts';

export interface Edit {
  from: number;
  to: number;
  text: string;
}

export interface Fix {
  /** What it does, as a command: `Compare the key "own"`. */
  title: string;
  edits: Edit[];
}

export interface Finding {
  /** Offsets into the source. */
  from: number;
  to: number;
  says: string;
  fixes: Fix[];
}

/** A behaviour beside the one looked at. */
export interface Neighbour {
  name: string;
  title: string;
  flow: Flow;
}

export interface Subject {
  file: ts.SourceFile;
  flow: Flow;
  parts: KnownParts;
  /** The other behaviours of the form that are on, in their order. */
  others: readonly Neighbour[];
  /** What the compiler found in this file. */
  typeErrors: readonly { from: number; to: number; code: number; says: string }[];
}

export interface Mistake {
  /** Names its page in docs/mistakes. */
  code: string;
  title: string;
  severity: 'error' | 'warning';
  find(subject: Subject): Finding[];
}

/** What a form and its surroundings say of parts. */
export interface MistakeSetting {
  form: Form;
  tables: readonly Table[];
  roles: readonly Role[];
}

/** What a check finds; one that fails says so in the place of its findings, and takes nothing from the others. */
export function foundBy({ title, find }: Mistake, subject: Subject): Finding[] {
  try {
    return find(subject);
  } catch (caught) {
    const why = caught instanceof Error ? caught.message : String(caught);
    return [
      {
        from: 0,
        to: 0,
        says: `This script could not be checked for “${title}” (${why}). Everything else was checked.`,
        fixes: [],
      },
    ];
  }
}
