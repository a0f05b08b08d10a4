/**
 * The kinds that hold one plain value each: of a table's columns, of what a service is given, and of launch parameters.
 * One entry of the table is one kind; a field of such a kind is a kind of its own (`traits.ts`). Without Zod, which pages
 * that pick a kind do not load.
 */
import { isDate } from './formats';
import { readTypedNumber, type NumberStyle } from './number-style';

export const SCALAR_KINDS = ['text', 'number', 'date', 'yes_no'] as const;
export type ScalarKind = (typeof SCALAR_KINDS)[number];

interface Scalar {
  /** As people pick it from a list. */
  readonly label: string;
  /** What it takes, in words for people who write scripts and addresses. */
  readonly takes: string;
  /** What it takes, in words for people who type it. */
  readonly typed: string;
  /** Its type in TypeScript. */
  readonly type: 'string' | 'number' | 'boolean';
  holds(value: unknown): boolean;
  /** Reads what somebody typed, which is not empty; undefined when it is none of the kind. */
  read(text: string, numbers: NumberStyle): string | number | boolean | undefined;
}

const ANSWERS: ReadonlyMap<string, boolean> = new Map([
  ['yes', true],
  ['true', true],
  ['no', false],
  ['false', false],
]);

export const SCALARS: Readonly<Record<ScalarKind, Scalar>> = {
  text: {
    label: 'text',
    takes: 'a text',
    typed: 'a text',
    type: 'string',
    holds: (value) => typeof value === 'string',
    read: (text) => text,
  },
  number: {
    label: 'number',
    takes: 'a finite number',
    typed: 'a number',
    type: 'number',
    holds: (value) => typeof value === 'number' && Number.isFinite(value),
    read: (text, numbers) => readTypedNumber(text, numbers) ?? undefined,
  },
  date: {
    label: 'date',
    takes: 'a date spelled YYYY-MM-DD',
    typed: 'a date spelled YYYY-MM-DD',
    type: 'string',
    holds: (value) => typeof value === 'string' && isDate(value),
    read: (text) => (isDate(text.trim()) ? text.trim() : undefined),
  },
  yes_no: {
    label: 'yes or no',
    takes: 'true or false',
    typed: 'yes or no',
    type: 'boolean',
    holds: (value) => typeof value === 'boolean',
    read: (text) => ANSWERS.get(text.trim().toLowerCase()),
  },
};

/** The kinds to pick one from. */
export const SCALAR_OPTIONS: readonly { key: ScalarKind; label: string }[] = SCALAR_KINDS.map(
  (key) => ({ key, label: SCALARS[key].label }),
);
