/** How `tavro find` prints: for people, as JSON, as SARIF 2.1.0 (OASIS, 27 March 2020), as JUnit XML. */
import type { Log, Result } from 'sarif';
import { KIND_LABELS } from '../core/explore/words';
import type { Finding, Kind, Way } from '../core/explore/finding';
import { outdatedInWords, type Judged, type Meant } from '../core/explore/meant';
import { onOneLine } from './print';
import { xml } from './reporters';

export interface FoundInForm extends Pick<Judged, 'meant' | 'outdated'> {
  form: string;
  /** Findings without an answer in the code. */
  findings: readonly Finding[];
  sessions: number;
  steps: number;
  seeds: number;
  /** 1-based. */
  placeOf(finding: Finding): { file: string; line: number; column: number };
  placeOfMeant(meant: Meant): ReturnType<FoundInForm['placeOf']>;
  wayOf(way: Way): string;
  /** What happens to whom, in sentences. */
  toldOf(finding: Finding): string;
}

type Reporter = (found: readonly FoundInForm[]) => string;

const at = ({ file, line, column }: ReturnType<FoundInForm['placeOf']>) =>
  `${file}:${line}:${column}`;

const text: Reporter = (found) => {
  const lines: string[] = [];
  for (const one of found) {
    const {
      form,
      findings,
      sessions,
      steps,
      meant,
      outdated,
      placeOf,
      placeOfMeant,
      wayOf,
      toldOf,
    } = one;
    for (const finding of findings) {
      const { kind, level, way, other } = finding;
      lines.push(`${at(placeOf(finding))}: ${level}: ${onOneLine(toldOf(finding))} (${kind})`);
      lines.push(`    ${onOneLine(wayOf(way))}`);
      if (other !== null) lines.push(`    compared with ${onOneLine(wayOf(other))}`);
    }
    for (const answer of outdated)
      lines.push(`${at(placeOfMeant(answer))}: may: ${outdatedInWords(answer)} (meant)`);
    const answered = meant.length === 0 ? '' : `, ${meant.length} answered in the code`;
    lines.push(
      `${form}: ${findings.length === 0 ? 'nothing' : findings.length} found in ${sessions} sessions, ${steps} steps${answered}`,
    );
  }
  return `${lines.join('\n')}\n`;
};

/** A way as `tavro play --steps` takes it. */
const played = (form: string, { opening, steps }: Way) => ({ form, opening, steps });

const json: Reporter = (found) =>
  `${JSON.stringify(
    found.map(({ form, findings, sessions, steps, seeds, meant, outdated, placeOf, toldOf }) => ({
      form,
      meant: meant.map(({ finding, reason }) => ({
        ...placeOf(finding),
        kind: finding.kind,
        part: finding.part,
        aspect: finding.aspect,
        reason,
      })),
      outdated,
      sessions,
      steps,
      seeds,
      findings: findings.map((finding) => ({
        ...placeOf(finding),
        kind: finding.kind,
        level: finding.level,
        part: finding.part,
        aspect: finding.aspect,
        says: toldOf(finding),
        lines: finding.lines,
        way: played(form, finding.way),
        other: finding.other === null ? null : played(form, finding.other),
      })),
    })),
    null,
    2,
  )}\n`;

/** Relative to where the command runs, as a URI. */
const uri = (file: string) => file.split('/').map(encodeURIComponent).join('/');

const sarif: Reporter = (found) => {
  const kinds = [...new Set(found.flatMap(({ findings }) => findings.map(({ kind }) => kind)))];
  const results = found.flatMap(({ form, findings, placeOf, wayOf, toldOf }) =>
    findings.map((finding): Result => {
      const { file, line, column } = placeOf(finding);
      const { kind, level, part, aspect, way } = finding;
      return {
        ruleId: kind,
        ruleIndex: kinds.indexOf(kind),
        level: level === 'wrong' ? 'error' : 'note',
        message: { text: `${toldOf(finding)} The way there: ${wayOf(way)}.` },
        locations: [
          {
            physicalLocation: {
              artifactLocation: { uri: uri(file) },
              region: { startLine: line, startColumn: column },
            },
          },
        ],
        partialFingerprints: { 'finding/v1': `${form} ${kind} ${part}.${aspect}` },
      };
    }),
  );
  const rules = kinds.map((kind: Kind) => ({
    id: kind,
    shortDescription: { text: KIND_LABELS[kind] },
    help: {
      text: `docs/findings/${kind}.md has code in which it is found and code in which it is not.`,
    },
  }));
  const log: Log = {
    $schema:
      'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      { tool: { driver: { name: 'tavro find', rules } }, columnKind: 'utf16CodeUnits', results },
    ],
  };
  return `${JSON.stringify(log, null, 2)}\n`;
};

const junit: Reporter = (found) => {
  const suites = found.map(({ form, findings, placeOf, wayOf, toldOf }) => {
    const cases = findings.map((finding) => {
      const { kind, level, way } = finding;
      const says = toldOf(finding);
      const head = `    <testcase classname="${xml(form)}" name="${xml(`${kind} ${finding.part}`)}" file="${xml(placeOf(finding).file)}"`;
      if (level === 'may')
        return `${head}>\n      <skipped message="${xml(says)}"/>\n    </testcase>`;
      return `${head}>\n      <failure message="${xml(says)}">${xml(`${at(placeOf(finding))}\n${wayOf(way)}`)}</failure>\n    </testcase>`;
    });
    const failures = findings.filter(({ level }) => level === 'wrong').length;
    return `  <testsuite name="${xml(form)}" tests="${cases.length}" failures="${failures}" skipped="${cases.length - failures}">\n${cases.map((one) => `${one}\n`).join('')}  </testsuite>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites>\n${suites.join('\n')}\n</testsuites>\n`;
};

export const findReporters: Readonly<Record<string, Reporter>> = { text, json, sarif, junit };
