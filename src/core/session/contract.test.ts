/** What the contract says of openings, refusals, warnings and messages instead of the form. */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  berths,
  button,
  choice,
  datetime,
  date,
  formWith,
  number,
  page,
  rows,
  section,
  text,
  time,
} from '../../../tests/support/forms';
import { both, bootMachine, direct, inMachine } from '../../../tests/support/hosts';
import { readLaunch } from '../form/launch';

beforeAll(bootMachine);

describe('3 what a person enters and a field does not take', () => {
  test.each<[string, unknown, string]>([
    ['length', 'long', 'Length (number) takes a finite number, not "long"'],
    ['pilot', 'Own pilot', 'Pilot (choice) takes one of the keys "own", "none", not "Own pilot"'],
    ['note', 4, 'Note (text) takes a text, not 4'],
    ['list[0].n', 'x', 'N in row 1 of List (number) takes a finite number, not "x"'],
  ])('is named with field, kind and value: %s', (set, to, refused) => {
    const open = both({
      form: formWith([
        number('length'),
        choice('pilot', ['own', 'none']),
        text('note'),
        rows('list', [number('n')]),
      ]),
    });
    open.do({ addRow: 'list' });
    expect(open.do({ set, to: to as never }).refused).toBe(refused);
  });
});

describe('7 hint and warning', () => {
  const form = formWith([
    text('note', { hint: 'As on the papers.', warning: 'Read twice.' }),
    number('a'),
    rows('list', [number('n', { hint: 'In tons.' })]),
  ]);

  test('begin with what the definition says, are said by scripts, and come back', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("r", () => { if (fields.a.value === 1) { fields.note.hint = "other"; fields.note.warning = null; } });',
      },
    });
    const seen = () => [
      open.part('note').hint,
      open.part('note').warning,
      open.part('list[0].n').hint,
    ];
    open.do({ addRow: 'list' });
    expect(seen()).toEqual(['As on the papers.', 'Read twice.', 'In tons.']);
    open.do({ set: 'a', to: 1 });
    expect(seen()).toEqual(['other', null, 'In tons.']);
    open.do({ set: 'a', to: 2 });
    expect(seen()).toEqual(['As on the papers.', 'Read twice.', 'In tons.']);
  });

  test('25 a warning stops nothing, on fields, rows and cells', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep.each(fields.list, "w", (row) => { row.warning = (row.fields.n.value ?? 0) > 5 ? "Many." : null; row.fields.n.warning = row.warning === null ? null : "So many."; });',
      },
    });
    open.do({ addRow: 'list', with: { n: 9 } });
    expect([open.part('list[0]').warning, open.part('list[0].n').warning]).toEqual([
      'Many.',
      'So many.',
    ]);
    expect(open.do({ submit: true }).submit).toMatchObject({ saved: true });
    open.do({ set: 'list[0].n', to: 1 });
    expect([open.part('list[0]').warning, open.part('list[0].n').warning]).toEqual([null, null]);
  });

  test('a warning takes a text or null', () => {
    expect(
      both({ form, scripts: { a: 'on.load(() => { fields.note.warning = 3 as never; });' } }).opened
        .errors[0]!.says,
    ).toBe('note.warning takes a text or null, not 3.');
  });
});

