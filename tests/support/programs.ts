/**
 * Small programs over all the syntax of the language: some written by hand, one for each construct, and as many as are
 * wanted put together at random. Each is a list of lines, one statement to a line, that calls `log` with what it comes to.
 */
import fc from 'fast-check';

export interface Program {
  name: string;
  lines: readonly string[];
}

const program = (name: string, text: string): Program => ({
  name,
  lines: text
    .trim()
    .split('\n')
    .map((line) => line.replace(/^ {4}/, '')),
});

export const HANDWRITTEN: readonly Program[] = [
  program(
    'destructuring with defaults',
    `
    const { a = 1, b: { c = 2, ...rest } = { c: undefined, d: 4 }, ...more } = { e: 5, a: undefined };
    const [x, , y = 7, ...others] = [1, 2, undefined, 4, 5];
    log(a, c, rest, more, x, y, others);`,
  ),
  program(
    'destructuring assignment and swapping',
    `
    let a = 1;
    let b = 2;
    [a, b] = [b, a];
    const into = {};
    ({ a: into.first, b: into.second = 9 } = { a: 3 });
    log(a, b, into);`,
  ),
  program(
    'parameters with patterns and defaults',
    `
    const sum = ({ left = 1, right = left + 1 } = {}, [first = 10] = [], ...others) => {
      return left + right + first + others.length;
    };
    log(sum(), sum({ left: 5 }, [1], 1, 2));`,
  ),
  program(
    'for with several variables',
    `
    for (let i = 0, j = 10; i < j; i += 3, j--) {
      log(i, j);
    }`,
  ),
  program(
    'for without parts',
    `
    let n = 0;
    for (;;) {
      n++;
      if (n > 3) {
        break;
      }
    }
    log(n);`,
  ),
  program(
    'closures over loop variables',
    `
    const all = [];
    for (let i = 0; i < 3; i++) {
      all.push(() => i);
    }
    log(all.map((one) => one()));`,
  ),
  program(
    'for of with destructuring',
    `
    for (const [key, { value = 0 } = {}] of new Map([['a', { value: 1 }], ['b', undefined]])) {
      log(key, value);
    }`,
  ),
  program(
    'for in',
    `
    const seen = [];
    for (const key in { b: 1, a: 2 }) {
      seen.push(key);
    }
    log(seen);`,
  ),
  program(
    'while and do',
    `
    let n = 3;
    while (n > 0) {
      n--;
    }
    do {
      n += 2;
    } while (n < 5);
    log(n);`,
  ),
  program(
    'loops without braces',
    `
    let n = 0;
    for (const one of [1, 2, 3])
      n += one;
    while (n < 10)
      n++;
    if (n > 9)
      log(n);
    else
      log('less');`,
  ),
  program(
    'labels',
    `
    const seen = [];
    outer: for (const a of [1, 2, 3]) {
      for (const b of [1, 2, 3]) {
        if (b === 2) {
          continue outer;
        }
        if (a === 3) {
          break outer;
        }
        seen.push([a, b]);
      }
    }
    block: {
      if (seen.length > 0) {
        break block;
      }
      log('never');
    }
    log(seen);`,
  ),
  program(
    'optional chaining',
    `
    const ship = { name: 'Grey Heron', crew: null, of: () => ({ port: 'Quillhaven' }) };
    log(ship?.name, ship.crew?.length, ship.of?.().port, ship.missing?.().port, ship.crew?.[0]?.name);
    log(delete ship?.name, ship.name);`,
  ),
  program(
    'logical operators',
    `
    log(0 || 'a', 0 && 'a', null ?? 'a', 0 ?? 'a', (null ?? 0) || 'b');
    log(!1, !!'x', !(1 && 0));`,
  ),
  program(
    'logical assignment',
    `
    let a = null;
    a ??= 1;
    a ||= 2;
    a &&= 3;
    const holder = { b: 0 };
    holder.b ||= 4;
    holder.c ??= 5;
    holder['b'] &&= 6;
    log(a, holder);`,
  ),
  program(
    'conditional expressions',
    `
    const sign = (n) => (n > 0 ? 'more' : n < 0 ? 'less' : 'none');
    log(sign(1), sign(-1), sign(0));`,
  ),
  program(
    'switch with falling through',
    `
    const seen = [];
    for (const kind of ['tug', 'ferry', 'barge', 'raft']) {
      switch (kind) {
        case 'tug':
          seen.push(1);
        case 'ferry':
          seen.push(2);
          break;
        case 'barge': {
          const inner = 3;
          seen.push(inner);
          break;
        }
        default:
          seen.push(4);
      }
    }
    log(seen);`,
  ),
  program(
    'switch with its default in the middle',
    `
    const of = (n) => {
      switch (true) {
        case n > 10:
          return 'large';
        default:
          return 'odd';
        case n > 5:
          return 'middle';
      }
    };
    log(of(11), of(6), of(1));`,
  ),
  program(
    'generators',
    `
    function* count(to) {
      let sent = 0;
      for (let i = 0; i < to; i++) {
        sent += (yield i + sent) ?? 0;
      }
      return sent;
    }
    function* twice() {
      const all = yield* count(3);
      yield all;
    }
    const run = twice();
    log(run.next(), run.next(2), run.next(3), run.next(), run.next());
    log([...count(3)], Array.from(twice()));`,
  ),
  program(
    'a generator that is left early',
    `
    const seen = [];
    function* all() {
      try {
        yield 1;
        yield 2;
      } finally {
        seen.push('left');
      }
    }
    for (const one of all()) {
      seen.push(one);
      break;
    }
    log(seen);`,
  ),
  program(
    'classes',
    `
    class Vessel {
      static count = 0;
      #length = 1;
      name = 'none';
      constructor(name, length = 2) {
        this.name = name;
        this.#length = length;
        Vessel.count++;
      }
      get length() {
        return this.#length;
      }
      set length(to) {
        this.#length = to > 0 ? to : 0;
      }
      static of({ name }) {
        return new this(name);
      }
      *parts() {
        yield this.name;
        yield this.#length;
      }
    }
    class Tug extends Vessel {
      constructor(name) {
        super(name, 9);
      }
      get length() {
        return super.length * 2;
      }
      toString() {
        return \`\${this.name}!\`;
      }
    }
    const tug = new Tug('Otter');
    const other = Vessel.of({ name: 'Heron' });
    other.length = -4;
    log(tug.length, \`\${tug}\`, [...tug.parts()], other.length, Vessel.count, tug instanceof Vessel);`,
  ),
  program(
    'static blocks and computed members',
    `
    const key = 'weigh';
    class Scale {
      static unit;
      static {
        Scale.unit = 't';
      }
      [key](n) {
        return n + Scale.unit;
      }
      [\`\${key}All\`] = (...all) => all.map((one) => this[key](one));
    }
    log(new Scale().weigh(1), new Scale().weighAll(1, 2));`,
  ),
  program(
    'try, catch and finally',
    `
    const seen = [];
    const risky = (n) => {
      try {
        if (n > 1) {
          throw new Error('too many');
        }
        return 'fine';
      } catch ({ message }) {
        seen.push(message);
        return 'caught';
      } finally {
        seen.push('finally');
      }
    };
    log(risky(1), risky(2), seen);`,
  ),
  program(
    'finally that returns',
    `
    const of = () => {
      try {
        return 'try';
      } finally {
        return 'finally';
      }
    };
    log(of());`,
  ),
  program(
    'catch without a name, and throwing on',
    `
    const seen = [];
    try {
      try {
        null.x;
      } catch {
        seen.push('inner');
        throw new TypeError('on');
      }
    } catch (error) {
      seen.push(error.message, error instanceof TypeError);
    }
    log(seen);`,
  ),
  program(
    'tagged templates',
    `
    const tag = (texts, ...values) => texts.raw.join('|') + values.join(',');
    const n = 2;
    log(tag\`a\${1}b\${n > 1 ? 'many' : 'one'}\\nc\`, \`plain \${n} \${[1, 2].map((x) => \`<\${x}>\`)}\`);`,
  ),
  program(
    'spread',
    `
    const all = [1, ...[2, 3], ...new Set([3, 4])];
    const merged = { a: 1, ...{ a: 2, b: 3 }, ...null };
    log(all, merged, Math.max(...all), [...'åb']);`,
  ),
  program(
    'async functions called one after the other',
    `
    const later = async (n) => {
      await after(1);
      if (n > 2) {
        throw new Error('late');
      }
      return n * 2;
    };
    const seen = [];
    for (const n of [1, 2, 3]) {
      try {
        seen.push(await later(n));
      } catch (error) {
        seen.push(error.message);
      } finally {
        seen.push('done');
      }
    }
    log(seen);`,
  ),
  program(
    'await in expressions',
    `
    const value = async (n) => {
      await after(1);
      return n;
    };
    const all = [await value(1), (await value(0)) || (await value(5))];
    const picked = (await value(2)) > 1 ? await value(3) : await value(4);
    log(all, picked, { a: await value(6) });`,
  ),
  program(
    'getters, setters and symbols',
    `
    const holder = {
      n: 1,
      get twice() {
        return this.n * 2;
      },
      set twice(to) {
        this.n = to / 2;
      },
      [Symbol.iterator]: function* () {
        yield this.n;
      },
    };
    holder.twice = 10;
    log(holder.n, holder.twice, [...holder]);`,
  ),
  program(
    'objects that tell when they are looked at',
    `
    let looks = 0;
    const look = () => {
      looks++;
      return [];
    };
    const holder = { get computed() {
      return look();
    } };
    const proxy = new Proxy({}, { get: look, ownKeys: look, has: look, getPrototypeOf: look });
    const revocable = Proxy.revocable([], { get: look }).proxy;
    class Odd extends Map {
      get [Symbol.toStringTag]() {
        return look();
      }
      toJSON() {
        return look();
      }
      [Symbol.iterator]() {
        return look();
      }
    }
    const odd = new Odd();
    const failure = Object.defineProperty(new Error(), 'message', { get: look });
    const all = [holder, proxy, revocable, odd, failure];
    if (all) {
      log(looks, all.length);
    }`,
  ),
  program(
    'recursion and hoisting',
    `
    log(even(10), even(7));
    function even(n) {
      return n === 0 ? true : odd(n - 1);
    }
    function odd(n) {
      return n === 0 ? false : even(n - 1);
    }`,
  ),
  program(
    'comma, void, typeof, in and exponents',
    `
    let n = (1, 2);
    n **= 3;
    log(n, void 0, typeof n, typeof missing, 'a' in { a: 1 }, 2 ** -1, n >>> 1, ~n);`,
  ),
  program(
    'compound assignment and increments',
    `
    const holder = { n: 1, list: [1, 2] };
    holder.n++;
    ++holder.list[0];
    holder.list[holder.n - 1] += 5;
    log(holder, holder.n-- - --holder.n);`,
  ),
  program(
    'callbacks of built-ins',
    `
    const rows = [{ key: 'a', n: 3 }, { key: 'b', n: 1 }, { key: 'c', n: 2 }];
    const found = rows.filter(({ n }) => n > 1).map(({ key }) => key);
    const sorted = rows.toSorted((a, b) => a.n - b.n);
    log(found, sorted.map(({ n }) => n), rows.some(({ n }) => n === 2), rows.reduce((sum, { n }) => sum + n, 0));`,
  ),
  program(
    'shadowing and temporal dead zones',
    `
    const seen = [];
    const n = 1;
    {
      try {
        seen.push(n);
        const n = 2;
        seen.push(n);
      } catch (error) {
        seen.push(error instanceof ReferenceError);
      }
    }
    for (const n of [3]) {
      const inner = n;
      {
        const n = inner + 1;
        seen.push(n);
      }
    }
    log(seen, n);`,
  ),
  program(
    'an item that its body shadows',
    `
    const seen = [];
    for (const one of [1, 2]) {
      const two = one;
      {
        const one = two * 10;
        seen.push(one);
      }
    }
    log(seen);`,
  ),
  program(
    'regular expressions and dates',
    `
    const match = /(?<digits>\\d+)-(\\w)/.exec('ab 12-x');
    log(match?.groups?.digits, match?.index, 'a-b'.replace(/-(\\w)/, (_, letter) => letter.toUpperCase()));`,
  ),
  program(
    'nullish numbers and big integers',
    `
    log(0n || 1n, 2n ** 10n === 1024n, Number.isNaN(NaN), Object.is(-0, 0), 0.1 + 0.2);`,
  ),
  program(
    'early returns in nested functions',
    `
    const find = (all, wanted) => {
      for (const [i, one] of all.entries()) {
        if (one !== wanted) continue;
        return i;
      }
      return -1;
    };
    log(find([1, 2, 3], 2), find([], 1));`,
  ),
  program(
    'immediately called functions and this',
    `
    const made = (function () {
      return [typeof this, arguments.length];
    })(1, 2);
    log(made, (() => 3)());`,
  ),
  program(
    'new.target and instanceof',
    `
    function Berth() {
      return { made: new.target === Berth };
    }
    log(new Berth().made, Berth() instanceof Berth);`,
  ),
];

