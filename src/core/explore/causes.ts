/** Findings with the same cause are listed once, by the most telling of them. */
import { KINDS, lengthOf, type At, type Finding, type Way } from './finding';
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

/** Places of a finding at most. */
const LINES = 8;

/** The last thing that is done, whatever value it enters. */
function lastAct(way: Way | null): string {
  const last = way?.steps.findLast((step) => !('wait' in step));
  return last === undefined ? '' : 'set' in last ? last.set : JSON.stringify(last);
}

/** What findings with the same cause share: the aspect and the line that set it, or the handler and what set it off. */
function causesFor({ level, kind, part, aspect, lines, way, other }: Finding): string[] {
  const last = lines.at(-1);
  if (last === undefined) return [`${level} ${part}.${aspect}`];
  return [
    `${level} ${columnOf(part)}.${aspect} ${last.behaviour}:${last.line}`,
    `${level} ${kind} ${last.behaviour}:${last.tie ?? last.line} ${lastAct(way)} ${lastAct(other)}`,
  ];
}

/** Those of one finding, then what another one adds. */
export function placesIn({ lines }: Finding, other: Pick<Finding, 'lines'>): At[] {
  const isKnown = ({ behaviour, line }: At) =>
    lines.some((at) => at.behaviour === behaviour && at.line === line);
  return [...lines, ...other.lines.filter((at) => !isKnown(at))].slice(0, LINES);
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
    known.lines = placesIn(known, finding);
    known.also = [...new Set([...known.also, finding.kind, ...finding.also])].filter(
      (kind) => kind !== known.kind,
    );
    for (const cause of causes) if (!listed.has(cause)) listed.set(cause, known);
  }
  return all;
}
