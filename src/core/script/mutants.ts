/** Small changes that make a script wrong, each of which its scenarios should notice. Made by `language/mutating.ts`. */

export type MutantKind =
  | 'condition'
  | 'connective'
  | 'boundary'
  | 'key'
  | 'effect'
  | 'else'
  | 'trigger'
  | 'handler'
  | 'load'
  | 'previous'
  | 'return';

/** What each kind of change is, in words. */
export const MUTANT_KINDS: Readonly<Record<MutantKind, string>> = {
  condition: 'a condition turned round',
  connective: 'and for or, or the other way round',
  boundary: 'a boundary moved',
  key: 'a key swapped for another of the field',
  effect: 'an effect dropped',
  else: 'an else dropped',
  trigger: 'a trigger dropped',
  handler: 'a handler or rule dropped',
  load: 'a load handler dropped',
  previous: 'the previous value in place of the new one',
  return: 'an early return dropped',
};

export interface Mutant {
  /** From 1, over all scripts of a form. */
  number: number;
  kind: MutantKind;
  /** The script without its ending. */
  script: string;
  /** 1-based. */
  line: number;
  /** The source that changes, and what it becomes, cut to 80 characters; nothing where it is dropped. */
  before: string;
  after: string | null;
  /** It changes what happens when the script is loaded, so the script has to be loaded with it. */
  atLoad: boolean;
}

/** The change in a sentence. */
export function mutantInWords({ kind, before, after }: Mutant): string {
  const dropped =
    after === null ? `without \`${before}\`` : `\`${after}\` in place of \`${before}\``;
  return `${MUTANT_KINDS[kind]}: ${dropped}`;
}
