/** Statements of a behaviour that somebody writes who wants to break out, forge what is saved, or keep everybody waiting. */

/** Goes on without an end, or deeper than any stack. */
const ENDLESS = [
  'for (;;) {}', 'while (true) log(1);', 'let s = "x"; for (;;) s += s;', 'const l: any[] = []; for (;;) l.push(new Array(1000));', 'const m = new Map(); for (let i = 0; ; i++) m.set(i, "x".repeat(1000));',
  'const f = (): any => f(); f();', 'const f = (n: number): any => [n].map(() => f(n + 1)); f(0);', 'const o: any = { get x() { return o.x; } }; o.x;', 'const o: any = { toString() { return `${o}`; } }; `${o}`;', 'const p: any = new Proxy({}, { get: (_t, k, r) => r[k] }); p.x;',
  'class A { a: any; constructor() { this.a = new A(); } } new A();', 'function* g(): any { yield* g(); } [...g()];', 'const f = (x: any = f()): any => x; f();', 'const o: any = { toJSON() { return JSON.stringify(o); } }; JSON.stringify(o);', 'const f = (): any => "a".replace("a", () => f()); f();',
  'label: for (;;) { try { continue label; } finally { continue label; } }', 'for (;;) { try { throw 1; } catch { continue; } }', 'const it = { [Symbol.iterator]: () => ({ next: () => ({ done: false, value: 1 }) }) }; [...(it as any)];', 'const f: any = () => ({ then: f }); await f();', 'while (true) await null;',
];

/** Built-ins that come back late or never. */
const NEVER_YIELD = [
  'const l: any[] = []; l.length = 2 ** 32 - 1; l.indexOf(1);', 'const l: any[] = []; l.length = 2 ** 32 - 1; l.includes(undefined, 5); l.lastIndexOf(1);', 'new Array(3e6).fill(1).sort();', '"x".repeat(3e7).indexOf("y".repeat(2000));', 'JSON.stringify(new Array(2e6).fill({ a: 1 }));',
  'let o: any = 1; for (let i = 0; i < 60000; i++) o = [o]; JSON.stringify(o);', '/(a+)+b/.test("a".repeat(40));', '/(?:x+x+)+y/.exec("x".repeat(60));', '/^(\\w+\\s?)*$/.test("word ".repeat(40) + "!");', 'new RegExp("(.*)*".repeat(8) + "z").test("a".repeat(60));',
  '"ab".repeat(1e7).split("");', '"a".repeat(5e6).replaceAll("a", "bbbb");', '10n ** 3000000n;', 'BigInt("9".repeat(300000));', '(7n ** 400000n).toString();', 'Array.from({ length: 5e7 });', '[].concat(...new Array(60000).fill([1, 2, 3]) as any);', 'new Array(4e9);', 'new Array(1e8).join("x");',
  'new ArrayBuffer(2 ** 31);', 'new Float64Array(2e8);', 'Array.prototype.indexOf.call({ length: 2 ** 53 - 1 }, 1);', 'Array.prototype.reverse.call({ length: 2 ** 53 - 1 } as any);', '"x".padEnd(2 ** 30 - 10);', '"é".repeat(2e6).normalize("NFD");', 'String.fromCharCode.apply(null, new Array(200000).fill(65));', 'structuredClone(1 as any);', 'Math.max(...new Array(500000).fill(1));',
];

