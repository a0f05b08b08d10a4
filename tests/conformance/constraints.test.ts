/**
 * Constraint checks against Chromium's own `validity` (WHATWG HTML, https://html.spec.whatwg.org/#constraints): for each
 * value, whether it is valid, and where it is not, that the fault named is one the browser reports.
 */
import { fits } from '../../src/core/guest/patterns';
import { chromium, type Browser, type Page } from '@playwright/test';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { faultOf } from '../../src/core/form/kinds';
import type { Field } from '../../src/core/form/definition';
import { date, number, text } from '../support/forms';
import { CHROMIUM } from '../support/chromium';

let browser: Browser;
let page: Page;

beforeAll(async () => {
  browser = await chromium.launch(CHROMIUM);
  page = await browser.newPage();
  await page.setContent('<input id="x"><textarea id="y"></textarea>');
});
afterAll(() => browser.close());

type Case = [Field, (string | number | null)[]];

const cases: Case[] = [
  [number('n', { min: 1, max: 10 }), [0.999, 1, 10, 10.0000001, -5, 5]],
  [number('n', { min: 0, step: 0.1 }), [0.3, 0.35, 7, 1e-7, 1000000.1]],
  [number('n', { min: 1, step: 3 }), [1, 4, 5, 100, 2.5]],
  [number('n', { step: 0.01 }), [1.005, 1.01, 0.07, 123456.78, 123456.789]],
  [number('n', { step: 1, min: 0.5 }), [0.5, 1, 1.5, 2]],
  [number('n', { required: true }), [null, 0, -1]],
  [
    date('d', { min: '2031-05-03', max: '2031-06-01' }),
    ['2031-05-02', '2031-05-03', '2031-06-01', '2031-06-02', '0001-01-01', '9999-12-31'],
  ],
  [date('d', { required: true }), [null, '2031-02-28']],
  [
    text('t', { pattern: 'QH-[0-9]{4}' }),
    ['QH-0417', 'QH-417', 'xQH-0417', 'QH-04171', 'qh-0417', null],
  ],
  [text('t', { pattern: 'a|bc' }), ['a', 'bc', 'abc', 'c', 'b']],
  [text('t', { pattern: '\\p{Lu}.' }), ['Äx', 'äx', 'A😀', 'A']],
  [text('t', { minLength: 3, maxLength: 5 }), ['ab', 'abc', 'abcde', 'abcdef', '😀😀', '😀😀😀']],
  [text('t', { required: true }), [null, ' ', 'x']],
  [
    text('t', { format: 'email' }),
    // From the HTML standard's own production, RFC 5322 oddities it leaves out, and length limits of RFC 1034 labels.
    [
      'a@b',
      'name@example.org',
      'first.last+tag@sub.example.org',
      '.a@b',
      'a..b@c',
      'a@b.',
      'a@-b',
      'a@b-',
      'a@b_c',
      '"q"@b',
      'a b@c',
      'a@b c',
      '@b',
      'a@',
      'a',
      'é@b.c',
      'a@é.c',
      `a@${'x'.repeat(63)}.c`,
      `a@${'x'.repeat(64)}.c`,
      'a@b@c',
      "o'x@b.c",
      'a@1.2.3.4',
      'a@[1.2.3.4]',
    ],
  ],
  [
    text('t', { format: 'url' }),
    // Examples of the URL standard's section on writing URLs, and its host parser's failures.
    [
      'https://example.org/page',
      'http:example.org',
      'example.org',
      '//example.org',
      'https://',
      'https:///x',
      'https://a<b',
      'https://exa%23mple.org',
      'https://exam%70le.org',
      'mailto:x@y',
      'x:',
      'x://a b',
      'x://h:99999',
      'http://h:99999',
      'http://h:65535',
      'http://h:x',
      'http://u:p@h/',
      'http://1.2.3.256',
      'http://1.2.3',
      'http://256.1',
      'http://0x7f.1',
      'http://1.2.3.4.5',
      'http://[::1]/',
      'http://[::1',
      'http://[1::2::3]',
      'http://[::1.2.3.4]',
      'http://[::1.2.3]',
      'file:///etc',
      'file://host/x',
      'ftp://x',
      'ht tp://x',
      '1http://x',
      'http://exämple.org/ü?ö#ä',
      'data:text/plain,x',
      'javascript:1',
      'http://a.b.c..',
      'http://.',
      '  https://example.org  ',
      'http://@/x',
      'http://%zz',
    ],
  ],
];

