/** Workspaces of whatever a folder can hold, for round trips. */
import fc from 'fast-check';
import type { Workspace } from '../../src/core/workspace/workspace';

/** Any workspace with one form, and all that it can have. */
export function anyWorkspace(): fc.Arbitrary<Workspace> {
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
  return fc.tuple(form, rows, label, value).map(
    ([made, cells, title, to]) =>
      ({
        title,
        roles: [{ key: 'clerk', label: title }],
        people: [{ key: 'mira', name: title, roles: ['clerk'] }],
        ...(title.length % 2 === 0
          ? { numbers: 'comma' as const, dates: 'dmy_points' as const }
          : {}),
        shared: [
          { name: 'behaviours/20-b.ts', text: `/** ${line(title)}\n * @forms visit */\n` },
          { name: 'shared/dates.ts', text: `export const said = ${JSON.stringify(title)};\n` },
        ],
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
                    { expect: { 'list[0].b': { hint: title }, '@nothingElse': true } },
                  ],
                },
              },
              {
                name: 'tables',
                scenario: {
                  title,
                  startsAs: 's',
                  steps: [],
                  cases: {
                    inputs: ['@as', 'a'],
                    steps: [{ submit: true }],
                    expected: ['list[0].b.hint'],
                    rows: [{ title, inputs: ['mira', to], expected: [title] }],
                  },
                  grid: {
                    axes: [{ input: 'a', values: [to] }],
                    strength: 2,
                    parts: ['a'],
                    accepted: {
                      base: { a: { value: to } },
                      outcomes: [{ '@form': { page: null } }],
                      rows: [[[0], 0]],
                    },
                  },
                },
              },
            ],
            records: [{ id: '1', values: { a: to } }],
          },
        ],
      }) as unknown as Workspace,
  );
}

const line = (text: string) => text.replace(/[\r\n\u2028\u2029]|\*\//g, ' ');
