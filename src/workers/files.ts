/** Reading a workspace folder from disk. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** What belongs to a workspace; anything else in the folder is not looked at. */
const WANTED = /^(?:workspace\.json|tables\/[^/]+\.(?:json|csv)|services\/[^/]+\.json|forms\/[^/]+\/(?:form\.json|records\.json|behaviours\/[^/]+\.[jt]s|scenarios\/[^/]+\.json))$/;

/** The texts of a workspace folder by path. Throws with a plain message when there is no such folder. */
export function readFolder(folder: string): Map<string, string> {
  const files = new Map<string, string>();
  const walk = (below: string) => {
    for (const entry of readdirSync(join(folder, below)).sort()) {
      const path = below === '' ? entry : `${below}/${entry}`;
      if (entry.startsWith('.') || entry === 'node_modules') continue;
      if (statSync(join(folder, path)).isDirectory()) walk(path);
      else if (WANTED.test(path)) files.set(path, readFileSync(join(folder, path), 'utf8'));
    }
  };
  walk('');
  return files;
}
