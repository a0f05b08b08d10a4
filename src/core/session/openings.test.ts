/** Openings: viewing, next and previous record, launch, a parent, defaults; tracks, pages and messages on the way. Both hosts. */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  button,
  choice,
  date,
  datetime,
  formWith,
  number,
  page,
  rows,
  section,
  text,
  time,
  track,
  yesNo,
} from '../../../tests/support/forms';
import { both, bootMachine } from '../../../tests/support/hosts';
import type { Values } from '../form/value';

beforeAll(bootMachine);

const records: { id: string; values: Values }[] = [
  { id: '1', values: { note: 'one', cargo: [{ goods: 'salt' }] } },
  { id: '2', values: { note: 'two', cargo: [] } },
  { id: '3', values: { note: 'three' } },
];
const form = {
  ...formWith([text('note'), number('length'), rows('cargo', [text('goods')])]),
  buttons: [button('go')],
};
const between = (script: string) =>
  both({ form, scripts: { a: script }, record: records[1]!, opening: { records } });

describe('next and previous record', () => {
  test('nothing of the former record’s rows is left in what is seen', () => {
    const records = [
      { id: '1', values: { cargo: [{ goods: 'Acid', weight: 3 }] } },
      { id: '2', values: { cargo: [{ goods: 'Sand', weight: 4 }] } },
    ];
    const open = both({
      form: formWith([rows('cargo', [text('goods'), number('weight')])]),
      scripts: {
        a: 'keep.each(fields.cargo, "acid", (row) => { if (row.fields.goods.value === "Acid") { row.fields.weight.required = true; row.fields.weight.hint = "Weigh it."; row.warning = "Acid."; } });',
      },
      record: records[0]!,
      opening: { records },
    });
    expect(open.part('cargo[0].weight')).toMatchObject({ required: true, hint: 'Weigh it.' });
    open.do({ next: true });
    expect(open.part('cargo[0].weight')).toMatchObject({ value: 4, required: false, hint: null });
    expect(open.part('cargo[0]')).toMatchObject({ warning: null });
    open.do({ previous: true });
    expect(open.part('cargo[0].weight')).toMatchObject({ required: true, hint: 'Weigh it.' });
  });

  test('load fires for each, and the values are those of the record', () => {
    const open = between('on.load(() => log(form.record, form.isNew));');
    const logged = [
      open.opened,
      ...[{ next: true as const }, { previous: true as const }, { previous: true as const }].map(
        (step) => open.do(step),
      ),
    ].map((answer) => answer.log[0]!.values);
    expect(logged).toEqual([
      ['2', false],
      ['3', false],
      ['2', false],
      ['1', false],
    ]);
    expect([open.value('note'), open.value('cargo'), open.seen.record, open.seen.changed]).toEqual([
      'one',
      [{ goods: 'salt' }],
      '1',
      false,
    ]);
  });

  test('nothing of the former record’s state stays', () => {
    const open = between(
      'on.change(fields.note, () => { fields.length.locked = true; fields.length.hint = "said"; form.replaceWith("gone"); });\nkeep("length", () => { fields.length.value = fields.note.value?.length ?? null; });',
    );
    open.do({ set: 'note', to: 'changed' });
    open.do({ addRow: 'cargo' });
    open.do({ next: true });
    expect(open.part('length')).toMatchObject({ locked: false, hint: null, value: 5 });
    expect([open.seen.replaced, open.value('cargo'), open.seen.changed]).toEqual([null, [], true]);
    open.do({ previous: true });
    expect([open.value('note'), open.part('note').orphan]).toEqual(['two', false]);
  });

  test('14 ties made in load end with the record', () => {
    const open = between(
      'on.load(() => { const id = form.record; on.click(buttons.go, () => log("go", id)); keep(() => log("rule", id)); });',
    );
    open.do({ next: true });
    expect(open.do({ click: 'go' }).log.map((line) => line.values)).toEqual([['go', '3']]);
    expect(open.do({ previous: true }).log.map((line) => line.values)).toEqual([['rule', '2']]);
  });

  test('23 going to another record abandons open runs', () => {
    const open = between(
      'on.change(fields.note, async () => { await after(100); fields.note.value = "late"; });',
    );
    open.do({ set: 'note', to: 'x' });
    expect(open.do({ next: true }).waiting).toEqual([]);
    open.do({ wait: 100 });
    expect(open.value('note')).toBe('three');
  });

  test('refused at the ends; clock and launch go on', () => {
    const open = between('on.load(() => log(new Date().toISOString()));');
    open.do({ next: true });
    expect(open.do({ next: true }).refused).toBe('there is no next record');
    open.do({ wait: 1000 });
    expect(open.do({ previous: true }).log[0]!.values).toEqual(['2031-05-02T09:00:01.000Z']);
    expect(both({ form }).do({ previous: true }).refused).toBe('there is no previous record');
  });
});

