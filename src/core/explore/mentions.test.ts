/** What is worth trying, from what scripts mention. */
import { describe, expect, test } from 'vitest';
import { choice, formWith, number, text } from '../../../tests/support/forms';
import { driversOf, isValid } from './drivers';
import type { Ground } from './ground';
import { mentionsOf } from './mentions';
import { samplesOf } from './samples';

const of = (code: string) => mentionsOf([{ name: '10-a.ts', text: code }]);

describe('mentions', () => {
  test('numbers, keys, days and times are told apart, comments and sentences left out', () => {
    const mentions = of(
      '/** 99 "no" */\n// 98\nif (fields.a.value > 12.5) log("own", "2031-05-01", "12-24", "09:30", "A sentence that is far too long to be a key of anything.");',
    );
    expect(mentions.numbers).toEqual([12.5]);
    expect(mentions.texts).toEqual(['own']);
    expect(mentions.dates).toEqual(['2031-05-01', '2031-12-24']);
    expect(mentions.times).toEqual(['09:30']);
  });

  test('numbers are known by the parts that are compared with them', () => {
    const { compared } = of(
      'const LIMIT = 120;\nkeep(() => { if ((fields.length.value ?? 0) > LIMIT || fields.draught.value === 8) log(1); });\nkeep(() => { const deep = fields.draught.value; log(deep !== null && 9.5 <= deep, fields.goods.sum("weight") > 900, 1 > 0); });',
    );
    expect(compared).toEqual({ length: [120], draught: [8, 9.5], goods: [900] });
  });

  test.each([
    ['form.launch.visit', ['visit']],
    ['form.launch["visit"]', ['visit']],
    ['const { visit, kind: sort } = form.launch;', ['visit', 'kind']],
    ['const { visit } = form.person;', []],
    ['constructor.launch.visit', []],
  ])('launch parameters of %s', (code, launch) => {
    expect(of(code).launch).toEqual(launch);
  });

  test('aspects are named with their line, and whether they are written', () => {
    const { members } = of(
      'fields.a.shown = true;\nconst { b } = fields;\nb.hint = a.shown ? "x" : null;',
    );
    expect(members.filter(({ part }) => part === 'a' || part === 'b')).toEqual([
      { behaviour: '10-a', line: 1, part: 'a', aspect: 'shown', written: true },
      { behaviour: '10-a', line: 3, part: 'b', aspect: 'hint', written: true },
      { behaviour: '10-a', line: 3, part: 'a', aspect: 'shown', written: false },
    ]);
  });

  test('a question whether something is there is no condition that counts', () => {
    expect(of('if (a === null || b) c();\nif (!a.empty) c();\nif (a > 3) c();').conditions).toEqual(
      ['10-a:1:a === null || b', '10-a:3:a > 3'],
    );
  });

  test('a source that is no script mentions nothing, and does no harm', () => {
    expect(of('if ((((').numbers).toEqual([]);
    expect(of('('.repeat(20_000)).texts).toEqual([]);
  });
});

describe('drivers', () => {
  const form = formWith([
    choice('pilot', ['none', 'own', 'harbour']),
    number('length', { min: 5, max: 400 }),
    text('code', { pattern: 'QH-\\d{4}' }),
    text('by_script', { scriptOnly: true }),
  ]);
  const ground: Ground = {
    form,
    tables: [],
    services: [],
    people: [],
    records: [],
    parents: [],
    clock: 0,
  };
  const drivers = driversOf(
    ground,
    of('fields.pilot.value === "harbour" && fields.length.value > 120'),
  );
  const valuesOf = (name: string) => drivers.find(({ address }) => address === name)?.values;

  test('keys that scripts mention come first, and empty last', () => {
    expect(valuesOf('pilot')).toEqual(['harbour', 'none', 'own', null]);
  });

  test('numbers are tried around what scripts mention, at the limits and beyond them', () => {
    expect(valuesOf('length')).toEqual(
      expect.arrayContaining([119, 120, 121, 5, 400, 401, 4, null]),
    );
  });

  test('texts fit the pattern at least once, and fail it at least once', () => {
    const field = drivers.find(({ address }) => address === 'code')!;
    const valid = field.values.filter((value) => isValid(field.field, value));
    expect(valid.length).toBeGreaterThan(0);
    expect(field.values.length - valid.length).toBeGreaterThan(1);
  });

  test('what only scripts write is tried by nobody', () => {
    expect(valuesOf('by_script')).toBeUndefined();
  });
});

describe('samples', () => {
  test.each(['[A-Z]{2}\\d{3}', '^(?:north|south) \\d+$', '[^0-9]{3}', '\\w+@\\w+\\.example'])(
    '%s is met by each, the same from the same seed',
    (pattern) => {
      const samples = samplesOf(pattern, 3, 7);
      expect(samples.length).toBeGreaterThan(0);
      const whole = new RegExp(`^(?:${pattern.replace(/^\^|\$$/g, '')})$`);
      for (const sample of samples) expect(sample).toMatch(whole);
      expect(samplesOf(pattern, 3, 7)).toEqual(samples);
    },
  );

  test('what is no pattern, or one that nothing is made of, gives nothing', () => {
    expect(samplesOf('(', 3, 1)).toEqual([]);
    expect(samplesOf('(?=a)b', 3, 1)).toEqual([]);
  });
});
