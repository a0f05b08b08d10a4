/** What the attacks share: how thorough they are, and the report of what was tried and what came out. */
import { mkdirSync, writeFileSync } from 'node:fs';

/** `npm run attack` tries everything; `npm test` a quick part of it. */
export const thorough = process.env.TAVRO_ATTACK === 'all';

/** Every so many-th of a list, so that the quick part still meets every sort of it. */
export function someOf<T>(all: readonly T[], every: number): T[] {
  return thorough ? [...all] : all.filter((_, i) => i % every === 0);
}

/** Keeps a line of the table in docs/trust.md, where everything was tried. */
export function report(attack: string, tried: number, came: string): void {
  if (!thorough) return;
  mkdirSync('.data/attacks', { recursive: true });
  const name = attack.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  writeFileSync(`.data/attacks/${name}.json`, JSON.stringify({ attack, tried, came }));
}

export const base = process.env.TAVRO_URL ?? '';
export const OWN_ORIGIN = { origin: base };

/** Milliseconds below which so many percent of times lie. */
export function percentile(times: readonly number[], percent: number): number {
  const sorted = times.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor((percent / 100) * sorted.length))]!;
}
