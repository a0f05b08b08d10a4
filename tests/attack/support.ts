/** What the attacks share: how thorough they are, and the report of what was tried and what came out. */
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { someOf, thorough } from '../support/thorough';

export { someOf, thorough };

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

/** Every route of the app, by its folder. */
export function routes(): string[] {
  const found: string[] = [];
  const walk = (below: string) => {
    for (const entry of readdirSync(join('src/app', below), { withFileTypes: true })) {
      if (entry.isDirectory()) walk(`${below}/${entry.name}`);
      else if (entry.name === 'route.ts' || entry.name === 'page.tsx')
        found.push(below === '' ? '/' : below);
    }
  };
  walk('');
  return found.toSorted();
}

/** What parameters of routes are when they are right. */
const RIGHT: Record<string, string> = { form: 'berth_visit', name: '10-arrival.ts', id: '2' };
/** A route with parameters that are there in the demo. */
export const addressOf = (route: string) =>
  route.replace(/\[(\w+)\]/g, (_, name: string) =>
    route.startsWith('/api/tables') || route.startsWith('/tables')
      ? 'berths'
      : route.startsWith('/api/services') || route.startsWith('/services')
        ? 'ship_register'
        : RIGHT[name]!,
  );
