/** Findings with the same cause are listed once, by the most telling of them. */
import { actOf, KINDS, lengthOf, placesOf, type Finding, type Way } from './finding';
import { columnOf } from './part-names';

const rankOf = ({ kind }: Finding) => KINDS.indexOf(kind);

/** Wrong before may, the more telling kind first, then the shorter way. */
export function inOrderOfWeight(findings: readonly Finding[]): Finding[] {
  return findings.toSorted(
    (a, b) =>
      Number(b.level === 'wrong') - Number(a.level === 'wrong') ||
      rankOf(a) - rankOf(b) ||
      lengthOf(a) - lengthOf(b),
  );
}

/** The last thing that is done, whatever value it enters. */
function lastAct(way: Way | null): string {
  const last = way?.steps.findLast((step) => !('wait' in step));
  return last === undefined ? '' : actOf(last);
}

/** Names of a finding's causes, of which findings with the same cause share one: the line that set the aspect, and the handler with the step that triggered it. */
function causesFor({ level, kind, part, aspect, lines, way, other }: Finding): string[] {
  const last = lines.at(-1);
  if (last === undefined) return [`${level} ${part}.${aspect}`];
  return [
    `${level} ${columnOf(part)}.${aspect} ${last.behaviour}:${last.line}`,
    `${level} ${kind} ${last.behaviour}:${last.tie ?? last.line} ${lastAct(way)} ${lastAct(other)}`,
  ];
}

export function causesOf(findings: readonly Finding[]): Finding[] {
  /** The finding that is listed for a cause. */
  const listed = new Map<string, Finding>();
  const all: Finding[] = [];
  for (const finding of inOrderOfWeight(findings)) {
    const causes = causesFor(finding);
    const known = causes.flatMap((cause) => listed.get(cause) ?? [])[0];
    if (known === undefined) {
      const made = { ...finding };
      all.push(made);
      for (const cause of causes) listed.set(cause, made);
      continue;
    }
    known.lines = placesOf([...known.lines, ...finding.lines]);
    known.also = [...new Set([...known.also, finding.kind, ...finding.also])].filter(
      (kind) => kind !== known.kind,
    );
    for (const cause of causes) if (!listed.has(cause)) listed.set(cause, known);
  }
  return all;
}
