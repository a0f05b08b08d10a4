import { afterEach, expect, test, vi } from 'vitest';
import { complain, onOneLine, print } from './print';

afterEach(() => vi.restoreAllMocks());

function printed(work: () => void, to: NodeJS.WriteStream): string {
  let all = '';
  vi.spyOn(to, 'write').mockImplementation((text) => {
    all += String(text);
    return true;
  });
  work();
  return all;
}

test('no control of a terminal gets through, and what JSON holds stays JSON', () => {
  const odd = 'a\u001b[2Jb\u009bc\u0007\rd\u202ee\u2066f\u2028g\u007f';
  for (const text of [
    printed(() => print(`${odd}\n`), process.stdout),
    printed(() => complain(`${odd}\n`), process.stderr),
  ]) {
    expect(text).toMatch(/^[\x20-\x7e]*\n$/);
    expect(text).toContain('a\\u001b[2Jb\\u009bc');
  }
  const json = printed(() => print(`${JSON.stringify({ odd })}\n`), process.stdout);
  expect(JSON.parse(json)).toEqual({ odd });
});

test('a text on one line stays there', () => {
  expect(onOneLine('fine\n  ✓ forged\r\nmore')).toBe('fine ⏎   ✓ forged ⏎ more');
});
