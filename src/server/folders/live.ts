/**
 * Live folders: a workspace and a folder on this machine that are kept the same while the app runs. What is saved in the
 * app is written into the folder, what an editor or a checkout changes there is taken into the app, each within a second;
 * what both changed at once is left as it is and shown.
 */
import { sql } from 'drizzle-orm';
import { ERRORS_PER_FILE } from '../../core/limits';
import type { Conflict } from '../../core/workspace/syncing';
import { filesOfUnit } from '../../core/workspace/units';
import { database, transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import { savedNow } from '../revisions/documents';
import * as schema from '../database/schema';
import { task } from '../machines/tasks';
import { inWorkspace, type WorkspaceRef } from '../database/current-workspace';
import { readFolderOf } from '../workspaces/folder';
import { revisionsNow, saveAll } from '../workspaces/taking';
import { watcher } from './watcher';

/** Milliseconds without another change after which a change in the folder is looked at: a checkout changes many files. */
const REST = 80;
/** Milliseconds between two looks at whether something was saved in the app. */
const LOOK = 150;

/** Milliseconds until something that failed is tried again. */
const AGAIN_AFTER = 2000;

export interface FolderState {
  folder: string;
  /** What is wrong in the folder, by file and line: it is not taken until that is mended. */
  errors: string[];
  conflicts: Conflict[];
  /** What stands there besides and is left alone, such as links, in words. */
  odd: string[];
}

// On globalThis, since Next.js bundles pages and routes apart.
const kept = globalThis as { tavroFolders?: Map<string, LiveFolder> };
const folders = (): Map<string, LiveFolder> => (kept.tavroFolders ??= new Map());

/** Begins to keep a workspace and a folder the same; one that is kept so already goes on. */
export function keepLive(workspace: WorkspaceRef, folder: string): void {
  if (folders().has(workspace.schema)) return;
  const live = new LiveFolder(workspace, folder);
  folders().set(workspace.schema, live);
  live.begin();
}

/** How the folder of a workspace stands; null where it has none that is kept. */
export function folderState({ schema: of }: WorkspaceRef): FolderState | null {
  return folders().get(of)?.state ?? null;
}

/** Ends a conflict with what one side has. Throws a Refusal (404) where there is none. */
export async function settleConflict(
  workspace: WorkspaceRef,
  unit: string,
  take: 'app' | 'folder',
  by: string,
): Promise<void> {
  const live = folders().get(workspace.schema);
  if (live === undefined || !(await live.settle(unit, take, by)))
    throw new Refusal(404, `${unit} is not in conflict any more.`);
}

/** Stops keeping a workspace and its folder the same; both stay as they are. */
export async function leaveFolder({ schema: of }: WorkspaceRef): Promise<void> {
  const live = folders().get(of);
  folders().delete(of);
  await live?.end();
}

export class LiveFolder {
  #unwatch: () => void = () => undefined;
  #rest: ReturnType<typeof setTimeout> | undefined;
  #look: ReturnType<typeof setInterval> | undefined;
  /** The work that goes on; everything is done one after the other. */
  #work: Promise<unknown> = Promise.resolve();
  #waiting = false;
  /** What was saved in the app when it was looked at last. */
  #seen = '';
  /** After a failure nothing is looked at for a while. */
  #pausedUntil = 0;
  state: FolderState;

  constructor(
    private readonly workspace: WorkspaceRef,
    private readonly folder: string,
  ) {
    this.state = { folder, errors: [], conflicts: [], odd: [] };
  }

  begin(): void {
    this.#unwatch = watcher().watch({
      folder: this.folder,
      changed: () => {
        clearTimeout(this.#rest);
        this.#rest = setTimeout(() => this.sync(), REST);
      },
      failed: (says) => this.#failed(new Error(says)),
    });
    this.#look = setInterval(() => void this.#lookAtApp(), LOOK);
    // Nobody waits for it: what there is to do is done soon.
    void this.sync();
  }

  async end(): Promise<void> {
    clearTimeout(this.#rest);
    clearInterval(this.#look);
    this.#unwatch();
    await this.#work.catch(() => undefined);
  }

  /** Brings both up to date once what goes on is done; asked several times meanwhile, it is done once. */
  sync(): Promise<unknown> {
    if (this.#waiting) return this.#work;
    this.#waiting = true;
    return this.#inTurn(async () => {
      this.#waiting = false;
      await this.#sync();
    });
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T | undefined> {
    const done = this.#work.then(() => inWorkspace(this.workspace, work));
    this.#work = done.catch((caught: unknown) => this.#failed(caught));
    return done.catch(() => undefined);
  }

  #failed(caught: unknown): void {
    const says = caught instanceof Error ? caught.message : String(caught);
    // It is tried again and again, and said once.
    if (this.state.errors[0] !== says)
      console.error(`the folder ${this.folder} was not brought up to date`, caught);
    this.state = { ...this.state, errors: [says] };
    this.#pausedUntil = Date.now() + AGAIN_AFTER;
  }

  /** Whatever saved it, another app on the same database as well. */
  async #lookAtApp(): Promise<void> {
    if (Date.now() < this.#pausedUntil) return;
    const now = await inWorkspace(this.workspace, savedNow).catch(() => null);
    if (now === null || now === this.#seen) return;
    await this.sync();
  }

  async #sync(): Promise<void> {
    // Before anything is read: what is saved meanwhile is looked at again.
    const seen = await savedNow();
    const before = await revisionsNow();
    const base = await readBase();
    const found = await task('sync', {
      folder: this.folder,
      app: await readFolderOf(false),
      base: [...base],
    });
    if (!found.ok) {
      this.state = { ...this.state, errors: found.errors, odd: found.odd };
      this.#seen = seen;
      return;
    }
    const { savings, writes, conflicts, errors, odd, base: next } = found;
    try {
      await transaction(async (tx) => {
        if (savings.length > 0) await saveAll(tx, savings, before, 'the folder', null);
      });
    } catch (caught) {
      // Somebody saved the same just now: what it comes to is seen the next time.
      if (!(caught instanceof Refusal)) throw caught;
      return;
    }
    const whole =
      writes.length === 0 || (await task('write', { folder: this.folder, writes: [...writes] }));
    // What was not written is still to be done.
    if (whole) await keepBase(base, new Map(next));
    this.state = {
      folder: this.folder,
      errors: errors.slice(0, ERRORS_PER_FILE),
      conflicts,
      odd,
    };
    this.#seen = savings.length > 0 ? await savedNow() : seen;
    if (!whole) this.#rest = setTimeout(() => this.sync(), REST);
  }

  /** Makes one side of a conflict what both had last, so that the other one goes there. Whether there was that conflict. */
  async settle(unit: string, take: 'app' | 'folder', by: string): Promise<boolean> {
    const done = await this.#inTurn(async () => {
      const conflict = this.state.conflicts.find((one) => one.unit === unit);
      if (conflict === undefined) return false;
      const found = await task('settle', {
        folder: this.folder,
        app: await readFolderOf(false),
        unit,
        take,
      });
      if (!found.ok) throw new Refusal(422, found.errors.join('\n'));
      const before = await revisionsNow();
      if (take === 'folder')
        await transaction((tx) => saveAll(tx, found.savings, before, 'the folder', by));
      else
        await task('write', {
          folder: this.folder,
          writes: filesOfUnit(unit).map((path) => ({
            path,
            text: found.texts.find(([one]) => one === path)?.[1] ?? null,
          })),
        });
      await this.#sync();
      return true;
    });
    return done === true;
  }
}

/** What both had in common last is of no use once they are not kept the same. */
export async function forgetBase(): Promise<void> {
  await database().delete(schema.folderBase);
}

async function readBase(): Promise<Map<string, string>> {
  const rows = await database().select().from(schema.folderBase);
  return new Map(rows.map(({ unit, digest }) => [unit, digest]));
}

/** Keeps what both have in common now. */
export async function keepBase(
  before: ReadonlyMap<string, string>,
  now: ReadonlyMap<string, string>,
): Promise<void> {
  const changed = [...now].filter(([unit, digest]) => before.get(unit) !== digest);
  const gone = [...before.keys()].filter((unit) => !now.has(unit));
  if (changed.length === 0 && gone.length === 0) return;
  const rows = JSON.stringify(changed.map(([unit, digest]) => ({ unit, digest })));
  await transaction(async (tx) => {
    await tx.execute(sql`delete from folder_base where unit = any(${sql.param(gone)})`);
    await tx.execute(
      sql`insert into folder_base select * from jsonb_to_recordset(${rows}::jsonb) as r (unit text, digest text) on conflict (unit) do update set digest = excluded.digest`,
    );
  });
}
