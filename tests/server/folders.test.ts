/** Live folders: what is saved in the app is in the folder within a second, and the other way round; nothing is lost. */
import {
  cpSync,
  existsSync,
  mkdtempSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { firstWorkspace } from '../../src/core/workspace/first';
import { writeWorkspace } from '../../src/core/workspace/write';
import { Refusal } from '../../src/server/http/refusal';
import { folderState, leaveFolder, settleConflict } from '../../src/server/folders/live';
import { closeFolder, offeredFolders, openFolder } from '../../src/server/folders/open-folders';
import { newestNumber } from '../../src/server/releases';
import { readDocument, saveDocument } from '../../src/server/revisions/documents';
import { readBehaviours, readForms, readShared } from '../../src/server/workspace/read';
import { inWorkspace, type WorkspaceRef } from '../../src/server/workspaces/current';
import { readTakings, undoTaking } from '../../src/server/workspaces/taking';
import { findWorkspace } from '../../src/server/workspaces/registry';
import { freshDatabase } from './support';

/** Milliseconds in which a change has to be on the other side; far more than the second meant, for a machine under load. */
const SOON = { timeout: 30_000, interval: 30 };

let end: () => Promise<void>;
let above: string;
beforeAll(async () => {
  end = await freshDatabase('tavro_folders_test');
});
afterAll(async () => {
  await end();
});

beforeEach(() => {
  above = mkdtempSync(join(tmpdir(), 'tavro-folders-'));
  process.env.TAVRO_FOLDERS = above;
});

let opened: WorkspaceRef[] = [];
afterEach(async () => {
  for (const workspace of opened) await leaveFolder(workspace);
  opened = [];
  rmSync(above, { recursive: true, force: true });
});

function folderWith(texts: Iterable<readonly [string, string]>, name = 'ferry'): string {
  const folder = join(above, name);
  for (const [path, text] of texts) {
    mkdirSync(join(folder, path, '..'), { recursive: true });
    writeFileSync(join(folder, path), text);
  }
  return folder;
}

async function open(folder: string): Promise<WorkspaceRef> {
  const workspace = (await findWorkspace(await openFolder(folder)))!;
  opened.push(workspace);
  return workspace;
}

const within = <T>(workspace: WorkspaceRef, work: () => Promise<T>) => inWorkspace(workspace, work);
const says = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (caught: unknown) => (caught instanceof Refusal ? caught.message : Promise.reject(caught)),
  );

const FIRST = () => writeWorkspace(firstWorkspace('Ferry'));
const REASON = 'forms/first_form/behaviours/10-reason.ts';
const KEY = { kind: 'behaviour', form: 'first_form', name: '10-reason.ts' } as const;

