import { expect, test } from 'vitest';
import { changesBetween, changesInWords } from './overview';

const released = {
  'form/visit': 'a',
  'behaviour/10-dues.ts': 'b',
  'behaviour/20-pilot.ts': 'c',
  'table/berths': 'd',
  'service/weather': 'e',
};

test('what is equal is no change, and what the release does not use does not count', () => {
  const changes = changesBetween(released, { ...released, 'table/other': 'x' });
  expect(changes).toEqual({ structure: false, behaviours: [], tables: [], services: [] });
  expect(changesInWords(changes)).toBe('');
});

test('changed, added and removed behaviours, the structure, tables and services', () => {
  const changes = changesBetween(released, {
    'form/visit': 'A',
    'behaviour/10-dues.ts': 'B',
    'behaviour/30-new.ts': 'n',
    'table/berths': 'D',
    'service/weather': 'E',
  });
  expect(changes).toEqual({
    structure: true,
    behaviours: ['10-dues.ts', '20-pilot.ts', '30-new.ts'],
    tables: ['berths'],
    services: ['weather'],
  });
  expect(changesInWords(changes)).toBe('structure, 3 behaviours, 1 table and 1 service');
});

test("names that are JavaScript's own", () => {
  expect(changesBetween({ 'form/constructor': 'a' }, { 'form/constructor': 'a' }).structure).toBe(
    false,
  );
});
