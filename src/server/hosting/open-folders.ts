/** Opening folders as workspaces: those that the start command names, and those below one of them. */
import { basename, delimiter } from 'node:path';
import { environment } from '../database/environment';
import { Refusal } from '../http/refusal';
import { database } from '../database/database';
import { importWorkspace } from '../workspaces/import';
import { CannotRelease, makeRelease } from '../releases/releases';
import { task } from '../machines/tasks';
import { inWorkspace } from '../database/current-workspace';
import { madeFrom } from './manage';
import { askRegistry, findWorkspace, listWorkspaces } from '../workspaces/registry';
import { forgetBase, keepBase, keepLive, leaveFolder } from '../folders/live';

/** The folders that the start command names. */
const named = () => environment('TAVRO_FOLDERS').split(delimiter).filter(Boolean);

export interface OfferedFolder {
  folder: string;
  name: string;
  /** The workspace that it is open as; null where it is not open. */
  workspace: string | null;
}

/** Folders that can be opened: those named, and those below them that hold a workspace. */
export async function offeredFolders(): Promise<OfferedFolder[]> {
  const open = new Map(
    (await listWorkspaces()).flatMap(({ folder, name, removedAt }) =>
      folder === null || removedAt !== null ? [] : [[folder, name] as const],
    ),
  );
  return (await task('offered', { named: named() })).map((folder) => ({
    folder,
    name: basename(folder),
    workspace: open.get(folder) ?? null,
  }));
}

/**
 * Opens a folder as a workspace and keeps both the same from now on. Its name in addresses. Throws a Refusal: 403 for
 * whatever the start command does not allow, there or not, 404 where there is none below what it allows, 422 where it
 * holds no workspace.
 */
export async function openFolder(asked: string): Promise<string> {
  const found = await task('allowed', { asked, named: named() });
  if ('not' in found)
    throw found.not === 'there'
      ? new Refusal(404, `There is no folder ${asked}.`)
      : new Refusal(
          403,
          `${asked} is not a folder below one that the app was started with. Start it with npm start -- ${asked}`,
        );
  const { folder } = found;
  const known = (await listWorkspaces()).find(
    (one) => one.folder === folder && one.removedAt === null,
  );
  const name = known?.name ?? (await makeFrom(folder));
  const workspace = await findWorkspace(name);
  if (workspace === null) throw new Refusal(404, `There is no workspace "${name}".`);
  keepLive(workspace, folder);
  return name;
}

async function makeFrom(folder: string): Promise<string> {
  const read = await task('readDirectory', { folder });
  if (!read.ok) throw new Refusal(422, read.errors.join('\n'));
  const { title, forms } = read.workspace;
  const name = await madeFrom(title, async () => {
    await importWorkspace(database(), read.workspace);
    await keepBase(new Map(), new Map(read.digests));
  });
  await askRegistry('update workspace set folder = $2 where name = $1', [name, folder]);
  // Nobody waits for the releases: the bench needs none.
  void releaseEach(
    name,
    forms.map(({ form }) => form.name),
  ).catch((caught: unknown) => console.error(`${folder} has no releases yet`, caught));
  return name;
}

/** Makes the first release of each form that can have one, so that it can be filled in. */
async function releaseEach(name: string, forms: readonly string[]): Promise<void> {
  const workspace = await findWorkspace(name);
  if (workspace === null) return;
  await inWorkspace(workspace, async () => {
    for (const form of forms)
      await makeRelease(form).catch((caught: unknown) => {
        // A behaviour that does not compile is said on the bench.
        if (!(caught instanceof CannotRelease)) throw caught;
      });
  });
}

/** Keeps all open folders live that are still there and allowed; called once when the app starts. */
export async function keepOpenFolders(): Promise<void> {
  const offered = new Set(await task('offered', { named: named() }));
  for (const asked of named()) {
    const found = await task('allowed', { asked, named: named() });
    // One that only has workspaces below it is offered on the page of workspaces.
    if ('not' in found || !offered.has(found.folder)) continue;
    await openFolder(found.folder)
      .then((name) => console.log(`tavro: ${found.folder} is open at /w/${name}`))
      .catch((caught: unknown) =>
        console.error(
          `tavro: ${found.folder} was not opened:\n${caught instanceof Error ? caught.message : String(caught)}`,
        ),
      );
  }
  for (const { folder, removedAt } of await listWorkspaces())
    if (folder !== null && removedAt === null)
      await openFolder(folder).catch(() =>
        console.log(`tavro: ${folder} is not kept up to date: the app was not started with it`),
      );
}

/** The folder stays as it is, and so does the workspace, which has none any more. */
export async function closeFolder(name: string): Promise<void> {
  const workspace = await findWorkspace(name);
  if (workspace === null) throw new Refusal(404, `There is no workspace "${name}".`);
  await leaveFolder(workspace);
  await askRegistry('update workspace set folder = null where name = $1', [name]);
  await inWorkspace(workspace, forgetBase);
}
