'use client';
/** Calls to the server, with its words when it refuses and ours when it cannot be reached. */
import { LEAVING_BYTES } from '@/core/limits';
import { addressHere } from './address';

export type Reply<T> =
  | { ok: true; status: number; body: T }
  | { ok: false; status: number; says: string; body: unknown };

/** Asks for something of the workspace that the page is about. */
export function get<T>(path: string): Promise<Reply<T>> {
  return call('GET', path);
}

/** Whether a body is sent to its end even when the page is left meanwhile. */
export function sendsOnLeaving(body: unknown): boolean {
  return new Blob([JSON.stringify(body)]).size < LEAVING_BYTES;
}

export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<Reply<T>> {
  const content = body === undefined ? null : JSON.stringify(body);
  const headers =
    content === null ? {} : { body: content, headers: { 'content-type': 'application/json' } };
  const keepalive =
    method === 'PUT' && content !== null && new Blob([content]).size < LEAVING_BYTES;
  let response: Response;
  try {
    const address = addressHere(path);
    const send = () => fetch(address, { method, ...headers });
    // Several at once may exceed what browsers keep alive; then it is sent as usual.
    response = await (keepalive
      ? fetch(address, { method, keepalive, ...headers }).catch(send)
      : send());
  } catch {
    return { ok: false, status: 0, says: 'The server is out of reach.', body: null };
  }
  try {
    const text = await response.text();
    const read: unknown = text === '' ? null : JSON.parse(text);
    if (response.ok) return { ok: true, status: response.status, body: read as T };
    const says = (read as { says?: string } | null)?.says ?? 'The server refused.';
    return { ok: false, status: response.status, says, body: read };
  } catch {
    return {
      ok: false,
      status: response.ok ? 502 : response.status,
      says: 'The answer of the server broke off.',
      body: null,
    };
  }
}
