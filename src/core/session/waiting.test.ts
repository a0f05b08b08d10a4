/** Waiting, in both hosts. */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  berths,
  button,
  formWith,
  lookup,
  number,
  page,
  reference,
  rows,
  section,
  text,
} from '../../../tests/support/forms';
import { both, bootMachine, type Setting } from '../../../tests/support/hosts';

beforeAll(bootMachine);

const form = {
  ...formWith([text('code'), text('name'), number('depth'), text('note')]),
  buttons: [button('fetch'), button('again')],
};
const use = (script: string, more: Partial<Setting> = {}) =>
  both({ form, tables: [berths], services: [lookup], scripts: { a: script }, ...more });
const says = (use: { tape: readonly object[] }, type: string) =>
  use.tape.filter((entry) => (entry as { type: string }).type === type);

const FIND = `on.change(fields.code, async ({ value }) => {
  fields.note.value = "looking";
  const found = await services.register.find({ code: value ?? "" });
  fields.name.value = found?.name ?? null;
  fields.note.value = found === null ? "nothing found" : "found";
});`;

describe('services', () => {
  test('21 an answer comes after its delay, what stood before the wait shows meanwhile', () => {
    const open = use(FIND);
    const asked = open.do({ set: 'code', to: 'nq2' });
    expect([open.value('note'), open.value('name')]).toEqual(['looking', null]);
    expect(asked.waiting).toEqual([
      {
        behaviour: 'a',
        line: 1,
        part: 'code',
        calls: [
          {
            name: 'register.find',
            args: { code: 'nq2' },
            since: Date.parse('2031-05-02T09:00:00Z'),
            due: Date.parse('2031-05-02T09:00:00.300Z'),
          },
        ],
      },
    ]);
    open.do({ wait: 299 });
    expect(open.value('name')).toBeNull();
    expect(open.do({ wait: 1 }).waiting).toEqual([]);
    expect([open.value('note'), open.value('name')]).toEqual(['found', 'North quay 2']);
  });

  test('24 nothing found is null', () => {
    const open = use(FIND);
    open.do({ set: 'code', to: 'zz' });
    open.do({ wait: 300 });
    expect(open.value('note')).toBe('nothing found');
  });

  test('a service may answer with a script', () => {
    const open = use(
      'on.change(fields.depth, async ({ value }) => { fields.note.value = (await services.register.deeper({ than: value ?? 0 })).join(" "); });',
    );
    open.do({ set: 'depth', to: 6 });
    open.do({ wait: 500 });
    expect(open.value('note')).toBe('nq2 om1');
  });

  test('24 a failing service rejects with ServiceError, which a script may catch', () => {
    const failing = { services: [{ ...lookup, fails: 'the register is closed' }] };
    const caught = use(
      'on.click(buttons.fetch, async () => { try { await services.register.find({ code: "x" }); } catch (error) { if (error instanceof ServiceError) fields.note.value = [error.service, error.function, error.reason].join("/"); } });',
      failing,
    );
    caught.do({ click: 'fetch' });
    caught.do({ wait: 300 });
    expect(caught.value('note')).toBe('register/find/the register is closed');
    const uncaught = use(FIND, failing);
    uncaught.do({ set: 'code', to: 'x' });
    expect(uncaught.do({ wait: 300 }).errors).toEqual([
      {
        code: 'service',
        says: 'register.find failed: the register is closed',
        behaviour: 'a',
        line: 3,
      },
    ]);
    expect([uncaught.value('note'), uncaught.seen.failing.length]).toEqual(['looking', 1]);
  });

  test.each([
    [
      'services.register.find({ code: 3 as never })',
      'register.find() takes a text as code, not 3.',
    ],
    ['services.register.find({} as never)', 'register.find() takes a text as code, not nothing.'],
    [
      'services.register.find({ code: "x", colour: 1 } as never)',
      'has no parameter "colour". It has code.',
    ],
    ['(services as any).regster.find({})', 'there is no service "regster". Is it "register"?'],
    [
      '(services.register as any).found({})',
      'register has no function "found". It has find, deeper.',
    ],
    ['after(-1)', 'takes milliseconds from 0 to a day'],
  ])('24 wrong arguments are an error: %s', (code, text) => {
    expect(use(`on.load(() => { void ${code}; });`).opened.errors[0]?.says).toContain(text);
  });

  test('a service that is slow at times is so on every nth call', () => {
    const open = use(
      'on.click(buttons.fetch, async () => { await services.register.find({ code: "x" }); log("answered"); }, { overlap: "all" });',
      { services: [{ ...lookup, slow: { every: 2, delay: 2000 } }] },
    );
    for (let i = 0; i < 4; i++) open.do({ click: 'fetch' });
    expect([open.do({ wait: 300 }).log.length, open.do({ wait: 1700 }).log.length]).toEqual([2, 2]);
  });

  test('options may come from a service, and an empty list says why', () => {
    const picking = formWith([number('depth'), reference('berth', 'berths')]);
    const open = both({
      form: picking,
      tables: [berths],
      services: [lookup],
      scripts: {
        a: 'on.change(fields.depth, async ({ value }) => { fields.berth.hint = "Asking…"; const codes = await services.register.deeper({ than: value ?? 0 }); fields.berth.options = codes as never; fields.berth.hint = codes.length === 0 ? "No berth is that deep." : null; });',
      },
    });
    open.do({ set: 'berth', to: 'nq1' });
    open.do({ set: 'depth', to: 8 });
    expect([open.part('berth').options, open.part('berth').hint]).toEqual([null, 'Asking…']);
    open.do({ wait: 500 });
    expect([open.part('berth').options, open.part('berth').hint, open.value('berth')]).toEqual([
      [
        { key: 'nq2', label: 'North quay 2' },
        { key: 'om1', label: 'Outer mole 1' },
      ],
      null,
      null,
    ]);
    open.do({ set: 'depth', to: 80 });
    open.do({ wait: 500 });
    expect([open.part('berth').options, open.part('berth').hint]).toEqual([
      [],
      'No berth is that deep.',
    ]);
  });

  test('21 answers may come out of order', () => {
    const open = use(
      'on.click(buttons.fetch, async () => { await services.register.deeper({ than: 1 }); log("deeper"); });\non.click(buttons.again, async () => { await services.register.find({ code: "x" }); log("found"); });',
    );
    open.do({ click: 'fetch' });
    open.do({ click: 'again' });
    expect(open.do({ wait: 1000 }).log.map((line) => line.values[0])).toEqual(['found', 'deeper']);
  });

  test('21 what is due at the same moment comes in the order of the calls', () => {
    const open = use(
      'on.load(() => { for (const name of ["first", "second"]) void (async () => { await after(100); log(name); })(); });',
    );
    expect(open.do({ wait: 100 }).log.map((line) => line.values[0])).toEqual(['first', 'second']);
  });
});

