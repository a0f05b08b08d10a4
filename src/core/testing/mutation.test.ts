/** Every mutation operator: it is applied, its mutant is caught by a scenario that looks, and is not counted where nothing tells it apart. */
import { beforeAll, describe, expect, test } from 'vitest';
import { choice, formWith, number, text, yesNo } from '../../../tests/support/forms';
import { randomPrograms } from '../../../tests/support/programs';
import { compile } from '../language/compile';
import { compileMutants } from '../language/mutating';
import { startModule } from '../sandbox/quickjs';
import { Sandbox } from '../sandbox/sandbox';
import { ScenarioSchema, type Scenario } from '../scenario/definition';
import type { Mutant, MutantKind } from '../script/mutants';
import { inTrialOrder, judge, prepare, scoreOf, type MutantHost, type Verdict } from './mutation';
import { randomSessions } from './random-session';
import { mentionedIn } from './values';
import { shareOf } from '../../../tests/support/thorough';

const form = {
  ...formWith([
    choice('kind', ['bulk', 'oil', 'tug']),
    yesNo('pilot'),
    number('size'),
    number('dues'),
    text('note'),
  ]),
  buttons: [{ name: 'again', label: 'Again' }],
};
const cast = {
  people: [{ key: 'mira', name: 'Mira Oldane', roles: ['clerk'] }],
  records: [{ id: 'r1', values: { kind: 'oil', size: 4 } }],
};

let sandbox: Sandbox;
beforeAll(async () => {
  sandbox = new Sandbox(await startModule(), { temporal: false });
});

function mutantsOf(source: string, first = 1) {
  return compileMutants({ name: '10-a.ts', text: source }, form, first);
}

function hostOf(source: string): { host: MutantHost; mutants: Mutant[] } {
  const { script, mutants } = mutantsOf(source);
  const material = {
    form,
    tables: [],
    services: [],
    answering: [],
    modules: [],
    scripts: [script],
    traced: false,
  };
  return {
    mutants,
    host: {
      load: async (mutant) => void sandbox.load({ ...material, mutant }),
      play: async (opening, steps, mutant) => {
        const answers = [sandbox.open(opening, mutant), ...steps.map((step) => sandbox.step(step))];
        return { answers, reached: sandbox.reached(mutants.length) };
      },
    },
  };
}

async function verdictsOf(source: string, steps: object[]): Promise<[Mutant, Verdict][]> {
  const { host, mutants } = hostOf(source);
  await host.load(0);
  const scenario = ScenarioSchema.parse({ title: 't', open: { as: 'mira' }, steps });
  const plans = randomSessions(
    { form, tables: [], cast, mentioned: mentionedIn([{ text: source }]) },
    60,
  );
  const bench = await prepare(
    { form, source: { tables: [] }, cast },
    [{ name: 's', scenario }],
    plans,
    host,
  );
  expect(bench.failing).toEqual([]);
  const verdicts: [Mutant, Verdict][] = [];
  for (const mutant of inTrialOrder(mutants))
    verdicts.push([mutant, await judge(mutant, bench, host)]);
  return verdicts;
}

/** By kind: a script with the change in it, steps that notice it, and a script in which it is no change. */
const OPERATORS: Record<
  MutantKind,
  { script: string; steps: object[]; equivalent: string | null }
