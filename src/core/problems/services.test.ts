/** Scripts of services: what is wrong with them is found by line and column, and what is right is left alone. */
import { expect, test } from 'vitest';
import { berths } from '../../../tests/support/forms';
import type { Service, ServiceFunction } from '../form/service';
import { readGiven } from '../form/service-call';
import { libs } from '../language/generated/libs';
import { FormLanguage } from '../language/language-service';
import { problemsInServices } from './services';

const language = new FormLanguage(libs);

function found(script: string, gives = 'number | null', more: Partial<ServiceFunction> = {}) {
  const service: Service = {
    name: 'gauge',
    title: 'Tide gauge',
    functions: {
      level: {
        parameters: [
          { name: 'day', kind: 'date' },
          { name: 'least', kind: 'number', optional: true },
        ],
        answers: { from: 'script', script, gives },
        ...more,
      },
      depth: {
        parameters: [{ name: 'code', kind: 'text' }],
        answers: { from: 'table', table: 'berths', where: { code: 'code' } },
      },
    },
  };
  return problemsInServices({ tables: [berths], services: [service], roles: [] }, language).map(
    ({ at, says }) => (at.is === 'service' ? [at.called, at.line, at.column, says] : [at]),
  );
}

test.each([
  'return day === "2031-05-02" ? 3 : null;',
  'const row = tables.berths.rows.find((one) => one.depth! > (least ?? 0));\nreturn row?.depth ?? null;',
  'return Temporal.PlainDate.from(day).day;',
])('nothing is found in %j', (script) => {
  expect(found(script)).toEqual([]);
});

test('a wrong type, a name that is none and a column that is none are found where they stand', () => {
  expect(found('return day;')).toEqual([['level', 1, 1, expect.stringMatching(/string.*number/)]]);
  expect(found('const n = 1;\nreturn nn + n;')).toEqual([
    ['level', 2, 8, expect.stringContaining('nn')],
  ]);
  expect(found('return tables.berths.rows[0]?.length ?? null;')[0]!.slice(0, 2)).toEqual([
    'level',
    1,
  ]);
  expect(found('return day.')[0]!.slice(0, 2)).toEqual(['level', 1]);
});

test('what behaviours have and services have not is found', () => {
  expect(found('return fields.draught.value;')).not.toEqual([]);
  expect(found('return form.isNew ? 1 : 2;')).not.toEqual([]);
});

test('a type that is none is said to be that of what it gives', () => {
  expect(found('return 1;', 'numbr')[0]!.at(-1)).toMatch(/^What it is declared to give, numbr: /);
});

test('what is typed is read by the kinds of the parameters', () => {
  const parameters: ServiceFunction['parameters'] = [
    { name: 'day', kind: 'date' },
    { name: 'least', kind: 'number', optional: true },
    { name: 'deep', kind: 'yes_no', optional: true },
    { name: 'constructor', kind: 'text', optional: true },
  ];
  expect(readGiven(parameters, { day: '2031-05-02', least: '2.5', deep: 'yes' })).toEqual({
    values: { day: '2031-05-02', least: 2.5, deep: true },
  });
  expect(readGiven(parameters, { day: '2031-02-30' })).toEqual({
    says: 'day takes a date spelled YYYY-MM-DD, not “2031-02-30”.',
  });
  expect(readGiven(parameters, {})).toEqual({
    says: 'Fill in day: a date spelled YYYY-MM-DD.',
  });
  expect(readGiven(parameters, { day: '2031-05-02', deep: 'constructor' })).toMatchObject({
    says: expect.stringContaining('yes or no'),
  });
  expect(readGiven(parameters, { day: '2031-05-02', least: 'many' })).toMatchObject({
    says: expect.stringContaining('number'),
  });
  expect(readGiven(parameters, { day: '2031-05-02', least: '0x10' })).toHaveProperty('says');
  expect(readGiven(parameters, { day: '2031-05-02', least: '1.234,5' }, 'comma')).toEqual({
    values: { day: '2031-05-02', least: 1234.5 },
  });
});