describe('stretches', () => {
  test('16 each stretch between two waits is atomic by itself', () => {
    const open = use(
      'on.click(buttons.fetch, async () => { fields.note.value = "before"; await after(10); fields.name.value = "lost"; throw new Error("broke"); });',
    );
    open.do({ click: 'fetch' });
    const answer = open.do({ wait: 10 });
    expect(answer.errors[0]).toMatchObject({ says: 'threw: broke', line: 1 });
    expect([open.value('note'), open.value('name')]).toEqual(['before', null]);
    expect(says(open, 'run').map((run) => (run as { outcome?: string }).outcome)).toEqual([
      'open',
      'failed',
    ]);
  });

  test('21 an await of something that has ended goes on at once, in the same stretch', () => {
    const open = use(
      'const twice = async (n: number) => n * 2;\non.click(buttons.fetch, async () => { fields.depth.value = await twice(await twice(2)); throw new Error("all of it is undone"); });',
    );
    expect(open.do({ click: 'fetch' }).errors).toHaveLength(1);
    expect(open.value('depth')).toBeNull();
  });

  test('21 what is written after a wait settles with all that follows', () => {
    const open = use(
      `${FIND}\nkeep("depth follows", () => { fields.depth.value = fields.name.value?.length ?? null; });\non.change(fields.depth, ({ by }) => log("depth", by));`,
    );
    open.do({ set: 'code', to: 'nq1' });
    expect(open.do({ wait: 300 }).log.map((line) => line.values)).toEqual([['depth', 'script']]);
    expect(open.value('depth')).toBe('North quay 1'.length);
  });

  test('16 a wrong use after a wait fails the run even where the script catches it', () => {
    const open = use(
      'on.click(buttons.fetch, async () => { await after(1); try { fields.depth.value = "x" as never; } catch {} });',
    );
    open.do({ click: 'fetch' });
    expect(open.do({ wait: 1 }).errors[0]!.code).toBe('wrong_value');
  });

  test('17 each continuation counts again', () => {
    const open = use(
      'on.load(async () => { for (let i = 0; i < 300; i++) { await after(1); fields.depth.value = i; } });\non.change(fields.depth, () => { fields.note.value = "seen"; });',
    );
    expect(open.do({ wait: 300 }).errors).toEqual([]);
    expect(open.value('depth')).toBe(299);
  });

  test.each([
    'while (true) await null;',
    'const f = async (): Promise<void> => { await null; return f(); }; await f();',
  ])('16 an endless stretch burns its fuel: %s', (code) => {
    expect(
      use(`on.click(buttons.fetch, async () => { ${code} });`).do({ click: 'fetch' }).errors[0]!
        .code,
    ).toBe('fuel');
  });

  test('18 a rule that waits is an error', () => {
    for (const code of [
      'keep(async () => { await after(1); });',
      'keep(() => { void services.register.find({ code: "x" }); });',
    ])
      expect(use(code).opened.errors).toHaveLength(1);
  });
});