describe('24 the zone of the session', () => {
  const form = formWith([
    date('day', { defaultFrom: 'today' }),
    time('at', { defaultFrom: 'now' }),
    datetime('moment', { defaultFrom: 'now' }),
    text('note'),
  ]);
  const script = {
    a: 'on.load(() => log(Temporal.Now.timeZoneId(), Temporal.Now.plainDateTimeISO().toString(), Temporal.Now.plainDateISO("Asia/Kathmandu").toString(), Temporal.Instant.from("2031-07-01T12:00:00Z").toZonedDateTimeISO(Temporal.Now.timeZoneId()).offset));',
  };

  // Offsets of Lisbon, Auckland and New York by the IANA time zone database; New York changes on the second Sunday of March.
  test.each<[string | undefined, string, unknown[], unknown[]]>([
    [
      undefined,
      '2031-05-02T23:30:00Z',
      ['UTC', '2031-05-02T23:30:00', '2031-05-03', '+00:00'],
      ['2031-05-02', '23:30', '2031-05-02T23:30:00Z'],
    ],
    [
      'Europe/Lisbon',
      '2031-05-02T23:30:00Z',
      ['Europe/Lisbon', '2031-05-03T00:30:00', '2031-05-03', '+01:00'],
      ['2031-05-03', '00:30', '2031-05-02T23:30:00Z'],
    ],
    [
      'Pacific/Auckland',
      '2031-01-01T11:30:00Z',
      ['Pacific/Auckland', '2031-01-02T00:30:00', '2031-01-01', '+12:00'],
      ['2031-01-02', '00:30', '2031-01-01T11:30:00Z'],
    ],
    [
      'America/New_York',
      '2031-03-09T07:00:00Z',
      ['America/New_York', '2031-03-09T03:00:00', '2031-03-09', '-04:00'],
      ['2031-03-09', '03:00', '2031-03-09T07:00:00Z'],
    ],
  ])('%s is what Temporal.Now gives and defaults come from', (zone, clock, logged, defaults) => {
    const open = both({
      form,
      scripts: script,
      clock: Date.parse(clock),
      opening: zone === undefined ? {} : { zone },
    });
    expect(open.opened.errors).toEqual([]);
    expect(open.opened.log[0]!.values).toEqual(logged);
    expect(['day', 'at', 'moment'].map((name) => open.value(name))).toEqual(defaults);
  });

  test('a zone that nobody knows is an error of the script', () => {
    expect(
      both({
        form,
        scripts: {
          a: 'on.load(() => log(Temporal.Now.plainDateISO("Harbour/Nowhere").toString()));',
        },
      }).opened.errors,
    ).toMatchObject([{ code: 'range', line: 1 }]);
  });
});

describe('15 the person', () => {
  test('has several roles, a frozen list', () => {
    const open = both({
      form: formWith([text('note')]),
      roles: ['clerk', 'master'],
      scripts: {
        a: 'on.load(() => log(form.person.roles, form.person.roles.includes("master"), Object.isFrozen(form.person.roles), Object.isFrozen(form.person)));\nkeep("r", () => { fields.note.locked = !form.person.roles.includes("agent"); });',
      },
    });
    expect(open.opened.log[0]!.values).toEqual([['clerk', 'master'], true, true, true]);
    expect(open.part('note').locked).toBe(true);
  });
});

describe('28 launch parameters', () => {
  const declared = {
    launch: [
      { name: 'tugs', kind: 'number' as const },
      { name: 'vessel', kind: 'text' as const },
      { name: 'day', kind: 'date' as const },
      { name: 'alone', kind: 'yes_no' as const },
    ],
  };

  test.each<[string, object, object]>([
    [
      'texts of an address are read as what they say',
      { tugs: '2', vessel: 'Aurelle', day: '2031-05-02', alone: 'true' },
      { tugs: 2, vessel: 'Aurelle', day: '2031-05-02', alone: true },
    ],
    ['what is not given is null', {}, { tugs: null, vessel: null, day: null, alone: null }],
    [
      'others are texts',
      { other: '7', more: 4 },
      { tugs: null, vessel: null, day: null, alone: null, other: '7', more: '4' },
    ],
  ])('%s', (_what, given, launch) => {
    expect(readLaunch(declared, given as never)).toEqual({ launch });
  });

  test.each<[object, string]>([
    [{ tugs: 'two' }, 'the launch parameter tugs takes a finite number, not "two"'],
    [
      { day: '2031-02-30' },
      'the launch parameter day takes a date spelled YYYY-MM-DD, not "2031-02-30"',
    ],
    [{ alone: 1 }, 'the launch parameter alone takes true or false, not 1'],
    [{ other: ['x'] }, 'the launch parameter other takes a text, not a list of 1'],
  ])('%j is refused with its name', (given, says) => {
    expect(readLaunch(declared, given as never)).toMatchObject({ says });
  });

  test('are at hand in scripts, frozen', () => {
    const open = both({
      form: formWith([text('note')]),
      launch: { tugs: 2 },
      scripts: {
        a: 'on.load(() => { log(form.launch.tugs, form.launch.nothing, Object.isFrozen(form.launch)); });',
      },
    });
    expect(open.opened.log[0]!.values).toEqual([2, null, true]);
  });
});

