/**
 * Answers in the code: `// tavro: meant, not-back: the licence stays on file` on the line that a finding names, or on the
 * one above it, says that the finding is meant; several kinds stand with commas between them. An answer without a finding is reported, so that none outlives its reason.
 */
import * as z from 'zod';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';
import { KINDS, scriptAt, type At, type Finding, type Kind } from './finding';

export const MeantSchema = z.strictObject({
  behaviour: z.string(),
  /** 1-based, of the comment. */
  line: z.number(),
  /** As it is written, which may be no kind of finding. */
  kind: z.string(),
  reason: z.string(),
});
export type Meant = z.infer<typeof MeantSchema>;

const MEANT = /\/\/\s*tavro:\s*meant,\s*([a-z-]+(?:\s*,\s*[a-z-]+)*):\s*(\S.*)$/;

export function meantIn(sources: readonly Source[]): Meant[] {
  return sources.flatMap(({ name, text }) =>
    text.split('\n').flatMap((line, at) => {
      const found = MEANT.exec(line);
      if (found === null) return [];
      const [, kinds, reason] = found;
      return kinds!.split(',').map((kind) => ({
        behaviour: baseName(name),
        line: at + 1,
        kind: kind.trim(),
        reason: reason!.trim(),
      }));
    }),
  );
}

/** Whether an answer is to one that is listed, or that has the same cause as one. */
const isTrue = (answer: Meant, finding: Finding): boolean =>
  (answer.kind === finding.kind || finding.also.includes(answer.kind as Kind)) &&
  finding.lines.some((at) => isAt(answer, at));

/** At a line, or right above it. */
function isAt({ behaviour, line }: Meant, at: At): boolean {
  const place = scriptAt(at);
  return place.script === behaviour && (place.line === line || place.line === line + 1);
}

/** The answer to a finding, of its kind: that at its first line goes before those at its others. */
function answerTo(finding: Finding, all: readonly Meant[]): Meant | undefined {
  const ofKind = all.filter(({ kind }) => kind === finding.kind);
  return finding.lines.flatMap((at) => ofKind.find((one) => isAt(one, at)) ?? [])[0];
}

export interface Judged {
  /** What nobody has answered. */
  findings: Finding[];
  meant: { finding: Finding; reason: string }[];
  /** Answers to nothing that was found. */
  outdated: Meant[];
}

export function judged(findings: readonly Finding[], all: readonly Meant[]): Judged {
  return {
    findings: findings.filter((finding) => answerTo(finding, all) === undefined),
    meant: findings.flatMap((finding) => {
      const reason = answerTo(finding, all)?.reason;
      return reason === undefined ? [] : [{ finding, reason }];
    }),
    outdated: all.filter((one) => !findings.some((finding) => isTrue(one, finding))),
  };
}

/** What is to be said of an answer to nothing. */
export function outdatedInWords({ kind }: Meant): string {
  return KINDS.includes(kind as Kind)
    ? `nothing of the kind ${kind} is found here any more, so there is nothing to answer`
    : `there is no kind of finding called ${kind}`;
}
