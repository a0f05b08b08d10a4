/** A search as a whole: the same from the same seed, ended at any time, and what it leaves alone. */
import { describe, expect, test } from 'vitest';
import {
  choice,
  datetime,
  formWith,
  number,
  page,
  rows,
  section,
  text,
  yesNo,
} from '../../../tests/support/forms';
import { stageOf } from '../../../tests/support/stage';
import { materialOf } from '../language/material';
import type { Form } from '../form/definition';
import type { Step } from '../session/step';
import type { Values } from '../form/value';
import { stillFound } from './again';
import { Checkpoints } from './checkpoints';
import { Exploration } from './exploration';
import type { Finding, Way } from './finding';
import { mentionsOf } from './mentions';
import { merged } from './merged';
import { explored } from './phases';
import { search, type SearchOptions } from './search';
import { shrunk } from './shrink';

const FIELDS = [choice('pilot', ['none', 'own']), text('licence'), number('length')];
const FORM = formWith(FIELDS);
/** The same with a list, each row of it with a number that only some rows show. */
const ROWS = formWith([
  ...FIELDS,
  rows('goods', [text('what'), number('weight'), yesNo('dangerous'), text('un_number')]),
]);
const OPENING = {
  person: { key: 'ida', name: 'Ida Lund', roles: ['agent'] },
  record: null,
  launch: {},
  clock: Date.parse('2031-05-02T09:00:00Z'),
  seed: 1,
  newId: 'new',
};
test('walks begin where people left off, and nothing else is drawn where nobody did', async () => {
  const { ground, mentions, material } = groundOf(STAYS);
  const stage = await stageOf(material);
  const played = (done: readonly Way[]) => {
    const all: string[] = [];
    const onPlayed = (_: unknown, __: unknown, steps: readonly Step[]) =>
      void all.push(JSON.stringify(steps));
    const options = { seed: 1, sessions: 1500, onPlayed };
    explored({ ...ground, done }, mentions, stage, options, new Checkpoints());
    return all;
  };
  const steps: Step[] = [{ set: 'licence', to: 'nobody would try this' }, { submit: true }];
  const lasting = { set: 'length', to: 4711 };
  const done = [{ opening: OPENING, steps: [...steps.slice(0, 1), lasting, ...steps.slice(1)] }];
  const all = played(done);
  expect(all.some((one) => one.includes('nobody would try this'))).toBe(true);
  expect(all.some((one) => one.includes('4711'))).toBe(true);
  const { ground: plain } = groundOf(STAYS);
  const never: string[] = [];
  explored(
    plain,
    mentions,
    stage,
    { seed: 1, sessions: 1500, onPlayed: (_, __, of) => void never.push(JSON.stringify(of)) },
    new Checkpoints(),
  );
  expect(played([])).toEqual(never);
});

const STAYS =
  'on.change(fields.pilot, ({ value }) => { if (value === "own") fields.licence.required = true; });';

function groundOf(code: string, form: Form = FORM) {
  const sources = [{ name: '10-a.ts', text: code }];
  const around = { tables: [], services: [] };
  const ground = {
    form,
    ...around,
    people: [{ key: 'ida', name: 'Ida Lund', roles: ['agent'] }],
    records: [],
    parents: [],
    clock: Date.parse('2031-05-02T09:00:00Z'),
  };
  return {
    ground,
    mentions: mentionsOf(sources),
    material: materialOf(form, around, sources, 'traced'),
  };
}

async function searched(
  code: string,
  more: Partial<SearchOptions> = {},
  form: Form = FORM,
  keeps = true,
) {
  const { ground, mentions, material } = groundOf(code, form);
  const options = { seed: 1, sessions: 150, ...more };
  const stage = await stageOf(material);
  const on = keeps ? stage : { ...stage, checkpoint: () => null };
  return search(ground, mentions, on, options);
}
const wrong = ({ findings }: { findings: readonly Finding[] }) =>
  findings.filter(({ level }) => level === 'wrong');

test('conditions count by what they decide, whatever their value and however long, and what is assigned does not', async () => {
  const long = Array.from({ length: 9 }, (_, i) => `fields.length.value !== -${i + 1}`).join(
    ' && ',
  );
  const { findings, reached } = await searched(
    `on.change(fields.pilot, ({ value }) => {
  const never = value === null && value !== null;
  if (fields.licence.value || "none") log(never);
  if (${long}) log("a length");
  if (fields.length.value || value) log(value);
});`,
    { sessions: 150 },
  );
  expect(
    findings
      .filter(({ kind }) => kind === 'one-sided')
      .map(({ lines }) => lines[0]!.line)
      .toSorted(),
  ).toEqual([3, 4]);
  expect(reached).toMatchObject({ conditions: 3, bothWays: 1 });
});

