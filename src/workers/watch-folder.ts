/** Watching a workspace folder: what of it is watched, for the app and for `tavro … --watch`. Links are never followed. */
import { watch, type FSWatcher } from 'chokidar';
import { FILES_PER_WORKSPACE } from '../core/limits';
import { isPassedOver, isWorkspaceFile, isWorkspacePlace } from '../core/workspace/path';

/** Calls `changed` for each change, `ready` once all is watched, and `failed` with words when it cannot be. */
export function watchFolder(
  folder: string,
  told: { changed(): void; failed(says: string): void; ready?(): void },
): FSWatcher {
  const seen = new Set<string>();
  const watcher = watch(folder, {
    ignoreInitial: true,
    followSymlinks: false,
    ignored: (path, stats) => {
      const below = path.slice(folder.length).replace(/^\/+/, '');
      if (below === '') return false;
      if (isPassedOver(below)) return true;
      const isPlace = isWorkspacePlace(below);
      // What is no part of a workspace is noticed where a part could stand beside it, and not looked into.
      if (stats === undefined) return below.split('/').length > 5;
      if (stats.isDirectory() ? !isPlace : stats.isFile() && !isWorkspaceFile(below)) return true;
      seen.add(below);
      if (seen.size === 2 * FILES_PER_WORKSPACE) {
        void watcher.close();
        told.failed(`The folder has more files than a workspace may (${FILES_PER_WORKSPACE}).`);
      }
      return seen.size >= 2 * FILES_PER_WORKSPACE;
    },
  });
  watcher.on('all', () => told.changed());
  // What chokidar makes nothing of, such as a link that leads to itself, the system still tells of.
  watcher.on('raw', (_event, path) => {
    if (!isPassedOver(path) && !path.endsWith('.tavro-new')) told.changed();
  });
  watcher.on('error', (error) =>
    told.failed(error instanceof Error ? error.message : String(error)),
  );
  watcher.on('ready', () => told.ready?.());
  return watcher;
}
