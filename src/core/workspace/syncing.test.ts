/** A workspace and a folder that are kept the same, under edits on both sides in any order. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { firstWorkspace } from './first';
import { syncOf } from './syncing';
import { digestsOf, type Saving } from './taking';
import { contentOfUnit } from './units';
import { BrokenWorkspace, readWorkspace, type Workspace } from './workspace';
import { writeWorkspace } from './write';
import { shareOf } from '../../../tests/support/thorough';

const digest = (text: string) => text;

/** Both sides, with what they had in common last. */
class Pair {
  app: Map<string, string>;
  folder: Map<string, string>;
  base: Map<string, string>;

  constructor(workspace = firstWorkspace('Ferry')) {
    this.app = new Map(writeWorkspace(workspace));
    this.folder = new Map(this.app);
    this.base = digestsOf(workspace, digest);
  }

  get workspace(): Workspace {
    return readWorkspace(this.app);
  }

  /** Does what has to be done, and gives it. */
  sync() {
    const found = syncOf(this.workspace, this.folder, this.base, digest);
    for (const saving of found.savings) this.#save(saving);
    for (const { path, text, was } of found.writes) {
      expect(this.folder.get(path) ?? null).toBe(was);
      if (text === null) this.folder.delete(path);
      else this.folder.set(path, text);
    }
    this.base = found.base;
    return found;
  }

  #save(saving: Saving): void {
    // They stand among the records, not in a folder.
    if (saving.kind === 'records') return;
    const path =
      saving.kind === 'behaviour'
        ? `forms/${saving.form}/behaviours/${saving.name}`
        : saving.kind === 'shared'
          ? saving.name
          : saving.kind === 'scenario'
            ? `forms/${saving.form}/scenarios/${saving.name}.json`
            : saving.kind === 'form'
              ? `forms/${saving.name}/form.json`
              : 'workspace.json';
    if (saving.content === null) this.app.delete(path);
    else if (typeof saving.content === 'string') this.app.set(path, saving.content);
    else this.app.set(path, `${JSON.stringify(saving.content, null, 2)}\n`);
  }
}

const REASON = 'forms/first_form/behaviours/10-reason.ts';
const MODULE = 'shared/dates.ts';

test('what changed on one side goes to the other, to the byte', () => {
  const pair = new Pair();
  pair.folder.set(REASON, '/** From the folder. */\n');
  pair.app.set(MODULE, 'export const A = 1;\n');
  expect(pair.sync()).toMatchObject({ conflicts: [], errors: [] });
  expect(pair.app.get(REASON)).toBe('/** From the folder. */\n');
  expect(pair.folder.get(MODULE)).toBe('export const A = 1;\n');
  expect(pair.sync()).toMatchObject({ savings: [], writes: [], conflicts: [] });
});

test('a file that is only set differently is no change, and is left as it is', () => {
  const pair = new Pair();
  const head = JSON.stringify(JSON.parse(pair.folder.get('workspace.json')!));
  pair.folder.set('workspace.json', head);
  expect(pair.sync()).toMatchObject({ savings: [], writes: [], conflicts: [] });
  expect(pair.folder.get('workspace.json')).toBe(head);
});

test('what changed on both sides is a conflict with both, until one is taken', () => {
  const pair = new Pair();
  pair.folder.set(REASON, '// folder\n');
  pair.app.set(REASON, '// app\n');
  for (let i = 0; i < 2; i++)
    expect(pair.sync()).toMatchObject({
      savings: [],
      writes: [],
      conflicts: [{ unit: REASON, app: '// app\n', folder: '// folder\n' }],
    });
  // The same on both sides is none.
  pair.folder.set(REASON, '// app\n');
  expect(pair.sync().conflicts).toEqual([]);
});

test('removed on one side goes on the other; removed on one and changed on the other is a conflict', () => {
  const pair = new Pair();
  pair.folder.delete(REASON);
  pair.sync();
  expect(pair.app.has(REASON)).toBe(false);
  pair.app.set(MODULE, '//\n');
  pair.sync();
  pair.folder.set(MODULE, '// changed\n');
  pair.app.delete(MODULE);
  expect(pair.sync().conflicts).toEqual([{ unit: MODULE, app: null, folder: '// changed\n' }]);
});

