/** What the server is told by its environment. */
import * as z from 'zod';

const Environment = z.object({
  DATABASE_URL: z.string({ error: 'DATABASE_URL is not set. Start the app with npm start.' }),
  /** Names under which the app is reached besides this machine's own, separated by commas. */
  TAVRO_HOSTS: z.string().default(''),
  /** Folders that are opened as workspaces, or below which some can be, separated as in PATH. */
  TAVRO_FOLDERS: z.string().default(''),
});

/** Read on each call, since tests set the environment late. Throws an Error that says what is missing. */
export function environment<K extends keyof z.infer<typeof Environment>>(
  name: K,
): z.infer<typeof Environment>[K] {
  const read = Environment.shape[name].safeParse(process.env[name]);
  if (!read.success) throw new Error(read.error.issues[0]!.message);
  return read.data as z.infer<typeof Environment>[K];
}
