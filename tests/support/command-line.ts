/** The command line as other people's scripts call it, on the demo or on a copy of it with a change. */
import { execFile, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll } from 'vitest';

/** Where the commands of a file of tests keep what they worked out. */
export const CACHE = mkdtempSync(join(tmpdir(), 'tavro-cache-'));
afterAll(() => rmSync(CACHE, { recursive: true, force: true }));

export function tavro(args: string[], input = '', cache = CACHE) {
  const { status, stdout, stderr } = spawnSync('node', ['dist/tavro.mjs', ...args], {
    encoding: 'utf8',
    input,
    // One that hangs is ended, and then has no status.
    timeout: 1_200_000,
    env: { ...process.env, TAVRO_CACHE: cache },
  });
  return { status, stdout, stderr };
}

/** The same while this process goes on, so that it can be what the command talks to. */
export function tavroAsync(
  ...args: string[]
): Promise<{ status: number; stdout: string; stderr: string }> {
  return new Promise((resolve) => {
    execFile(
      'node',
      ['dist/tavro.mjs', ...args],
      { timeout: 1_200_000, env: { ...process.env, TAVRO_CACHE: CACHE } },
      (error, stdout, stderr) =>
        resolve({ status: error === null ? 0 : Number(error.code), stdout, stderr }),
    );
  });
}

export function copyOfDemo(change?: { file: string; from: string; to: string }): string {
  const folder = join(mkdtempSync(join(tmpdir(), 'tavro-')), 'demo');
  cpSync('demo', folder, { recursive: true });
  if (change !== undefined) {
    const file = join(folder, change.file);
    writeFileSync(file, readFileSync(file, 'utf8').replace(change.from, change.to));
  }
  return folder;
}