// Programs put together at random.

const atom = fc.constantFrom('a', 'b', 'c', '0', '1', '2', '5', 'null', '"x"', 'undefined');

const expression: fc.Memo<string> = fc.memo((depth) =>
  depth <= 1
    ? atom
    : fc.oneof(
        atom,
        fc
          .tuple(
            expression(depth - 1),
            fc.constantFrom('+', '-', '===', '!==', '<', '>=', '&&', '||'),
            expression(depth - 1),
          )
          .map(([l, op, r]) => `(${l} ${op} ${r})`),
        fc
          .tuple(expression(depth - 1), expression(depth - 1))
          .map(([l, r]) => `((${l}) ?? (${r}))`),
        fc
          .tuple(expression(depth - 1), expression(depth - 1), expression(depth - 1))
          .map(([c, y, n]) => `(${c} ? ${y} : ${n})`),
        expression(depth - 1).map((e) => `!${e}`),
        expression(depth - 1).map((e) => `[${e}, ...[b]].length`),
        expression(depth - 1).map((e) => `({ p: ${e} })?.p`),
        expression(depth - 1).map((e) => `((n) => n)(${e})`),
      ),
);

const indented = (lines: readonly string[]) => lines.map((line) => `  ${line}`);

const statement: fc.Memo<string[]> = fc.memo((depth) => {
  const simple = fc.oneof(
    fc
      .tuple(
        fc.constantFrom('a', 'b', 'c'),
        fc.constantFrom('=', '+=', '??=', '||=', '&&='),
        expression(3),
      )
      .map(([to, op, e]) => [`${to} ${op} ${e};`]),
    expression(3).map((e) => [`log(${e});`]),
    expression(2).map((e) => [`[a, b = 3] = [${e}, c];`]),
  );
  if (depth <= 1) return simple;
  const block = fc
    .array(statement(depth - 1), { minLength: 1, maxLength: 3 })
    .map((all) => all.flat());
  return fc.oneof(
    { weight: 3, arbitrary: simple },
    fc
      .tuple(expression(3), block, fc.option(block, { nil: null }))
      .map(([c, yes, no]) => [
        `if (${c}) {`,
        ...indented(yes),
        ...(no === null ? [] : ['} else {', ...indented(no)]),
        '}',
      ]),
    block.map((body) => ['for (const one of [1, 2]) {', '  log(one);', ...indented(body), '}']),
    block.map((body) => ['for (let i = 0; i < 2; i++) {', ...indented(body), '}']),
    fc
      .tuple(expression(2), block, block)
      .map(([e, one, other]) => [
        `switch (${e}) {`,
        '  case 1:',
        ...indented(indented(one)),
        '    break;',
        '  default:',
        ...indented(indented(other)),
        '}',
      ]),
    fc
      .tuple(block, block, fc.boolean())
      .map(([tried, caught, throws]) => [
        'try {',
        ...indented(tried),
        ...(throws ? ['  throw new Error("x");'] : []),
        '} catch (error) {',
        '  log(error.message);',
        ...indented(caught),
        '} finally {',
        '  log("finally");',
        '}',
      ]),
    block.map((body) => ['(() => {', ...indented(body), '})();']),
  );
});

/** So many programs, the same for the same seed. */
export function randomPrograms(count: number, seed: number): Program[] {
  const body = fc.array(statement(3), { minLength: 3, maxLength: 8 });
  return fc.sample(body, { seed, numRuns: count }).map((all, i) => ({
    name: `random ${i}`,
    lines: ['let a = 1;', 'let b = null;', 'let c = "c";', ...all.flat(), 'log(a, b, c);'],
  }));
}
