/** The tests of a form on the command line: grids, mutants, shares of a run. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { ScenarioSchema } from '../../src/core/scenario/definition';
import { copyOfDemo, tavro } from '../support/command-line';
import { thorough } from '../support/thorough';

const files = mkdtempSync(join(tmpdir(), 'tavro-out-'));
const out = (name: string) => join(files, name);
const read = (name: string) => readFileSync(out(name), 'utf8');

describe('tavro grid', () => {
  const grid = (...args: string[]) => tavro(['grid', 'demo', '--form', 'berth_visit', ...args]);

  test('prints what differs, and writes it as CSV and as a page', () => {
    const axes = ['--axes', 'pilot_choice,vessel_kind=tanker|tug'];
    const { status, stdout } = grid(...axes, '--csv', out('g.csv'), '--html', out('g.html'));
    expect(status).toBe(0);
    expect(stdout).toContain('All 8 combinations.');
    expect(stdout).toMatch(
      /Pilot: Own pilot[^\n]*\n(?: {4}[^\n]*\n)*? {4}Pilot licence[^\n]*: yes/,
    );
    const rows = read('g.csv').trimEnd().split('\n');
    expect(rows).toHaveLength(9);
    expect(rows[0]).toMatch(/^pilot_choice,vessel_kind,/);
    expect(read('g.html')).toContain('Own pilot');
  });

  test('values are read as their field has them: digits of a text stay a text', () => {
    expect(grid('--axes', 'vessel=007,length=90|120.5', '--csv', out('typed.csv')).status).toBe(0);
    expect(read('typed.csv')).toMatch(/\n007,120\.5/);
  });

  test('accepted it is a scenario, which later differences fail', () => {
    const folder = copyOfDemo();
    const file = join(folder, 'forms/berth_visit/scenarios/pilots.json');
    const args = ['--form', 'berth_visit', '--axes', 'pilot_choice', '--accept', file];
    expect(tavro(['grid', folder, ...args, '--title', 'Pilots']).status).toBe(0);
    expect(ScenarioSchema.parse(JSON.parse(readFileSync(file, 'utf8'))).title).toBe('Pilots');
    expect(tavro(['test', folder, '--form', 'berth_visit']).stdout).toContain('8 passed');
    const script = join(folder, 'forms/berth_visit/behaviours/20-pilot.ts');
    const text = readFileSync(script, 'utf8');
    writeFileSync(
      script,
      text.replace('pilot_licence.required = choice === "own"', 'pilot_licence.required = false'),
    );
    const { status, stdout } = tavro(['test', folder, '--form', 'berth_visit']);
    expect(status).toBe(1);
    expect(stdout).toContain(
      'with pilot_choice "own": pilot_licence.required is false, accepted was true',
    );
  });

  test.each([
    [['--axes', 'length=long'], '"long" is no value of length, which takes a number.'],
    [['--axes', 'lenght=1'], 'the form has no part "lenght".'],
    [['--axes', 'length=1', '--part', 'pilo'], 'the form has no part "pilo".'],
    [['--axes', '@fails.tides'], 'there is no service "tides".'],
    [['--axes', '@launch.vesel=1'], 'the form has no launch parameter "vesel".'],
    [['--axes', 'length'], 'say which values of length are tried'],
    [[], 'say with --axes what varies'],
    [['--axes', 'pilot_choice', '--strength', '4'], '--strength is 2 or 3.'],
    [
      ['--axes', `length=${numbers(60)},draught=${numbers(60)}`],
      'For any two values to meet, more than 2000 combinations are needed.',
    ],
  ])('%j is refused', (args, says) => {
    const { status, stderr } = grid(...args);
    expect(status).toBe(2);
    expect(stderr).toContain(says);
  });
});

const numbers = (count: number) => Array.from({ length: count }, (_, i) => i + 1).join('|');

describe('tavro mutate', () => {
  const mutate = (...args: string[]) =>
    tavro(['mutate', 'demo', '--form', 'works_permit', ...args]);

  test('says how many changes were noticed, lists the others, and fails below what is asked for', () => {
    const { status, stdout } = mutate('--least', '80');
    expect(status).toBe(0);
    const [, share, noticed, of] = /^works_permit: (\d+) % \((\d+) of (\d+) changes/.exec(stdout)!;
    expect(Math.round((100 * Number(noticed)) / Number(of))).toBe(Number(share));
    expect(stdout.match(/^ {2}\S+:\d+ /gm)).toHaveLength(Number(of) - Number(noticed));
    if (thorough) expect(mutate('--least', '99').status).toBe(1);
    expect(mutate('--least', 'most')).toMatchObject({
      status: 2,
      stderr: 'tavro: --least is a percentage from 0 to 100.\n',
    });
  });
});

test('shares of a run are all of it together, each scenario once', () => {
  const ran = (...args: string[]) =>
    tavro(['test', 'demo', '--reporter', 'tap', ...args])
      .stdout.split('\n')
      .filter((line) => line.startsWith('ok'))
      .map((line) => line.replace(/^ok \d+ /, ''));
  const shares = [1, 2, 3].map((i) => ran('--shard', `${i}/3`));
  expect(shares.every((share) => share.length > 0)).toBe(true);
  expect(shares.flat().toSorted()).toEqual(ran().toSorted());
  expect(tavro(['test', 'demo', '--shard', '4/3'])).toMatchObject({ status: 2 });
});
