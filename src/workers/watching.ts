/** What is said between the server and the thread that watches its live folders (`watch.thread.ts`). */
import * as z from 'zod';

/** Begins to watch a folder under a number, or ends that. */
export const WatchRequestSchema = z.object({ id: z.int(), folder: z.string().nullable() });
export type WatchRequest = z.infer<typeof WatchRequestSchema>;

/** Something changed, or watching failed. */
export const WatchReplySchema = z.object({ id: z.int(), failed: z.string().nullable() });
export type WatchReply = z.infer<typeof WatchReplySchema>;
