/** What the editor and `check` say of the code that forms share. */
import { describe, expect, test } from 'vitest';
import { choice, formWith, money, number, text } from '../../../tests/support/forms';
import { libs } from '../language/generated/libs';
import { FormLanguage } from '../language/language-service';
import type { Source } from '../script/header';
import { scriptsOf } from '../script/of-form';
import { planExportRename } from '../structure/rename-export';
import { planRekey } from '../structure/rekey';
import { planRename } from '../structure/rename';
import type { Reach } from '../structure/uses';
import { problemsInSources } from './problems';
import { problemsInShared } from './shared';

const dues = formWith(
  [money('amount', { currency: 'EUR' }), number('days'), choice('sort', ['tug'])],
  {
    name: 'dues',
  },
);
const works = formWith([money('amount', { currency: 'EUR' }), text('note')], { name: 'works' });
const around = { tables: [], services: [], roles: [{ key: 'clerk', label: 'Clerk' }] };

const inShared = (shared: Source[]) =>
  problemsInShared(shared, { ...around, forms: [dues, works] }, new FormLanguage(libs)).map(
    ({ at, says, severity }) =>
      `${at.is === 'behaviour' ? `${at.name}:${at.line}` : at.is} ${severity}: ${says}`,
  );
const sharedModule = (text_: string, name = 'shared/sums.ts') => ({ name, text: text_ });

function inForm(form: typeof dues, own: Source[], shared: Source[]): string[] {
  const language = new FormLanguage(libs);
  language.surround({ ...around, form });
  return problemsInSources(form.name, scriptsOf(form, own, shared), language)
    .filter(({ at }) => at.is === 'behaviour')
    .map(({ says }) => says);
}

describe('a shared module', () => {
  test('is typed by what it needs of parts', () => {
    const sums = sharedModule(
      'export function perDay(amount: Field<number>, days: Field<number>): number {\n  return round((amount.value ?? 0) / (days.value ?? 1), 2);\n}\n',
    );
    expect(inShared([sums])).toEqual([]);
    const call = (given: string) => [
      {
        name: '10-a.ts',
        text: `import { perDay } from "shared/sums";\nkeep("a", () => { fields.days.hint = String(perDay(${given})); });`,
      },
    ];
    expect(inForm(dues, call('fields.amount, fields.days'), [sums])).toEqual([]);
    expect(inForm(dues, call('fields.amount, fields.sort'), [sums])[0]).toMatch(/not assignable/);
  });

  test.each([
    ['export const a = fields.amount;', 'no form of its own, so it has no fields'],
    ['on.load(() => {});', 'no form of its own, so it has no on. Export a function'],
    ['export const isNew = () => form.isNew;', 'so it has no form'],
    ['export const a: number = "x";', "Type 'string' is not assignable"],
    [
      'import { b } from "shared/suns";',
      'There is no shared module "shared/suns". Did you mean shared/sums?',
    ],
    ['import { b } from "lodash";', 'Scripts import from shared modules alone'],
    ['import { missing } from "shared/other";', 'missing'],
  ])('%s', (text_, says) => {
    const found = inShared([
      sharedModule(text_),
      sharedModule('export const b = 1;', 'shared/other.ts'),
    ]);
    expect(found.join('\n')).toContain(says);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatch(/^shared\/sums\.ts:1 error/);
  });

  test('may have names of its own that forms have as well', () => {
    expect(inShared([sharedModule('const fields = 1;\nexport const on = fields;')])).toEqual([]);
  });

  test('that imports in a circle says the way round', () => {
    const found = inShared([
      sharedModule('import { b } from "shared/b";\nexport const a = () => b;', 'shared/a.ts'),
      sharedModule('import { c } from "shared/c";\nexport const b = () => c;', 'shared/b.ts'),
      sharedModule('import { a } from "shared/a";\nexport const c = () => a;', 'shared/c.ts'),
    ]);
    expect(found[0]).toContain('Imports in a circle: shared/a → shared/b → shared/c → shared/a.');
    expect(found).toHaveLength(3);
  });
});

