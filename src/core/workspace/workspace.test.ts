import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { anyWorkspace } from '../../../tests/support/random-workspaces';
import { describe, expect, test } from 'vitest';
import { readFolder } from '../../workers/files';
import { schemaFiles } from './schemas';
import { type BrokenWorkspace, fileErrorInWords, readWorkspace } from './workspace';
import { writeRows, writeWorkspace } from './write';

const demo = () => new Map(readFolder('demo'));

function faultsOf(change: (files: Map<string, string>) => void): string[] {
  const files = demo();
  change(files);
  try {
    readWorkspace(files);
    return [];
  } catch (caught) {
    return (caught as BrokenWorkspace).errors.map(fileErrorInWords);
  }
}

const FORM = 'forms/berth_visit/form.json';

test('the demo reads, and written and read back it is equal', () => {
  const workspace = readWorkspace(demo());
  expect(
    workspace.forms.map(({ behaviours, scenarios }) => [behaviours.length, scenarios.length]),
  ).toEqual([
    [5, 7],
    [3, 4],
    [3, 8],
    [3, 4],
    [4, 4],
  ]);
  expect(workspace.shared.map(({ name }) => name)).toEqual([
    'behaviours/90-start-over.ts',
    'shared/dates.ts',
  ]);
  expect(readWorkspace(writeWorkspace(workspace))).toEqual(workspace);
});

test('whatever a workspace holds, written and read back it is equal', () => {
  fc.assert(
    fc.property(anyWorkspace(), (workspace) => {
      expect(readWorkspace(writeWorkspace(workspace))).toEqual(workspace);
    }),
    { seed: 20310502, numRuns: 150 },
  );
});