test('a folder that is no workspace is said by file and line, and nothing is done', () => {
  const pair = new Pair();
  pair.folder.set('forms/first_form/form.json', '{\n  "name": "first_form",\n');
  expect(() => pair.sync()).toThrow(BrokenWorkspace);
  expect(pair.app.size).toBe(4);
});

test('what the two together would break is said and not taken, and the rest goes on', () => {
  const pair = new Pair();
  const scenario = 'forms/first_form/scenarios/reason.json';
  // The person that the scenario in the folder opens as was removed in the app.
  const people = JSON.parse(pair.app.get('workspace.json')!) as { people: object[] };
  people.people.push({ key: 'second', name: 'Second', roles: ['clerk'] });
  pair.app.set('workspace.json', `${JSON.stringify(people, null, 2)}\n`);
  pair.sync();
  people.people.pop();
  pair.app.set('workspace.json', `${JSON.stringify(people, null, 2)}\n`);
  pair.folder.set(scenario, pair.folder.get(scenario)!.replace('"as": "first"', '"as": "second"'));
  const { savings, errors, writes } = pair.sync();
  expect(savings).toEqual([]);
  expect(errors[0]).toMatch(/scenarios\/reason\.json:\d+: .*second/);
  expect(writes.map(({ path }) => path)).toEqual(['workspace.json']);
});

describe('records', () => {
  test('come from the folder, and never go into it', () => {
    const pair = new Pair();
    const path = 'forms/first_form/records.json';
    pair.folder.set(
      path,
      '{\n  "records": [\n    { "id": "1", "values": { "agreed": true } }\n  ]\n}\n',
    );
    expect(pair.sync().savings).toMatchObject([{ kind: 'records', form: 'first_form' }]);
    expect(pair.sync()).toMatchObject({ savings: [], writes: [], conflicts: [] });
    pair.folder.delete(path);
    expect(pair.sync()).toMatchObject({ savings: [], writes: [], conflicts: [] });
  });
});

test('interleavings of edits on both sides: nothing that one side alone has is ever written over', () => {
  const units = [REASON, MODULE, 'behaviours/20-all.ts', 'forms/first_form/behaviours/20-b.ts'];
  const edit = fc.record({
    side: fc.constantFrom('app', 'folder', 'sync'),
    unit: fc.constantFrom(...units),
    gone: fc.boolean(),
  });
  let conflicts = 0;
  fc.assert(
    fc.property(fc.array(edit, { minLength: 3, maxLength: 14 }), (edits) => {
      const pair = new Pair();
      for (const [n, { side, unit, gone }] of edits.entries()) {
        if (side === 'sync') {
          const before = {
            app: new Map(pair.app),
            folder: new Map(pair.folder),
            base: new Map(pair.base),
          };
          const found = pair.sync();
          conflicts += found.conflicts.length;
          for (const one of units) {
            const was = {
              app: before.app.get(one),
              folder: before.folder.get(one),
              base: before.base.get(one),
            };
            // Whatever is written over was on both sides before.
            if (pair.app.get(one) !== was.app) expect(was.app).toBe(was.base);
            if (pair.folder.get(one) !== was.folder) expect(was.folder).toBe(was.base);
            // What is not the same afterwards is a conflict that shows both.
            if (pair.app.get(one) !== pair.folder.get(one))
              expect(found.conflicts).toContainEqual({
                unit: one,
                app: pair.app.get(one) ?? null,
                folder: pair.folder.get(one) ?? null,
              });
          }
          continue;
        }
        if (gone) pair[side].delete(unit);
        else
          pair[side].set(
            unit,
            `// ${n}
`,
          );
      }
      pair.sync();
      const again = pair.sync();
      expect([again.savings, again.writes]).toEqual([[], []]);
    }),
    { seed: 20310502, numRuns: shareOf(500) },
  );
  expect(conflicts).toBeGreaterThan(shareOf(60));
});

test('each unit of a workspace is found by its path', () => {
  const workspace = firstWorkspace('Ferry');
  expect(contentOfUnit(workspace, 'workspace.json')).toMatchObject({
    kind: 'head',
    content: { title: 'Ferry' },
  });
  expect(contentOfUnit(workspace, REASON)).toMatchObject({
    kind: 'behaviour',
    form: 'first_form',
    name: '10-reason.ts',
  });
  expect(contentOfUnit(workspace, 'forms/nowhere/form.json')).toBe(null);
  expect(contentOfUnit(workspace, '../../etc/passwd')).toBe(null);
});
