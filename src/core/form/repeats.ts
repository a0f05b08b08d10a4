/** The places of what stands before them already, from 0: where a list of keys has one twice. */
export function repeatsIn(keys: readonly string[]): number[] {
  const seen = new Set<string>();
  return keys.flatMap((key, place) => {
    if (seen.has(key)) return [place];
    seen.add(key);
    return [];
  });
}