> = {
  condition: {
    script: 'on.change(fields.pilot, () => { if (fields.pilot.value) fields.dues.value = 5; });',
    steps: [{ set: 'pilot', to: true }, { expect: { dues: { value: 5 } } }],
    equivalent:
      'on.change(fields.pilot, ({ value }) => { if (value !== value) fields.dues.value = 1; else fields.dues.value = 1; });',
  },
  connective: {
    script:
      'keep("n", () => { fields.note.required = fields.pilot.value === true && fields.kind.value === "oil"; });',
    steps: [{ set: 'pilot', to: true }, { expect: { note: { required: false } } }],
    equivalent:
      'keep("n", () => { fields.note.required = fields.pilot.value === true && fields.pilot.value === true; });',
  },
  boundary: {
    script: 'keep("n", () => { fields.note.required = (fields.size.value ?? 0) > 10; });',
    steps: [{ set: 'size', to: 10 }, { expect: { note: { required: false } } }],
    equivalent: 'keep("n", () => { fields.note.required = (fields.size.value ?? 0) * 0 > 1; });',
  },
  key: {
    script: 'keep("n", () => { fields.note.required = fields.kind.value === "oil"; });',
    steps: [{ set: 'kind', to: 'oil' }, { expect: { note: { required: true } } }],
    equivalent: 'const UNUSED = "oil"; keep("n", () => { fields.note.required = true; });',
  },
  effect: {
    script: 'on.change(fields.kind, () => { form.message("Hm."); });',
    steps: [{ set: 'kind', to: 'oil' }, { expect: { '@messages': ['Hm.'] } }],
    equivalent: 'on.change(fields.kind, () => { fields.note.shown = true; });',
  },
  else: {
    script:
      'on.change(fields.kind, ({ value }) => { if (value === "oil") fields.dues.value = 1; else fields.dues.value = 2; });',
    steps: [{ set: 'kind', to: 'tug' }, { expect: { dues: { value: 2 } } }],
    equivalent:
      'on.change(fields.kind, ({ value }) => { if (value === "oil") fields.note.shown = true; else fields.note.shown = true; });',
  },
  trigger: {
    script:
      'on.change([fields.kind, fields.size], () => { fields.dues.value = (fields.dues.value ?? 0) + 1; });',
    steps: [{ set: 'kind', to: 'oil' }, { set: 'size', to: 2 }, { expect: { dues: { value: 2 } } }],
    equivalent: 'on.change([fields.kind, fields.size], () => { fields.note.shown = true; });',
  },
  handler: {
    script: 'on.click(buttons.again, () => { fields.dues.value = 9; });',
    steps: [{ click: 'again' }, { expect: { dues: { value: 9 } } }],
    equivalent: 'on.click(buttons.again, () => { fields.note.shown = true; });',
  },
  load: {
    script: 'on.load(() => { fields.note.locked = true; });',
    steps: [{ expect: { note: { locked: true } } }],
    equivalent: 'on.load(() => { fields.note.shown = true; });',
  },
  previous: {
    script: 'on.change(fields.size, ({ value }) => { fields.dues.value = value; });',
    steps: [{ set: 'size', to: 3 }, { expect: { dues: { value: 3 } } }],
    equivalent:
      'on.change(fields.size, ({ value }) => { fields.note.shown = value === null || true; });',
  },
  return: {
    script:
      'on.change(fields.size, () => {\n  if (fields.pilot.value === true) return;\n  fields.dues.value = 4;\n});',
    steps: [
      { set: 'pilot', to: true },
      { set: 'size', to: 1 },
      { expect: { dues: { value: null } } },
    ],
    equivalent:
      'on.change(fields.size, () => { fields.note.shown = true; if (fields.pilot.value === true) return; });',
  },
};

describe.each(Object.entries(OPERATORS))('%s', (kind, { script, steps, equivalent }) => {
  test('is applied, and caught by a scenario that looks', async () => {
    const verdicts = (await verdictsOf(script, steps)).filter(([mutant]) => mutant.kind === kind);
    expect(verdicts.length).toBeGreaterThan(0);
    expect(verdicts.some(([, { is }]) => is === 'caught')).toBe(true);
  });

  test('survives a scenario that looks elsewhere, with one that would notice', async () => {
    const verdicts = (await verdictsOf(script, [{ wait: 10 }])).filter(
      ([mutant]) => mutant.kind === kind,
    );
    const survivors = verdicts.filter(([, { is }]) => is === 'survived');
    expect(survivors.length).toBeGreaterThan(0);
    for (const [mutant, verdict] of survivors) {
      const { witness } = verdict as { witness: Scenario | null };
      expect(witness, JSON.stringify(mutant)).not.toBeNull();
      const { host } = hostOf(script);
      await host.load(0);
      const bench = await prepare(
        { form, source: { tables: [] }, cast },
        [{ name: 'w', scenario: witness! }],
        [],
        host,
      );
      expect(bench.failing).toEqual([]);
      expect(await judge(mutant, bench, host)).toEqual({ is: 'caught', by: 'w' });
    }
  });

  test('is not counted where nothing tells it apart', async () => {
    const verdicts = (await verdictsOf(equivalent!, [])).filter(([mutant]) => mutant.kind === kind);
    expect(verdicts.map(([, { is }]) => is)).toContain('equivalent');
    expect(scoreOf(verdicts.map(([, verdict]) => verdict))).toMatchObject({ caught: 0 });
  });
});

test('an invariant is left as it is, at the top level and while a record is loaded', () => {
  const { script, mutants } = mutantsOf(
    'always("small", () => (fields.size.value ?? 0) < 10);\non.load(() => {\n  always("no tug", () => fields.kind.value !== "tug");\n});',
  );
  expect(script.code).not.toBeNull();
  expect(mutants.map(({ kind, line }) => [kind, line])).toEqual([['load', 2]]);
});

test('what tells one apart is kept in as few steps as it takes, with a title a person would give', async () => {
  const verdicts = await verdictsOf(
    'on.change(fields.size, () => { if ((fields.size.value ?? 0) > 5) fields.note.required = true; });',
    [],
  );
  const witnesses = verdicts.flatMap(([, verdict]) =>
    verdict.is === 'survived' && verdict.witness !== null ? [verdict.witness] : [],
  );
  expect(witnesses.length).toBeGreaterThan(2);
  for (const { title, steps } of witnesses) {
    expect(title).toMatch(/^With Size -?\d+, Note is (?:not )?required$/);
    expect(steps.filter((step) => !('expect' in step))).toHaveLength(1);
  }
});

