/** What a request that removes something says: the revision it was seen at. */
import * as z from 'zod';

export const Removing = z.strictObject({ from: z.coerce.number().int().min(1) });
