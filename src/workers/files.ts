/** Reading a workspace folder from disk. */
import { WORKSPACE_FILE_BYTES } from '../core/limits';
import {
  readdirSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { FileError } from '../core/workspace/json';
import { isWorkspaceFile } from '../core/workspace/path';
import { BrokenWorkspace } from '../core/workspace/workspace';

/** The texts of a workspace folder by path. Throws with a plain message when there is no such folder, and BrokenWorkspace for files that cannot be read as texts. */
export function readFolder(folder: string): Map<string, string> {
  const files = new Map<string, string>();
  const errors: FileError[] = [];
  const walk = (below: string, above: ReadonlySet<string>) => {
    const real = realpathSync(join(folder, below));
    // A link that leads back to where it stands.
    if (above.has(real)) return;
    for (const entry of readdirSync(join(folder, below)).sort()) {
      const path = below === '' ? entry : `${below}/${entry}`;
      if (entry.startsWith('.') || entry === 'node_modules') continue;
      const stat = statSync(join(folder, path), { throwIfNoEntry: false });
      if (stat?.isDirectory() === true) walk(path, new Set([...above, real]));
      else if (isWorkspaceFile(path)) {
        const text = textOf(join(folder, path), stat?.size ?? null);
        if ('says' in text) errors.push({ file: path, line: text.line, path: [], says: text.says });
        else files.set(path, text.text);
      }
    }
  };
  walk('', new Set());
  if (errors.length > 0) throw new BrokenWorkspace(errors);
  return files;
}

function textOf(
  file: string,
  size: number | null,
): { text: string } | { says: string; line: number } {
  if (size === null) return { says: 'is a link that leads nowhere', line: 1 };
  if (size > WORKSPACE_FILE_BYTES)
    return {
      says: `has ${Math.round(size / 1024 / 1024)} MB; a file of a workspace has at most ${WORKSPACE_FILE_BYTES / 1024 / 1024}`,
      line: 1,
    };
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch (caught) {
    const { code } = caught as { code?: string };
    return {
      says:
        code === 'EACCES'
          ? 'may not be read by this user'
          : `cannot be read (${code ?? 'no reason is known'})`,
      line: 1,
    };
  }
  try {
    // A byte order mark says what UTF-8 is anyway, and is left out.
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    return { says: 'is not a text in UTF-8', line: lineOfFirstOdd(bytes) };
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