describe('a folder that is open', () => {
  test('has what the app saves, and the app has what is changed there; each touches one file', async () => {
    const folder = folderWith(FIRST());
    const before = Object.fromEntries(FIRST());
    const workspace = await open(folder);
    const text = '/** Changed in the app. */\n';
    await within(workspace, async () => {
      const { revision } = (await readDocument(KEY))!;
      await saveDocument(KEY, text, revision, 'first');
    });
    await vi.waitFor(() => expect(readFileSync(join(folder, REASON), 'utf8')).toBe(text), SOON);
    for (const [path, was] of Object.entries(before))
      if (path !== REASON) expect(readFileSync(join(folder, path), 'utf8')).toBe(was);
    // No half-written file is left beside.
    expect(readdirSync(join(folder, 'forms/first_form/behaviours'))).toEqual(['10-reason.ts']);

    writeFileSync(join(folder, REASON), '/** Changed in the folder. */\n');
    await vi.waitFor(
      async () =>
        expect((await within(workspace, () => readBehaviours('first_form')))[0]!.text).toBe(
          '/** Changed in the folder. */\n',
        ),
      SOON,
    );
    // It is in the history, and can be undone like whatever else was taken.
    await within(workspace, async () => {
      const [taking] = await readTakings();
      expect(taking).toMatchObject({ what: 'the folder', count: 1 });
      await undoTaking(taking!.id, 'first');
    });
    await vi.waitFor(() => expect(readFileSync(join(folder, REASON), 'utf8')).toBe(text), SOON);
  });

  test('a new file, a removed one, a new form and code that forms share go both ways', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    writeFileSync(join(folder, 'forms/first_form/behaviours/20-more.ts'), '// more\n');
    mkdirSync(join(folder, 'shared'));
    writeFileSync(join(folder, 'shared/dates.ts'), 'export const A = 1;\n');
    await vi.waitFor(async () => {
      expect((await within(workspace, readShared)).map(({ name }) => name)).toEqual([
        'shared/dates.ts',
      ]);
      expect((await within(workspace, () => readBehaviours('first_form'))).length).toBe(2);
    }, SOON);
    await within(workspace, () =>
      saveDocument(
        { kind: 'shared', name: 'behaviours/20-all.ts' },
        '/** All.\n * @forms first_form */\n',
        0,
        'first',
      ),
    );
    await vi.waitFor(
      () => expect(existsSync(join(folder, 'behaviours/20-all.ts'))).toBe(true),
      SOON,
    );
    rmSync(join(folder, 'shared'), { recursive: true });
    rmSync(join(folder, 'forms/first_form/behaviours/20-more.ts'));
    await vi.waitFor(async () => {
      expect((await within(workspace, readShared)).map(({ name }) => name)).toEqual([
        'behaviours/20-all.ts',
      ]);
      expect((await within(workspace, () => readBehaviours('first_form'))).length).toBe(1);
    }, SOON);
  });

  test('a broken file is named with its line, loses nothing, and is taken once it is mended', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    const file = join(folder, 'forms/first_form/form.json');
    const text = readFileSync(file, 'utf8');
    writeFileSync(file, text.slice(0, 60));
    await vi.waitFor(
      () =>
        expect(folderState(workspace)!.errors[0]).toMatch(/^forms\/first_form\/form\.json:\d+: /),
      SOON,
    );
    expect((await within(workspace, readForms)).length).toBe(1);
    writeFileSync(file, text.replace('"First form"', '"Ferry ticket"'));
    await vi.waitFor(async () => {
      expect((await within(workspace, readForms))[0]!.title).toBe('Ferry ticket');
      expect(folderState(workspace)!.errors).toEqual([]);
    }, SOON);
  });

  test('changed on both sides before either is seen is a conflict with both, until one is taken', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    const both = async (app: string, inFolder: string) => {
      await leaveFolder(workspace);
      writeFileSync(join(folder, REASON), inFolder);
      await within(workspace, async () => {
        const { revision } = (await readDocument(KEY))!;
        await saveDocument(KEY, app, revision, 'first');
      });
      await openFolder(folder);
      await vi.waitFor(
        () =>
          expect(folderState(workspace)!.conflicts).toEqual([
            { unit: REASON, app, folder: inFolder },
          ]),
        SOON,
      );
    };
    await both('// app\n', '// folder\n');
    expect(readFileSync(join(folder, REASON), 'utf8')).toBe('// folder\n');
    await settleConflict(workspace, REASON, 'folder', 'first');
    expect((await within(workspace, () => readBehaviours('first_form')))[0]!.text).toBe(
      '// folder\n',
    );
    expect(folderState(workspace)!.conflicts).toEqual([]);
    await both('// app 2\n', '// folder 2\n');
    await settleConflict(workspace, REASON, 'app', 'first');
    expect(readFileSync(join(folder, REASON), 'utf8')).toBe('// app 2\n');
    expect(folderState(workspace)!.conflicts).toEqual([]);
    expect(await says(settleConflict(workspace, REASON, 'app', 'first'))).toContain(
      'not in conflict any more',
    );
  });

  test('what was changed while the app did not run is known by what both had last', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    await leaveFolder(workspace);
    writeFileSync(join(folder, REASON), '// while it did not run\n');
    await within(workspace, () =>
      saveDocument({ kind: 'shared', name: 'shared/a.ts' }, '// app\n', 0, 'first'),
    );
    await openFolder(folder);
    await vi.waitFor(async () => {
      expect((await within(workspace, () => readBehaviours('first_form')))[0]!.text).toBe(
        '// while it did not run\n',
      );
      expect(readFileSync(join(folder, 'shared/a.ts'), 'utf8')).toBe('// app\n');
    }, SOON);
    expect(folderState(workspace)!.conflicts).toEqual([]);
  });

  test('a checkout of many files is one change', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    const count = 1000;
    for (let i = 0; i < count; i++)
      writeFileSync(
        join(folder, `forms/first_form/scenarios/s${i}.json`),
        '{\n  "title": "T",\n  "open": {\n    "as": "first"\n  },\n  "steps": []\n}\n',
      );
    await vi.waitFor(async () => {
      const takings = await within(workspace, readTakings);
      expect(takings.reduce((sum, one) => sum + one.count, 0)).toBe(count);
      // A machine under load may pause in the middle of writing them.
      expect(takings.length).toBeLessThanOrEqual(3);
    }, SOON);
  });

  test('interleaved edits on both sides, unslept, lose no text: each is in the folder, in the app or its history, or in a conflict', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    const written = { app: [] as string[], folder: [] as string[] };
    let seed = 7;
    const random = (below: number) => (seed = (seed * 48_271) % 2_147_483_647) % below;
    for (let i = 0; i < 40; i++) {
      const text = `// ${i}\n`;
      if (random(2) === 0) {
        writeFileSync(join(folder, REASON), text);
        written.folder.push(text);
      } else
        await within(workspace, async () => {
          const { revision } = (await readDocument(KEY))!;
          if ((await saveDocument(KEY, text, revision, 'first')).saved) written.app.push(text);
        });
      await new Promise((resolve) => setTimeout(resolve, random(500)));
    }
    await vi.waitFor(async () => {
      const inApp = (await within(workspace, () => readBehaviours('first_form')))[0]!.text;
      const inFolder = readFileSync(join(folder, REASON), 'utf8');
      const conflict = folderState(workspace)!.conflicts.find(({ unit }) => unit === REASON);
      if (inApp !== inFolder)
        expect(conflict).toEqual({ unit: REASON, app: inApp, folder: inFolder });
      // The last text of each side is there.
      expect([inApp, inFolder]).toContain(
        [written.app, written.folder]
          .flat()
          .toSorted((a, b) => Number(b.slice(3)) - Number(a.slice(3)))[0],
      );
    }, SOON);
  });
});