describe('a behaviour for several forms', () => {
  const several = (forms: string, body = 'log(1);') => ({
    name: 'behaviours/20-amounts.ts',
    text: `/**\n * Amounts: for clerks.\n${forms === '' ? '' : ` * @forms ${forms}\n`} */\n${body}\n`,
  });

  test.each([
    ['dues, works', []],
    ['with amount', []],
    ['', ['behaviours/20-amounts.ts:1 error: Says for which forms it is nowhere.']],
    [
      'dues, work',
      ['behaviours/20-amounts.ts:3 error: There is no form "work". Did you mean works?'],
    ],
    ['with amount, nothing', ['behaviours/20-amounts.ts:3 warning: No form has all the parts']],
  ])('for %j', (forms, says) => {
    const found = inShared([several(forms)]);
    expect(found).toHaveLength(says.length);
    for (const [i, one] of says.entries()) expect(found[i]).toContain(one);
  });

  test('belongs to the forms it is for, and is checked against each', () => {
    const days = several(
      'with amount',
      'keep("a", () => { fields.days.shown = fields.amount.shown; });',
    );
    expect(scriptsOf(dues, [], [several('dues')]).map(({ name }) => name)).toEqual([
      'behaviours/20-amounts.ts',
    ]);
    expect(scriptsOf(works, [], [several('dues')])).toEqual([]);
    expect(scriptsOf(works, [], [several('with amount, days')])).toEqual([]);
    expect([inForm(dues, [], [days]), inForm(works, [], [days])]).toEqual([
      [],
      [expect.stringContaining('There is no field "days"')],
    ]);
  });
});

describe('renaming', () => {
  const sums = sharedModule(
    'import { FACTOR } from "shared/other";\nexport const half = (x: number) => x / FACTOR;\n',
  );
  const other = sharedModule('export const FACTOR = 2;\n', 'shared/other.ts');
  const several = {
    name: 'behaviours/20-amounts.ts',
    text: '/** Amounts.\n * @forms with amount */\nimport { half as h } from "shared/sums";\nkeep("a", () => { fields.amount.hint = `${h(2)}`; });\n',
  };
  const own = {
    name: '10-a.ts',
    text: 'import { half } from "shared/sums";\nkeep("b", () => { fields.amount.warning = `${half(1)}`; });\n',
  };
  const reach: Reach = {
    ...around,
    libs,
    shared: [sums, other, several],
    forms: [
      { form: dues, behaviours: [own], scenarios: [] },
      { form: works, behaviours: [own], scenarios: [] },
    ],
  };

  test('what a module exports reaches every script of every form', () => {
    const plan = planExportRename(reach, 'shared/sums.ts', sums.text.indexOf('half'), 'halved');
    expect(plan.map(({ form, name, text: after }) => [form, name, after.split('\n')[0]])).toEqual([
      ['', 'shared/sums.ts', 'import { FACTOR } from "shared/other";'],
      ['', 'behaviours/20-amounts.ts', '/** Amounts.'],
      ['dues', '10-a.ts', 'import { halved } from "shared/sums";'],
      ['works', '10-a.ts', 'import { halved } from "shared/sums";'],
    ]);
    expect(plan[1]!.text).toContain('import { halved as h }');
    expect(plan[2]!.text).toContain('${halved(1)}');
  });

  test.each([
    ['1x', 'is no name'],
    ['a b', 'is no name'],
  ])('to %j is refused', (to, says) => {
    expect(() => planExportRename(reach, 'shared/sums.ts', sums.text.indexOf('half'), to)).toThrow(
      says,
    );
  });

  test('what the language declares is refused', () => {
    expect(() =>
      planExportRename(reach, 'shared/sums.ts', sums.text.indexOf('number'), 'x'),
    ).toThrow();
  });

  test('a part leaves code for several forms to people, and shows them where it is named', () => {
    const plan = planRename(reach, 'dues', 'amount', 'total');
    expect(plan.behaviours.map(({ name }) => name)).toEqual(['10-a.ts']);
    expect(plan.mentions).toEqual([
      {
        form: 'dues',
        behaviour: 'behaviours/20-amounts.ts',
        line: 4,
        text: several.text.split('\n')[3],
      },
    ]);
  });

  test('a key does likewise', () => {
    const named = {
      name: 'behaviours/30-b.ts',
      text: '/** B.\n * @forms dues */\nkeep("c", () => { fields.days.shown = fields.sort.value === "tug"; });\n',
    };
    const plan = planRekey({ ...reach, shared: [named] }, 'dues', 'sort', 'tug', 'tow');
    expect([plan.behaviours, plan.mentions.map(({ line }) => line)]).toEqual([[], [3]]);
  });
});
