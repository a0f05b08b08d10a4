/** What differs between two workspaces, and the canonical form: one change is said once, and touches its lines alone. */
import { expect, test } from 'vitest';
import { readFolder } from '../../workers/files';
import { canonicalText, uncanonical } from './canonical';
import { differences } from './difference';
import { firstWorkspace } from './first';
import { listChanges } from './list-changes';
import { readWorkspace, type Workspace } from './workspace';
import { writeWorkspace } from './write';

const demo = readWorkspace(readFolder('demo'));
type Draft = { -readonly [K in keyof Workspace]: Workspace[K] };

/** The demo with a change. */
function changed(change: (workspace: Draft) => void): Workspace {
  const copy = structuredClone(demo) as Draft;
  change(copy);
  return copy;
}

const formOf = (workspace: Workspace, name: string) =>
  workspace.forms.find(({ form }) => form.name === name)!;
const fieldOf = (workspace: Workspace, form: string, field: string) =>
  formOf(workspace, form)
    .form.pages.flatMap((page) => page.sections.flatMap((section) => section.fields))
    .find(({ name }) => name === field)! as unknown as Record<string, unknown>;

const CHANGES: [string, (workspace: Draft) => void, string[]][] = [
  [
    'a label',
    (w) => Object.assign(fieldOf(w, 'vessel', 'length'), { label: 'Length' }),
    ['forms/vessel/form.json: Length (length): label "Length over all" → "Length"'],
  ],
  [
    'required',
    (w) => Object.assign(fieldOf(w, 'vessel', 'call_sign'), { required: true }),
    ['forms/vessel/form.json: Call sign (call_sign): now required'],
  ],
  [
    'an option added',
    (w) =>
      (fieldOf(w, 'vessel', 'standing').options as unknown[]).push({ key: 'gone', label: 'Gone' }),
    ['forms/vessel/form.json: Standing (standing): option gone added'],
  ],
  [
    'an option’s label',
    (w) =>
      Object.assign((fieldOf(w, 'vessel', 'standing').options as object[])[0]!, { label: 'X' }),
    ['forms/vessel/form.json: Standing (standing): option new: label "Not seen yet" → "X"'],
  ],
  [
    'a field removed',
    (w) => void formOf(w, 'vessel').form.pages[0]!.sections[0]!.fields.pop(),
    ['forms/vessel/form.json: Kind of vessel (kind): removed'],
  ],
  [
    'a behaviour’s line',
    (w) =>
      Object.assign(formOf(w, 'vessel').behaviours[0]!, {
        text: `${formOf(w, 'vessel').behaviours[0]!.text}// more\n`,
      }),
    ['forms/vessel/behaviours/10-register.ts: 1 line added, 0 lines removed'],
  ],
  [
    'a scenario removed',
    (w) => void formOf(w, 'crew_change').scenarios.shift(),
    ['forms/crew_change/scenarios/flags.json: scenario flags removed'],
  ],
  [
    'a row changed',
    (w) => Object.assign(w.tables.find(({ name }) => name === 'berths')!.rows[0]!, { depth: 1 }),
    ['tables/berths.csv: row changed: nq1'],
  ],
  [
    'a service’s delay',
    (w) =>
      Object.assign(
        w.services.find(({ name }) => name === 'ship_register')!,
        { delay: 5 },
      ),
    ['services/ship_register.json: ship_register: delay 300 → 5'],
  ],
  [
    'a person’s name',
    (w) => Object.assign(w.people[0]!, { name: 'Mira Hald' }),
    ['workspace.json: mira: name "Mira Oldane" → "Mira Hald"'],
  ],
  [
    'a form removed',
    (w) =>
      void w.forms.splice(
        w.forms.findIndex(({ form }) => form.name === 'crew_change'),
        1,
      ),
    ['forms/crew_change/form.json: form crew_change removed'],
  ],
];

test.each(CHANGES)('%s is said once, and touches its own lines', (_, change, says) => {
  const after = changed(change);
  expect(differences(demo, after).map((one) => `${one.file}: ${one.says}`)).toEqual(says);
  const [was, is] = [writeWorkspace(demo), writeWorkspace(after)];
  const touched = [...new Set([...was.keys(), ...is.keys()])].filter(
    (path) => was.get(path) !== is.get(path),
  );
  const folder = says[0]!.split(':')[0]!.replace(/form\.json$/, '');
  expect(touched.every((path) => path.startsWith(folder))).toBe(true);
  // One that is in both differs in few of its lines.
  for (const path of touched.filter((one) => was.has(one) && is.has(one))) {
    const before = was.get(path)!.split('\n');
    const after_ = new Set(is.get(path)!.split('\n'));
    expect(before.filter((line) => !after_.has(line)).length).toBeLessThan(12);
  }
});

