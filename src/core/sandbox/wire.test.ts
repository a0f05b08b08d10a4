/**
 * The memory that both ends see: crossings are raw, a machine that lies can only be refused, what the guest relies on is
 * out of the scripts' reach, and what stops one run costs that run alone.
 */
import fc from 'fast-check';
import { QuickJSContext, Scope } from 'quickjs-emscripten-core';
import { beforeAll, describe, expect, test, vi } from 'vitest';
import {
  berths,
  button,
  choice,
  formWith,
  lookup,
  number,
  page,
  reference,
  rows,
  section,
  text,
  track,
} from '../../../tests/support/forms';
import { InProcess } from '../../../tests/support/in-process';
import { compile } from '../language/compile';
import { materialOf } from '../language/material';
import { Session } from '../session/session';
import type { Material } from '../session/material';
import type { Opening } from '../session/step';
import { Cell, Double, SHARED_BYTES, SLOTS } from '../wire/layout';
import { randomFrom } from '../random';
import { Host } from './host';
import type { GuestEntry, Machine } from './machine';
import { guest, temporal } from './generated/guest';
import { LIMITS, startModule } from './quickjs';
import { Sandbox } from './sandbox';
import { shareOf } from '../../../tests/support/thorough';

const fields = [
  number('a'),
  number('b'),
  text('note'),
  choice('pilot', ['own', 'none']),
  reference('berth', 'berths'),
  rows('list', [number('n'), text('t')]),
];
const form = {
  ...formWith([]),
  pages: [page('main', [section('stay', fields)]), page('more', [section('rest', [text('last')])])],
  buttons: [button('go')],
  tracks: [track('way', ['first', 'second'])],
};
const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: null,
  launch: { x: 'y' },
  clock: 0,
  seed: 1,
  newId: 'new',
  parent: { form: 'p', record: '1', fields: [text('note')], values: {} },
};
const material = (scripts: Record<string, string>, traced = false): Material =>
  materialOf(
    form,
    { tables: [berths], services: [lookup] },
    Object.entries(scripts).map(([name, source]) => ({ name: `${name}.ts`, text: source })),
    traced ? 'traced' : 'untraced',
  );
const sandboxWith = async (limits = LIMITS, bytes?: number) =>
  new Sandbox(await startModule(bytes), { temporal: false, limits });

describe('crossings', () => {
  const RULES =
    'keep("r", () => { fields.b.hint = fields.a.value === 1 ? "one" : fields.note.shown ? "shown" : null; fields.b.required = fields.a.value === 2; });\non.change(fields.a, ({ value, previous }) => { if (value === 3) fields.b.value = (previous ?? 0) + 1; });';

  test('go through the raw callback: once texts are known, the library’s wrappers make no call, text or handle', async () => {
    const sandbox = await sandboxWith();
    sandbox.load(material({ a: RULES }, true));
    sandbox.open(opening);
    const steps = (n: number) =>
      Array.from({ length: n }, (_, i) => sandbox.step({ set: 'a', to: i % 4 }));
    steps(20);
    const wrapped = [
      vi.spyOn(QuickJSContext.prototype, 'callFunction'),
      vi.spyOn(QuickJSContext.prototype, 'newString'),
      vi.spyOn(QuickJSContext.prototype, 'getString'),
      vi.spyOn(QuickJSContext.prototype, 'newFunction'),
      vi.spyOn(Scope, 'withScopeMaybeAsync'),
    ];
    const answers = steps(1000);
    const calls = wrapped.map((spy) => spy.mock.calls.length);
    for (const spy of wrapped) spy.mockRestore();
    expect(answers.every(({ errors }) => errors.length === 0)).toBe(true);
    expect(calls).toEqual([0, 0, 0, 0, 0]);
  });

  test('keep both lists of texts equal however many there are, and cut them back', async () => {
    const sandbox = await sandboxWith();
    sandbox.load(
      material({
        a: 'on.change(fields.note, ({ value }) => { fields.b.hint = `${value}!`; log(value, "x".repeat(300)); });',
      }),
    );
    sandbox.open(opening);
    const before = sandbox.bytesUsed;
    for (let i = 0; i < shareOf(60_000); i++) {
      const answer = sandbox.step({ set: 'note', to: `text ${i}` });
      if (answer.changes.b?.hint !== `text ${i}!`)
        throw new Error(`step ${i} gave ${JSON.stringify(answer.changes)}`);
    }
    expect(sandbox.bytesUsed).toBeLessThan(before + 8_000_000);
  });

  test('values arrive as they left: texts of every length, numbers, lists, rows, options', async () => {
    const sandbox = await sandboxWith();
    sandbox.load(
      material({
        a: 'on.change(fields.note, ({ value }) => { fields.last.value = value; log(fields.last.value === value, value); });\non.change(fields.a, ({ value }) => { fields.b.value = value; log(Object.is(fields.b.value, value)); });\nkeep("o", () => { fields.berth.options = tables.berths.rows.filter((row) => row.depth! > 6); });\non.click(buttons.go, () => log(fields.berth.options, Object.isFrozen(fields.berth.options), fields.list.value, Object.isFrozen(fields.list.value[0])));',
      }),
    );
    sandbox.open(opening);
    for (const to of [
      '',
      'ä€😀\u0000\u0001',
      '\ud800',
      'x'.repeat(255),
      'x'.repeat(256),
      'x'.repeat(257),
      'y'.repeat(50_000),
    ]) {
      const [line] = sandbox.step({ set: 'note', to }).log;
      if (to !== '') expect(line!.values[0]).toBe(true);
    }
    for (const to of [0.1, -5, 1e300, 2 ** 53, 5e-324])
      expect(sandbox.step({ set: 'a', to }).log[0]!.values).toEqual([true]);
    sandbox.step({ addRow: 'list', with: { n: 1, t: 'z'.repeat(400) } });
    expect(sandbox.step({ click: 'go' }).log[0]!.values).toEqual([
      [
        { key: 'nq2', label: 'North quay 2' },
        { key: 'om1', label: 'Outer mole 1' },
      ],
      true,
      [{ n: 1, t: 'z'.repeat(400) }],
      true,
    ]);
  });
});

