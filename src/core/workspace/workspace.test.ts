import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
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
    [5, 6],
    [3, 3],
    [3, 5],
    [3, 3],
    [4, 4],
  ]);
  expect(readWorkspace(writeWorkspace(workspace))).toEqual(workspace);
});

test('whatever a workspace holds, written and read back it is equal', () => {
  const label = fc.string({ minLength: 1, maxLength: 12 }).filter((text) => text.trim() !== '');
  const cell = fc.constantFrom(
    'text',
    'number',
    'date',
    'time',
    'datetime',
    'yes_no',
    'choice',
    'choices',
    'file',
  );
  const field = (name: string) =>
    fc
      .tuple(
        cell,
        label,
        fc.constantFrom(
          {},
          { hidden: true },
          { required: true, whenHidden: 'clear' },
          { scriptOnly: true, keepsSpace: true, width: 'half' },
        ),
      )
      .map(([kind, said, more]) => ({
        name,
        label: said,
        kind,
        ...(kind.startsWith('choice') ? { options: [{ key: 'a', label: said }] } : {}),
        ...more,
      }));
  const form = fc
    .tuple(field('a'), field('b'), field('c'), label, fc.boolean())
    .map(([a, b, c, title, stack]) => ({
      name: 'visit',
      title,
      pages: [
        {
          name: 'first',
          title,
          sections: [
            {
              name: 'one',
              title,
              columns: 3,
              fields: [
                a,
                {
                  name: 'list',
                  label: title,
                  kind: 'rows',
                  fields: [b, c],
                  ...(stack ? { display: 'stack' } : {}),
                },
              ],
            },
          ],
        },
      ],
      tracks: [{ name: 'way', title, stages: [{ key: 'x', label: title }] }],
    }));
  const value = fc.oneof(
    fc.string(),
    fc.integer(),
    fc.boolean(),
    fc.constant(null),
    fc.array(fc.string(), { maxLength: 3 }),
  );
  // A text that is empty is an empty cell in CSV.
  const rows = fc.uniqueArray(
    fc.record({
      code: fc.string({ minLength: 1 }),
      depth: fc.option(fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => x + 0)),
      lit: fc.option(fc.boolean()),
    }),
    { selector: (row) => row.code, maxLength: 8 },
  );
  fc.assert(
    fc.property(form, rows, label, value, (made, cells, title, to) => {
      const workspace = {
        title,
        roles: [{ key: 'clerk', label: title }],
        people: [{ key: 'mira', name: title, roles: ['clerk'] }],
        tables: [
          {
            name: 'berths',
            title,
            key: 'code',
            label: 'code',
            columns: [
              { name: 'code', kind: 'text' },
              { name: 'depth', kind: 'number' },
              { name: 'lit', kind: 'yes_no' },
            ],
            rows: cells,
          },
        ],
        services: [
          {
            name: 'register',
            title,
            delay: 5,
            functions: {
              find: {
                parameters: [{ name: 'code', kind: 'text' }],
                answers: { from: 'table', table: 'berths', where: { code: 'code' } },
              },
            },
          },
        ],
        forms: [
          {
            form: made,
            behaviours: [{ name: '10-a.ts', text: `// ${title}\n` }],
            scenarios: [
              {
                name: 's',
                scenario: {
                  title,
                  open: { as: 'mira' },
                  steps: [
                    { set: 'a', to },
                    { addRow: 'list' },
                    { expect: { 'list[0].b': { hint: title } } },
                  ],
                },
              },
            ],
            records: [{ id: '1', values: { a: to } }],
          },
        ],
      };
      expect(readWorkspace(writeWorkspace(workspace as never))).toEqual(workspace);
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
