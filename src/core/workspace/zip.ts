/** A workspace's folder as one zip file (PKWARE APPNOTE 6.3), and back. */
import * as z from 'zod';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { FILES_PER_WORKSPACE, WORKSPACE_BYTES } from '../limits';
import { isWorkspaceFile } from './path';
import { BrokenWorkspace, type Files, type Workspace } from './workspace';
import { digestsOf } from './taking';
import { writeWorkspace } from './write';

/** The earliest moment that a zip can say: the same workspace gives the same bytes, whenever it is packed. */
const EPOCH = new Date('1980-01-01T00:00:00');

/**
 * In what goes out: the digest of each unit, so that what comes back is known from what was changed meanwhile. No file
 * of the workspace's, and left alone by everything else.
 */
export const BASE_FILE = '.tavro-base.json';

const Base = z.record(z.string().max(300), z.string().max(100));

/** What a folder says that it was made from; null where it does not, or not in a way that can be read. */
export function baseIn(files: Files): [string, string][] | null {
  const text = files.get(BASE_FILE);
  if (text === undefined) return null;
  try {
    const read = Base.safeParse(JSON.parse(text));
    return read.success ? Object.entries(read.data) : null;
  } catch {
    return null;
  }
}

/** A zip of the canonical files, below a folder of that name. */
export function packed(
  workspace: Workspace,
  folder: string,
  digest: (text: string) => string,
): Uint8Array {
  const base = `${JSON.stringify(Object.fromEntries(digestsOf(workspace, digest)), null, 2)}\n`;
  const files = Object.fromEntries(
    [...writeWorkspace(workspace), [BASE_FILE, base] as const].map(([path, text]) => [
      `${folder}/${path}`,
      strToU8(text),
    ]),
  );
  return zipSync(files, { mtime: EPOCH, level: 6 });
}

/** The texts in a zip that are a workspace's, by path, whether it stands at the top or in one folder. Throws BrokenWorkspace, in words. */
export function textsIn(bytes: Uint8Array): Files {
  const broken = (says: string, file = 'zip') =>
    new BrokenWorkspace([{ file, line: 1, path: [], says }]);
  let size = 0;
  let count = 0;
  const below = topFolder(bytes);
  if (below === null) throw broken('holds no workspace.json, at its top or in one folder');
  let unzipped: Record<string, Uint8Array>;
  try {
    unzipped = unzipSync(bytes, {
      // What a zip says of its sizes is held to while it is unpacked.
      filter({ name, originalSize }) {
        if (!isTaken(name, below)) return false;
        size += originalSize;
        if (++count > FILES_PER_WORKSPACE)
          throw broken(`holds more than ${FILES_PER_WORKSPACE} files`);
        if (size > WORKSPACE_BYTES)
          throw broken(`unpacks to more than ${WORKSPACE_BYTES / 1024 / 1024} MB`);
        return true;
      },
    });
  } catch (caught) {
    throw caught instanceof BrokenWorkspace
      ? caught
      : broken('cannot be unpacked: it is no zip, or is damaged');
  }
  return new Map(
    Object.entries(unzipped).map(([path, content]) => {
      const text = strFromU8(content);
      if (text.includes('\uFFFD')) throw broken('is not a text in UTF-8', path.slice(below.length));
      return [path.slice(below.length), text.replace(/^\uFEFF/, '')];
    }),
  );
}

const isTaken = (name: string, below: string) => {
  const path = name.slice(below.length);
  return name.startsWith(below) && (isWorkspaceFile(path) || path === BASE_FILE);
};

/** The folder in which the workspace stands, with its `/`; empty at the top, null when there is none. */
function topFolder(bytes: Uint8Array): string | null {
  let found: string | null = null;
  try {
    unzipSync(bytes, {
      filter({ name }) {
        const folder = /^((?:[^/]+\/)?)workspace\.json$/.exec(name)?.[1];
        if (folder !== undefined && (found === null || folder === '')) found = folder;
        return false;
      },
    });
  } catch {
    return '';
  }
  return found;
}