describe('what the guest relies on', () => {
  const TRIES = [
    'JSON = { parse: () => 1, stringify: () => "x" } as never;',
    '(Math as any).max = () => 9;',
    'Object = (() => ({})) as never;',
    'Array.prototype.push = (() => 0) as never;',
    'Map.prototype.get = (() => undefined) as never;',
    'String.prototype.startsWith = (() => true) as never;',
    'Object.defineProperty(Array.prototype, "0", { get: () => 7 });',
    'Reflect.set({}, "a", 1);',
    '(form as any).__proto__.get = () => 1;',
    'Object.getPrototypeOf(fields.a).value = 1;',
    'Object.defineProperty(fields.a, "value", { value: 1 });',
    'ServiceError.prototype.message = "x" as never;',
    '(Promise as any).resolve = () => 1;',
    '(__host as any)();',
    '(__entries as any).cut(0, 0);',
    '(__buffer as any);',
    'new Int32Array(__buffer as never)[0] = 9;',
    '(arguments as any)[0].l = 99;',
    '(globalThis as any).JSON = 1;',
    'Function("return 1")();',
    '(function* () {}).constructor("yield 1")();',
    '(async () => {}).constructor("return 1")();',
  ];

  test.each(TRIES)('is out of reach: %s', async (code) => {
    const sandbox = await sandboxWith();
    // One try at the top level, one in a run; whatever came of it, others go on as ever.
    const other =
      'keep("r", () => { fields.b.hint = [1, 2].map((n) => `${n} ${JSON.stringify({ n })}`).join(); });\non.change(fields.a, ({ value }) => { fields.b.value = value; });';
    sandbox.load(
      material({
        a: `try { ${code.replaceAll('arguments', 'arguments')} } catch { /* refused */ }\non.load(() => { try { ${code} } catch { /* refused */ } });`,
        b: other,
      }),
    );
    sandbox.open(opening);
    const answer = sandbox.step({ set: 'a', to: 4 });
    expect([answer.changes.b, answer.errors.filter(({ behaviour }) => behaviour === 'b')]).toEqual([
      { value: 4 },
      [],
    ]);
    expect(sandbox.step({ submit: true }).submit).toMatchObject({
      saved: true,
      id: 'new',
      values: { a: 4, b: 4 },
    });
  });

  test('the arguments of a script hold nothing', async () => {
    const sandbox = await sandboxWith();
    sandbox.load(
      material({
        a: 'const top = arguments.length;\non.load(function () { log(top, arguments.length); } as never);',
      }),
    );
    expect(sandbox.open(opening).log[0]!.values).toEqual([0, 1]);
  });

  test('holds nothing of Zod, and no more than its own code', () => {
    expect(guest).not.toMatch(/ZodError|invalid_type|_zod/);
    expect(guest.length).toBeLessThan(45_000);
    expect(temporal.length).toBeLessThan(80_000);
  });
});