test('the same seed finds the same; another one goes another way', async () => {
  const [one, again, other] = [
    await searched(STAYS),
    await searched(STAYS),
    await searched(STAYS, { seed: 2 }),
  ];
  expect(again).toEqual(one);
  expect(other.steps).not.toBe(one.steps);
  expect(wrong(other)).toHaveLength(1);
});

test('going on from checkpoints finds what playing every session from its opening finds', async () => {
  const code = `
let times = 0;
on.change(fields.pilot, async ({ value }) => {
  times++;
  await after(20);
  fields.licence.required = value === "own";
  fields.length.hint = times > 3 ? \`changed \${times} times\` : null;
});
keep(() => { fields.length.shown = fields.licence.value !== null; });`;
  const kept = await searched(code);
  expect(kept.findings.length).toBeGreaterThan(0);
  expect(await searched(code, {}, FORM, false)).toEqual(kept);
});

test('what stays is told once, by the shortest way, with the line that said it', async () => {
  const [finding, ...rest] = wrong(await searched(STAYS));
  expect(rest).toEqual([]);
  expect(finding).toMatchObject({
    kind: 'not-back',
    part: 'licence',
    aspect: 'required',
    lines: [{ behaviour: '10-a', line: 1 }],
    way: {
      steps: [
        { set: 'pilot', to: 'own' },
        { set: 'pilot', to: null },
      ],
    },
    other: { steps: [] },
  });
});

test('it plays no more sessions than it may, and says when it was ended before', async () => {
  const whole = await searched(STAYS, { sessions: 60 });
  expect(whole.sessions).toBe(60);
  expect(whole.cut).toBe(false);
  const ended = await searched(STAYS, { goOn: (sessions) => sessions < 40 });
  expect(ended.cut).toBe(true);
  expect(ended.sessions).toBe(40);
});

test('nothing of one search is left for the next', async () => {
  const keeps =
    'let seen = 0;\non.load(() => { seen += 1; fields.length.hint = seen > 1 ? "again" : null; });';
  const before = await searched(keeps);
  await searched(STAYS);
  expect(await searched(keeps)).toEqual(before);
});

test('a script that replaces built-ins, or fails at its top level, is searched like any other', async () => {
  const hostile = await searched(
    'Array.prototype.map = () => { throw new Error("mine"); };\nObject.prototype.toString = null as never;\n' +
      STAYS,
  );
  expect(hostile.sessions).toBe(150);
  const failing = await searched('throw new Error("no");\n' + STAYS);
  expect(wrong(failing)).toMatchObject([
    { kind: 'throws', lines: [{ behaviour: '10-a', line: 1 }] },
  ]);
});

test('a form without fields, and one without scripts, have nothing to find', async () => {
  expect(wrong(await searched('', {}, formWith([])))).toEqual([]);
  expect(wrong(await searched(''))).toEqual([]);
});

test('of several searches what one found stays found, by its shortest way', () => {
  const finding = (steps: number, level: Finding['level'] = 'wrong') =>
    ({
      kind: 'not-back',
      level,
      part: 'a',
      aspect: 'shown',
      lines: [],
      way: { opening: {}, steps: Array.from({ length: steps }, () => ({ submit: true })) },
      other: null,
      also: [],
    }) as unknown as Finding;
  expect(merged([finding(3)], [], [finding(2)])[0]!.way.steps).toHaveLength(2);
  expect(merged([finding(1, 'may')], [finding(4)])).toMatchObject([{ level: 'wrong' }]);
});

test('what one handler does to several fields when the same is set is one finding, at the lines of all', () => {
  const finding = (part: string, line: number, set: string) =>
    ({
      kind: 'not-back',
      level: 'wrong',
      part,
      aspect: 'value',
      lines: [{ behaviour: 'a', line, tie: 1 }],
      way: { opening: OPENING, steps: [{ set, to: `${part} of it` }, { wait: 3 }] },
      other: null,
      also: [],
    }) as unknown as Finding;
  const all = merged([
    finding('name', 4, 'imo'),
    finding('flag', 5, 'imo'),
    finding('day', 6, 'from'),
  ]);
  expect(all.map(({ part, lines }) => [part, lines.map(({ line }) => line)])).toEqual([
    ['name', [4, 5]],
    ['day', [6]],
  ]);
});

