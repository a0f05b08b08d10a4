/** Two versions of a form: what differs, by the shortest session, with the lines that decide it, and when nothing does. */
import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { ownStageOf } from '../../../tests/support/stage';
import { mentionsOf } from '../explore/mentions';
import type { Form } from '../form/definition';
import { materialOf } from '../language/material';
import { namesFor } from '../tape/words';
import { compare, type Compared } from './compare';
import { changeBetween } from './change';
import { alsoInWords, toldOfDifference } from './told';
import { NO_CHANGE } from './version';

const FIELDS = [choice('pilot', ['none', 'own']), text('licence'), number('length')];
const FORM = formWith(FIELDS);
const around = { tables: [], services: [] };
const people = [{ key: 'ida', name: 'Ida Lund', roles: ['agent'] }];

const sourcesOf = (code: string) => [{ name: '10-a.ts', text: code }];

async function versionOf(code: string, form: Form) {
  const sources = sourcesOf(code);
  const clock = Date.parse('2031-05-02T09:00:00Z');
  return {
    ground: { form, ...around, people, records: [], parents: [], clock },
    mentions: mentionsOf(sources),
    stage: await ownStageOf(materialOf(form, around, sources, 'traced')),
    sources,
  };
}

async function compared(
  [codeBefore, codeAfter]: readonly [string, string],
  [formBefore, formAfter]: readonly [Form, Form] = [FORM, FORM],
  sessions = 200,
): Promise<Compared> {
  return compare(await versionOf(codeBefore, formBefore), await versionOf(codeAfter, formAfter), {
    seed: 1,
    sessions,
    change: changeBetween(sourcesOf(codeBefore), sourcesOf(codeAfter)),
  });
}

const told = ({ differences }: Compared, form = FORM) => {
  const names = namesFor(form, [], people);
  return differences.map((one) => toldOfDifference(one, { form, tables: [] }, names));
};

const RULE = (least: number) =>
  `keep(() => {\n  fields.licence.required = (fields.length.value ?? 0) > ${least};\n});`;

test('a limit that moved shows between the two limits, with the line of either version', async () => {
  const found = await compared([RULE(20), `const UNUSED = 1;\n${RULE(30)}`]);
  expect(found.differences).toMatchObject([
    {
      part: 'licence',
      aspect: 'required',
      before: true,
      after: false,
      lines: { before: { behaviour: '10-a', line: 2 }, after: { behaviour: '10-a', line: 3 } },
    },
  ]);
  const [{ way }] = found.differences as [Compared['differences'][0]];
  expect(way.steps).toHaveLength(1);
  const [step] = way.steps as [{ set: string; to: number }];
  expect(step.set).toBe('length');
  expect(step.to > 20 && step.to <= 30).toBe(true);
  expect(told(found)).toEqual([
    `Whoever sets Length to ${step.to} does not have to fill in Licence. In the former version, Licence is required.`,
  ]);
  expect(found.lines.filter(({ in: which }) => which === 'after')).toEqual([
    { script: '10-a', line: 3, in: 'after', isReached: true },
  ]);
});

test('lines that run and that no session reached are named', async () => {
  const after = `${RULE(20)}
on.change(fields.pilot, ({ value }) => {
  // Nobody can choose it.
  if ((value as string | null) === "former") {
    fields.licence.value = "old";
  }
});`;
  const { differences, lines } = await compared([RULE(20), after]);
  expect(differences).toEqual([]);
  expect(lines).toEqual([
    { script: '10-a', line: 6, in: 'after', isReached: true },
    { script: '10-a', line: 7, in: 'after', isReached: false },
  ]);
});

test('what is gone is found by going over the former version', async () => {
  const gone =
    'on.change(fields.pilot, ({ value }) => { if (value === "own") form.message("Ask the pilot."); });';
  const found = await compared([gone, '']);
  expect(told(found)).toEqual([
    'Whoever sets Pilot to Own is shown no message. In the former version, the message is “Ask the pilot.”',
  ]);
});

