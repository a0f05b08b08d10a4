/**
 * What was worked out before, kept in the user's cache folder by what it was worked out from: compiled scripts and what
 * was found in sources. It can be removed at any time; what cannot be read, or is of another version, is worked out again.
 */
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import type * as z from 'zod';

/** What the compiler and the checks were built from; set by scripts/build-node.mjs. */
declare const TAVRO_LANGUAGE: string;

/** Kept that long without being used: thirty days, in milliseconds. */
const OLDEST = 30 * 24 * 60 * 60 * 1000;

/** The folder: `TAVRO_CACHE`, else the user's, as the XDG Base Directory Specification has it; null for `TAVRO_CACHE=off`. */
function cacheFolder(): string | null {
  const { TAVRO_CACHE: named, XDG_CACHE_HOME: users } = process.env;
  if (named === 'off') return null;
  return (
    named ?? join(users === undefined || users === '' ? join(homedir(), '.cache') : users, 'tavro')
  );
}

/** Makes the folder and the one it is in. Not all at once: Node.js never ends where the system takes none, as in /proc. */
function makeFolder(folder: string): void {
  for (const path of [dirname(folder), folder])
    if (!existsSync(path)) mkdirSync(path, { mode: 0o700 });
}

export class Cache {
  readonly #folder = cacheFolder();
  #tidied = false;

  /** What is kept of this sort for what it came of; null where there is nothing that fits the schema. */
  read<T>(sort: string, of: readonly string[], schema: z.ZodType<T>): T | null {
    if (this.#folder === null) return null;
    try {
      return schema.parse(JSON.parse(readFileSync(this.#path(this.#folder, sort, of), 'utf8')));
    } catch {
      return null;
    }
  }

  /** Keeps it, where there is room for it. */
  keep(sort: string, of: readonly string[], value: unknown): void {
    if (this.#folder === null) return;
    try {
      makeFolder(this.#folder);
      const path = this.#path(this.#folder, sort, of);
      // Another command may read it at this moment.
      writeFileSync(`${path}.${process.pid}`, JSON.stringify(value));
      renameSync(`${path}.${process.pid}`, path);
      this.#tidy(this.#folder);
    } catch {
      // A folder that cannot be written only makes the next command slower.
    }
  }

  #path(folder: string, sort: string, of: readonly string[]): string {
    const digest = createHash('sha256')
      .update(JSON.stringify([TAVRO_LANGUAGE, sort, of]))
      .digest('hex');
    return join(folder, `${sort}-${digest}.json`);
  }

  /** Removes what nobody has used for long. */
  #tidy(folder: string): void {
    if (this.#tidied) return;
    this.#tidied = true;
    for (const name of readdirSync(folder)) {
      const path = join(folder, name);
      const { atimeMs, mtimeMs } = statSync(path);
      if (Date.now() - Math.max(atimeMs, mtimeMs) > OLDEST) rmSync(path, { force: true });
    }
  }
}
