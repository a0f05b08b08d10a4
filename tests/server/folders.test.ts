/** Live folders: what is saved in the app is in the folder within a second, and the other way round; nothing is lost. */
import { execFileSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { firstWorkspace } from '../../src/core/workspace/first';
import { writeWorkspace } from '../../src/core/workspace/write';
import { connectionTo } from '../../src/server/database/database';
import { Refusal } from '../../src/server/http/refusal';
import { writeIntoFolder } from '../../src/workers/files';
import { folderState, leaveFolder, settleConflict } from '../../src/server/folders/live';
import { closeFolder, offeredFolders, openFolder } from '../../src/server/hosting/open-folders';
import { newestNumber } from '../../src/server/releases/releases';
import { readDocument, saveDocument } from '../../src/server/revisions/documents';
import { readBehaviours, readForms, readShared } from '../../src/server/content/read';
import { inWorkspace, type WorkspaceRef } from '../../src/server/database/current-workspace';
import { readTakings, undoTaking } from '../../src/server/workspaces/taking';
import { findWorkspace } from '../../src/server/workspaces/registry';
import { freshDatabase } from './support';

/** Milliseconds in which a change has to be on the other side; far more than the second meant, for a machine under load. */
// On a busy machine each look of the watcher and each transaction takes seconds.
const SOON = { timeout: 1_200_000, interval: 30 };

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
      'is not a folder below one that the app was started with',
    );
    expect(await says(openFolder(join(above, '../')))).toContain('is not a folder below');
    expect(await says(openFolder(join(above, 'nowhere')))).toContain('There is no folder');
    expect(await says(openFolder(join(above, 'empty')))).toContain(
      'workspace.json:1: this file is missing',
    );
    rmSync(elsewhere, { recursive: true });
  });

  test('a path outside is answered alike, whether anything stands there or not', async () => {
    folderWith(FIRST(), 'there');
    const elsewhere = mkdtempSync(join(tmpdir(), 'tavro-elsewhere-'));
    cpSync(join(above, 'there'), join(elsewhere, 'x'), { recursive: true });
    symlinkSync(elsewhere, join(above, 'linked'));
    const answers = await Promise.all(
      [
        join(elsewhere, 'x'),
        join(elsewhere, 'nothing'),
        join(above, 'linked'),
        join(above, 'linked/x'),
        join(above, 'linked/nothing'),
        join(above, 'there/../../nothing'),
        `${above}x`,
        '/proc/self/root',
        '/etc/passwd',
      ].map(async (path) => (await says(openFolder(path))).replace(/\S*\/\S*|^there/g, 'PATH')),
    );
    expect(new Set(answers)).toEqual(
      new Set([
        'PATH is not a folder below one that the app was started with. Start it with npm start -- PATH',
      ]),
    );
    // Nothing is found through the link either.
    expect((await offeredFolders()).map(({ folder }) => folder)).toEqual([join(above, 'there')]);
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

describe('what is no file or folder of its own', () => {
  /** The text of everything that is kept of a workspace, its history included. */
  const everything = async (workspace: WorkspaceRef) => {
    const { rows } = await connectionTo(workspace.schema).pool.query<{ all: string }>(
      'select string_agg(content::text, chr(10)) as all from revision',
    );
    return rows[0]!.all;
  };
  let elsewhere: string;
  beforeEach(() => {
    elsewhere = mkdtempSync(join(tmpdir(), 'tavro-elsewhere-'));
  });
  afterEach(() => rmSync(elsewhere, { recursive: true, force: true }));

  test('a link to the whole disk is named and not looked into, and the app goes on', async () => {
    const folder = folderWith(FIRST());
    symlinkSync('/', join(folder, 'notes'));
    const workspace = await open(folder);
    await vi.waitFor(
      () => expect(folderState(workspace)!.odd).toEqual(['notes is a link and is not looked into']),
      SOON,
    );
    // Changes still come through.
    writeFileSync(join(folder, REASON), '// changed\n');
    await vi.waitFor(
      async () =>
        expect((await within(workspace, () => readBehaviours('first_form')))[0]!.text).toBe(
          '// changed\n',
        ),
      SOON,
    );
  });

  test('a link in the place of a behaviour is not read, nor written through', async () => {
    const folder = folderWith(FIRST());
    const secret = join(elsewhere, 'secret.ts');
    writeFileSync(secret, '// Zephyrine');
    const workspace = await open(folder);
    symlinkSync(secret, join(folder, 'forms/first_form/behaviours/90-x.ts'));
    await vi.waitFor(
      () => expect(folderState(workspace)!.errors[0]).toMatch(/90-x\.ts:1: is a link/),
      SOON,
    );
    // In the place of one that the app has, it stands where it is, and what it leads to stays as it is.
    rmSync(join(folder, 'forms/first_form/behaviours/90-x.ts'));
    rmSync(join(folder, REASON));
    symlinkSync(secret, join(folder, REASON));
    const key = { kind: 'behaviour', form: 'first_form', name: '10-reason.ts' } as const;
    const { revision } = (await within(workspace, () => readDocument(key)))!;
    await within(workspace, () => saveDocument(key, '// from the app\n', revision, 'first'));
    await vi.waitFor(
      () => expect(folderState(workspace)!.errors[0]).toMatch(/10-reason\.ts:1: is a link/),
      SOON,
    );
    expect(readFileSync(secret, 'utf8')).toBe('// Zephyrine');
    expect(await everything(workspace)).not.toContain('Zephyrine');
    // What stands beside is named all the same.
    symlinkSync('/', join(folder, 'notes'));
    await vi.waitFor(
      () => expect(folderState(workspace)!.odd).toEqual(['notes is a link and is not looked into']),
      SOON,
    );
    // Mended, it goes on; the app has its own text still.
    rmSync(join(folder, REASON));
    writeFileSync(join(folder, REASON), '// of its own\n');
    await vi.waitFor(() => expect(folderState(workspace)!.errors).toEqual([]), SOON);
    expect(readFileSync(secret, 'utf8')).toBe('// Zephyrine');
  });

  test('a link in the place of a form is neither read nor written through', async () => {
    const folder = folderWith(FIRST());
    const workspace = await open(folder);
    await vi.waitFor(() => expect(folderState(workspace)!.errors).toEqual([]), SOON);
    cpSync(join(folder, 'forms/first_form'), join(elsewhere, 'first_form'), { recursive: true });
    writeFileSync(join(elsewhere, 'first_form/behaviours/10-reason.ts'), '// Zephyrine');
    const before = readdirSync(elsewhere, { recursive: true }).length;
    rmSync(join(folder, 'forms/first_form'), { recursive: true });
    symlinkSync(join(elsewhere, 'first_form'), join(folder, 'forms/first_form'));
    await vi.waitFor(
      () => expect(folderState(workspace)!.errors[0]).toMatch(/forms\/first_form:1: is a link/),
      SOON,
    );
    const key = { kind: 'behaviour', form: 'first_form', name: '10-reason.ts' } as const;
    const { revision } = (await within(workspace, () => readDocument(key)))!;
    await within(workspace, () => saveDocument(key, '// from the app\n', revision, 'first'));
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect(readdirSync(elsewhere, { recursive: true })).toHaveLength(before);
    expect(readFileSync(join(elsewhere, 'first_form/behaviours/10-reason.ts'), 'utf8')).toBe(
      '// Zephyrine',
    );
    expect(await everything(workspace)).not.toContain('Zephyrine');
    // It is not taken for a removal.
    expect((await within(workspace, readForms)).length).toBe(1);
  });

  test('a pipe keeps no thread waiting, however often it is looked at', async () => {
    const folder = folderWith(FIRST());
    execFileSync('mkfifo', [
      join(folder, 'pipe'),
      join(folder, 'forms/first_form/behaviours/80-pipe.ts'),
    ]);
    const workspace = await open(folder).catch((caught: unknown) => caught);
    expect(workspace).toBeInstanceOf(Refusal);
    expect((workspace as Refusal).message).toMatch(/80-pipe\.ts:1: is a pipe/);
    rmSync(join(folder, 'forms/first_form/behaviours/80-pipe.ts'));
    const opened = await open(folder);
    for (let look = 0; look < 8; look++) {
      writeFileSync(join(folder, REASON), `// ${look}\n`);
      await vi.waitFor(
        async () =>
          expect((await within(opened, () => readBehaviours('first_form')))[0]!.text).toBe(
            `// ${look}\n`,
          ),
        SOON,
      );
    }
    expect(folderState(opened)!.odd).toEqual(['pipe is a pipe and is not looked into']);
  });

  test('what is put in the place of a folder while it is written is not written through', () => {
    const folder = folderWith(FIRST());
    const target = join(elsewhere, 'behaviours');
    mkdirSync(target);
    let through = 0;
    // What a rename beside the writer would bring about between looking and writing.
    for (let i = 0; i < 200; i++) {
      const place = join(folder, 'forms/first_form/behaviours');
      if (i % 2 === 0) {
        rmSync(place, { recursive: true, force: true });
        symlinkSync(target, place);
      } else {
        rmSync(place, { recursive: true, force: true });
        mkdirSync(place);
      }
      if (writeIntoFolder(folder, [{ path: REASON, text: `// ${i}` }])) through++;
    }
    expect(through).toBe(100);
    expect(readdirSync(target)).toEqual([]);
  });
});
