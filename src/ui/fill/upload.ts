/** Files on their way to the server. */
import { addressHere } from '../address';
import type { FileValue } from '@/core/form/kinds';
import type { Filling } from './use-filling';

/** Keeps the content of a file on the server, for this filling-in. */
export async function upload(
  form: string,
  session: Filling,
  file: File,
  field: string,
): Promise<FileValue> {
  const query = new URLSearchParams({
    filling: await session.begin(),
    field,
    name: file.name,
    type: file.type,
  });
  const response = await fetch(addressHere(`/api/fill/${form}/files?${query.toString()}`), {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  }).catch(() => null);
  if (response === null) throw new Error('The server is out of reach, so the file was not kept.');
  const body = (await response.json()) as FileValue & { says?: string };
  if (!response.ok) throw new Error(body.says ?? 'The server did not take the file.');
  return body;
}
