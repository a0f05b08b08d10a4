import { describe, expect, test } from 'vitest';
import { compile } from './compile';
import { inOrder, readHeader, takingPart, withHeader } from '../script/header';

const script = (text: string, name = '10-pilot.ts') => compile({ name, text }, 'untraced');

describe('what a script cannot be', () => {
  test.each([
    ['on.load( => )', 1, 'does not parse'],
    ['\nimport x from "y";', 2, 'imports from "y". Scripts import from shared modules alone'],
    ['export const a = 1;', 1, 'has an export'],
    ['\n\nawait import("x");', 3, 'imports while it runs'],
    ['eval("1");', 1, 'uses the name eval'],
    ['__probe.f(1);', 1, 'uses the name __probe'],
  ])('%j', (text, line, says) => {
    const { code, failure } = script(text);
    expect(code).toBeNull();
    expect(failure).toMatchObject({ code: 'syntax', line });
    expect(failure!.says).toContain(says);
  });

  test('a property called eval is none of ours', () => {
    expect(script('log(fields.eval);').failure).toBeNull();
  });
});

test('JavaScript is accepted, and types are taken off TypeScript', () => {
  expect(script('const a = 1;', 'a.js').failure).toBeNull();
  expect(script('const a: number = 1 as number; interface X { y: 1 }').code).not.toMatch(
    /number|interface/,
  );
});

test('every statement, loop and function carries its own line', () => {
  const { code } = script('const a = 1;\nwhile (a) log(a);\nfunction f() {\n  return a;\n}');
  expect(code).toContain('__probe.l = 1');
  expect(code).toContain('__probe.f(2)');
  expect(code).toContain('__probe.in(3)');
  expect(code).toContain('__probe.l = 4');
});

test('the line of a statement is said again after a call inside it could have moved it', () => {
  expect(script('form.message(\n  name());').code).toContain('form.message(__probe.at(1, name()))');
});

test('title and purpose stand in the leading comment; without one the file name serves', () => {
  expect(
    readHeader({ name: '10-pilot.ts', text: '/** Pilot details: asked only\n * with a pilot. */' }),
  ).toEqual({
    title: 'Pilot details',
    purpose: 'asked only with a pilot.',
    order: 10,
    off: false,
    forms: null,
  });
  expect(readHeader({ name: '20-late-fees.ts', text: '' })).toEqual({
    title: 'late fees',
    purpose: '',
    order: 20,
    off: false,
    forms: null,
  });
});

test('behaviours run by number, then by name, those without a number last', () => {
  expect(
    inOrder([{ name: 'b.ts' }, { name: '20-a.ts' }, { name: '3-z.ts' }, { name: 'a.ts' }]).map(
      ({ name }) => name,
    ),
  ).toEqual(['3-z.ts', '20-a.ts', 'a.ts', 'b.ts']);
});

describe('a behaviour that is off', () => {
  const off = '/**\n * Pilot: asked.\n * @off\n */\nlog(1);';

  test('says so in its leading comment, alone on its line', () => {
    expect(readHeader({ name: '10-pilot.ts', text: off })).toEqual({
      title: 'Pilot',
      purpose: 'asked.',
      order: 10,
      off: true,
      forms: null,
    });
    expect(readHeader({ name: '10-pilot.ts', text: '/** Pilot: what @off means. */' }).off).toBe(
      false,
    );
    expect(readHeader({ name: '10-pilot.ts', text: 'log("@off");' }).off).toBe(false);
  });

  test('takes no part', () => {
    expect(
      takingPart([
        { name: '20-a.ts', text: '' },
        { name: '10-pilot.ts', text: off },
        { name: '5-b.ts', text: '' },
      ]).map(({ name }) => name),
    ).toEqual(['5-b.ts', '20-a.ts']);
  });
});

describe('a header is written again', () => {
  test.each([
    [
      '/** Pilot: asked. */\nlog(1);',
      { title: 'Pilot', purpose: 'asked.', off: true, forms: null },
      '/**\n * Pilot: asked.\n * @off\n */\nlog(1);',
    ],
    [
      '/**\n * Pilot: asked.\n * @off\n */\nlog(1);',
      { title: 'Pilots', purpose: '', off: false, forms: null },
      '/** Pilots */\nlog(1);',
    ],
    [
      '\nlog(1);',
      { title: 'New', purpose: 'with */ in it', off: false, forms: null },
      '/** New: with * / in it */\n\nlog(1);',
    ],
    [
      '/** Amounts: for clerks. */\nlog(1);',
      {
        title: 'Amounts',
        purpose: 'for clerks.',
        off: true,
        forms: { with: ['amount', 'cargo.weight'] },
      },
      '/**\n * Amounts: for clerks.\n * @forms with amount, cargo.weight\n * @off\n */\nlog(1);',
    ],
    [
      '/**\n * Amounts: for clerks.\n * @forms a b,c\n */\nlog(1);',
      { title: 'Amounts', purpose: '', off: false, forms: { named: ['a', 'b', 'c'] } },
      '/**\n * Amounts\n * @forms a, b, c\n */\nlog(1);',
    ],
  ])('%j', (text, header, expected) => {
    expect(withHeader({ text }, header)).toBe(expected);
    expect(readHeader({ name: 'x.ts', text: expected })).toMatchObject({
      title: header.title,
      off: header.off,
      forms: header.forms,
    });
  });
});
