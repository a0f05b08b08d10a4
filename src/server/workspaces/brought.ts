/** The body with which a folder is brought: a zip of it, or its files. */
import * as z from 'zod';
import { FILES_PER_WORKSPACE, WORKSPACE_FILE_BYTES, ZIP_BYTES } from '../../core/limits';
import type { Brought } from './taking';

/** A zip in base64 takes four characters for three bytes, and the rest of the body some. */
export const BROUGHT_BYTES = Math.ceil((ZIP_BYTES * 4) / 3) + 64 * 1024;

export const BroughtSchema = z.union([
  z.strictObject({ zip: z.base64() }),
  z.strictObject({
    files: z
      .array(z.tuple([z.string().max(300), z.string().max(WORKSPACE_FILE_BYTES)]))
      .max(FILES_PER_WORKSPACE),
  }),
]);

export function asBrought(body: z.infer<typeof BroughtSchema>): Brought {
  return 'zip' in body ? { zip: Buffer.from(body.zip, 'base64') } : body;
}