describe('promises', () => {
  test.each([
    [
      'Promise.all([after(30).then(() => 1), 2, services.register.find({ code: "nq1" })])',
      300,
      [1, 2, { code: 'nq1', name: 'North quay 1', depth: 6 }],
    ],
    ['Promise.race([after(50).then(() => "slow"), after(10).then(() => "quick")])', 10, 'quick'],
    ['Promise.any([Promise.reject(1), after(20).then(() => 2)])', 20, 2],
    [
      'Promise.allSettled([Promise.reject("no"), Promise.resolve(3)])',
      0,
      [
        { status: 'rejected', reason: 'no' },
        { status: 'fulfilled', value: 3 },
      ],
    ],
    ['after(5).then(() => { throw "x"; }).catch((reason) => `caught ${reason}`)', 5, 'caught x'],
    ['after(5).finally(() => log("at the end")).then(() => "after")', 5, 'after'],
    ['new Promise((resolve) => { void after(7).then(() => resolve("made")); })', 7, 'made'],
    ['Promise.all([])', 0, []],
  ])('%s', (code, wait, value) => {
    const open = use(
      `on.click(buttons.fetch, async () => { const came = await ${code}; log(came); });`,
    );
    const logged = [...open.do({ click: 'fetch' }).log, ...open.do({ wait }).log].map(
      (line) => line.values[0],
    );
    expect(logged.at(-1)).toEqual(value);
  });

  test('methods and functions of every kind may be async', () => {
    const open = use(
      'class Help { name = "n"; async find(code: string) { await after(1); return this.name + code; } }\nasync function plus(a: string, b = "b") { await after(1); return a + b + arguments.length; }\nconst made = { async go() { return plus(await new Help().find("x")); } };\non.click(buttons.fetch, async () => { log(await made.go()); });',
    );
    open.do({ click: 'fetch' });
    expect(open.do({ wait: 2 }).log[0]!.values).toEqual(['nxb1']);
  });

  test.each([
    ['on.load(async () => { for await (const x of []) log(x); });', 'for await'],
    ['async function* f() { yield 1; }', 'async generator'],
  ])('what the session cannot drive does not compile: %s', (code, text) => {
    expect(use(code).opened.errors[0]!.says).toContain(text);
  });
});

