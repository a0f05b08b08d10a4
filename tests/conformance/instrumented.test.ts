/**
 * Instrumentation changes nothing of what a script does, and what it tells of lines and branches is what istanbul tells
 * (istanbul-lib-instrument, the instrumenter of the usual coverage tools), on the same programs.
 */
import { createCoverageMap, type FileCoverageData } from 'istanbul-lib-coverage';
import { createInstrumenter } from 'istanbul-lib-instrument';
import ts from 'typescript-classic';
import { expect, test } from 'vitest';
import type { Site } from '../../src/core/script/sites';
import type { TimedStep } from '../../src/core/session/step';
import { formWith, text } from '../support/forms';
import {
  bootMachine,
  detailedMaterial,
  direct,
  inMachine,
  inspectedHere,
  type Setting,
} from '../support/hosts';
import { HANDWRITTEN, randomPrograms, type Program } from '../support/programs';

const form = formWith([text('one')]);
const PROGRAMS = [...HANDWRITTEN, ...randomPrograms(300, 20310503)];

/** The handler stands in two lines around the program, in the script as in what istanbul is given. */
const sourceOf = ({ lines }: Program): string =>
  ['"use strict"; on.load(async () => {', ...lines.map((line) => `  ${line}`), '});'].join('\n');

/** Long enough for everything that the programs wait for. */
const STEPS: TimedStep[] = [{ wait: 1000 }];

/** What a program logs here, without Tavro; `undefined` and what JSON does not hold are as on the tape. */
async function plain(source: string): Promise<{ logged: unknown[]; failed: boolean }> {
  const logged: unknown[] = [];
  let handler: () => Promise<void> = () => Promise.resolve();
  const run = new Function('on', 'log', 'after', source) as (
    on: { load: (made: () => Promise<void>) => void },
    log: (...values: unknown[]) => void,
    after: () => Promise<void>,
  ) => void;
  run(
    { load: (made) => void (handler = made) },
    (...values) => logged.push(asOnTape(values)),
    () => Promise.resolve(),
  );
  let failed = false;
  await handler().catch(() => (failed = true));
  return { logged, failed };
}

function asOnTape(value: unknown): unknown {
  return JSON.parse(
    JSON.stringify(value, (_, one: unknown) =>
      typeof one === 'bigint' || (typeof one === 'number' && !Number.isFinite(one))
        ? String(one)
        : (one ?? null),
    ),
  );
}

function settingOf(program: Program): Setting {
  return { form, scripts: { '10-x': sourceOf(program) } };
}

/** Compiled once for both tests. */
const compiled = new Map<Program, ReturnType<typeof detailedMaterial>>();

function inDetail(program: Program): ReturnType<typeof detailedMaterial> {
  const made = compiled.get(program) ?? detailedMaterial(settingOf(program));
  compiled.set(program, made);
  return made;
}

test(`results of ${PROGRAMS.length} programs are the same plain, traced and in detail`, async () => {
  expect(PROGRAMS.length).toBeGreaterThanOrEqual(300);
  for (const program of PROGRAMS) {
    const expected = await plain(sourceOf(program));
    const setting = settingOf(program);
    const { material } = inDetail(program);
    const runs: Record<string, { logged: unknown; failed: boolean }> = {};
    for (const [name, traced] of [
      ['untraced', false],
      ['traced', true],
    ] as const) {
      const use = direct(setting, traced);
      const answers = [use.opened, ...STEPS.map((step) => use.do(step))];
      runs[name] = {
        logged: answers.flatMap(({ log }) => log.map(({ values }) => values)),
        failed: answers.some(({ errors }) => errors.length > 0),
      };
    }
    const { answers, runs: told } = inspectedHere(setting, STEPS, { runs: 'all' }, material);
    expect(
      told.some(({ cut }) => cut),
      program.name,
    ).toBe(false);
    runs.detailed = {
      logged: answers.flatMap(({ log }) => log.map(({ values }) => values)),
      failed: answers.some(({ errors }) => errors.length > 0),
    };
    for (const [name, run] of Object.entries(runs))
      expect(run, `${program.name}, ${name}:\n${sourceOf(program)}`).toEqual(expected);
  }
});

test('the machine comes to the same, traced and not', async () => {
  await bootMachine();
  for (const program of HANDWRITTEN) {
    const expected = await plain(sourceOf(program));
    for (const traced of [false, true]) {
      const use = inMachine(settingOf(program), traced);
      const answers = [use.opened, ...STEPS.map((step) => use.do(step))];
      const logged = answers.flatMap(({ log }) => log.map(({ values }) => values));
      expect(logged, `${program.name}:\n${sourceOf(program)}`).toEqual(expected.logged);
    }
  }
});

