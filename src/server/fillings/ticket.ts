/**
 * Looking at a form to be filled in saves nothing. What the server said when it handed the form out (who, which record
 * at which revision, when, by which release) goes along as a ticket, signed so that nobody can write one; it becomes a
 * filling-in when something is entered.
 */
import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { eq } from 'drizzle-orm';
import * as z from 'zod';
import { ValuesSchema } from '../../core/session/schema';
import { database } from '../database/database';
import * as schema from '../database/schema';
import { perWorkspace } from '../database/current-workspace';

const TicketSchema = z.strictObject({
  release: z.int(),
  person: z.string(),
  record: z.strictObject({ id: z.string(), revision: z.int() }).nullable(),
  launch: ValuesSchema,
  clock: z.number(),
  seed: z.int(),
  viewing: z.boolean(),
  /** The filling-in it is opened from. */
  parent: z.uuid().nullable(),
  /** One form handed out is one filling-in, however often it is begun. */
  filling: z.uuid(),
});
export type Ticket = z.infer<typeof TicketSchema>;

const NAME = 'ticket';

/** The same for all processes on one database; made when it is first needed, and never changed. */
const known = perWorkspace('signing key', (): { secret: string | null } => ({ secret: null }));

async function secret(): Promise<string> {
  const mine = known();
  mine.secret ??= await readSecret();
  return mine.secret;
}

async function readSecret(): Promise<string> {
  const read = async () =>
    (await database().select().from(schema.secret).where(eq(schema.secret.name, NAME)))[0]?.value;
  const there = await read();
  if (there !== undefined) return there;
  await database()
    .insert(schema.secret)
    .values({ name: NAME, value: randomBytes(32).toString('base64url') })
    .onConflictDoNothing();
  return (await read())!;
}

async function signature(text: string): Promise<Buffer> {
  return createHmac('sha256', await secret())
    .update(text)
    .digest();
}

export async function signed(ticket: Ticket): Promise<string> {
  const text = Buffer.from(JSON.stringify(ticket)).toString('base64url');
  return `${text}.${(await signature(text)).toString('base64url')}`;
}

/** The ticket behind a text; null for one that this server did not sign. */
export async function readTicket(text: string): Promise<Ticket | null> {
  const [body = '', mark = ''] = text.split('.');
  const [given, wanted] = [Buffer.from(mark, 'base64url'), await signature(body)];
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null;
  return TicketSchema.parse(JSON.parse(Buffer.from(body, 'base64url').toString('utf8')));
}