test.each([
  [
    'form.replaceWith("Ask the office.")',
    '@form',
    'is replaced by “Ask the office.”; otherwise it shows its fields',
  ],
  [
    'fields.licence.hint = "Which one?"',
    'licence',
    'has the hint “Which one?”; otherwise it has no hint',
  ],
  ['fields.licence.shown = false', 'licence', 'is off screen; otherwise it is on screen'],
  ['fields.licence.locked = true', 'licence', 'is locked; otherwise it can be changed'],
])('what differs is said in words: %s', async (code, part, says) => {
  const { findings } = await searched(
    `on.change(fields.pilot, ({ value }) => { if (value === "own") { ${code}; } });`,
  );
  expect(findings.filter((one) => one.part === part).map((one) => one.says)).toContain(
    `pilot set to "own", then pilot emptied: ${part} ${says}`,
  );
});

describe('the shortest way', () => {
  const shrunkTo = async (
    code: string,
    found: Pick<Finding, 'kind' | 'part' | 'aspect' | 'way' | 'other'>,
    form: Form,
  ) => {
    const { ground, mentions, material } = groundOf(code, form);
    const rest = { level: 'wrong', lines: [], says: '', met: null, also: [] } as const;
    const stage = await stageOf(material);
    return shrunk({ ...found, ...rest }, ground, mentions, stage, new Checkpoints());
  };
  const shortest = async (
    code: string,
    found: Pick<Finding, 'kind' | 'part' | 'aspect'>,
    one: Step[],
    other: Step[] | null,
    form: Form = FORM,
  ) => {
    const { way, other: theirs } = await shrunkTo(
      code,
      {
        ...found,
        way: { opening: OPENING, steps: one },
        other: other === null ? null : { opening: OPENING, steps: other },
      },
      form,
    );
    return [way.steps, theirs?.steps];
  };

  test('of two orders leaves out what both have and do not need', async () => {
    const length: Step = { set: 'length', to: 20 };
    const pilot: Step = { set: 'pilot', to: 'own' };
    const licence: Step = { set: 'licence', to: 'x' };
    expect(
      await shortest(
        'on.change(fields.pilot, () => { fields.licence.required = (fields.length.value ?? 0) > 2; });\non.load(() => { fields.licence.required = false; });',
        { kind: 'order', part: 'licence', aspect: 'required' },
        [licence, length, pilot],
        [pilot, length, licence],
      ),
    ).toEqual([
      [{ ...length, to: 3 }, pilot],
      [pilot, { ...length, to: 3 }],
    ]);
  });

  test('of a dead end leaves out what has nothing to do with it; where there is a way out it is left as it was', async () => {
    const shut = (locked: string) =>
      `keep(() => { fields.licence.required = true; fields.licence.locked = ${locked}; });`;
    const found = { kind: 'dead-end', part: 'licence', aspect: 'stop' } as const;
    const steps: Step[] = [
      { set: 'length', to: 20 },
      { set: 'pilot', to: 'own' },
      { submit: true },
    ];
    expect(await shortest(shut('true'), found, steps, null)).toEqual([
      [{ submit: true }],
      undefined,
    ]);
    const byPilot = shut('fields.pilot.value === "own"');
    expect(await shortest(byPilot, found, steps, null)).toEqual([steps, undefined]);
  });

  test('of a turned page leaves out what was entered besides', async () => {
    const form = {
      ...formWith([]),
      pages: [
        page('first', [section('one', [choice('pilot', ['none', 'own']), text('licence')])]),
        page('second', [section('two', [number('length')])]),
      ],
    };
    const turns: Step[] = [{ turnTo: 'second' }, { turnTo: 'first' }];
    const pilot: Step = { set: 'pilot', to: 'own' };
    const besides: Step = { set: 'licence', to: 'x' };
    expect(
      await shortest(
        'on.pageChange(() => { fields.licence.required = fields.pilot.value === "own"; });',
        { kind: 'page-turn', part: 'licence', aspect: 'required' },
        [besides, pilot, ...turns],
        [besides, pilot],
        form,
      ),
    ).toEqual([[pilot, ...turns], [pilot]]);
  });

  test('opens a new form for the first person, with what both sessions need and nothing else', async () => {
    const launch = ['pilot', 'from'].map((name) => ({ name, kind: 'text' as const }));
    const form = formWith(FIELDS, { launch });
    const person = { key: 'bo', name: 'Bo Dahl', roles: ['clerk'] };
    const record = { id: 'r', values: { licence: 'x' } };
    const opening = { ...OPENING, person, record, launch: { pilot: 'own', from: 'quay' } };
    const own: Step = { set: 'pilot', to: 'own' };
    const none: Step = { set: 'pilot', to: 'none' };
    const simplest = async (
      code: string,
      kind: Finding['kind'],
      way: Finding['way'],
      other: Finding['way'],
    ) => {
      const of = { kind, part: 'licence', aspect: 'required', way, other };
      const { way: one, other: theirs } = await shrunkTo(code, of, form);
      return [one.opening, theirs!.opening];
    };
    const nothing = { ...OPENING, launch: { pilot: null, from: null } };
    expect(
      await simplest(
        STAYS,
        'not-back',
        { opening, steps: [own, none] },
        { opening, steps: [none] },
      ),
    ).toEqual([nothing, nothing]);
    // A record that is needed stays, and so does what one of the sessions alone is launched with.
    const ofRecord = STAYS.replace('value === "own"', '$& && !form.isNew');
    const both = await simplest(
      ofRecord,
      'not-back',
      { opening, steps: [own, none] },
      { opening, steps: [none] },
    );
    expect(both).toEqual([
      { ...nothing, record },
      { ...nothing, record },
    ]);
    const arranged = `const arrange = () => { fields.licence.required = fields.pilot.value === "own"; };
on.load(() => { arrange(); if (form.launch.pilot === "own") fields.pilot.value = "own"; });
on.change(fields.pilot, ({ by }) => { if (by === "person") arrange(); });`;
    const plain = { ...opening, launch: nothing.launch };
    expect(
      await simplest(
        arranged,
        'launched-differs',
        { opening, steps: [] },
        { opening: plain, steps: [own] },
      ),
    ).toEqual([{ ...nothing, launch: { pilot: 'own', from: null } }, nothing]);
  });

  test('of rows in two orders, and of what is added up in a row, leaves out the cells that are not needed', async () => {
    const first: Step[] = [
      { addRow: 'goods' },
      { set: 'goods[0].what', to: 'x' },
      { set: 'goods[0].weight', to: 20 },
    ];
    const second: Step[] = [{ addRow: 'goods' }, { set: 'goods[1].what', to: 'y' }];
    expect(
      await shortest(
        'keep(() => { fields.licence.required = fields.goods.rows[0]?.fields.weight.empty === false; });',
        { kind: 'order-of-rows', part: 'licence', aspect: 'required' },
        [{ set: 'pilot', to: 'own' }, ...first, ...second],
        [],
        ROWS,
      ),
    ).toEqual([
      [first[0], first[2], second[0]],
      [second[0], second[0], { set: 'goods[1].weight', to: 20 }],
    ]);
    const again: Step[] = [
      { set: 'goods[0].weight', to: 7 },
      { set: 'goods[0].weight', to: 20 },
    ];
    expect(
      await shortest(
        'on.change(fields.goods.each.weight, ({ value }) => { fields.length.value = (fields.length.value ?? 0) + (value ?? 0); });\nkeep(() => { fields.length.locked = true; });',
        { kind: 'not-back', part: 'length', aspect: 'value' },
        [...first, ...again],
        first,
        ROWS,
      ),
    ).toEqual([[{ addRow: 'goods' }, ...again], [{ addRow: 'goods' }]]);
  });
});

