/** What is told of findings, kept of them as a scenario, and seen of them in other code. */
import { expect, test } from 'vitest';
import { choice, formWith, number, text } from '../../../tests/support/forms';
import { stageOf } from '../../../tests/support/stage';
import { materialOf } from '../language/material';
import { runScenario } from '../scenario/run-scenario';
import type { Answer, Opening, Step } from '../session/step';
import { namesFor } from '../tape/words';
import { stillFound } from './again';
import { findingAsScenario } from './as-scenario';
import type { Finding } from './finding';
import { mentionsOf } from './mentions';
import { search } from './search';
import { told } from './told';

const FORM = formWith([
  choice('pilot', ['none', 'own']),
  text('licence'),
  number('length'),
  text('harbour', { whenHidden: 'omit' }),
]);
const people = [{ key: 'ida', name: 'Ida Lund', roles: ['agent'] }];
const around = { tables: [], services: [] };
const ground = {
  form: FORM,
  ...around,
  people,
  records: [],
  parents: [],
  clock: Date.parse('2031-05-02T09:00:00Z'),
};
const names = namesFor(FORM, [], people);

async function onStage(code: string) {
  const sources = [{ name: '10-a.ts', text: code }];
  const stage = await stageOf(materialOf(FORM, around, sources, 'traced'));
  return { stage, mentions: mentionsOf(sources) };
}

async function firstIn(code: string): Promise<Finding> {
  const { stage, mentions } = await onStage(code);
  const { findings } = search(ground, mentions, stage, { seed: 1, sessions: 300 });
  return findings.find(({ level }) => level === 'wrong')!;
}

/** Whether the scenario of a finding passes with some code. */
async function passes(finding: Finding, code: string): Promise<boolean> {
  const { scenario, record } = findingAsScenario(finding, FORM, names, [])!;
  const { stage } = await onStage(code);
  const play = (opening: Opening, steps: readonly Step[]): Promise<Answer[]> =>
    Promise.resolve([stage.open(opening), ...steps.map((step) => stage.do(step))]);
  const cast = {
    people,
    records: record === null ? [] : [record],
    parents: [],
    forms: [],
    scenarios: [],
  };
  return (await runScenario(scenario, FORM, around, cast, play)).passed;
}

const STAYS =
  'const say = () => { if (fields.pilot.value === "own") fields.licence.required = true; };\non.load(say);\non.change(fields.pilot, say);';
const AT_LOAD =
  'on.change(fields.length, ({ value }) => { fields.length.hint = (value ?? 0) > 100 ? "Two tugs." : null; });';
const THROWS = 'on.change(fields.licence, ({ value }) => { log(value!.length); });';

test.each([
  [
    STAYS,
    'Whoever sets Pilot to Own, then empties Pilot has to fill in Licence. If that is left alone, Licence is not required.',
    'Licence is not required after Pilot own, Pilot nothing',
    STAYS.replace(
      'if (fields.pilot.value === "own") fields.licence.required = true;',
      'fields.licence.required = fields.pilot.value === "own";',
    ),
  ],
  [
    AT_LOAD,
    'Whoever sets Length to 101 reads the hint “Two tugs.” at Length. When the form is opened with the same saved, Length has no hint.',
    'Length has the hint “Two tugs.” when opened with Length 101 saved',
    'keep(() => { fields.length.hint = (fields.length.value ?? 0) > 100 ? "Two tugs." : null; });',
  ],
  [
    THROWS,
    expect.stringMatching(
      /^Whoever sets Licence to .+, then empties Licence meets a script that fails: .+\.$/,
    ),
    expect.stringMatching(/^No script fails after Licence .+, Licence nothing$/),
    'on.change(fields.licence, ({ value }) => { log(value?.length); });',
  ],
])('%s', async (code, says, title, mended) => {
  const finding = await firstIn(code);
  expect(told(finding, { form: FORM, tables: [] }, names)).toEqual(says);
  expect(findingAsScenario(finding, FORM, names, [])!.scenario.title).toEqual(title);
  // It fails until the fault is mended.
  expect([await passes(finding, code), await passes(finding, mended)]).toEqual([false, true]);
  // The search need not find it again to know that it is there, and gone.
  const now = async (text: string) => {
    const { stage, mentions } = await onStage(text);
    return stillFound(finding, ground, mentions, stage);
  };
  expect((await now(code))?.says).toBe(finding.says);
  expect(await now(mended)).toBeNull();
});

test('what nobody can know the right end of is no scenario', async () => {
  const finding = await firstIn(
    'keep(() => { fields.licence.hint = "For " + fields.harbour.value; });',
  );
  expect(finding.kind).toBe('junk');
  expect(findingAsScenario(finding, FORM, names, [])).toBeNull();
});

test('a scenario keeps every step of the way, waits among them', async () => {
  const finding = await firstIn(STAYS);
  const [first, last] = finding.way.steps;
  const steps = [first!, { wait: 200 }, last!];
  const { scenario } = findingAsScenario(
    { ...finding, way: { ...finding.way, steps } },
    FORM,
    names,
    [],
  )!;
  expect(scenario.steps.slice(0, -1)).toEqual(steps);
});
