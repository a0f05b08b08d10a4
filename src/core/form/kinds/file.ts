/** Files: what is known of each (name, size, type). Their content never enters a session; the server keeps it. */
import { CHOSEN_FILE_BYTES } from '../../limits';
import type { FieldOf } from '../definition';
import { bytesInWords } from '../reading';
import type { Kind } from './kind';

export interface FileValue {
  readonly name: string;
  /** Bytes. */
  readonly size: number;
  /** Media type (RFC 6838); empty when the browser knows none. */
  readonly type: string;
  /** SHA-256 of the content in hexadecimal, once the server has it: it tells two files of one name apart. */
  readonly digest?: string;
}

const isDigest = (offered: unknown): offered is string =>
  typeof offered === 'string' && /^[0-9a-f]{64}$/.test(offered);

const TAKES = 'a list of files, each { name, size, type }';

function readFile(offered: unknown): FileValue | null {
  if (typeof offered !== 'object' || offered === null) return null;
  const { name, size, type, digest } = offered as Record<string, unknown>;
  if (typeof name !== 'string' || name === '' || name.length > 255 || typeof type !== 'string')
    return null;
  if (typeof size !== 'number' || !Number.isInteger(size) || size < 0) return null;
  if (digest === undefined || digest === null) return { name, size, type };
  return isDigest(digest) ? { name, size, type, digest } : null;
}

export const file: Kind<FieldOf<'file'>> = {
  accept(offered) {
    if (!Array.isArray(offered)) return { ok: false, takes: TAKES };
    const files = (offered as unknown[]).map(readFile);
    if (files.includes(null)) return { ok: false, takes: TAKES };
    return { ok: true, value: files as never };
  },
  check(value, field) {
    const files = value as unknown as readonly FileValue[];
    const most = field.maxFiles ?? 1;
    if (files.length > most)
      return { code: 'tooMany', says: most === 1 ? 'One file at most.' : `${most} files at most.` };
    const bytes = field.maxBytes ?? CHOSEN_FILE_BYTES;
    const large = files.find(({ size }) => size > bytes);
    if (large !== undefined)
      return {
        code: 'rangeOverflow',
        says: `${large.name} has ${bytesInWords(large.size)}; at most ${bytesInWords(bytes)}.`,
      };
    const other =
      field.types === undefined
        ? undefined
        : files.find(({ type }) => !field.types!.some((wanted) => isOfType(type, wanted)));
    if (other !== undefined)
      return {
        code: 'typeMismatch',
        says: `${other.name} is not one of ${field.types!.join(', ')}.`,
      };
    return null;
  },
  type: () => 'readonly FileValue[]',
};

function isOfType(type: string, wanted: string): boolean {
  return wanted.endsWith('/*') ? type.startsWith(wanted.slice(0, -1)) : type === wanted;
}
