'use client';
/** Calls to the server, with its words when it refuses and ours when it cannot be reached. */
import { useEffect, useState } from 'react';

export type Reply<T> = { ok: true; status: number; body: T } | { ok: false; status: number; says: string; body: unknown };

/** Asks for something. */
export function get<T>(path: string): Promise<Reply<T>> {
  return call('GET', path);
}

export async function call<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<Reply<T>> {
  try {
    const response = await fetch(path, {
      method,
      // What is sent while the page is being left still arrives.
      keepalive: method === 'PUT',
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    const text = await response.text();
    const read: unknown = text === '' ? null : JSON.parse(text);
    if (response.ok) return { ok: true, status: response.status, body: read as T };
    const says = (read as { says?: string } | null)?.says ?? 'The server refused.';
    return { ok: false, status: response.status, says, body: read };
  } catch {
    return { ok: false, status: 0, says: 'The server is out of reach.', body: null };
  }
}

/** What a path answers: null until it has, then the answer or why there is none. Asked anew when `again` differs. */
export function useFetched<T>(path: string, again: unknown = null): { body: T } | { says: string } | null {
  const [fetched, setFetched] = useState<{ body: T } | { says: string } | null>(null);
  useEffect(() => {
    let here = true;
    void get<T>(path).then((reply) => {
      if (here) setFetched(reply.ok ? { body: reply.body } : { says: reply.says });
    });
    return () => {
      here = false;
    };
  }, [path, again]);
  return fetched;
}