test('a record that is only viewed: scripts run, people change nothing', () => {
  const open = both({
    form,
    scripts: { a: 'on.load(() => { log(form.viewing); fields.length.value = 3; });' },
    record: records[0]!,
    opening: { viewing: true },
  });
  expect([
    open.opened.log[0]!.values,
    open.value('length'),
    open.part('note').editable,
    open.part('cargo[0].goods').editable,
  ]).toEqual([[true], 3, false, false]);
  for (const step of [
    { set: 'note', to: 'x' },
    { addRow: 'cargo' },
    { click: 'go' },
    { submit: true as const },
  ])
    expect(open.do(step).refused).toBe('this record is only being viewed');
});

describe('defaults', () => {
  const fields = [
    text('who', { defaultFrom: 'person_name' }),
    text('key', { defaultFrom: 'person_key' }),
    text('role', { defaultFrom: 'person_role' }),
    date('day', { defaultFrom: 'today' }),
    time('at', { defaultFrom: 'now' }),
    datetime('moment', { defaultFrom: 'now' }),
    number('tugs', { default: 2 }),
  ];
  test('come from the person and the session’s clock', () => {
    const open = both({ form: formWith(fields) });
    expect(
      ['who', 'key', 'role', 'day', 'at', 'moment', 'tugs'].map((name) => open.value(name)),
    ).toEqual(['Mira Oldane', 'mira', 'clerk', '2031-05-02', '09:00', '2031-05-02T09:00:00Z', 2]);
    expect(open.seen.changed).toBe(false);
  });

  test('are not put into an existing record, but into new rows and by clearing', () => {
    const open = both({
      form: formWith([...fields, rows('calls', fields)]),
      scripts: { a: 'on.change(fields.tugs, () => form.clear());' },
      record: { id: '1', values: {} },
    });
    expect(open.value('who')).toBeNull();
    open.do({ addRow: 'calls' });
    expect(open.value('calls[0].day')).toBe('2031-05-02');
    open.do({ set: 'tugs', to: 5 });
    expect([open.value('who'), open.value('calls')]).toEqual(['Mira Oldane', []]);
  });
});

test('10 a field that only scripts write refuses people whatever is said of it', () => {
  const open = both({
    form: formWith([text('note', { scriptOnly: true })]),
    scripts: {
      a: 'on.load(() => { fields.note.locked = false; fields.note.value = "by script"; });',
    },
  });
  expect([open.part('note').editable, open.value('note')]).toEqual([false, 'by script']);
  expect(open.do({ set: 'note', to: 'x' }).refused).toBe('Note is locked');
});

describe('tracks', () => {
  const tracked = {
    ...formWith([choice('works', ['hot', 'cold'])]),
    tracks: [
      track('long', ['asked', 'checked', 'granted'], { stage: 'asked' }),
      track('short', ['asked', 'granted'], { hidden: true }),
    ],
  };
  test('one is shown, another, or none, by a rule; a handler sets a stage', () => {
    const open = both({
      form: tracked,
      scripts: {
        a: 'keep("track", () => { tracks.long.shown = fields.works.value === "hot"; tracks.short.shown = fields.works.value === "cold"; });\non.change(fields.works, ({ value }) => { tracks.short.stage = value === "cold" ? "granted" : null; });',
      },
    });
    const states = () =>
      ['long', 'short'].map((name) => [open.part(name).shown, open.part(name).stage]);
    expect(states()).toEqual([
      [false, 'asked'],
      [false, null],
    ]);
    open.do({ set: 'works', to: 'cold' });
    expect(states()).toEqual([
      [false, 'asked'],
      [true, 'granted'],
    ]);
    open.do({ set: 'works', to: 'hot' });
    expect(states()).toEqual([
      [true, 'asked'],
      [false, null],
    ]);
  });
  test('a stage that a track does not have is an error', () => {
    expect(
      both({
        form: tracked,
        scripts: { a: 'on.load(() => { tracks.short.stage = "checked" as never; });' },
      }).opened.errors[0]!.says,
    ).toBe('short.stage takes one of "asked", "granted" or null, not "checked".');
  });
});

