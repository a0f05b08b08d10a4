/** Watching a folder: nothing that is written in it goes unnoticed. */
import { mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, onTestFinished, test, vi } from 'vitest';
import { watchFolder } from './watch-folder';

test('what is written into a file that has just been replaced is noticed', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'tavro-watched-'));
  mkdirSync(join(folder, 'shared'));
  const file = join(folder, 'shared/dates.ts');
  writeFileSync(file, '// first\n');
  let seen = '';
  const changed = () => void (seen = readFileSync(file, 'utf8'));
  await new Promise<void>((resolve, reject) => {
    const watcher = watchFolder(folder, {
      changed,
      failed: (says) => reject(new Error(says)),
      ready: resolve,
    });
    onTestFinished(async () => {
      await watcher.close();
      rmSync(folder, { recursive: true });
    });
  });
  for (let i = 0; i < 5; i++) {
    writeFileSync(`${file}.tavro-new`, `// by the app ${i}\n`);
    renameSync(`${file}.tavro-new`, file);
    // By now that it was replaced has been told, and what replaced it may not be watched yet.
    await new Promise((resolve) => setTimeout(resolve, 10));
    writeFileSync(file, `// from outside ${i}\n`);
    await vi.waitFor(() => expect(seen).toBe(`// from outside ${i}\n`), 30_000);
  }
});
