/** Why a file could not be read, in a sentence. */
export function textError(file: string, caught: unknown): string {
  const { code } = caught as { code?: string };
  if (code === 'EISDIR') return `${file} is a folder.`;
  return code === 'ENOENT'
    ? `there is no file ${file}.`
    : `cannot read ${file}: ${(caught as Error).message}`;
}
