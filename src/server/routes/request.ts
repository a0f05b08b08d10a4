/** What every route does: read a bounded body with a schema, and answer failures in words with the right status. */
import { REQUEST_BYTES } from '../../core/limits';
import * as z from 'zod';
import { oddIn } from '../../core/form/plain-json';
import { isOutOfRoom, isTooSlow, isUnreachable, MaybeSaved } from '../database/database';
import { inWorkspace } from '../database/current-workspace';
import { workspaceAt } from '../workspaces/registry';
import { apiError } from './guard';
import { Refusal } from '../http/refusal';

/** Reads a JSON body. Throws a Refusal: 413 when it is too large, 415 when it does not say that it is JSON, 400 when it is none or not what is asked for. */
export async function readBody<T>(
  request: Request,
  body: z.ZodType<T>,
  most = REQUEST_BYTES,
): Promise<T> {
  if (!/^application\/json\s*(?:;|$)/i.test(request.headers.get('content-type') ?? ''))
    throw new Refusal(415, 'The body has to be JSON: say so with content-type: application/json.');
  const offered = parsed(await readBytes(request, most));
  const odd = oddIn(offered);
  if (odd !== null) throw new Refusal(400, `The body ${odd}.`);
  return fitting(offered, body, 'The body is not what is asked for');
}

/** Likewise, of a request that may have no body, which RFC 9112, 6.3 tells by its headers: that is an empty object. */
export async function readBodyIfAny<T>(request: Request, body: z.ZodType<T>): Promise<T> {
  const length = request.headers.get('content-length');
  const none = length === null ? !request.headers.has('transfer-encoding') : length === '0';
  return none ? fitting({}, body, 'The body is missing') : readBody(request, body);
}

function parsed(bytes: Buffer): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch (caught) {
    throw new Refusal(
      400,
      caught instanceof SyntaxError ? 'The body is not JSON.' : 'The body is not UTF-8.',
    );
  }
}

/** Reads the query of a request; each parameter occurs once. Throws a Refusal (400) for anything else. */
export function readQuery<T>(request: Request, query: z.ZodType<T>): T {
  const given = new URL(request.url).searchParams;
  const odd = oddIn([...given]);
  if (odd !== null) throw new Refusal(400, `The address ${odd}.`);
  const twice = [...given.keys()].find((name, i, all) => all.indexOf(name) !== i);
  if (twice !== undefined)
    throw new Refusal(400, `The address says "${twice.slice(0, 60)}" twice.`);
  return fitting(Object.fromEntries(given), query, 'The address is not what is asked for');
}

function fitting<T>(offered: unknown, schema: z.ZodType<T>, otherwise: string): T {
  const result = schema.safeParse(offered);
  if (result.success) return result.data;
  const { issues } = result.error;
  const first = new z.ZodError(issues.slice(0, 20));
  throw new Refusal(
    400,
    `${otherwise}:\n${z.prettifyError(first)}${issues.length > 20 ? `\n… and ${issues.length - 20} more` : ''}`.slice(
      0,
      4000,
    ),
  );
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

const says = (status: number, words: string, headers: Readonly<Record<string, string>> = {}) =>
  Response.json({ says: words }, { status, headers });

/** Runs a route's work in the workspace that the address names, unless the request is refused for where it comes from, and turns what it throws into an answer. */
export async function answer(request: Request, work: () => Promise<Response>): Promise<Response> {
  const fault = apiError(request);
  if (fault !== null) return says(fault.status, fault.says);
  try {
    const workspace = await workspaceAt(new URL(request.url).pathname);
    if (workspace === null) return says(404, 'There is no such workspace.');
    return await inWorkspace(workspace, work);
  } catch (caught) {
    if (caught instanceof Refusal) return says(caught.status, caught.message, caught.headers);
    if (caught instanceof MaybeSaved)
      return says(
        503,
        'The connection to the database broke while this was being saved. Reload to see whether it was.',
        { 'retry-after': '5' },
      );
    if (isUnreachable(caught))
      return says(503, 'The database is out of reach. Nothing was saved.', { 'retry-after': '5' });
    if (isOutOfRoom(caught))
      return says(
        507,
        'The database has no room left: its disk or its memory is full. Nothing was saved.',
      );
    if (isTooSlow(caught))
      return says(
        503,
        'The database took too long. Nothing was saved. Search for something more exact.',
      );
    console.error(caught);
    return says(500, 'Something went wrong on the server. Nothing was saved.');
  }
}
