/**
 * What scripts ask of a session besides reading and saying aspects. Rare, so each is a name and plain JSON one way and
 * plain JSON back. The session's end reads them with the schemas of `sandbox/acts.ts`.
 */
import type { Value } from '../form/value';
import type { EventType, PartSort, RuleSort } from './layout';

/** Parts, rows and columns are named by their numbers. */
export interface Acts {
  tie: {
    asked: {
      event: EventType;
      to: (number | [number, string])[];
      tie: number;
      line: number;
      overlap: 'supersede' | 'all';
    };
    answer: null;
  };
  untie: { asked: { tie: number }; answer: null };
  /** A rule or an invariant; `field` is the rows field for each of whose rows it holds. */
  keep: {
    asked: {
      sort: RuleSort;
      tie: number;
      title: string;
      line: number;
      field: number | null;
    };
    answer: null;
  };
  /** The rows of a field in order: number and id, one after the other. */
  rows: { asked: { field: number }; answer: number[] };
  addRow: { asked: { field: number; values: Value }; answer: [number, number] };
  removeRow: { asked: { field: number; row: number }; answer: null };
  /** The number of the call. */
  call: { asked: { service: string; function: string; args: Value }; answer: number };
  after: { asked: { milliseconds: number }; answer: number };
  parent: { asked: null; answer: boolean };
  parentGet: { asked: { name: string }; answer: Value };
  parentSet: { asked: { name: string; to: Value }; answer: number };
  message: { asked: { text: string; tone: 'info' | 'warning' | 'error' }; answer: null };
  clear: { asked: null; answer: null };
  reset: { asked: null; answer: null };
  submit: { asked: null; answer: null };
  openPage: { asked: { page: number }; answer: null };
  log: { asked: { values: Value[] }; answer: null };
  /** Stops the event of this number, with a message on a part. */
  stop: { asked: { event: number; says: string; part: number | null }; answer: null };
  /** The wall clock of a time zone (an IANA name) at an instant: year, month, day, hour, minute, second. */
  zone: { asked: { zone: string; at: number }; answer: number[] };
}

export type ActName = keyof Acts;
export type AskedOf<A extends ActName> = Acts[A]['asked'];
export type AnswerTo<A extends ActName> = Acts[A]['answer'];

/** A part as its face needs it. */
export interface PartInfo {
  sort: PartSort;
  name: string;
  label: string;
  /** Of a field. */
  kind: string | null;
  /** The table of a reference. */
  table: string | null;
  /** The columns of a rows field. */
  columns: PartInfo[] | null;
}

/** What the scripts of a form can touch. Parts are numbered in this order, the form itself first. */
export interface GuestMaterial {
  parts: PartInfo[];
  tables: {
    name: string;
    key: string;
    rows: Readonly<Record<string, string | number | boolean | null>>[];
  }[];
  services: { name: string; functions: string[] }[];
}