describe('a form opened from a parent (28)', () => {
  const parent = {
    form: 'vessel',
    record: 'v-017',
    fields: [number('length'), text('latest_visit')],
    values: { length: 88, latest_visit: null },
  };
  const child = (script: string, more: object = { parent }) =>
    both({ form, scripts: { a: script }, opening: more });

  test('reads the values of the parent and its launch parameters', () => {
    const open = both({
      form,
      scripts: {
        a: 'on.load(() => { fields.length.value = parent?.get("length") as number; fields.note.value = form.launch.vessel as string; fields.note.locked = true; });',
      },
      launch: { vessel: 'v-017' },
      opening: { parent },
    });
    expect([open.value('length'), open.value('note'), open.part('note').locked]).toEqual([
      88,
      'v-017',
      true,
    ]);
  });

  test('without one, parent is null', () => {
    expect(
      child('on.load(() => log(parent === null, typeof parent));', {}).opened.log[0]!.values,
    ).toEqual([true, 'object']);
  });

  test('asks for a value to be set in the parent when it is saved', () => {
    const open = child('on.saved(({ id }) => parent?.set("latest_visit", id));');
    expect(open.do({ submit: true })).toMatchObject({
      submit: { saved: true },
      toParent: [{ set: 'latest_visit', to: 'new' }],
    });
  });

  test('a field the parent does not have, or a value of another kind, rejects', () => {
    const open = child(
      'on.click(buttons.go, async () => { for (const [name, value] of [["depth", 1], ["length", "x"]] as const) try { await parent!.set(name, value); } catch (error) { log((error as Error).message); } });',
    );
    open.do({ click: 'go' });
    expect(open.do({ wait: 0 }).log.map((line) => line.values[0])).toEqual([
      'parent.set failed: parent has no field "depth": the form vessel has none.',
      'parent.set failed: Length takes a finite number',
    ]);
    expect(open.seen.changed).toBe(false);
  });

  test('the parent’s session applies it as a step by script, with all that follows', () => {
    const open = both({
      form: formWith([text('latest_visit', { locked: true }), yesNo('visited')]),
      scripts: {
        a: 'keep(() => { fields.visited.value = fields.latest_visit.value !== null; });\non.change(fields.latest_visit, ({ by }) => log(by));',
      },
    });
    const answer = open.do({ fromChild: 'latest_visit', to: '41' });
    expect([answer.refused, answer.log[0]!.values, open.value('visited')]).toEqual([
      null,
      ['script'],
      true,
    ]);
    expect(open.do({ fromChild: 'visited', to: 'x' }).refused).toContain('takes yes or no');
  });
});

describe('the form as a whole', () => {
  test('its body may be replaced by a message, and come back', () => {
    const open = both({
      form: formWith([yesNo('needed')]),
      scripts: {
        a: 'keep("not needed", () => { if (fields.needed.value === false) form.replaceWith("No permit is needed."); });',
      },
    });
    open.do({ set: 'needed', to: false });
    expect(open.seen.replaced).toEqual({ text: 'No permit is needed.', final: false });
    open.do({ set: 'needed', to: true });
    expect(open.seen.replaced).toBeNull();
  });

  test('a script jumps to a page', () => {
    const pages = {
      ...formWith([]),
      pages: [
        page('first', [section('one', [text('note')])]),
        page('second', [section('two', [text('more')])]),
      ],
    };
    const open = both({
      form: pages,
      scripts: { a: 'on.change(fields.note, () => pages.second.open());' },
    });
    open.do({ set: 'note', to: 'x' });
    expect(open.seen.page).toBe('second');
  });

  test('an event of a part tells its previous value, also to a rule on a field that nobody listens to', () => {
    const open = both({
      form: formWith([number('length'), text('note')]),
      scripts: {
        a: 'keep("grew", () => { fields.note.value = `${fields.length.previous} → ${fields.length.value}`; });',
      },
    });
    open.do({ set: 'length', to: 3 });
    open.do({ set: 'length', to: 5 });
    expect(open.value('note')).toBe('3 → 5');
  });
});
