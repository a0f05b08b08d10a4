/**
 * LCOV of the scenarios' coverage says what istanbul says of the same programs, what never ran included. Branches are
 * those of `if` and `?:`. The programs stand in a handler; the lines of its call are none of theirs.
 */
import { expect, test } from 'vitest';
import { Coverage } from '../../src/core/testing/coverage';
import type { TimedStep } from '../../src/core/session/step';
import { formWith, text } from '../support/forms';
import { detailedMaterial, inspectedHere } from '../support/hosts';
import { istanbul, sorted, sourceOf, without, type Told } from '../support/istanbul';
import { HANDWRITTEN, randomPrograms } from '../support/programs';
import { shareOf } from '../support/thorough';

const PROGRAMS = [...HANDWRITTEN, ...randomPrograms(shareOf(150), 20310604)];
const STEPS: TimedStep[] = [{ wait: 1000 }];

function ours(source: string): Told {
  const setting = { form: formWith([text('one')]), scripts: { '10-x': source } };
  const { material, sites } = detailedMaterial(setting);
  const coverage = new Coverage(sites);
  coverage.add(inspectedHere(setting, STEPS, { runs: 'all' }, material).runs);
  const lines: Told['lines'] = {};
  const blocks = new Map<string, { line: number; counts: number[] }>();
  const records = coverage.lcov((script) => `${script}.ts`).split('\n');
  expect(records[1]).toBe('SF:10-x.ts');
  for (const record of records) {
    const [, line, count] = /^DA:(\d+),(\d+)$/.exec(record) ?? [];
    if (line !== undefined) lines[Number(line)] = Number(count);
    const [, at, block, , taken] = /^BRDA:(\d+),(\d+),(\d+),(\d+|-)$/.exec(record) ?? [];
    if (at === undefined) continue;
    const known = blocks.get(block!) ?? { line: Number(at), counts: [] };
    known.counts.push(taken === '-' ? 0 : Number(taken));
    blocks.set(block!, known);
  }
  const branches: Told['branches'] = {};
  for (const { line, counts } of blocks.values())
    (branches[line] ??= []).push(counts as [number, number]);
  return { lines: without(lines, source), branches: sorted(branches) };
}

test(`lines and branches of ${PROGRAMS.length} programs`, async () => {
  let unreached = 0;
  for (const program of PROGRAMS) {
    const source = sourceOf(program);
    const came = ours(source);
    unreached += Object.values(came.lines).filter((count) => count === 0).length;
    expect(came, `${program.name}:\n${source}`).toEqual(await istanbul(source, { all: true }));
  }
  // Otherwise what never ran was not compared.
  expect(unreached).toBeGreaterThan(shareOf(50));
});
