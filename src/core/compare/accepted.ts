/** Differences that somebody has accepted as meant: they are not listed again until the next release. */
import { equal, type Value } from '../form/value';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import { scriptAt, type At } from '../explore/finding';
import type { Difference } from './difference';

/** Characters of a line at most, and where they are cut. */
export const ACCEPTED_LINE = 400;

/** What differs, and the text of the line that decides it in either version: another line may have another cause. */
export interface Accepted {
  part: string;
  aspect: string;
  before: Value;
  after: Value;
  lines: { before: string | null; after: string | null };
}

/** One that was accepted, by whom. */
export interface AcceptedBy {
  /** By which it is taken back. */
  key: string;
  accepted: Accepted;
  by: string;
  at: string;
}

export interface SourcesOfBoth {
  before: readonly Source[];
  after: readonly Source[];
}

export function asAccepted(
  { part, aspect, before, after, lines }: Difference,
  sources: SourcesOfBoth,
): Accepted {
  return {
    part,
    aspect,
    before: (before ?? null) as Value,
    after: (after ?? null) as Value,
    lines: {
      before: lineOf(lines.before, sources.before),
      after: lineOf(lines.after, sources.after),
    },
  };
}

function lineOf(at: At | null, sources: readonly Source[]): string | null {
  if (at === null) return null;
  const { script, line } = scriptAt(at);
  const source = sources.find(({ name }) => baseName(name) === script);
  return source?.text.split('\n')[line - 1]?.trim().slice(0, ACCEPTED_LINE) ?? null;
}

/** By whom a difference was accepted; null where nobody did. */
export function acceptedBy(
  difference: Difference,
  all: readonly AcceptedBy[],
  sources: SourcesOfBoth,
): AcceptedBy | null {
  const one = asAccepted(difference, sources) as unknown as Value;
  return all.find(({ accepted }) => equal(accepted as unknown as Value, one)) ?? null;
}