describe('25 a message instead of the form', () => {
  const form = formWith([choice('kind', ['hot', 'inspection']), text('note', { required: true })], {
    buttons: [button('end'), button('back')],
  });

  test('cannot be submitted, and says why; taken back by its rule the form goes on', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("r", () => { if (fields.kind.value === "inspection") form.replaceWith("Needs no permit."); });',
      },
    });
    open.do({ set: 'kind', to: 'inspection' });
    expect(open.seen.replaced).toEqual({ text: 'Needs no permit.', final: false });
    const answer = open.do({ submit: true });
    expect([answer.refused, answer.submit]).toEqual([
      'the form has been replaced by a message and cannot be submitted',
      null,
    ]);
    open.do({ set: 'kind', to: 'hot' });
    expect([open.seen.replaced, open.do({ submit: true }).submit!.stoppedBy]).toEqual([
      null,
      'note',
    ]);
  });

  test('a message that comes while the submission waits refuses it too', () => {
    const open = both({
      form,
      scripts: {
        a: 'on.change(fields.kind, async () => { await after(10); form.replaceWith("Too late."); });',
      },
    });
    open.do({ set: 'kind', to: 'hot' });
    expect(open.do({ submit: true }).refused).toBe(
      'the form has been replaced by a message and cannot be submitted',
    );
  });

  test('may be final, and a handler may end it', () => {
    const open = both({
      form,
      scripts: {
        a: 'on.click(buttons.end, () => form.replaceWith("Thank you.", { final: true }));\non.click(buttons.back, () => form.replaceWith(null));',
      },
    });
    open.do({ click: 'end' });
    expect(open.seen.replaced).toEqual({ text: 'Thank you.', final: true });
    open.do({ click: 'back' });
    expect(open.seen.replaced).toBeNull();
    expect(
      both({ form, scripts: { a: 'on.load(() => form.replaceWith("x", { final: 1 } as never));' } })
        .opened.errors[0]!.says,
    ).toContain('form.replaceWith() takes { final: true }');
  });
});

describe('25 clear and reset', () => {
  const form = formWith(
    [
      text('note', { default: 'd' }),
      number('length'),
      number('double'),
      text('agent'),
      rows('list', [number('n', { default: 1 })]),
    ],
    { buttons: [button('clear'), button('reset')] },
  );
  const scripts = {
    a: 'on.load(() => { fields.agent.value = form.person.name; fields.list.add({ n: 5 }); });\nkeep("double", () => { fields.double.value = fields.length.value === null ? 0 : fields.length.value * 2; });\non.click(buttons.clear, () => form.clear());\non.click(buttons.reset, () => form.reset());',
  };
  const filled = () => {
    const open = both({ form, scripts });
    for (const [set, to] of [
      ['note', 'x'],
      ['length', 4],
      ['double', 99],
      ['agent', 'Somebody'],
    ] as const)
      open.do({ set, to });
    open.do({ addRow: 'list' });
    return open;
  };
  const values = (open: ReturnType<typeof filled>) =>
    ['note', 'length', 'double', 'agent', 'list'].map((name) => open.value(name));

  test('after form.clear() rules hold again at once, as at the opening', () => {
    const open = filled();
    open.do({ click: 'clear' });
    expect(values(open)).toEqual(['d', null, 0, null, []]);
  });

  test('form.reset() goes back to what stood when the opening had settled, prefills and rows included', () => {
    const open = filled();
    open.do({ click: 'reset' });
    expect(values(open)).toEqual(['d', null, 0, 'Mira Oldane', [{ n: 5 }]]);
  });

  test('a handler that clears and then fails leaves rules to what else changed', () => {
    const open = both({
      form,
      scripts: {
        a: 'on.change(fields.length, () => { form.clear(); throw new Error("no"); });\nkeep("double", () => { fields.double.value = fields.length.value === null ? 0 : fields.length.value * 2; });',
      },
    });
    open.do({ set: 'length', to: 4 });
    expect([open.value('length'), open.value('double')]).toEqual([4, 8]);
  });

  test('is refused to rules', () => {
    expect(
      both({ form, scripts: { a: 'keep("r", () => { form.reset(); });' } }).opened.errors[0]!.says,
    ).toBe('form.reset() cannot be done in a rule: a rule says what holds, a handler does things.');
  });
});

