/** Watching a workspace folder: what of it is watched, for the app and for `tavro … --watch`. Links are never followed. */
import { lstatSync } from 'node:fs';
import { join } from 'node:path';
import { watch, type FSWatcher } from 'chokidar';
import { FILES_PER_WORKSPACE } from '../core/limits';
import { isPassedOver, isWorkspaceFile, isWorkspacePlace } from '../core/workspace/path';

/** Calls `changed` for each change, `ready` once all is watched, and `failed` with words when it cannot be. */
export function watchFolder(
  folder: string,
  told: { changed(): void; failed(says: string): void; ready?(): void },
): FSWatcher {
  const seen = new Set<string>();
  const below = (path: string) => path.slice(folder.length).replace(/^\/+/, '');
  const watcher = watch(folder, {
    ignoreInitial: true,
    followSymlinks: false,
    ignored: (path, stats) => {
      const at = below(path);
      if (at === '') return false;
      if (isPassedOver(at)) return true;
      const isPlace = isWorkspacePlace(at);
      // What is no part of a workspace is noticed where a part could stand beside it, and not looked into.
      if (stats === undefined) return at.split('/').length > 5;
      if (stats.isDirectory() ? !isPlace : stats.isFile() && !isWorkspaceFile(at)) return true;
      seen.add(at);
      if (seen.size === 2 * FILES_PER_WORKSPACE) {
        void watcher.close();
        told.failed(`The folder has more files than a workspace may (${FILES_PER_WORKSPACE}).`);
      }
      return seen.size >= 2 * FILES_PER_WORKSPACE;
    },
  });
  watcher.on('all', () => told.changed());
  // The system reports what chokidar passes over: a link that leads to itself, and a change of a file that has just been
  // replaced, which chokidar does not watch yet.
  const odd = new Set<string>();
  watcher.on('raw', (_event, name, details) => {
    const path = below(join((details as { watchedPath?: string }).watchedPath ?? folder, name));
    if (isPassedOver(path) || path.endsWith('.tavro-new')) return;
    if (isOdd(join(folder, path))) odd.add(path);
    // Something that was odd may be gone, or be a file now. Other files are nobody's concern.
    else if (!odd.delete(path) && !isWorkspaceFile(path)) return;
    told.changed();
  });
  watcher.on('error', (error) =>
    told.failed(error instanceof Error ? error.message : String(error)),
  );
  watcher.on('ready', () => told.ready?.());
  return watcher;
}

/** Whether something is neither a file nor a folder: a link, a pipe, a device. */
function isOdd(path: string): boolean {
  try {
    const stats = lstatSync(path);
    return !stats.isFile() && !stats.isDirectory();
  } catch {
    return false;
  }
}