/**
 * Lines on which the two count different things by convention: istanbul takes the initialisers of a class's fields for
 * statements and its declaration for none, Tavro the other way round.
 */
function linesOfClasses(source: string): Set<number> {
  const file = ts.createSourceFile('script.js', source, ts.ScriptTarget.Latest, true);
  // The first holds the call of `on.load` itself, which is no part of the program.
  const lines = new Set([1]);
  const look = (node: ts.Node): void => {
    if (ts.isClassDeclaration(node) || ts.isPropertyDeclaration(node))
      lines.add(file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1);
    ts.forEachChild(node, look);
  };
  look(file);
  return lines;
}

function without(lines: Told['lines'], source: string): Told['lines'] {
  const left = linesOfClasses(source);
  return Object.fromEntries(Object.entries(lines).filter(([line]) => !left.has(Number(line))));
}

interface Told {
  /** By line, how often the statement there that ran most often did. */
  lines: Record<number, number>;
  /** By line, how often each `if` and `?:` came out either way, in order. */
  branches: Record<number, [number, number][]>;
}

test('lines and branches are those that istanbul counts', async () => {
  for (const program of PROGRAMS) {
    const source = sourceOf(program);
    expect(ours(program), `${program.name}:\n${source}`).toEqual(await istanbul(source));
  }
});

async function istanbul(source: string): Promise<Told> {
  const instrumenter = createInstrumenter({ esModules: false, coverageVariable: '__covered' });
  const code = instrumenter.instrumentSync(source, 'script.js');
  const holder = globalThis as { __covered?: Record<string, FileCoverageData> };
  delete holder.__covered;
  await plain(code);
  const data = createCoverageMap(holder.__covered!).fileCoverageFor('script.js').data;
  const lines: Told['lines'] = {};
  for (const [id, { start }] of Object.entries(data.statementMap)) {
    const count = data.s[id]!;
    if (count > 0) lines[start.line] = Math.max(lines[start.line] ?? 0, count);
  }
  const branches: Told['branches'] = {};
  for (const [id, { type, loc }] of Object.entries(data.branchMap)) {
    if (type !== 'if' && type !== 'cond-expr') continue;
    const [yes, no] = data.b[id] as [number, number];
    if (yes + no > 0) (branches[loc.start.line] ??= []).push([yes, no]);
  }
  return { lines: without(lines, source), branches: sorted(branches) };
}

function ours(program: Program): Told {
  const setting = settingOf(program);
  const { material, sites } = inDetail(program);
  const of = sites.get('10-x')!;
  const { runs } = inspectedHere(setting, STEPS, { runs: 'all' }, material);
  const hits = new Map<number, number>();
  const came = new Map<number, [number, number]>();
  for (const detail of runs.flatMap(({ details }) => details)) {
    if (detail.is === 'statement') hits.set(detail.site, (hits.get(detail.site) ?? 0) + 1);
    if (detail.is !== 'condition') continue;
    const counts = came.get(detail.site) ?? [0, 0];
    counts[isTrue(detail.value) ? 0 : 1]++;
    came.set(detail.site, counts);
  }
  const lines: Told['lines'] = {};
  for (const [site, count] of hits) {
    if (of[site]!.kind !== 'statement') continue;
    const { line } = of[site]!;
    lines[line] = Math.max(lines[line] ?? 0, count);
  }
  const branches: Told['branches'] = {};
  for (const [site, counts] of came) {
    const chooses = choosing(setting.scripts!['10-x']!, of[site]!);
    if (chooses !== null) (branches[chooses] ??= []).push(counts);
  }
  return { lines: without(lines, setting.scripts!['10-x']!), branches: sorted(branches) };
}

const isTrue = (value: unknown): boolean =>
  value !== null && value !== false && value !== 0 && value !== '';

/** The line of the `if` or `?:` that a condition decides; null for that of a loop or an operator. */
function choosing(source: string, { start, end }: Site): number | null {
  const before = source.slice(0, start);
  const line = before.split('\n').length;
  if (/\bif \($/.test(before)) return line;
  return /^\)*\s*\?(?![.?])/.test(source.slice(end)) ? line : null;
}

function sorted(branches: Told['branches']): Told['branches'] {
  return Object.fromEntries(
    Object.entries(branches).map(([line, counts]) => [
      line,
      counts.sort((a, b) => a[0] - b[0] || a[1] - b[1]),
    ]),
  );
}