describe('overlapping runs (22)', () => {
  test('the same handler started again supersedes the earlier run, which is not resumed', () => {
    const open = use(FIND);
    open.do({ set: 'code', to: 'nq1' });
    open.do({ wait: 200 });
    open.do({ set: 'code', to: 'nq2' });
    expect(open.do({ wait: 100 }).changes).toEqual({});
    open.do({ wait: 200 });
    expect(open.value('name')).toBe('North quay 2');
    expect(says(open, 'superseded')).toHaveLength(1);
  });

  test('what a superseded run said of aspects is taken back, what it wrote stays, its finally does not run', () => {
    const open = use(
      'on.change(fields.code, async ({ value }) => { try { if (value === "a") { fields.depth.locked = true; fields.name.value = "wrote"; } await after(100); } finally { log("finally", value); } });',
    );
    open.do({ set: 'code', to: 'a' });
    expect(open.part('depth').locked).toBe(true);
    open.do({ set: 'code', to: 'b' });
    expect([open.part('depth').locked, open.value('name')]).toEqual([false, 'wrote']);
    expect(open.do({ wait: 500 }).log.map((line) => line.values)).toEqual([['finally', 'b']]);
  });

  test('overlap: "all" lets both go on', () => {
    const open = use(
      'on.change(fields.code, async ({ value }) => { await after(100); log(value); }, { overlap: "all" });',
    );
    open.do({ set: 'code', to: 'a' });
    open.do({ set: 'code', to: 'b' });
    expect(open.do({ wait: 100 }).log.map((line) => line.values[0])).toEqual(['a', 'b']);
  });

  test('a button is busy until its run ends', () => {
    const open = use('on.click(buttons.fetch, async () => { await after(100); log("done"); });');
    open.do({ click: 'fetch' });
    expect(open.do({ click: 'fetch' }).refused).toBe('Fetch is busy until what it began has ended');
    open.do({ wait: 100 });
    expect(open.do({ click: 'fetch' }).refused).toBeNull();
  });

  test('the same handler for another row is another run', () => {
    const open = both({
      form: formWith([rows('calls', [text('code'), text('name')])]),
      tables: [berths],
      services: [lookup],
      scripts: {
        a: 'on.change(fields.calls.each.code, async ({ value, row }) => { const found = await services.register.find({ code: value ?? "" }); row.fields.name.value = found?.name ?? null; });',
      },
      record: { id: '1', values: { calls: [{}, {}, {}] } },
    });
    open.do({ set: 'calls[0].code', to: 'nq1' });
    open.do({ set: 'calls[1].code', to: 'nq2' });
    open.do({ set: 'calls[2].code', to: 'om1' });
    open.do({ removeRow: 'calls[2]' });
    const answer = open.do({ wait: 300 });
    expect([open.value('calls[0].name'), open.value('calls[1].name')]).toEqual([
      'North quay 1',
      'North quay 2',
    ]);
    expect(answer.errors[0]!.says).toContain('in a row that was removed');
  });
});

