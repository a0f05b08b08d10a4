/** Asking a running app. */
import * as z from 'zod';
import { ZIP_BYTES } from '../core/limits';
import { InvalidCall } from './call';

/** Milliseconds in which the app has to answer. */
const PATIENCE = 60_000;

/** An address of an app on this machine; `named` is what it was given as. Throws InvalidCall for any other. */
export function appAt(address: string, named: string): URL {
  const url = URL.parse(address);
  if (url === null || url.protocol !== 'http:')
    throw new InvalidCall(
      `${named} takes an address such as http://127.0.0.1:3000, not ${address}.`,
    );
  // Nobody signs in yet, so that what is exchanged stays on this machine.
  if (!['127.0.0.1', 'localhost', '[::1]'].includes(url.hostname))
    throw new InvalidCall(`the app has to run on this machine, not on ${url.hostname}.`);
  url.pathname = url.pathname.replace(/\/$/, '');
  return url;
}

/** Sends a request to the app, a POST where there is a `body`, and gives the body of its answer. Throws InvalidCall; a refusal is told in the words of the app. */
export async function ask(app: URL, path: string, body?: object): Promise<Buffer> {
  const response = await fetch(`${app.origin}${app.pathname === '/' ? '' : app.pathname}${path}`, {
    ...(body === undefined
      ? {}
      : {
          method: 'POST',
          body: JSON.stringify(body),
          headers: { 'content-type': 'application/json', origin: app.origin },
        }),
    // No redirect is followed: the request is meant for the app that was named.
    redirect: 'manual',
    signal: AbortSignal.timeout(PATIENCE),
  }).catch((caught: unknown) => {
    const slow = caught instanceof Error && caught.name === 'TimeoutError';
    throw new InvalidCall(
      slow
        ? `the app at ${app.origin} does not answer.`
        : `no app answers at ${app.origin}. Start one with npm start, or name it with --app.`,
    );
  });
  if (response.status >= 300 && response.status < 400)
    throw new InvalidCall(
      `the app at ${app.origin} answered that it is elsewhere. Nothing was sent there; name it with --app if that is meant.`,
    );
  const bytes = await bounded(response, app);
  if (response.ok) return bytes;
  const refused = z.object({ says: z.string() }).safeParse(jsonIn(bytes));
  throw new InvalidCall(
    refused.success
      ? refused.data.says
      : `the app at ${app.origin} answered with status ${response.status}${response.status === 404 ? ': it has no such workspace' : ''}.`,
  );
}

/** The whole body, which is read no further than any answer of an app is long. */
async function bounded(response: Response, app: URL): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  try {
    for await (const chunk of response.body ?? []) {
      size += (chunk as Uint8Array).length;
      if (size > ZIP_BYTES)
        throw new InvalidCall(
          `what ${app.origin} answers is larger than any workspace (${ZIP_BYTES / 1024 / 1024} MB), so it is no such app.`,
        );
      chunks.push(chunk as Uint8Array);
    }
  } catch (caught) {
    if (caught instanceof InvalidCall) throw caught;
    throw new InvalidCall(`the answer of ${app.origin} broke off. Try again.`);
  }
  return Buffer.concat(chunks);
}

export function jsonIn(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    return null;
  }
}
