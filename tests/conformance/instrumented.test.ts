/**
 * Instrumentation changes nothing of what a script does, and what it tells of lines and branches is what istanbul tells
 * (istanbul-lib-instrument, the instrumenter of the usual coverage tools), on the same programs.
 */
import { expect, test } from 'vitest';
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
import { istanbul, plain, sorted, sourceOf, without, type Told } from '../support/istanbul';
import { HANDWRITTEN, randomPrograms, type Program } from '../support/programs';
import { shareOf } from '../support/thorough';

const form = formWith([text('one')]);
const PROGRAMS = [...HANDWRITTEN, ...randomPrograms(shareOf(300), 20310503)];

/** Long enough for everything that the programs wait for. */
const STEPS: TimedStep[] = [{ wait: 1000 }];

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
  expect(PROGRAMS.length).toBeGreaterThanOrEqual(shareOf(300));
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

test('lines and branches are those that istanbul counts', async () => {
  for (const program of PROGRAMS) {
    const source = sourceOf(program);
    expect(ours(program), `${program.name}:\n${source}`).toEqual(await istanbul(source));
  }
});

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
    const { chooses } = of[site]!;
    if (chooses !== null) (branches[chooses] ??= []).push(counts);
  }
  return { lines: without(lines, setting.scripts!['10-x']!), branches: sorted(branches) };
}

const isTrue = (value: unknown): boolean =>
  value !== null && value !== false && value !== 0 && value !== '';