describe('a constraint is broken where Chromium says so', () => {
  test.each(
    cases.flatMap(([field, values]) =>
      values.map((value) => [JSON.stringify(value), field, value] as const),
    ),
  )('%s in %o', async (_name, field, value) => {
    const theirs = await validity(field, value);
    const ours = faultOf(value, field, field.required === true, fits);
    expect({ valid: ours === null }).toEqual({ valid: theirs.length === 0 });
    if (ours !== null) expect(theirs).toContain(ours.code);
  });

  test('where Chromium departs from the standards, the standards stand', async () => {
    // A space is a forbidden host code point (URL standard, "host parsing"); Chromium escapes it, Node refuses it too.
    const url = text('t', { format: 'url' });
    for (const value of ['https://a b', 'http://ex ample.org']) {
      expect([
        await validity(url, value),
        URL.canParse(value),
        faultOf(value, url, false, fits)?.code,
      ]).toEqual([[], false, 'typeMismatch']);
    }
    // HTML asks for an integral multiple; Chromium forgives what differs in the last binary digits.
    const tenths = number('n', { min: 0, step: 0.1 });
    expect([
      await validity(tenths, 0.1 + 0.2),
      faultOf(0.1 + 0.2, tenths, false, fits)?.code,
    ]).toEqual([[], 'stepMismatch']);
  });

  test('the table is large enough to say something', () => {
    expect(cases.flatMap(([, values]) => values).length).toBeGreaterThanOrEqual(100);
  });
});

/** The flags of ValidityState that Chromium raises for this value in an input made from the field. */
async function validity(field: Field, value: string | number | null): Promise<string[]> {
  const attributes: Record<string, string | number | boolean | undefined> = {
    type: field.kind === 'text' ? (field.format ?? 'text') : field.kind,
    required: field.required,
    ...(field.kind === 'number'
      ? { min: field.min, max: field.max, step: field.step ?? 'any' }
      : {}),
    ...(field.kind === 'date' ? { min: field.min, max: field.max } : {}),
    ...(field.kind === 'text' ? { pattern: field.pattern } : {}),
  };
  const [low, high] = field.kind === 'text' ? [field.minLength, field.maxLength] : [];
  const typed = value === null ? '' : String(value);
  const isLength = low !== undefined || high !== undefined;
  await page.evaluate(
    ([set, text, byPerson]) => {
      document.body.innerHTML = '<input>';
      const input = document.querySelector('input')!;
      for (const [name, content] of Object.entries(set))
        if (content !== undefined && content !== false)
          input.setAttribute(name, content === true ? '' : String(content));
      if (byPerson) input.focus();
      else input.value = text;
    },
    [attributes, typed, isLength] as const,
  );
  // Lengths count only for what a person typed, and a browser lets nobody type too much; so it is typed first.
  if (isLength) await page.keyboard.type(typed);
  return page.evaluate(
    ([min, max]) => {
      const input = document.querySelector('input')!;
      if (min !== undefined) input.minLength = min;
      if (max !== undefined) input.maxLength = max;
      const flags = [
        'valueMissing',
        'typeMismatch',
        'patternMismatch',
        'tooLong',
        'tooShort',
        'rangeUnderflow',
        'rangeOverflow',
        'stepMismatch',
        'badInput',
      ] as const;
      return flags.filter((flag) => input.validity[flag]);
    },
    [low, high] as const,
  );
}
