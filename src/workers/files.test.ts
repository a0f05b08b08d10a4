import {
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { readFolder, writeIntoFolder } from './files';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'tavro-files-'));
  mkdirSync(join(folder, 'behaviours'));
  writeFileSync(join(folder, 'behaviours/10-a.ts'), 'log(1);');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const behaviours = () => readdirSync(join(folder, 'behaviours')).sort();

test('files are written, written over and removed, in folders that are made where they are missing', () => {
  expect(
    writeIntoFolder(folder, [
      { path: 'behaviours/10-a.ts', text: null },
      { path: 'behaviours/20-b.ts', text: 'log(2);' },
      { path: 'forms/vessel/form.json', text: '{}' },
    ]),
  ).toBe(true);
  expect(behaviours()).toEqual(['20-b.ts']);
  expect(readFileSync(join(folder, 'forms/vessel/form.json'), 'utf8')).toBe('{}');
  expect(writeIntoFolder(folder, [{ path: 'behaviours/20-b.ts', text: 'log(3);' }])).toBe(true);
  expect(readFolder(folder).get('behaviours/20-b.ts')).toBe('log(3);');
});

test('what is gone already is removed all the same', () => {
  expect(writeIntoFolder(folder, [{ path: 'forms/vessel/form.json', text: null }])).toBe(true);
  expect(readdirSync(folder)).toEqual(['behaviours']);
});

test.each([
  ['written over', 'behaviours/10-a.ts', 'log(9);', 'log(0);'],
  ['removed', 'behaviours/10-a.ts', null, 'log(0);'],
  ['made', 'behaviours/10-a.ts', 'log(9);', null],
])('a file that is something else by now is not %s', (_, path, text, was) => {
  expect(writeIntoFolder(folder, [{ path, text, was }])).toBe(false);
  expect(readFolder(folder).get('behaviours/10-a.ts')).toBe('log(1);');
});

test('of several, those that are as they were known are written', () => {
  expect(
    writeIntoFolder(folder, [
      { path: 'behaviours/10-a.ts', text: 'log(9);', was: 'log(0);' },
      { path: 'behaviours/20-b.ts', text: 'log(2);', was: null },
    ]),
  ).toBe(false);
  expect(readFolder(folder)).toEqual(
    new Map([
      ['behaviours/10-a.ts', 'log(1);'],
      ['behaviours/20-b.ts', 'log(2);'],
    ]),
  );
});

test('nothing is written through a link', () => {
  const outside = mkdtempSync(join(tmpdir(), 'tavro-outside-'));
  symlinkSync(outside, join(folder, 'forms'));
  expect(writeIntoFolder(folder, [{ path: 'forms/x.json', text: '{}' }])).toBe(false);
  expect(readdirSync(outside)).toEqual([]);
  rmSync(outside, { recursive: true });
});
