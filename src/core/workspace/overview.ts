/** What a page of forms says about each form, and what changed since its newest release. */
import { counted } from '../counted';

/** What a release was made of, or what a form consists of now: the digest of each document by its kind and name. */
export type Parts = Readonly<Record<string, string>>;

/** Kinds of documents that a release is made of. */
export const RELEASED = ['form', 'behaviour', 'table', 'service', 'shared'] as const;
export type ReleasedKind = (typeof RELEASED)[number];

export function partKey(kind: ReleasedKind, name: string): string {
  return `${kind}/${name}`;
}

/** What differs from a release. Tables and services count only where the release uses them. */
export interface Changes {
  structure: boolean;
  /** Behaviours that were changed, added or removed, and what the form uses of the code that forms share. */
  behaviours: string[];
  tables: string[];
  services: string[];
}

export function changesBetween(released: Parts, now: Parts): Changes {
  const changed = (kind: ReleasedKind, names: Iterable<string>) =>
    [...new Set(names)].filter((name) => {
      const key = partKey(kind, name);
      return released[key] !== now[key];
    });
  const ofKind = (parts: Parts, kind: ReleasedKind) =>
    Object.keys(parts).flatMap((key) =>
      key.startsWith(`${kind}/`) ? [key.slice(kind.length + 1)] : [],
    );
  return {
    structure: changed('form', ofKind(released, 'form')).length > 0,
    behaviours: [
      ...changed('behaviour', [...ofKind(released, 'behaviour'), ...ofKind(now, 'behaviour')]),
      ...changed('shared', ofKind(released, 'shared')),
    ].sort(),
    tables: changed('table', ofKind(released, 'table')),
    services: changed('service', ofKind(released, 'service')),
  };
}

/** Records of a form, counted as far as a page of forms counts. */
export interface RecordsOfForm {
  name: string;
  title: string;
  records: { count: number; more: boolean };
  released: boolean;
}

export interface FormRow {
  name: string;
  title: string;
  revision: number;
  behaviours: number;
  scenarios: number;
  /** The outcome of the scenarios' last run; null when they never were. */
  run: {
    passed: number;
    failed: number;
    at: string;
    current: boolean;
    /** Statements that they reached when that was last measured, in percent; null where it never was. */
    coverage: number | null;
  } | null;
  /** What the last check found, apart from scenarios; null when there was none. */
  check: { errors: number; warnings: number; current: boolean } | null;
  /** How many faults the last search has found; null when there was none. */
  found: { wrong: number; current: boolean } | null;
  records: { count: number; more: boolean };
  /** `changes` is null for releases that did not keep what they were made of. */
  release: {
    number: number;
    createdAt: string;
    changes: Changes | null;
    /** How many differences for people the last comparison with it has found; null where there was none. */
    forPeople: { count: number; current: boolean } | null;
  } | null;
  /** When a document of the form was last saved, and by whom. */
  touched: { at: string; by: string | null };
}

export interface RemovedForm {
  name: string;
  title: string;
}

/** What changed since a release, in a few words; the empty text for nothing. */
export function changesInWords({ structure, behaviours, tables, services }: Changes): string {
  const some = (list: readonly string[], what: string) =>
    list.length === 0 ? [] : [counted(list.length, what)];
  const words = [
    ...(structure ? ['structure'] : []),
    ...some(behaviours, 'behaviour'),
    ...some(tables, 'table'),
    ...some(services, 'service'),
  ];
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