test('an else behind a dropped effect stays with its own if', async () => {
  const verdicts = await verdictsOf(
    'on.change(fields.kind, ({ value }) => { if (value === "oil") fields.dues.value = 1; else if (value === "tug") fields.dues.value = 2; else fields.dues.value = 3; });',
    [
      { set: 'kind', to: 'oil' },
      { expect: { dues: { value: 1 } } },
      { set: 'kind', to: 'tug' },
      { expect: { dues: { value: 2 } } },
      { set: 'kind', to: 'bulk' },
      { expect: { dues: { value: 3 } } },
    ],
  );
  expect(verdicts.length).toBeGreaterThan(8);
  expect(verdicts.filter(([, { is }]) => is === 'survived')).toEqual([]);
});

test('a mutant that never ends is caught, and one in a scenario that fails anyway is not judged by it', async () => {
  const { host, mutants } = hostOf('on.change(fields.kind, () => { fields.dues.value = 1; });');
  await host.load(0);
  const stuck: MutantHost = {
    ...host,
    play: async (opening, steps, mutant) =>
      mutant === 0 ? host.play(opening, steps, mutant) : null,
  };
  const ground = { form, source: { tables: [] }, cast };
  const scenario = ScenarioSchema.parse({
    title: 't',
    open: { as: 'mira' },
    steps: [{ set: 'kind', to: 'oil' }, { expect: { dues: { value: 1 } } }],
  });
  const wrong = { ...scenario, steps: [...scenario.steps, { expect: { dues: { value: 8 } } }] };
  const bench = await prepare(
    ground,
    [
      { name: 'right', scenario },
      { name: 'wrong', scenario: wrong },
    ],
    [],
    stuck,
  );
  expect(bench.failing).toEqual(['wrong']);
  const effect = mutants.find(({ kind }) => kind === 'effect')!;
  expect(await judge(effect, bench, stuck)).toEqual({ is: 'caught', by: 'right' });
});

test('random sessions of a script that never ends are tried a few times, and none of them judges', async () => {
  const source = 'on.change(fields.kind, () => { fields.dues.value = 1; });';
  const { host } = hostOf(source);
  const plans = randomSessions(
    { form, tables: [], cast, mentioned: mentionedIn([{ text: source }]) },
    60,
  );
  let played = 0;
  const never: MutantHost = { ...host, play: () => (played++, Promise.resolve(null)) };
  const ground = { form, source: { tables: [] }, cast };
  expect((await prepare(ground, [], plans, never)).random).toEqual([]);
  expect(played).toBe(5);
});

test('with no mutant switched on, scripts do what they do without any, on their own lines', () => {
  const opening = {
    person: { key: 'mira', name: 'Mira', roles: [] },
    record: null,
    launch: {},
    clock: 0,
    seed: 1,
    newId: 'new',
  };
  const programs = randomPrograms(shareOf(120), 20310601);
  let count = 0;
  for (const { lines, name } of programs) {
    const source = { name: '10-a.ts', text: ['on.load(async () => {', ...lines, '});'].join('\n') };
    const { script, mutants } = compileMutants(source, form, 1);
    count += mutants.length;
    const came = [script, compile(source, 'untraced')].map((one) => {
      sandbox.load({
        form,
        tables: [],
        services: [],
        answering: [],
        modules: [],
        scripts: [one],
        traced: false,
      });
      return JSON.stringify([sandbox.open(opening), sandbox.step({ wait: 1000 })]);
    });
    expect(came[0], `${name}\n${source.text}\n${script.code}`).toBe(came[1]);
  }
  expect(count).toBeGreaterThan(shareOf(500));
});

test('places are named by line and words, numbers go on from script to script', () => {
  const source =
    'keep("n", () => {\n  fields.note.required =\n    fields.kind.value === "oil" &&\n    (fields.size.value ?? 0) >= 3;\n});';
  const { mutants } = mutantsOf(source, 7);
  expect(
    mutants.map(({ number, kind, line, before, after, atLoad }) => [
      number,
      kind,
      line,
      before,
      after,
      atLoad,
    ]),
  ).toEqual([
    [7, 'handler', 1, expect.stringContaining('keep("n"'), null, true],
    [8, 'effect', 2, expect.stringContaining('fields.note.required ='), null, false],
    [9, 'key', 3, '"oil"', '"tug"', false],
    [10, 'condition', 3, 'fields.kind.value === "oil"', 'fields.kind.value !== "oil"', false],
    [11, 'boundary', 4, '(fields.size.value ?? 0) >= 3', '(fields.size.value ?? 0) > 3', false],
    [12, 'connective', 3, expect.stringContaining('&&'), expect.stringContaining('||'), false],
  ]);
});