test('what a script computes in a field that people can change is wrong where it is not computed anew', async () => {
  const code = `on.change(fields.b, () => {
  const { a, b } = fields;
  fields.sum.value = a.value === null || b.value === null ? null : a.value + b.value;
});`;
  const found = wrong(
    await searched(code, { sessions: 400 }, formWith([number('a'), number('b'), number('sum')])),
  );
  expect(found).toMatchObject([{ part: 'sum', aspect: 'value', lines: [{ line: 3 }] }]);
});

test('what is said before a launch is looked at, and would be said without one, is not said because of it', async () => {
  const form = formWith(FIELDS, { launch: [{ name: 'pilot', kind: 'text' }] });
  const launched = (first: string, second: string) =>
    searched(
      `const arrange = () => { fields.licence.shown = fields.pilot.value === "own"; };
on.load(() => { ${first} if (form.launch.pilot === "own") fields.pilot.value = "own"; ${second} });
on.change(fields.pilot, ({ by }) => { if (by === "person") arrange(); });`,
      { sessions: 150 },
      form,
    );
  const kinds = (found: readonly Finding[]) => found.flatMap(({ kind, also }) => [kind, ...also]);
  expect(kinds(wrong(await launched('arrange();', '')))).toContain('launched-differs');
  expect(kinds(wrong(await launched('', 'arrange();')))).not.toContain('launched-differs');
});