describe('opening', () => {
  test('offers folders below the one named, and refuses every other', async () => {
    folderWith(FIRST(), 'here/ferry');
    folderWith(FIRST(), 'there');
    mkdirSync(join(above, 'empty'));
    const elsewhere = mkdtempSync(join(tmpdir(), 'tavro-elsewhere-'));
    cpSync(join(above, 'there'), join(elsewhere, 'x'), { recursive: true });
    expect((await offeredFolders()).map(({ folder }) => folder).toSorted()).toEqual([
      join(above, 'here/ferry'),
      join(above, 'there'),
    ]);
    expect(await says(openFolder(join(elsewhere, 'x')))).toContain(
      'is not below a folder that the app was started with',
    );
    expect(await says(openFolder(join(above, '../')))).toContain('is not below');
    expect(await says(openFolder(join(above, 'nowhere')))).toContain('There is no folder');
    expect(await says(openFolder(join(above, 'empty')))).toContain(
      'workspace.json:1: this file is missing',
    );
    rmSync(elsewhere, { recursive: true });
  });

  test('twice gives the same workspace; closed, both stay as they are', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    expect(await openFolder(folder)).toBe(workspace.name);
    expect((await offeredFolders())[0]!.workspace).toBe(workspace.name);
    await vi.waitFor(
      async () =>
        expect((await within(workspace, () => newestNumber('first_form')))?.number).toBe(1),
      SOON,
    );
    await closeFolder(workspace.name);
    expect(folderState(workspace)).toBe(null);
    expect((await offeredFolders())[0]!.workspace).toBe(null);
    expect((await within(workspace, readForms)).length).toBe(1);
  });
});
