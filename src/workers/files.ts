/** Reading a workspace folder from disk, and writing into one: regular files and real folders alone (`directory.ts`). */
import {
  ERRORS_PER_FILE,
  FILES_PER_WORKSPACE,
  WORKSPACE_BYTES,
  WORKSPACE_FILE_BYTES,
} from '../core/limits';
import { renameSync, rmSync, writeFileSync } from 'node:fs';
import type { FileError } from '../core/workspace/json';
import { isPassedOver, isWorkspaceFile, isWorkspacePlace } from '../core/workspace/path';
import { BrokenWorkspace } from '../core/workspace/workspace';
import { Directory, NotOpened } from './directory';

const MIB = 1024 * 1024;

export interface FolderRead {
  /** The texts by path. */
  texts: Map<string, string>;
  /** What is wrong with files and folders in the places of a workspace, so that it is not taken. */
  errors: FileError[];
  /** What else stands there that is neither a file nor a folder, in words; none of it is looked into. */
  odd: string[];
}

/** The texts of a workspace folder by path. Throws what the system says when there is no such folder, and BrokenWorkspace for files that cannot be read as texts. */
export function readFolder(folder: string): Map<string, string> {
  const { texts, errors } = lookThrough(folder);
  if (errors.length > 0) throw new BrokenWorkspace(errors);
  return texts;
}

/** The same, with what is wrong and what is left out. */
export function lookThrough(folder: string): FolderRead {
  const reading = new FolderReading();
  Directory.in(folder, (root) => reading.walk(root, ''));
  const { texts, errors, odd } = reading;
  return { texts, errors, odd };
}

class FolderReading {
  readonly texts = new Map<string, string>();
  readonly odd: string[] = [];
  readonly errors: FileError[] = [];
  #bytes = 0;

  walk(directory: Directory, below: string): void {
    const names = directory.names(FILES_PER_WORKSPACE);
    if (names === null) return this.#wrong(below, `has more than ${FILES_PER_WORKSPACE} files`);
    for (const name of names) {
      const path = below === '' ? name : `${below}/${name}`;
      if (isPassedOver(path)) continue;
      try {
        this.#take(directory, name, path);
      } catch (caught) {
        if (!(caught instanceof NotOpened)) throw caught;
        // It went while it was looked at.
        if (caught.why === 'gone') continue;
        const isOdd = caught.why !== 'refused';
        if (isWorkspaceFile(path) || isWorkspacePlace(path))
          this.#wrong(
            path,
            isOdd
              ? `${caught.message}. Only files and folders of its own are read: put the file itself here`
              : caught.message,
          );
        else if (isOdd && this.odd.length < ERRORS_PER_FILE)
          this.odd.push(`${path} ${caught.message} and is not looked into`);
      }
    }
  }

  #take(directory: Directory, name: string, path: string): void {
    const sort = directory.sort(name);
    if (sort === 'folder') {
      if (!isWorkspacePlace(path)) return;
      directory.within(name, (inner) => this.walk(inner, path));
    } else if (isWorkspaceFile(path)) {
      const bytes = directory.read(name, WORKSPACE_FILE_BYTES);
      if (bytes === null)
        return this.#wrong(
          path,
          `has more than ${WORKSPACE_FILE_BYTES / MIB} MB, which no file of a workspace may`,
        );
      this.#bytes += bytes.length;
      if (this.#bytes > WORKSPACE_BYTES || this.texts.size >= FILES_PER_WORKSPACE)
        throw new BrokenWorkspace([
          {
            file: path,
            line: 1,
            path: [],
            says: `is one too many: a workspace has at most ${FILES_PER_WORKSPACE} files and ${WORKSPACE_BYTES / MIB} MB`,
          },
        ]);
      this.#keep(path, bytes);
    }
  }

  #keep(path: string, bytes: Buffer): void {
    try {
      // A byte order mark says what UTF-8 is anyway, and is left out.
      this.texts.set(path, new TextDecoder('utf-8', { fatal: true }).decode(bytes));
    } catch {
      this.#wrong(path, 'is not a text in UTF-8', lineOfFirstOdd(bytes));
    }
  }

  #wrong(file: string, says: string, line = 1): void {
    this.errors.push({ file, line, path: [], says });
  }
}

/** The line up to which the bytes can be read as UTF-8. */
function lineOfFirstOdd(bytes: Buffer): number {
  let [low, high] = [0, bytes.length];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    const decoder = new TextDecoder('utf-8', { fatal: true });
    try {
      // Half a letter at the end is none yet.
      decoder.decode(bytes.subarray(0, middle), { stream: true });
      low = middle;
    } catch {
      high = middle - 1;
    }
  }
  return bytes.subarray(0, low).toString('utf8').split('\n').length;
}

/** A file of a workspace that is to become this text, or go. */
export interface Write {
  path: string;
  text: string | null;
  /** What it has to be still, null for not being there; absent where that does not matter. */
  was?: string | null | undefined;
}

/** Writes files of a workspace into a folder; whether all were: not those that are something else by now. */
export function writeIntoFolder(folder: string, writes: readonly Write[]): boolean {
  return Directory.in(folder, (root) =>
    writes.map((write) => writeBelow(root, write.path.split('/'), write)).every(Boolean),
  );
}

function writeBelow(directory: Directory, [name, ...rest]: string[], write: Write): boolean {
  const { text, was } = write;
  try {
    if (rest.length > 0)
      return directory.within(name!, (inner) => writeBelow(inner, rest, write), text !== null);
    const now = textNow(directory, name!);
    if (was !== undefined && now !== was) return false;
    if (text === null) directory.remove(name!);
    else directory.write(name!, text);
    return true;
  } catch (caught) {
    // In a folder that is not there, there is nothing to remove.
    if (caught instanceof NotOpened) return caught.why === 'gone' && text === null;
    throw caught;
  }
}

function textNow(directory: Directory, name: string): string | null {
  try {
    return (directory.read(name, WORKSPACE_FILE_BYTES) ?? Buffer.alloc(0))
      .toString('utf8')
      .replace(/^\uFEFF/, '');
  } catch (caught) {
    if (caught instanceof NotOpened && caught.why === 'gone') return null;
    throw caught;
  }
}

/** Writes a file whole or not at all: whoever reads it meanwhile, or is killed, finds the former text or the new one. */
export function writeWhole(file: string, text: string): void {
  const beside = `${file}.${process.pid}.tavro-new`;
  try {
    writeFileSync(beside, text);
    renameSync(beside, file);
  } catch (caught) {
    rmSync(beside, { force: true });
    throw caught;
  }
}