test('what openings alone bring is looked at again, with its lines and nothing else of what was said there', async () => {
  const form = formWith(FIELDS, { launch: [{ name: 'pilot', kind: 'text' }] });
  const code = `const arrange = () => { fields.licence.shown = fields.pilot.value === "own"; };
on.load(() => { arrange(); if (form.launch.pilot === "own") fields.pilot.value = "own"; });
on.change(fields.pilot, ({ by }) => { if (by === "person") arrange(); });`;
  const { ground, mentions, material } = groundOf(code, form);
  const finding: Finding = {
    kind: 'launched-differs',
    level: 'wrong',
    part: 'licence',
    aspect: 'onScreen',
    lines: [],
    says: '',
    way: { opening: { ...OPENING, launch: { pilot: 'own' } }, steps: [] },
    other: { opening: OPENING, steps: [{ set: 'pilot', to: 'own' }] },
    met: null,
    also: [],
  };
  const now = stillFound(finding, ground, mentions, await stageOf(material));
  expect(now?.lines).toEqual([{ behaviour: '10-a', line: 1, tie: 3 }]);
});

test('moments are entered by the clock on the wall of each zone: what depends on their hour there is the same', async () => {
  const late = (hour: string) =>
    `keep(() => { const at = fields.ends.value; fields.licence.required = at !== null && ${hour} >= 10; });`;
  const kinds = async (hour: string) =>
    wrong(
      await searched(late(hour), { sessions: 150 }, formWith([...FIELDS, datetime('ends')])),
    ).map(({ kind, part }) => `${kind} ${part}`);
  const there = 'Temporal.Instant.from(at).toZonedDateTimeISO(Temporal.Now.timeZoneId()).hour';
  expect(await kinds(there)).toEqual([]);
  expect(await kinds('new Date(at).getUTCHours()')).toEqual(['zone licence']);
});

test('a stop that nobody can mend is found though there is much that could be entered besides', async () => {
  const many = Array.from({ length: 12 }, (_, i) => choice(`besides_${i}`, ['a', 'b', 'c', 'd']));
  const form = formWith([...FIELDS, ...many]);
  const shut = `keep(() => { fields.pilot.locked = true; });
on.submit((event) => { if (fields.pilot.value === null) event.stop("Who?", fields.pilot); });`;
  expect(wrong(await searched(shut, { sessions: 400 }, form))).toMatchObject([
    { kind: 'dead-end', part: 'pilot' },
  ]);
});

test('rows are added empty and filled in as far as their cells are open, as people do', async () => {
  const asked = `
keep.each(fields.goods, (row) => { row.fields.un_number.shown = row.fields.dangerous.value === true; });
on.change(fields.goods.each.dangerous, ({ row, value }) => { row.fields.what.required = value === true; });
on.load(() => { for (const row of fields.goods.rows) row.fields.what.required = row.fields.dangerous.value === true; });`;
  expect(wrong(await searched(asked, { sessions: 300 }, ROWS))).toEqual([]);
  const { ground, mentions, material } = groundOf(asked, ROWS);
  const run = new Exploration(
    ground,
    mentions,
    await stageOf(material),
    1,
    () => undefined,
    new Checkpoints(),
  );
  const added = Array.from({ length: 40 }, () => {
    const row = run.newRow(run.rowsDrivers[0]!, true, OPENING, []);
    return { row, ran: run.play(OPENING, [row]) };
  });
  const cells = added.flatMap(({ row }) => ('addRow' in row ? [row.with as Values] : []));
  const numbered = cells.filter(({ un_number }) => un_number !== undefined);
  expect(numbered.length).toBeGreaterThan(0);
  expect(numbered.filter(({ dangerous }) => dangerous !== true)).toEqual([]);
  for (const { ran } of added) {
    expect(ran.refused).toEqual([]);
    expect(ran.steps[0]).toEqual({ addRow: 'goods' });
  }
});
