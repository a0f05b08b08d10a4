/** How `tavro test` prints: for people, as JUnit XML, as TAP 14, as JSON (docs/schemas/test-report.schema.json). */
import { onOneLine } from './print';
import type { Miss, ScenarioResult } from '../core/scenario/run-scenario';

export interface ReportedScenario extends ScenarioResult {
  form: string;
  file: string;
  name: string;
}

type Reporter = (outcomes: readonly ReportedScenario[]) => string;

function missInWords(miss: Miss): string {
  const when = miss.after === 0 ? 'opening' : `step ${miss.after}`;
  return `${miss.at === null ? '' : `case ${miss.at + 1}, `}${when}: ${miss.says}${miss.why === undefined ? '' : `. ${miss.why}`}`;
}

const spec: Reporter = (outcomes) => {
  const lines: string[] = [];
  let form = '';
  for (const outcome of outcomes) {
    if (outcome.form !== form) lines.push((form = outcome.form));
    lines.push(`  ${outcome.passed ? '✓' : '✗'} ${onOneLine(outcome.title)}`);
    for (const miss of outcome.misses)
      lines.push(`      ${outcome.file}: ${onOneLine(missInWords(miss))}`);
  }
  const passed = outcomes.filter((outcome) => outcome.passed).length;
  lines.push('', `${passed} passed, ${outcomes.length - passed} failed`);
  return `${lines.join('\n')}\n`;
};

/** A title on one line, in which nothing is a directive (TAP 14, "Escaping"). */
const described = (title: string) => title.replace(/[\\#]/g, '\\$&').replace(/\s+/g, ' ');

const tap: Reporter = (outcomes) => {
  const lines = ['TAP version 14', `1..${outcomes.length}`];
  outcomes.forEach((outcome, i) => {
    lines.push(
      `${outcome.passed ? 'ok' : 'not ok'} ${i + 1} - ${outcome.form}: ${described(outcome.title)}`,
    );
    if (!outcome.passed) {
      lines.push(
        '  ---',
        `  file: ${JSON.stringify(outcome.file)}`,
        '  misses:',
        ...outcome.misses.map((miss) => `    - ${JSON.stringify(missInWords(miss))}`),
        '  ...',
      );
    }
  });
  return `${lines.join('\n')}\n`;
};

const junit: Reporter = (outcomes) => {
  const forms = [...new Set(outcomes.map((outcome) => outcome.form))];
  const suites = forms.map((form) => {
    const cases = outcomes.filter((outcome) => outcome.form === form);
    const failures = cases.filter((outcome) => !outcome.passed).length;
    const body = cases.map((outcome) => {
      const head = `    <testcase classname="${xml(form)}" name="${xml(outcome.title)}" file="${xml(outcome.file)}"`;
      if (outcome.passed) return `${head}/>`;
      const says = outcome.misses.map(missInWords);
      return `${head}>\n      <failure message="${xml(says[0]!)}">${xml(says.join('\n'))}</failure>\n    </testcase>`;
    });
    return `  <testsuite name="${xml(form)}" tests="${cases.length}" failures="${failures}">\n${body.join('\n')}\n  </testsuite>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites>\n${suites.join('\n')}\n</testsuites>\n`;
};

export function xml(text: string): string {
  return (
    text
      .replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`)
      // What XML 1.0 cannot hold at all (section 2.2, Char).
      // eslint-disable-next-line no-control-regex
      .replace(/[\0-\x08\x0b\x0c\x0e-\x1f\uFFFE\uFFFF]|\p{Surrogate}/gu, '\uFFFD')
  );
}

const json: Reporter = (outcomes) =>
  `${JSON.stringify({ passed: outcomes.every((outcome) => outcome.passed), scenarios: outcomes }, null, 2)}\n`;

export const reporters: Record<string, Reporter> = { spec, junit, tap, json };
