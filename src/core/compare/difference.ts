/** What people meet otherwise in another version, in one and the same session. */
import type { Form } from '../form/definition';
import { equal, type Value } from '../form/value';
import { placesOf, type At, type Way } from '../explore/finding';
import { columnOf } from '../explore/part-names';
import type { Ran } from '../explore/play';
import { saidAbout } from '../explore/said';
import { differencesBetween, type Met } from '../explore/state';
import { partsSeen, type Seen } from '../scenario/seen';
import { renamedPart, type Renames } from '../scenario/renamed';

/** What people meet of the form beside its parts: messages, scripts that fail, the page, what became of submitting. */
export type MetBeside = 'messages' | 'failures' | 'page' | 'submit';

export const isBeside = (aspect: Met | MetBeside): aspect is MetBeside =>
  aspect === 'messages' || aspect === 'failures' || aspect === 'page' || aspect === 'submit';

export interface Difference {
  /** By the name of the later version; `@form` for the form itself. */
  part: string;
  aspect: Met | MetBeside;
  before: unknown;
  after: unknown;
  /** The session, in the names of the later version. */
  way: Way;
  /** The line that decides it, in either version; null where no line says anything of it. */
  lines: { before: At | null; after: At | null };
  /** The key of a difference that it follows from: the script that decides it had read that. */
  follows: string | null;
  /** Others of the same cause, which are not listed. */
  also: readonly { part: string; aspect: Difference['aspect'] }[];
}

/** A difference as it is found, without the way there. */
export type Differing = Pick<Difference, 'part' | 'aspect' | 'before' | 'after'>;

/** Cells of one column are one part. */
export const keyOf = ({ part, aspect }: Pick<Differing, 'part' | 'aspect'>): string =>
  `${columnOf(part)}.${aspect}`;

/** A session at its end, as people met it. */
export type Ended = Pick<Ran, 'parts' | 'seen' | 'messages' | 'failures'>;

/** What differs at the end of a session. `before` has the names of its own version. */
export function differing(before: Ended, after: Ended, form: Form, renames: Renames): Differing[] {
  const all = differingParts(before, after, form, renames);
  const beside = (aspect: MetBeside, was: unknown, is: unknown) => {
    if (!equal(was as Value, is as Value))
      all.push({ part: '@form', aspect, before: was, after: is });
  };
  beside('messages', before.messages, after.messages);
  beside('failures', failuresIn(before), failuresIn(after));
  beside('page', before.seen.page, after.seen.page);
  beside('submit', ...withoutCommon(submittedIn(before, renames), submittedIn(after, new Map())));
  return all;
}

type Standing = Pick<Ran, 'parts' | 'seen'>;

function differingParts(
  before: Standing,
  after: Standing,
  form: Form,
  renames: Renames,
): Differing[] {
  const renamed = Object.fromEntries(
    Object.entries(before.parts).map(([name, part]) => [renamedPart(name, renames), part]),
  );
  return differencesBetween(form, renamed, after.parts, before.seen, after.seen).map(
    ({ part, aspect, one, other }) => ({ part, aspect, before: one, after: other }),
  );
}

/** What differs of the parts where two versions stand side by side. `renames` leads from the former names to the later ones. */
export function differingNow(
  before: { form: Form; seen: Seen },
  after: { form: Form; seen: Seen },
  renames: Renames,
): Differing[] {
  const standing = ({ form, seen }: typeof before) => ({ parts: partsSeen(seen, form), seen });
  const all = differingParts(standing(before), standing(after), after.form, renames);
  const [was, is] = [before.seen.page, after.seen.page];
  return was === is ? all : [...all, { part: '@form', aspect: 'page', before: was, after: is }];
}

const failuresIn = ({ failures }: Ended) => failures.map(({ says }) => says);

/** What became of submitting: it was saved, or what stopped it; null where nothing was submitted. */
type Submitted = 'saved' | readonly Stop[] | null;

function submittedIn({ seen: { submit } }: Ended, renames: Renames): Submitted {
  if (submit === null) return null;
  if (submit.saved) return 'saved';
  return submit.stops.map(({ part, says }) => ({
    part: part === null ? null : renamedPart(part, renames),
    says,
  }));
}

/** Of two that were stopped, what stopped only one of them. */
function withoutCommon(was: Submitted, is: Submitted): [Submitted, Submitted] {
  if (!Array.isArray(was) || !Array.isArray(is)) return [was, is];
  const without = (some: readonly Stop[], others: readonly Stop[]) =>
    some.filter((stop) => !others.some((other) => equal(stop as never, other as never)));
  return [without(was, is), without(is, was)];
}

/** What became of submitting where it was stopped. */
export interface Stop {
  part: string | null;
  says: string;
}

/** The parts that submitting was stopped at, of what was met of it. */
export function stoppedAt(met: unknown): string[] {
  return Array.isArray(met) ? (met as readonly Stop[]).flatMap(({ part }) => part ?? []) : [];
}

/** The last word on what differs, in one version, whose names `part` and `form` have; null where no line says anything of it. */
export function decidingIn(
  { said, stopRuns, failures }: Ran,
  { part, aspect }: Pick<Differing, 'part' | 'aspect'>,
  form: Form,
): Decided | null {
  if (aspect === 'failures') {
    const failed = failures.at(-1);
    return failed === undefined
      ? null
      : { at: { behaviour: failed.behaviour, line: failed.line }, reads: [] };
  }
  if (aspect === 'submit') {
    const stop = stopRuns.at(-1);
    return stop === undefined
      ? null
      : { at: { behaviour: stop.behaviour, line: stop.lines.at(-1)?.[0] ?? stop.line }, reads: [] };
  }
  const last = saidAbout(said, part, aspect, form).at(-1);
  return last === undefined ? null : { at: placesOf([last])[0]!, reads: last.reads };
}

export interface Decided {
  at: At;
  /** What the run had read that said it, as `column.aspect`. */
  reads: readonly string[];
}