/** Replaces or reaches for what others use. */
const REACHING = [
  'JSON.stringify = () => "{}";', 'JSON.parse = () => ({ a: 99 });', '(globalThis as any).JSON = { stringify: () => "1", parse: () => 1 };', 'Array.prototype.push = function () { return 0; };', 'Array.prototype.map = () => [];', 'Object.keys = () => [];', 'Map.prototype.get = () => "forged";', 'Map.prototype.set = () => null as any;',
  'String.prototype.slice = () => "forged";', 'Object.defineProperty(Array.prototype, "0", { set() { log("met"); } });', 'Object.defineProperty(Object.prototype, "tag", { get: () => 7 });', '(Object.prototype as any).a = 99;', '(Object.prototype as any).__proto__ = null;', 'Function.prototype.call = () => "forged";', 'Function.prototype.apply = () => "forged" as any;',
  'Symbol.iterator in Array.prototype && ((Array.prototype as any)[Symbol.iterator] = function* () { yield 99; });', 'Number.isFinite = () => true;', '(Promise as any).prototype.then = (f: any) => f(99);', 'RegExp.prototype.exec = () => ["forged"] as any;', 'RegExp.prototype.test = () => true;',
  '(() => {}).constructor("return this")();', '(async () => {}).constructor("return this")();', '(function* () {}).constructor("return this")();', 'new (Object.getPrototypeOf(async function* () {}).constructor)("return 1");', '(globalThis as any).__host();', '(globalThis as any).__buffer[18] = 1;', '(globalThis as any).__entries.run();', '(this as any).x = 1;',
  '(function (this: any) { return this.constructor; })();', '(0, eval as any)("1");', 'setTimeout(() => {}, 0);', '(globalThis as any).process.exit(1);', '(globalThis as any).require("fs");', 'fetch("http://127.0.0.1");', 'new Worker("x");', '(arguments as any)[0].fuel = 1e9;', '(arguments as any).callee.caller;',
  '(Error as any).prepareStackTrace = () => "forged";', '(Error as any).stackTraceLimit = Infinity;', 'Object.freeze(fields);', 'Object.setPrototypeOf(fields.a, { value: 99 });', 'Object.defineProperty(fields.a, "value", { get: () => 99 });', '(fields as any).a = 99;', 'delete (fields as any).a;', '(fields.a as any).__proto__ = null;', 'Object.assign(form, { record: "1", person: { key: "root" } });',
  '(form as any).person.roles.push("master");', '(form.launch as any).x = 1;', '(form as any).__proto__.isNew = false;', 'for (const k of Reflect.ownKeys(form)) (form as any)[k] = null;', 'new Proxy(fields.a, { get: () => 99 }).value = 5;', 'Object.getOwnPropertyNames(globalThis).forEach((k) => { try { (globalThis as any)[k] = null; } catch {} });',
];

/** Says what is no value, or more than anybody can take. */
const SAYING = [
  'fields.b.value = NaN;', 'fields.b.value = Infinity;', 'fields.b.value = "99" as any;', 'fields.b.value = { valueOf: () => 99 } as any;', 'fields.b.value = new Proxy({}, {}) as any;', 'fields.b.value = 99n as any;', 'fields.b.value = Symbol("x") as any;', 'fields.b.value = (() => 99) as any;', 'fields.note.value = "x".repeat(2e7);',
  'fields.note.value = "\\0";', 'fields.note.value = "\\ud800";', 'fields.note.value = { toJSON: () => "forged" } as any;', 'const c: any = {}; c.c = c; fields.note.value = c;', 'fields.note.options = new Array(1e6).fill({ key: "x", label: "x" }) as any;', '(fields as any).nothing.value = 1;', '(fields as any)["__proto__"].value = 1;', '(fields as any).constructor.value = 1;',
  'for (let i = 0; i < 200000; i++) log(i);', 'for (let i = 0; i < 20000; i++) form.message("x".repeat(1000));', 'form.message({ toString: () => "x" } as any);', 'form.submit(); form.submit(); form.submit();', 'for (let i = 0; i < 1000; i++) form.submit();', 'on.change(fields.a, () => {});', 'keep("x", () => keep("y", () => {}));', 'for (let i = 0; i < 100000; i++) after(0);', 'await after(86400000 * 365);',
  'throw null;', 'throw undefined;', 'throw new Proxy({}, { get() { throw 1; } });', 'throw { get message() { throw 1; } };', 'throw new Error("x".repeat(1e6));', 'throw Object.create(null);', 'throw Symbol("x");', 'fields.a.value = (fields.a.value ?? 0) + 1;', 'fields.b.shown = "yes" as any;', 'fields.b.required = 1 as any;', 'fields.b.problem = "";', 'fields.b.problem = "x".repeat(1e6);', '(parent as any).set("x", 1);', '(services as any).nothing.ask();', '(tables as any).constructor.rows;',
];

export const STATEMENTS: readonly { sort: string; code: string }[] = [
  ...ENDLESS.map((code) => ({ sort: 'endless', code })),
  ...NEVER_YIELD.map((code) => ({ sort: 'a built-in', code })),
  ...REACHING.map((code) => ({ sort: 'reaching out', code })),
  ...SAYING.map((code) => ({ sort: 'saying', code })),
];