describe('nothing differs', () => {
  test.each([
    ['where nothing changed', RULE(20), RULE(20)],
    ['in a script that was formatted', RULE(20), RULE(20).replaceAll('  ', '      ')],
    [
      'where code was moved',
      `const LEAST = 20;\n${RULE(20).replace('20', 'LEAST')}`,
      `${RULE(20).replace('20', 'LEAST')}\nconst LEAST = 20;`,
    ],
    ['where it was written in another way', RULE(20), RULE(20).replace('> 20', '>= 20.000001')],
  ])('%s', async (_, before, after) => {
    const { differences, sessions } = await compared([before, after]);
    expect(differences).toEqual([]);
    expect(sessions > 0).toBe(before.replaceAll(/\s/g, '') !== after.replaceAll(/\s/g, ''));
  });

  test('where a field, a column and a button have another name', async () => {
    const before = formWith([text('licence'), rows('goods', [number('weight')])], {
      buttons: [{ name: 'check', label: 'Check' }],
    });
    const after = JSON.parse(
      JSON.stringify(before)
        .replaceAll('"licence"', '"permit"')
        .replaceAll('"weight"', '"mass"')
        .replaceAll('"goods"', '"cargo"')
        .replaceAll('"check"', '"look"'),
    ) as Form;
    const code = `keep(() => { fields.licence.required = fields.goods.rows.some((row) => (row.fields.weight.value ?? 0) > 5); });
on.click(buttons.check, () => { fields.licence.value = "x"; });`;
    const renamed = code
      .replaceAll('licence', 'permit')
      .replaceAll('weight', 'mass')
      .replaceAll('goods', 'cargo')
      .replaceAll('check', 'look');
    expect((await compared([code, renamed], [before, after])).differences).toEqual([]);
    const more = renamed.replace('> 5', '> 8');
    expect((await compared([code, more], [before, after])).differences).toMatchObject([
      {
        part: 'permit',
        aspect: 'required',
        way: { steps: [{ addRow: 'cargo' }, { set: 'cargo[0].mass' }] },
      },
    ]);
  });
});

test('what follows from a difference is told with it', async () => {
  const rest = 'keep(() => { fields.licence.required = fields.length.value === 12; });';
  const compute = (sum: number) =>
    `on.change(fields.pilot, ({ value }) => { fields.length.value = value === "own" ? ${sum} : null; });\n${rest}`;
  const found = await compared([compute(12), compute(13)]);
  expect(found.differences).toMatchObject([{ part: 'length', aspect: 'value' }]);
  expect(alsoInWords(found.differences[0]!, namesFor(FORM, [], people))).toEqual([
    'Licence',
    'submitting',
  ]);
});

test('a definition that changed differs without a line, and does not hide what scripts change', async () => {
  const after = formWith([
    FIELDS[0]!,
    FIELDS[1]!,
    { ...FIELDS[2]!, required: true },
    text('remark'),
  ]);
  const found = await compared([RULE(20), RULE(30)], [FORM, after]);
  expect(told(found, after)).toEqual([
    'Whoever opens the form has to fill in Length. In the former version, Length is not required.',
    'Whoever opens the form finds Remark, which is new.',
    expect.stringMatching(/^Whoever sets Length to \d+ does not have to fill in Licence\./),
  ]);
});

test('a submission that is stopped in one version alone names the stop', async () => {
  const stop =
    'on.submit((event) => { if (fields.pilot.value === null) event.stop("Who?", fields.pilot); });';
  expect(told(await compared(['', stop]))).toEqual([
    'Whoever submits the form is stopped at Pilot with “Who?” In the former version, the form is submitted.',
  ]);
});

test('the same seed finds the same, no more sessions are played than it may, and it can be ended', async () => {
  const codes = [RULE(20), RULE(30)] as const;
  const [one, again] = [await compared(codes), await compared(codes)];
  expect(again).toEqual(one);
  expect(one.sessions).toBe(200);
  const versions = [await versionOf(codes[0], FORM), await versionOf(codes[1], FORM)] as const;
  const ended = compare(...versions, {
    seed: 1,
    sessions: 200,
    change: NO_CHANGE,
    goOn: (played) => played < 9,
  });
  expect([ended.sessions, ended.cut]).toEqual([9, true]);
});
