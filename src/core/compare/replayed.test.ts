/** What people did, done again on two versions; differences accepted and kept as scenarios. */
import { expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { ownStageOf } from '../../../tests/support/stage';
import type { Form } from '../form/definition';
import { materialOf } from '../language/material';
import { runScenario } from '../scenario/run-scenario';
import type { Opening, TimedStep } from '../session/step';
import { namesFor } from '../tape/words';
import { acceptedBy, asAccepted } from './accepted';
import { AcceptedSchema } from './accepted-schema';
import { differenceAsScenario } from './as-scenario';
import type { Difference } from './difference';
import { Replaying } from './replayed';
import { differingInWords } from './told';

const FIELDS = [choice('pilot', ['none', 'own']), text('licence'), rows('cargo', [number('tons')])];
const FORM = formWith(FIELDS);
const people = [{ key: 'ida', name: 'Ida Lund', roles: ['agent'] }];
const OPENING: Opening = {
  person: people[0]!,
  record: null,
  launch: {},
  clock: Date.parse('2031-05-02T09:00:00Z'),
  seed: 1,
  newId: '7',
};
const around = { tables: [], services: [] };
const materialWith = (code: string, form: Form) =>
  materialOf(form, around, [{ name: '10-a.ts', text: code }], 'untraced');

async function differences(
  [before, after]: readonly [string, string],
  steps: readonly TimedStep[],
  [formBefore, formAfter]: readonly [Form, Form] = [FORM, FORM],
): Promise<Difference[]> {
  const played = async (code: string, form: Form) => ({
    form,
    stage: await ownStageOf(materialWith(code, form)),
  });
  return new Replaying({
    before: await played(before, formBefore),
    after: await played(after, formAfter),
  }).differences({ opening: OPENING, steps });
}

const RULE = (value: string) =>
  `keep(() => {\n  fields.licence.required = fields.pilot.value === "${value}";\n});`;
const DONE: TimedStep[] = [
  { set: 'pilot', to: 'own', at: 10 },
  { set: 'licence', to: 'L 4', at: 90 },
  { submit: true, at: 100 },
];

test('a filling-in that ends in the same way has no difference', async () => {
  expect(await differences([RULE('own'), `// Moved.\n${RULE('own')}`], DONE)).toEqual([]);
});

test('one that ends differently has what differs, and what becomes of submitting', async () => {
  const without = DONE.filter((step) => !('set' in step && step.set === 'licence'));
  const found = await differences([RULE('none'), RULE('own')], without);
  expect(found).toMatchObject([
    { part: 'licence', aspect: 'required', before: false, after: true },
    { part: '@form', aspect: 'submit', before: 'saved', after: [{ part: 'licence' }] },
  ]);
});

test('time passes as it did: what waits comes when it came', async () => {
  const waits = (milliseconds: number) =>
    `on.change(fields.pilot, async () => {\n  await after(${milliseconds});\n  fields.licence.value = "late";\n});`;
  const steps: TimedStep[] = [
    { set: 'pilot', to: 'own', at: 10 },
    { set: 'licence', to: 'L 4', at: 1000 },
  ];
  // It comes before somebody typed, or after.
  expect(await differences([waits(500), waits(600)], steps)).toEqual([]);
  expect(await differences([waits(500), waits(5000)], [...steps, { wait: 9000 }])).toMatchObject([
    { part: 'licence', aspect: 'value', before: 'L 4', after: 'late' },
  ]);
});

test('renamed fields and columns are the same, in what people did too', async () => {
  const renamed = formWith([
    FIELDS[0]!,
    Object.assign({ ...text('permit') }, { label: text('licence').label }),
    Object.assign({ ...rows('load', [number('tons')]) }, { label: rows('cargo', []).label }),
  ]);
  const steps: TimedStep[] = [...DONE.slice(0, 2), { addRow: 'cargo', with: { tons: 4 } }];
  const after = RULE('own').replaceAll('licence', 'permit');
  expect(await differences([RULE('own'), after], steps, [FORM, renamed])).toEqual([]);
});

const DIFFERENCE: Difference = {
  part: 'licence',
  aspect: 'required',
  before: false,
  after: true,
  way: { opening: OPENING, steps: [{ set: 'pilot', to: 'own' }] },
  lines: { before: null, after: { behaviour: '10-a', line: 2 } },
  follows: null,
  also: [],
};
const names = namesFor(FORM, [], people);
const cast = { people, records: [], forms: [] };

test.each([
  ['after', RULE('own'), RULE('none')],
  ['before', RULE('none'), RULE('own')],
] as const)(
  'kept as it is %s, a scenario passes there and fails in the other',
  async (side, right, wrong) => {
    const { scenario, record } = differenceAsScenario(DIFFERENCE, side, names, [])!;
    expect(record).toBe(null);
    expect(scenario.title).toBe(
      `Licence is ${side === 'after' ? '' : 'not '}required after Pilot own`,
    );
    const passes = async (code: string) => {
      const stage = await ownStageOf(materialWith(code, FORM));
      const { passed } = await runScenario(scenario, FORM, around, cast, async (opening, steps) => [
        stage.open(opening),
        ...steps.map((step) => stage.do(step)),
      ]);
      return passed;
    };
    expect(await passes(right)).toBe(true);
    expect(await passes(wrong)).toBe(false);
  },
);

test('what is met beside the parts is expected as scenarios say it, where they can', () => {
  const kept = (aspect: Difference['aspect'], after: unknown) =>
    differenceAsScenario(
      { ...DIFFERENCE, part: '@form', aspect, after },
      'after',
      names,
      [],
    )?.scenario.steps?.at(-1);
  expect(kept('messages', ['Welcome'])).toEqual({ expect: { '@messages': ['Welcome'] } });
  expect(kept('submit', 'saved')).toEqual({ expect: { '@submit': { saved: true } } });
  expect(kept('submit', [{ part: 'licence', says: 'Required' }])).toEqual({
    expect: { '@submit': { saved: false, stoppedBy: 'licence' } },
  });
  expect(kept('failures', [])).toEqual({ expect: { '@errors': [] } });
  // Nobody would keep that a script fails, or that a field is there.
  expect(kept('failures', ['fails'])).toBe(undefined);
  expect(kept('exists', true)).toBe(undefined);
});

test('what was accepted is known again by what differs and the line that decides it', () => {
  const sources = {
    before: [],
    after: [{ name: '10-a.ts', text: RULE('own') }],
  };
  const accepted = asAccepted(DIFFERENCE, sources);
  expect(AcceptedSchema.parse(accepted)).toEqual({
    part: 'licence',
    aspect: 'required',
    before: false,
    after: true,
    lines: { before: null, after: 'fields.licence.required = fields.pilot.value === "own";' },
  });
  const all = [{ key: 'k', accepted, by: 'ida', at: '2031-05-02T09:00:00Z' }];
  expect(acceptedBy(DIFFERENCE, all, sources)?.key).toBe('k');
  expect(acceptedBy({ ...DIFFERENCE, after: false }, all, sources)).toBe(null);
  const other = { ...sources, after: [{ name: '10-a.ts', text: RULE('none') }] };
  expect(acceptedBy(DIFFERENCE, all, other)).toBe(null);
});

test('side by side, what differs is said of the part', () => {
  const known = { form: FORM, tables: [] };
  const told = (part: string, aspect: Difference['aspect'], before: unknown, after: unknown) =>
    differingInWords({ part, aspect, before, after }, known, names);
  expect(told('licence', 'onScreen', true, false)).toBe(
    'Licence is off screen; in the former version it is on screen.',
  );
  expect(told('cargo', 'exists', false, true)).toBe('Cargo is new.');
});