describe('a broken workspace names file, line and path', () => {
  test.each([
    [
      'no head',
      (f: Map<string, string>) => f.delete('workspace.json'),
      'workspace.json:1: this file is missing',
    ],
    [
      'no JSON',
      (f: Map<string, string>) => f.set('workspace.json', '{\n  "title": nope\n}'),
      'workspace.json:2: is not JSON: something stands here that JSON does not have',
    ],
    [
      'a wrong kind',
      (f: Map<string, string>) =>
        f.set(FORM, f.get(FORM)!.replace('"kind": "number"', '"kind": "numbr"')),
      'forms/berth_visit/form.json:',
    ],
    [
      'an unknown table',
      (f: Map<string, string>) =>
        f.set(FORM, f.get(FORM)!.replace('"table": "berths"', '"table": "quays"')),
      'there is no table "quays"',
    ],
    [
      'a bad cell',
      (f: Map<string, string>) =>
        f.set('tables/berths.csv', f.get('tables/berths.csv')!.replace('6.2', 'deep')),
      'tables/berths.csv:2: depth: "deep" is not a number',
    ],
    [
      'a key twice',
      (f: Map<string, string>) =>
        f.set('tables/berths.csv', f.get('tables/berths.csv')!.replace('nq2', 'nq1')),
      'tables/berths.csv:3: code: the key "nq1" is there twice',
    ],
    [
      'a person with the single role of former versions',
      (f: Map<string, string>) =>
        f.set(
          'workspace.json',
          f.get('workspace.json')!.replace(/"roles": \[\s*"agent"\s*\]/, '"role": "agent"'),
        ),
      'write "roles": ["…"] in place of "role"',
    ],
    [
      'a scenario by nobody',
      (f: Map<string, string>) =>
        f.set(
          'forms/berth_visit/scenarios/dues.json',
          f.get('forms/berth_visit/scenarios/dues.json')!.replace('"mira"', '"nobody"'),
        ),
      'open.as: there is no person "nobody"',
    ],
    [
      'a scenario about no part',
      (f: Map<string, string>) =>
        f.set(
          'forms/berth_visit/scenarios/dues.json',
          f.get('forms/berth_visit/scenarios/dues.json')!.replace('"dues": {', '"duess": {'),
        ),
      'the form has no part "duess"',
    ],
    [
      'a service without its table',
      (f: Map<string, string>) =>
        f.set(
          'services/ship_register.json',
          f.get('services/ship_register.json')!.replace('"table": "ships"', '"table": "boats"'),
        ),
      'functions.find.answers.table: there is no table "boats"',
    ],
    [
      'a service that asks for no column',
      (f: Map<string, string>) =>
        f.set(
          'services/ship_register.json',
          f.get('services/ship_register.json')!.replace('"imo": "imo"', '"number": "imo"'),
        ),
      'table ships has no column "number"',
    ],
    [
      'a list of no form',
      (f: Map<string, string>) =>
        f.set(
          'forms/vessel/form.json',
          f.get('forms/vessel/form.json')!.replace('"form": "berth_visit"', '"form": "visits"'),
        ),
      'children.0.form: there is no form "visits"',
    ],
    [
      'a list of no field',
      (f: Map<string, string>) =>
        f.set(
          'forms/vessel/form.json',
          f.get('forms/vessel/form.json')!.replace('"field": "vessel_record"', '"field": "ship"'),
        ),
      'the form berth_visit has no field "ship"',
    ],
    [
      'a scenario from no parent',
      (f: Map<string, string>) =>
        f.set(
          'forms/berth_visit/scenarios/from-vessel.json',
          f
            .get('forms/berth_visit/scenarios/from-vessel.json')!
            .replace('"record": "v-017"', '"record": "v-000"'),
        ),
      'open.parent.record: the form vessel has no record "v-000"',
    ],
    [
      'a scenario that sets no cell',
      (f: Map<string, string>) =>
        f.set(
          'forms/berth_visit/scenarios/cargo.json',
          f
            .get('forms/berth_visit/scenarios/cargo.json')!
            .replace('"cargo[1].goods"', '"cargo[1].good"'),
        ),
      'steps.4.set: the form has no part "cargo[1].good"',
    ],
    [
      'a folder of another name',
      (f: Map<string, string>) =>
        f.set(FORM, f.get(FORM)!.replace('"name": "berth_visit"', '"name": "visit"')),
      'name: is "visit", but its folder is called "berth_visit"',
    ],
  ])('%s', (_what, change, says) => {
    expect(faultsOf((files) => void change(files)).join('\n')).toContain(says);
  });

  test('the line is that of the path', () => {
    const errors = faultsOf((f) =>
      f.set(FORM, f.get(FORM)!.replace('"table": "berths"', '"table": "quays"')),
    );
    const line =
      demo()
        .get(FORM)!
        .split('\n')
        .findIndex((text) => text.includes('"table": "berths"')) + 1;
    expect(errors).toEqual([
      `forms/berth_visit/form.json:${line}: pages.0.sections.1.fields.2.table: there is no table "quays"`,
    ]);
  });
});

test('the published JSON Schemas are up to date (npm run schemas)', () => {
  const made = schemaFiles();
  expect(readdirSync('docs/schemas').sort()).toEqual([...made.keys()].sort());
  for (const [name, text] of made) expect(readFileSync(`docs/schemas/${name}`, 'utf8')).toBe(text);
});

test('CSV that goes out keeps texts from being run as formulas, unless they are wanted as they are', () => {
  const columns = [
    { name: 'a', kind: 'text' as const },
    { name: 'b', kind: 'number' as const },
  ];
  const rows = ['=1+1', '+1', '-1', '@x', '\t=1', 'plain', ''].map((a) => ({ a, b: -5 }));
  expect(writeRows(columns, rows, { formulas: false }).split('\n').slice(1, 8)).toEqual([
    "'=1+1,-5",
    "'+1,-5",
    "'-1,-5",
    "'@x,-5",
    "'\t=1,-5",
    'plain,-5',
    ',-5',
  ]);
  expect(writeRows(columns, rows, { formulas: true })).toContain('\n=1+1,-5');
});
