/** What a worker for scripts replies. With the small edition of Zod, since pages read it. */
import * as z from 'zod/mini';

export const LanguageReply = z.object({ id: z.number(), answer: z.unknown() });
export type LanguageReply = z.infer<typeof LanguageReply>;
