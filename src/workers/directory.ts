/**
 * A real folder that is held open. What stands in it is opened by its name below the open folder and never through a
 * link, so that nothing outside is read or written whatever is put in the place of a folder meanwhile. Linux opens below
 * an open folder by /proc/self/fd (proc(5)); elsewhere the last part of a path is not followed where it is a link.
 */
import {
  closeSync,
  constants,
  existsSync,
  fstatSync,
  lstatSync,
  mkdirSync,
  opendirSync,
  openSync,
  readSync,
  renameSync,
  rmSync,
  writeSync,
  type Stats,
} from 'node:fs';
import { join } from 'node:path';

const { O_CREAT, O_DIRECTORY, O_EXCL, O_NOFOLLOW, O_NONBLOCK, O_RDONLY, O_WRONLY } = constants;

const BELOW_OPEN = existsSync('/proc/self/fd');

/** Why what stands at a name is not opened: it is a link, a pipe, a device, not there, or the system refuses. */
export class NotOpened extends Error {
  readonly why: 'link' | 'special' | 'gone' | 'refused';
  constructor(why: NotOpened['why'], says: string) {
    super(says);
    this.why = why;
  }
}

function notOpened(caught: unknown): NotOpened {
  if (caught instanceof NotOpened) return caught;
  const { code = 'no reason is known' } = caught as { code?: string };
  if (code === 'ENOENT') return new NotOpened('gone', 'is not there');
  if (code === 'ELOOP' || code === 'EMLINK') return new NotOpened('link', 'is a link');
  return new NotOpened(
    'refused',
    code === 'EACCES' ? 'may not be read by this user' : `cannot be read (${code})`,
  );
}

/** What is neither a file nor a folder, in words; null for those. */
function oddity(stats: Stats): NotOpened | null {
  if (stats.isFile() || stats.isDirectory()) return null;
  if (stats.isSymbolicLink()) return new NotOpened('link', 'is a link');
  const sort = stats.isFIFO() ? 'a pipe' : stats.isSocket() ? 'a socket' : 'a device';
  return new NotOpened('special', `is ${sort}`);
}

export class Directory {
  constructor(
    private readonly fd: number,
    private readonly path: string,
  ) {}

  /** Does work in the folder at a path, which may lead there through links. Throws what the system says where there is none. */
  static in<T>(path: string, work: (directory: Directory) => T): T {
    return Directory.#held(new Directory(openSync(path, O_RDONLY | O_DIRECTORY), path), work);
  }

  /** Does work in the folder of a name, made where `make` says so. Throws NotOpened. */
  within<T>(name: string, work: (inner: Directory) => T, make = false): T {
    return Directory.#held(this.#folder(name, make), work);
  }

  static #held<T>(directory: Directory, work: (directory: Directory) => T): T {
    try {
      return work(directory);
    } finally {
      closeSync(directory.fd);
    }
  }

  /** The path by which a name below this folder is reached. */
  #of(name: string): string {
    return BELOW_OPEN ? `/proc/self/fd/${this.fd}/${name}` : join(this.path, name);
  }

  /** The names in it, of at most so many; null where there are more. */
  names(most: number): string[] | null {
    const names: string[] = [];
    const entries = opendirSync(BELOW_OPEN ? `/proc/self/fd/${this.fd}` : this.path);
    try {
      for (let entry = entries.readSync(); entry !== null; entry = entries.readSync()) {
        if (names.length >= most) return null;
        names.push(entry.name);
      }
    } finally {
      entries.closeSync();
    }
    return names.sort();
  }

  /** What stands at a name. Throws NotOpened for what is neither a file nor a folder. */
  sort(name: string): 'file' | 'folder' {
    try {
      const stats = lstatSync(this.#of(name));
      const odd = oddity(stats);
      if (odd !== null) throw odd;
      return stats.isDirectory() ? 'folder' : 'file';
    } catch (caught) {
      throw notOpened(caught);
    }
  }

  #folder(name: string, make: boolean): Directory {
    try {
      if (make) mkdirSync(this.#of(name), { recursive: false });
    } catch (caught) {
      if ((caught as { code?: string }).code !== 'EEXIST') throw notOpened(caught);
    }
    try {
      const fd = openSync(this.#of(name), O_RDONLY | O_DIRECTORY | O_NOFOLLOW);
      return new Directory(fd, join(this.path, name));
    } catch (caught) {
      const { code } = caught as { code?: string };
      // Linux says of a link, too, that it is no folder.
      if (code === 'ENOTDIR') {
        this.sort(name);
        throw new NotOpened('special', 'is no folder');
      }
      throw notOpened(caught);
    }
  }

  /** The bytes of a file; null where it has more than `most`. Throws NotOpened. */
  read(name: string, most: number): Buffer | null {
    // A pipe would wait here for whoever writes into it.
    this.sort(name);
    let fd: number;
    try {
      fd = openSync(this.#of(name), O_RDONLY | O_NOFOLLOW | O_NONBLOCK);
    } catch (caught) {
      throw notOpened(caught);
    }
    try {
      const stats = fstatSync(fd);
      if (!stats.isFile()) throw oddity(stats) ?? new NotOpened('special', 'is a folder');
      if (stats.size > most) return null;
      const chunks: Buffer[] = [];
      for (let size = 0; ;) {
        const chunk = Buffer.alloc(Math.min(most + 1 - size, Math.max(stats.size - size, 4096)));
        const read = readSync(fd, chunk);
        if (read === 0) return Buffer.concat(chunks);
        size += read;
        // It grew while it was read.
        if (size > most) return null;
        chunks.push(chunk.subarray(0, read));
      }
    } finally {
      closeSync(fd);
    }
  }

  /** Writes a file whole or not at all, in the place of whatever stood at the name. */
  write(name: string, text: string): void {
    const beside = `${name}.${process.pid}.tavro-new`;
    rmSync(this.#of(beside), { force: true });
    try {
      const fd = openSync(this.#of(beside), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW, 0o666);
      try {
        const bytes = Buffer.from(text);
        for (let at = 0; at < bytes.length;) at += writeSync(fd, bytes, at);
      } finally {
        closeSync(fd);
      }
      renameSync(this.#of(beside), this.#of(name));
    } catch (caught) {
      rmSync(this.#of(beside), { force: true });
      throw caught;
    }
  }

  remove(name: string): void {
    rmSync(this.#of(name), { force: true });
  }
}
