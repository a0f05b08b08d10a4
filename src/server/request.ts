/** What every route does: read a bounded body with a schema, and answer failures in words with the right status. */
import { cookies } from 'next/headers';
import * as z from 'zod';
import type { Person } from '../core/form/table';
import { isUnreachable } from './database';
import { readHead } from './store';

/** A filled-in form of thousands of steps stays far below it. */
const MOST_BYTES = 2 * 1024 * 1024;

/** An answer of its own, thrown out of a route's work. */
export class Refusal extends Error {
  readonly status: number;
  constructor(status: number, says: string) {
    super(says);
    this.status = status;
  }
}

/** Reads a JSON body. Throws a Refusal: 413 when it is too large, 400 when it is no JSON or not what is asked for. */
export async function readBody<T>(request: Request, body: z.ZodType<T>, most = MOST_BYTES): Promise<T> {
  const text = (await readBytes(request, most)).toString('utf8');
  let offered: unknown;
  try {
    offered = JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The body is not JSON.');
  }
  const result = body.safeParse(offered);
  if (!result.success) throw new Refusal(400, `The body is not what is asked for:\n${z.prettifyError(result.error)}`);
  return result.data;
}

/** Reads a body of at most so many bytes. Throws a Refusal with 413 when it is larger. */
export async function readBytes(request: Request, most: number): Promise<Buffer> {
  const tooLarge = () => new Refusal(413, `The body is larger than ${most / 1024 / 1024} MB.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of request.body ?? []) {
    size += (chunk as Uint8Array).length;
    if (size > most) throw tooLarge();
    chunks.push(chunk as Uint8Array);
  }
  return Buffer.concat(chunks);
}

/** Runs a route's work and turns what it throws into an answer. */
export async function answer(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (caught) {
    if (caught instanceof Refusal) return Response.json({ says: caught.message }, { status: caught.status });
    if (isUnreachable(caught)) return Response.json({ says: 'The database is out of reach. Nothing was saved.' }, { status: 503 });
    console.error(caught);
    return Response.json({ says: 'Something went wrong on the server. Nothing was saved.' }, { status: 500 });
  }
}

export const PERSON_COOKIE = 'tavro_person';

/** Who is using the app. Stands in for a sign-in: the choice is kept in a cookie, the first person is the default. */
export async function currentPerson(): Promise<Person> {
  const { people } = await readHead();
  const chosen = (await cookies()).get(PERSON_COOKIE)?.value;
  return people.find((person) => person.key === chosen) ?? people[0]!;
}