describe('what stops a run costs that run alone', () => {
  const LAST =
    'on.change(fields.a, ({ value }) => { fields.b.value = value; });\nkeep("r", () => { fields.b.hint = `a is ${fields.a.value}`; });';

  test('an interrupt: the line is named, its effects are undone, the session goes on', async () => {
    const sandbox = await sandboxWith({ polls: 50 });
    // A pattern that backtracks runs no script code, so no fuel is burned; the machine still polls.
    sandbox.load(
      material({
        a: 'on.change(fields.a, ({ value }) => {\n  fields.note.value = "half";\n  if (value === 1) /^(a+)+$/.test("a".repeat(60) + "b");\n});',
        b: LAST,
      }),
    );
    sandbox.open(opening);
    const answer = sandbox.step({ set: 'a', to: 1 });
    expect(answer.errors).toMatchObject([{ code: 'stuck', behaviour: 'a', line: 3 }]);
    expect([answer.changes.b, answer.changes.note]).toEqual([
      { value: 1, hint: 'a is 1' },
      undefined,
    ]);
    const next = sandbox.step({ set: 'a', to: 2 });
    expect([next.errors, next.failing, next.changes.b, next.changes.note]).toEqual([
      [],
      [],
      { value: 2, hint: 'a is 2' },
      { value: 'half' },
    ]);
  });

  test('an interrupt in the script of a service: the call fails with its line, and the machine goes on', async () => {
    const sandbox = await sandboxWith({ polls: 50 });
    const register = {
      name: 'register',
      title: 'Register',
      delay: 0,
      functions: {
        judge: {
          parameters: [{ name: 'length', kind: 'number' as const }],
          answers: {
            from: 'script' as const,
            script:
              'const berth = tables.berths.find("nq1");\nconst text = "a".repeat(length);\n\nif (berth === null) return "none";\nreturn /^(a+)+$/.test(text + "b") ? "yes" : "no";',
            gives: 'string',
          },
        },
      },
    };
    sandbox.load(
      materialOf(
        form,
        { tables: [berths], services: [register] },
        [
          {
            name: 'a.ts',
            text: 'on.change(fields.a, async ({ value }) => {\n  try {\n    fields.note.value = await services.register.judge({ length: value ?? 0 });\n  } catch (error) {\n    fields.note.value = (error as ServiceError).message;\n  }\n});',
          },
          { name: 'b.ts', text: LAST },
        ],
        'untraced',
      ),
    );
    sandbox.open(opening);
    const ask = (length: number) => {
      sandbox.step({ set: 'a', to: length });
      return sandbox.step({ wait: 1 });
    };
    const stopped = ask(60);
    expect(stopped.errors).toEqual([]);
    expect(stopped.changes.note?.value).toMatch(/line 5/);
    const next = ask(3);
    expect([next.errors, next.failing, next.changes.note?.value]).toEqual([[], [], 'no']);
    expect(ask(60).changes.note?.value).toBe(stopped.changes.note?.value);
  });

  test('a run is stopped by what it does, not by the clock: the same run is stopped at the same place every time', async () => {
    const sandbox = await sandboxWith({ polls: 100 });
    sandbox.load(
      material({
        a: 'on.change(fields.a, ({ value }) => {\n  for (let i = 0; i < 40; i++) {\n    fields.b.value = i;\n    fields.b.value;\n    /^(a+)+$/.test("a".repeat(value ?? 0) + "b");\n  }\n});',
      }),
    );
    const at = (length: number) => {
      sandbox.open(opening);
      return JSON.stringify(sandbox.step({ set: 'a', to: length }));
    };
    // So many rounds that some of them come before the stop and some do not.
    const stopped = at(19);
    expect(stopped).toContain('stuck');
    for (let again = 0; again < 3; again++) expect(at(19)).toBe(stopped);
  });

  test('fuel comes before polls wherever it is burned at all', async () => {
    const sandbox = await sandboxWith();
    sandbox.load(material({ a: 'on.click(buttons.go, () => {\n  for (;;) fields.a.value;\n});' }));
    sandbox.open(opening);
    expect(sandbox.step({ click: 'go' }).errors).toMatchObject([{ code: 'fuel', line: 2 }]);
  });

  test('memory is what scripts hold in bytes, however few pieces it is in', async () => {
    const sandbox = await sandboxWith(LIMITS, 8 * 1024 * 1024);
    sandbox.load(
      material({
        a: 'on.change(fields.a, ({ value }) => {\n  fields.b.value = new Uint8Array((value ?? 0) * 1024 * 1024).length;\n});',
      }),
    );
    sandbox.open(opening);
    expect(sandbox.step({ set: 'a', to: 4 }).changes.b).toEqual({ value: 4 * 1024 * 1024 });
    expect(sandbox.step({ set: 'a', to: 40 }).errors).toMatchObject([
      { code: 'memory', behaviour: 'a', line: 2 },
    ]);
  });

  test('exhausted memory: the run that met it fails, later ones go on with what is left', async () => {
    const sandbox = await sandboxWith(LIMITS, 8 * 1024 * 1024);
    sandbox.load(
      material({
        a: 'on.change(fields.a, ({ value }) => {\n  const kept: number[][] = [];\n  if (value === 1) for (;;) kept.push(new Array(1000).fill(kept.length));\n});',
        b: LAST,
      }),
    );
    sandbox.open(opening);
    const answer = sandbox.step({ set: 'a', to: 1 });
    expect(answer.errors).toMatchObject([{ code: 'memory', behaviour: 'a', line: 3 }]);
    expect(answer.changes.b).toEqual({ value: 1, hint: 'a is 1' });
    expect(sandbox.step({ set: 'a', to: 2 }).changes.b).toEqual({ value: 2, hint: 'a is 2' });
  });

  test('the memory limit counts scripts and not the session: ten thousand rows are no burden to it', async () => {
    const sandbox = await sandboxWith(LIMITS, 0);
    sandbox.load(material({ a: 'keep("r", () => { fields.b.value = fields.list.count; });' }));
    const opened = sandbox.open({
      ...opening,
      record: {
        id: '1',
        values: { list: Array.from({ length: 10_000 }, (_, n) => ({ n, t: 'some text' })) },
      },
    });
    expect([opened.errors, opened.changes.b]).toMatchObject([[], { value: 10_000 }]);
  });

  test('fuel ends a run after the same rounds here and in this engine', async () => {
    const source =
      'on.change(fields.a, () => {\n  let n = 0;\n  for (;;) { n++; if (n % 50000 === 0) log(n); }\n});';
    const sandbox = await sandboxWith();
    sandbox.load(material({ a: source }));
    sandbox.open(opening);
    const there = sandbox.step({ set: 'a', to: 1 });
    const host = new Host(new InProcess(), null);
    const its = material({ a: source });
    const session = new Session(its, host.load(its, false), host, { ...opening });
    session.open();
    const here = session.do({ set: 'a', to: 1 });
    expect(there.errors).toMatchObject([{ code: 'fuel', line: 3 }]);
    expect([there.log, there.errors]).toEqual([here.log, here.errors]);
  });
});

