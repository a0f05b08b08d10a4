/**
 * The aspects that scripts say of parts, each as one entry. What they take, whom they are for, whether they stay, what
 * scenarios expect of them and how they are told in words derives from it. Nothing of Zod, since the machine reads it too,
 * and nothing of the wire's numbers, since pages load it; those are `slots.ts`.
 */
import type { Value } from '../form/value';
import type { PartSort } from './layout';

/** What scripts may say: one of these, read in `session/accepting.ts` and spelled in `scenario/definition.ts`. */
export type Takes =
  | 'value'
  | 'yes or no'
  | 'text or nothing'
  | 'text'
  | 'options'
  | 'stage'
  | 'message'
  | 'replacement';

/** What aspects ask of a definition; a row has none of its own. */
export interface Defined {
  hidden?: boolean | undefined;
  locked?: boolean | undefined;
  required?: boolean | undefined;
  label?: string | undefined;
  stage?: string | undefined;
  hint?: string | undefined;
  warning?: string | undefined;
}

interface AspectEntry {
  /** The sorts of parts that have it. */
  of: readonly PartSort[];
  takes: Takes;
  /** What holds while no script says anything; null for a value, which is the field's own. */
  base(definition: Defined): Value;
  /** It stays as it was said until somebody says otherwise; a value is a fact of its own, a message is said once. */
  stays: boolean;
  /** It is told as part of what a part is; of cells too where they differ from their definition. */
  told: boolean;
  /** A change of it is expected by scenarios that are recorded. */
  expected: boolean;
  /** What it became: the words for yes and for no, or a text named like the aspect. Else `tape/words.ts` says it. */
  became: { yes: string; no: string } | 'quoted' | 'special';
}

const nothing = () => null;

/** In the order in which they can be asked about. */
export const ASPECTS = {
  shown: {
    of: ['page', 'section', 'field', 'button', 'track', 'row'],
    takes: 'yes or no',
    base: ({ hidden }) => hidden !== true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: 'shown', no: 'hidden' },
  },
  value: {
    of: ['field'],
    takes: 'value',
    base: nothing,
    stays: false,
    told: true,
    expected: true,
    became: 'special',
  },
  required: {
    of: ['field'],
    takes: 'yes or no',
    base: ({ required }) => required === true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: 'required', no: 'not required' },
  },
  locked: {
    of: ['form', 'page', 'section', 'field', 'button', 'row'],
    takes: 'yes or no',
    base: ({ locked }) => locked === true,
    stays: true,
    told: true,
    expected: true,
    became: { yes: 'locked', no: 'unlocked' },
  },
  options: {
    of: ['field'],
    takes: 'options',
    base: nothing,
    stays: true,
    told: true,
    expected: true,
    became: 'special',
  },
  hint: {
    of: ['field'],
    takes: 'text or nothing',
    base: ({ hint }) => hint ?? null,
    stays: true,
    told: true,
    expected: true,
    became: 'quoted',
  },
  warning: {
    of: ['field', 'row'],
    takes: 'text or nothing',
    base: ({ warning }) => warning ?? null,
    stays: true,
    told: true,
    expected: true,
    became: 'quoted',
  },
  problem: {
    of: ['field', 'row'],
    takes: 'text or nothing',
    base: nothing,
    stays: true,
    told: true,
    expected: true,
    became: 'quoted',
  },
  label: {
    of: ['button'],
    takes: 'text',
    base: ({ label }) => label!,
    stays: true,
    told: true,
    expected: true,
    became: 'quoted',
  },
  stage: {
    of: ['track'],
    takes: 'stage',
    base: ({ stage }) => stage ?? null,
    stays: true,
    told: true,
    expected: true,
    became: 'quoted',
  },
  message: {
    of: ['form'],
    takes: 'message',
    base: nothing,
    stays: false,
    told: false,
    expected: false,
    became: 'quoted',
  },
  replaced: {
    of: ['form'],
    takes: 'replacement',
    base: nothing,
    stays: false,
    told: false,
    expected: false,
    became: 'special',
  },
} as const satisfies Record<string, AspectEntry>;

/** An aspect that can be said of a part. */
export type SaidName = keyof typeof ASPECTS;

/** Those that are told of a part. */
export type ToldName = {
  [A in SaidName]: (typeof ASPECTS)[A]['told'] extends true ? A : never;
}[SaidName];

export const SAID = Object.keys(ASPECTS) as SaidName[];

export const entryOf = (name: SaidName): AspectEntry => ASPECTS[name];

export const isSaid = (name: string): name is SaidName => Object.hasOwn(ASPECTS, name);

export const isToldName = (name: SaidName): name is ToldName => entryOf(name).told;

/** The aspects of a sort of part. */
export const saidOf = (sort: PartSort): SaidName[] =>
  SAID.filter((name) => entryOf(name).of.includes(sort));

/** What holds of a part of a sort while nothing is said. */
export function basesBy(sort: PartSort, definition: Defined): Record<string, Value> {
  return Object.fromEntries(saidOf(sort).map((name) => [name, entryOf(name).base(definition)]));
}