describe('submitting and opening while something waits (23)', () => {
  test('submit waits for open runs, then checks', () => {
    const open = use(`${FIND}\non.load(() => { fields.name.required = true; });`);
    open.do({ set: 'code', to: 'nq1' });
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: true,
      values: { name: 'North quay 1' },
    });
  });

  test('30 seconds, then it is not saved and what it waits for is named', () => {
    const open = use(
      'on.change(fields.code, async () => { await services.register.find({ code: "x" }); });',
      { opening: { services: { 'register.find': { byHand: true } } } },
    );
    open.do({ set: 'code', to: 'x' });
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: false,
      stops: [{ part: null, says: 'Still waiting for register.find after 30 seconds.' }],
    });
  });

  test('async submit handlers are waited for, and may stop it', () => {
    const open = use(
      'on.submit(async (event) => { const found = await services.register.find({ code: fields.code.value ?? "" }); if (found === null) event.stop("No such berth.", fields.code); });',
    );
    open.do({ set: 'code', to: 'zz' });
    expect(open.do({ submit: true }).submit).toMatchObject({ saved: false, stoppedBy: 'code' });
    open.do({ set: 'code', to: 'nq1' });
    expect(open.do({ submit: true }).submit?.saved).toBe(true);
  });

  test('12 async pageChange handlers are waited for, and may stop it', () => {
    const pages = {
      ...formWith([]),
      pages: [
        page('first', [section('one', [text('code')])]),
        page('second', [section('two', [text('note')])]),
      ],
    };
    const open = both({
      form: pages,
      tables: [berths],
      services: [lookup],
      scripts: {
        a: 'on.pageChange(async (event) => { if ((await services.register.find({ code: fields.code.value ?? "" })) === null) event.stop("No such berth.", fields.code); });',
      },
    });
    open.do({ turnTo: 'second' });
    expect([open.seen.page, open.part('code').fault]).toEqual(['first', 'No such berth.']);
    open.do({ set: 'code', to: 'om1' });
    open.do({ turnTo: 'second' });
    expect(open.seen.page).toBe('second');
  });
});

describe('the clock and answers by hand (24)', () => {
  test('a service behaves as the opening says: another delay, a failure, or nothing until somebody answers', () => {
    const quick = use(FIND, { opening: { services: { register: { delay: 10 } } } });
    quick.do({ set: 'code', to: 'nq1' });
    quick.do({ wait: 10 });
    expect(quick.value('note')).toBe('found');
    const failing = use(FIND, { opening: { services: { 'register.find': { fails: 'down' } } } });
    failing.do({ set: 'code', to: 'nq1' });
    expect(failing.do({ wait: 300 }).errors[0]!.says).toBe('register.find failed: down');
    const byHand = use(FIND, { opening: { services: { register: { byHand: true } } } });
    byHand.do({ set: 'code', to: 'nq1' });
    byHand.do({ wait: 100_000 });
    expect(byHand.value('note')).toBe('looking');
    expect(
      byHand.do({ answer: 'register.find', with: { code: 'x', name: 'By hand', depth: 1 } })
        .refused,
    ).toBeNull();
    expect([byHand.value('note'), byHand.value('name')]).toEqual(['found', 'By hand']);
    expect(byHand.do({ answer: 'register.find', with: null }).refused).toBe(
      'nothing waits for register.find',
    );
  });

  test('an answer may come late, or be a failure, and moves the clock', () => {
    const open = use(`${FIND}\non.click(buttons.fetch, () => log(new Date().toISOString()));`);
    open.do({ set: 'code', to: 'nq1' });
    expect(
      open.do({ answer: 'register.find', fails: 'timeout', after: 5000 }).errors[0]!.says,
    ).toBe('register.find failed: timeout');
    expect(open.do({ click: 'fetch' }).log[0]!.values).toEqual(['2031-05-02T09:00:05.000Z']);
  });

  test('the clock moves only by wait, submit and answer; after(0) waits for the next move', () => {
    const open = use('on.change(fields.code, async () => { await after(0); log("moved"); });');
    expect(open.do({ set: 'code', to: 'x' }).log).toEqual([]);
    expect(open.do({ set: 'note', to: 'x' }).log).toEqual([]);
    expect(open.do({ wait: 0 }).log).toHaveLength(1);
  });

  test('a step with its time lets what is due before it go on first', () => {
    const open = use(FIND);
    open.do({ set: 'code', to: 'nq1', at: 100 });
    const answer = open.do({ set: 'depth', to: 3, at: 450 });
    expect([open.value('name'), answer.waiting]).toEqual(['North quay 1', []]);
  });
});