/** A machine whose every message may be a lie: the guest's own cells mangled, at its moments and at wrong ones. */
class Liar implements Machine {
  readonly #true = new InProcess();
  readonly #random: () => number;
  #ask: () => void = () => undefined;
  asked = 0;
  /** How often a message is mangled, of a hundred. */
  lies = 0;
  /** Text that is handed over instead. */
  #given: string | null = null;

  constructor(random: () => number) {
    this.#random = random;
    this.#true.answerWith(() => {
      this.#lie();
      this.#tell();
    });
  }

  get cells(): Int32Array {
    return this.#true.cells;
  }

  get floats(): Float64Array {
    return this.#true.floats;
  }

  readonly wasInterrupted = false;

  #number(): number {
    const of = [
      -1,
      0,
      1,
      2,
      3,
      5,
      8,
      13,
      21,
      31,
      40,
      63,
      64,
      100,
      1000,
      2047,
      2048,
      65_535,
      2 ** 30,
      -(2 ** 31),
      2 ** 31 - 1,
    ];
    return this.#random() < 0.5
      ? of[Math.floor(this.#random() * of.length)]!
      : Math.floor(this.#random() * 300);
  }

  #lie(): void {
    if (this.#random() * 100 >= this.lies) return;
    const { cells, floats } = this.#true;
    for (let i = Math.floor(this.#random() * 6); i >= 0; i--)
      cells[Math.floor(this.#random() * 40)] = this.#number();
    if (this.#random() < 0.3) cells[Cell.Op] = 1 + Math.floor(this.#random() * 9);
    if (this.#random() < 0.3)
      cells[Cell.Aspect] =
        (Math.floor(this.#random() * 20) << 5) | Math.floor(this.#random() * SLOTS);
    if (this.#random() < 0.2)
      floats[Double.Answer] = [NaN, Infinity, -0, 1e308, 7][Math.floor(this.#random() * 5)]!;
    if (this.#random() < 0.1)
      for (let at: number = Cell.Trace; at < 200; at++) cells[at] = this.#number();
    if (this.#random() < 0.3) this.#given = TEXTS[Math.floor(this.#random() * TEXTS.length)]!;
  }

  #tell(): void {
    this.asked++;
    this.#ask();
    this.#given = null;
  }

  call(entry: GuestEntry): boolean {
    // Questions at the wrong moment: before anything runs, or when it is over.
    if (this.lies > 0 && this.#random() < 0.3) {
      this.#lie();
      this.#tell();
    }
    let through = true;
    try {
      through = this.#true.call(entry);
    } catch {
      // The guest stumbles over what it was made to say; in the machine that would be an exception of its own.
      through = false;
    }
    if (this.lies > 0 && this.#random() < 0.5) this.#lie();
    return through && !(this.lies > 0 && this.#random() < 0.02);
  }

  putText(line: string): void {
    this.#true.putText(line);
  }

  putLoose(place: number, line: string): void {
    this.#true.putLoose(place, line);
  }

  given(): string {
    return this.#given ?? this.#true.given();
  }

  cut(texts: number, kept: number): void {
    this.#true.cut(texts, kept);
  }

  fits(): boolean {
    return true;
  }

  answerWith(ask: () => void): void {
    this.#ask = ask;
  }
}

const TEXTS = [
  '',
  'x',
  '[]',
  '{}',
  'null',
  '["log",{"values":[1]}]',
  '["addRow",{"field":6,"values":{"n":"x"}}]',
  '["addRow",{"field":2,"values":null}]',
  '["removeRow",{"field":6,"row":99}]',
  '["call",{"service":"register","function":"constructor","args":{}}]',
  '["call",{"service":"__proto__","function":"find","args":null}]',
  '["stop",{"event":1,"says":"no","part":3}]',
  '["stop",{"event":-1,"says":"no","part":3}]',
  '["openPage",{"page":2}]',
  '["clear",null]',
  '["reset",null]',
  '["submit",null]',
  '["parentSet",{"name":"note","to":{"a":1}}]',
  '["parentGet",{"name":"constructor"}]',
  '["tie",{"event":"change","to":[4],"tie":2,"line":1,"overlap":"all"}]',
  '["tie",{"event":"change","to":[[4,"x"]],"tie":99999,"line":1,"overlap":"all"}]',
  '["keepEach",{"field":1,"tie":1,"title":"t","line":0}]',
  '["untie",{"tie":0}]',
  '["message",{"text":"t","tone":"loud"}]',
  '["zone",{"zone":"../etc","at":1e400}]',
  '["zone",{"zone":"UTC","at":0}]',
  '["rows",{"field":6}]',
  '{"\\u0001":["berths","nq1"]}',
  '[{"\\u0001":9}]',
  '{"__proto__":{"polluted":1}}',
  '"\\ud800"',
  'y'.repeat(300),
  '[[[[[[[[[[1]]]]]]]]]]',
  '1e999',
  '{"\\u0001":',
];

test('a machine that lies can only be refused: a hundred thousand random and mangled messages', () => {
  const source =
    'keep("r", () => { fields.b.hint = fields.a.value === 1 ? "one" : null; fields.b.required = fields.berth.row !== null; });\nkeep.each(fields.list, "e", (row) => { row.fields.t.hint = String(row.fields.n.value); });\non.change(fields.a, async ({ value }) => { fields.b.value = value; log(fields.list.rows, value); await after(20); fields.note.value = "later"; });\non.submit((event) => { if (fields.a.value === 2) event.stop("two", fields.a); });\non.click(buttons.go, () => { fields.list.add({ n: 2 }); form.message("hi"); void parent!.set("note", "x"); });\non.load(() => { on.change(fields.note, () => log("n")); });';
  const its = material({ a: source }, true);
  const steps: object[] = [
    { set: 'a', to: 1 },
    { addRow: 'list' },
    { set: 'list[0].n', to: 3 },
    { click: 'go' },
    { wait: 30 },
    { set: 'a', to: 2 },
    { submit: true },
    { removeRow: 'list[0]' },
    { turnTo: 'more' },
    { set: 'note', to: 'x' },
    { set: 'berth', to: 'nq1' },
  ];
  let told = 0;
  let seed = 1;
  let refused = 0;
  while (told < shareOf(100_000)) {
    // Seeded, so that a failing round can be done again.
    const random = randomFrom(seed++);
    const liar = new Liar(random);
    const host = new Host(liar, null);
    const loaded = host.load(its, false);
    liar.lies = 5 + Math.floor(random() * 90);
    const session = new Session(its, loaded, host, { ...opening });
    const answers = [session.open()];
    for (const step of [...steps, ...steps].sort(() => random() - 0.5))
      answers.push(session.do(step as never));
    liar.lies = 0;
    // Whatever was said: every value is one of its field's kind, and the record is the one that was handed out.
    const { submit } = session.do({ submit: true });
    for (const answer of answers) {
      expect(answer.record === null || answer.record === 'new').toBe(true);
      JSON.stringify(answer);
      refused += answer.errors.length;
    }
    if (submit !== null) {
      const { a, b, note, pilot, berth, list } = submit.values as Record<string, unknown>;
      for (const value of [a, b]) expect(value === null || Number.isFinite(value)).toBe(true);
      expect(note === null || typeof note === 'string').toBe(true);
      expect([null, 'own', 'none']).toContain(pilot);
      expect([null, 'nq1', 'nq2', 'om1']).toContain(berth);
      for (const row of list as object[]) expect(Object.keys(row)).toEqual(['n', 't']);
    }
    expect(({} as { polluted?: unknown }).polluted).toBeUndefined();
    told += liar.asked;
  }
  expect(refused).toBeGreaterThan(shareOf(1000));
}, 240_000);

test('an honest guest that meets odd values gives the same as one that does not cross', () => {
  const odd = [
    'NaN',
    'Infinity',
    'undefined',
    '() => 1',
    'Symbol("x")',
    '10n',
    'new Date(0)',
    'new Map([[1, 2]])',
    'fields.a',
    'fields',
    '{ toJSON: () => 4 }',
    '[undefined]',
    '[() => 1]',
    '{ "\\u0001": 2 }',
    'Temporal.PlainDate.from("2031-05-02")',
    '{ get n() { throw new Error("no"); } }',
    'tables.berths.rows',
    'tables.berths.rows[0]',
    'Object.create({ key: "nq1" })',
    '[[[[[[[[[[[[1]]]]]]]]]]]]',
  ];
  const targets = [
    'fields.a.value',
    'fields.note.value',
    'fields.list.value',
    'fields.berth.options',
    'fields.berth.value',
    'fields.note.hint',
    'fields.a.shown',
  ];
  fc.assert(
    fc.property(fc.constantFrom(...odd), fc.constantFrom(...targets), (value, target) => {
      const its = material({ a: `on.load(() => { ${target} = ${value} as never; });` }, true);
      const host = new Host(new InProcess(), null);
      const session = new Session(its, host.load(its, false), host, { ...opening });
      const [error] = session.open().errors;
      if (error !== undefined)
        expect(error.says).not.toMatch(/\[object|Symbol\(|undefined is|is not a function/);
    }),
    { numRuns: odd.length * targets.length, seed: 1 },
  );
});

beforeAll(() => {
  expect(SHARED_BYTES % 8).toBe(0);
  expect(compile({ name: 'a.ts', text: '' }, 'traced').failure).toBeNull();
});
