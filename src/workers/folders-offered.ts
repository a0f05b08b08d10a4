/** Which folders on this machine may be opened as workspaces: those that the start command names, and real folders below them. */
import { existsSync, realpathSync } from 'node:fs';
import { join, normalize, sep } from 'node:path';
import { FILES_PER_WORKSPACE, FOLDERS_LISTED } from '../core/limits';
import { isPassedOver } from '../core/workspace/path';
import { Directory, NotOpened } from './directory';

/** How deep below a folder that the start command names others are looked for. */
const DEPTH = 3;

/** Entries of all folders that are looked at together, so that a large disk ends the looking and not the app. */
const ENTRIES = 20 * FILES_PER_WORKSPACE;

/** The folders that the start command names, as they really are; those that are not there are left out. */
function namedFolders(named: readonly string[]): string[] {
  return named.filter((folder) => existsSync(folder)).map((folder) => realpathSync(folder));
}

/** Those that hold a workspace, among the named ones and below them. */
export function foldersOffered(named: readonly string[]): string[] {
  const found: string[] = [];
  let entries = 0;
  const look = (directory: Directory, path: string, depth: number): void => {
    const names = directory.names(FILES_PER_WORKSPACE) ?? [];
    entries += names.length;
    if (found.length >= FOLDERS_LISTED || entries > ENTRIES) return;
    if (names.includes('workspace.json')) {
      found.push(path);
      return;
    }
    if (depth === 0) return;
    for (const name of names) {
      if (isPassedOver(name)) continue;
      try {
        if (directory.sort(name) === 'folder')
          directory.within(name, (inner) => look(inner, join(path, name), depth - 1));
      } catch (caught) {
        // What may not be opened offers nothing.
        if (!(caught instanceof NotOpened)) throw caught;
      }
    }
  };
  for (const folder of namedFolders(named))
    Directory.in(folder, (root) => look(root, folder, DEPTH));
  return found;
}

/**
 * A folder that was asked for, as it really is: one that is named, or a real folder below one. Otherwise whether it lies
 * below a named one and is not there, or may not be opened, which is said of everything else, there or not.
 */
export function allowedFolder(
  asked: string,
  named: readonly string[],
): { folder: string } | { not: 'there' | 'allowed' } {
  const wanted = normalize(asked).replace(/(?<=.)\/+$/, '');
  for (const folder of named.filter((one) => existsSync(one))) {
    const real = realpathSync(folder);
    // It may be asked for as it was named, or as it really is.
    for (const root of [real, normalize(folder)]) {
      if (wanted !== root && !wanted.startsWith(`${root}${sep}`)) continue;
      const below = wanted.slice(root.length).split(sep).filter(Boolean);
      const not = missingBelow(real, below);
      return not === null ? { folder: join(real, ...below) } : { not };
    }
  }
  return { not: 'allowed' };
}

function missingBelow(root: string, names: readonly string[]): 'there' | 'allowed' | null {
  const down = (directory: Directory, [name, ...rest]: readonly string[]): null =>
    name === undefined ? null : directory.within(name, (inner) => down(inner, rest));
  try {
    return Directory.in(root, (directory) => down(directory, names));
  } catch (caught) {
    if (!(caught instanceof NotOpened)) throw caught;
    return caught.why === 'gone' ? 'there' : 'allowed';
  }
}
