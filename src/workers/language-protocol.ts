/** The messages between the bench and the language worker. */
import { z } from 'zod';

const Source = z.strictObject({ name: z.string(), text: z.string() });

export const LanguageRequest = z.discriminatedUnion('do', [
  z.strictObject({ id: z.number(), do: z.literal('surround'), typings: z.string() }),
  z.strictObject({ id: z.number(), do: z.literal('put'), source: Source, diagnose: z.boolean() }),
  z.strictObject({ id: z.number(), do: z.literal('diagnose'), name: z.string() }),
  z.strictObject({ id: z.number(), do: z.literal('complete'), source: Source, position: z.number() }),
  z.strictObject({ id: z.number(), do: z.literal('explain'), name: z.string(), position: z.number() }),
]);
export type LanguageRequest = z.infer<typeof LanguageRequest>;

export const LanguageReply = z.object({ id: z.number(), answer: z.unknown() });
export type LanguageReply = z.infer<typeof LanguageReply>;
