/** Findings with the same cause are listed once, by the most telling of them. */
import { KINDS, type Finding } from './finding';
import { columnOf } from './part-names';

const rankOf = ({ kind }: Finding) => KINDS.indexOf(kind);

/** Wrong before may, the more telling kind first, then the shorter way. */
export function inOrderOfWeight(findings: readonly Finding[]): Finding[] {
  return findings.toSorted(
    (a, b) =>
      Number(b.level === 'wrong') - Number(a.level === 'wrong') ||
      rankOf(a) - rankOf(b) ||
      a.way.steps.length - b.way.steps.length,
  );
}

/** What findings with the same cause share: the aspect and the line that set it, or the handler and the steps that lead there. */
function causesFor({ level, kind, part, aspect, lines, way, other }: Finding): string[] {
  const last = lines.at(-1);
  if (last === undefined) return [`${level} ${part}.${aspect}`];
  return [
    `${level} ${columnOf(part)}.${aspect} ${last.behaviour}:${last.line}`,
    `${level} ${kind} ${last.behaviour}:${last.tie ?? last.line} ${JSON.stringify([way.steps, other?.steps])}`,
  ];
}

export function causesOf(findings: readonly Finding[]): Finding[] {
  const known = new Set<string>();
  return inOrderOfWeight(findings).filter((finding) => {
    const causes = causesFor(finding);
    const isNew = causes.every((cause) => !known.has(cause));
    for (const cause of causes) known.add(cause);
    return isNew;
  });
}