test('the lines of a script are told, by their numbers in either version', () => {
  const after = changed((w) => {
    const [first] = formOf(w, 'vessel').behaviours;
    const lines = first!.text.split('\n');
    lines.splice(1, 1, 'const A = 1;', 'const B = 2;');
    Object.assign(first!, { text: lines.join('\n') });
  });
  const was = formOf(demo, 'vessel').behaviours[0]!.text.split('\n')[1]!;
  expect(differences(demo, after)).toEqual([
    {
      file: 'forms/vessel/behaviours/10-register.ts',
      says: '2 lines added, 1 line removed',
      lines: [
        { in: 'before', line: 2, text: was },
        { in: 'after', line: 2, text: 'const A = 1;' },
        { in: 'after', line: 3, text: 'const B = 2;' },
      ],
    },
  ]);
});

test('a renamed field is the same field, with what else differs of it', () => {
  const after = changed((w) =>
    Object.assign(fieldOf(w, 'vessel', 'call_sign'), { name: 'radio_sign', required: true }),
  );
  expect(differences(demo, after).map(({ says }) => says)).toEqual([
    'radio_sign: renamed, was call_sign',
    'Call sign (radio_sign): now required',
  ]);
});

test('a renamed column is the same column', () => {
  const after = changed((w) => {
    const cells = fieldOf(w, 'berth_visit', 'cargo').fields as { name: string }[];
    Object.assign(
      cells.find(({ name }) => name === 'weight')!,
      { name: 'tons' },
    );
  });
  expect(differences(demo, after).map(({ says }) => says)).toEqual([
    'cargo.tons: renamed, was cargo.weight',
  ]);
});

test('steps of a scenario are told in words, one by one', () => {
  const after = changed((w) => {
    const { scenario } = formOf(w, 'berth_visit').scenarios.find(
      ({ scenario: one }) => (one.steps ?? []).length > 3,
    )!;
    const steps = scenario.steps as unknown as object[];
    Object.assign(
      steps.find((step) => 'set' in step)!,
      { to: 'changed' },
    );
    steps.push({ set: 'draught', to: 4 }, { expect: { berth: { required: true } } });
  });
  const said = differences(demo, after).map(({ says }) => says);
  expect(said[0]).toMatch(/^scenario [\w-]+: step \d+: set .* → set .* to changed$/);
  expect(said.slice(1)).toEqual([
    expect.stringMatching(/: step \d+ added: set Draught to 4$/),
    expect.stringMatching(/: step \d+ added: expect Berth required yes \(true\)$/),
  ]);
});

test.each([
  [['a', 'b'], ['a', 'c'], ['role 2: "b" → "c"']],
  [['a'], ['b', 'a'], ['role 1 added: "b"']],
  [['a', 'b', 'c'], ['a', 'c'], ['role 2 removed: "b"']],
  [['a', 'b', 'c'], ['c'], ['role 1 removed: "a"', 'role 2 removed: "b"']],
  [[{ x: 1, y: { z: [1, 2] } }], [{ x: 1, y: { z: [1, 3] } }], ['role 1: y.z.1 2 → 3']],
  [[{ x: 1 }], [{ w: 1 }], ['role 1: x 1 → nothing, w nothing → 1']],
  [
    [],
    Array.from({ length: 9 }, (_, i) => i),
    expect.arrayContaining(['3 more changes of its roles']),
  ],
])('of lists what differs is told: %j and %j', (before, after, said) => {
  expect(listChanges('roles', before, after, null)).toEqual(said);
});

test('nothing differs from itself, nor after a database has lost the order of keys', () => {
  expect(differences(demo, demo)).toEqual([]);
  /** As JSONB keeps objects: keys by length, then by letters (PostgreSQL manual, 8.14). */
  const kept = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(kept)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .toSorted(([a], [b]) => a.length - b.length || (a < b ? -1 : 1))
              .map(([key, one]) => [key, kept(one)]),
          )
        : value;
  const shuffled = kept(demo) as Workspace;
  expect(differences(demo, shuffled)).toEqual([]);
  // Read again by their schemas, files stand as they stood, to the byte.
  const again = readWorkspace(writeWorkspace(shuffled));
  expect([...writeWorkspace(again)]).toEqual([...writeWorkspace(demo)]);
});

test('the first workspace and the demo stand in their canonical form', () => {
  expect([...uncanonical(writeWorkspace(firstWorkspace('X'))).keys()]).toEqual([]);
  expect([...uncanonical(readFolder('demo')).keys()]).toEqual([]);
  const files = new Map(writeWorkspace(firstWorkspace('X')));
  files.set(
    'workspace.json',
    files.get('workspace.json')!.replace('{\n', '{\n  "$schema": "../x.json",\n'),
  );
  expect([...uncanonical(files).keys()]).toEqual([]);
  expect(canonicalText('a\r\nb\rc')).toBe('a\nb\nc\n');
});