describe('25 a stop on a part by event.stop', () => {
  const form = formWith([number('arrival'), number('departure'), text('note')]);
  const scripts = {
    a: 'on.submit((event) => { if (fields.departure.value! < fields.arrival.value!) event.stop("Departure is before arrival.", fields.departure); });',
  };
  const stopped = () => {
    const open = both({ form, scripts });
    open.do({ set: 'arrival', to: 5 });
    open.do({ set: 'departure', to: 3 });
    open.do({ submit: true });
    expect(open.part('departure').fault).toBe('Departure is before arrival.');
    return open;
  };

  test.each([
    ['departure', 9],
    ['arrival', 1],
  ])('goes when that part, or one that the handler had read, changes: %s', (set, to) => {
    const open = stopped();
    open.do({ set, to });
    expect(open.part('departure').fault).toBeNull();
  });

  test('stays when another part changes', () => {
    const open = stopped();
    open.do({ set: 'note', to: 'x' });
    expect(open.part('departure').fault).toBe('Departure is before arrival.');
  });

  test('cannot be set once the event is over', () => {
    const open = both({
      form,
      scripts: {
        a: 'let kept: any = null;\non.submit((event) => { kept = event; });\non.change(fields.note, () => kept.stop("Late."));',
      },
    });
    open.do({ submit: true });
    expect(open.do({ set: 'note', to: 'x' }).errors[0]!.says).toBe(
      'event.stop() was called after the event was over.',
    );
  });
});

test('1 ten thousand rows open, each with its rules', () => {
  const form = formWith([rows('list', [number('n'), text('note')])]);
  const values = { list: Array.from({ length: 10_000 }, (_, n) => ({ n, note: null })) };
  const scripts = {
    a: 'keep.each(fields.list, "odd", (row) => { row.fields.note.required = row.fields.n.value! % 2 === 1; });\nkeep("count", () => { fields.list.hint = `${fields.list.count} rows, ${fields.list.sum("n")} in all`; });',
  };
  const open = inMachine({ form, scripts, record: { id: '1', values } }, false);
  expect(open.opened.errors).toEqual([]);
  expect([
    open.part('list').hint,
    open.part('list[9999].note').required,
    open.part('list[9998].note').required,
  ]).toEqual(['10000 rows, 49995000 in all', true, false]);
  expect(open.do({ set: 'list[9998].n', to: 3 }).errors).toEqual([]);
  expect(open.part('list[9998].note').required).toBe(true);
  expect(direct({ form, record: { id: '1', values } }, false).do({ addRow: 'list' }).refused).toBe(
    'List takes at most 10000 rows',
  );
});

test('8 the pages of a form, and sections below them, nest in what scripts read', () => {
  const form = {
    ...formWith([]),
    pages: [
      page('one', [section('s', [text('x'), number('a')])]),
      page('two', [section('t', [text('y')])]),
    ],
  };
  const open = both({
    form,
    tables: [berths],
    scripts: {
      a: 'keep("see", () => { fields.x.hint = `${fields.y.onScreen} ${fields.y.editable}`; });\nkeep("steer", () => { pages.two.shown = fields.a.value !== 1; sections.t.locked = fields.a.value === 2; });',
    },
  });
  const hints = [0, 1, 2].map((to) => (open.do({ set: 'a', to }), open.part('x').hint));
  expect(hints).toEqual(['true true', 'false true', 'true false']);
});
