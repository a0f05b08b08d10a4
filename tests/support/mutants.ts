/**
 * An app that was built with changes of its sources in it (`npm run mutate-sources -- --browser yes`) asks for each, where
 * it would be, whether it is meant. `TAVRO_MUTANT` is the one that is, 0 for none; `TAVRO_REACHED` a file that notes which
 * test comes to which. Without the former nothing is asked, and nothing here does anything.
 */
import { appendFileSync } from 'node:fs';
import type { BrowserContext, Worker } from '@playwright/test';

const MEANT = process.env.TAVRO_MUTANT;
const REACHED = process.env.TAVRO_REACHED;

/** What a server and its threads are started with; a server does not know its tests, so their file is noted. */
export function mutatedServer(file: string): Record<string, string> {
  if (MEANT === undefined) return {};
  const asked = `
    import { appendFileSync } from 'node:fs';
    const reached = new Set();
    globalThis.__tavroMutant = (number) => {
      if (!reached.has(number)) {
        reached.add(number);
        const line = JSON.stringify({ number, test: ${JSON.stringify(file)} });
        if (process.env.TAVRO_REACHED) appendFileSync(process.env.TAVRO_REACHED, line + '\\n');
      }
      return number === ${MEANT};
    };`;
  return { NODE_OPTIONS: `--import=data:text/javascript,${encodeURIComponent(asked)}` };
}

/** Answers the pages of a test and their workers; `test` is its file and line. */
export async function mutatePages(context: BrowserContext, test: string): Promise<void> {
  if (MEANT === undefined) return;
  const noted = new Set<number>();
  const note = (numbers: readonly number[]) => {
    for (const number of numbers) {
      if (REACHED === undefined || noted.has(number)) continue;
      noted.add(number);
      appendFileSync(REACHED, `${JSON.stringify({ number, test })}\n`);
    }
  };
  await context.exposeBinding('__tavroReached', (_, number: number) => note([number]));
  await context.addInitScript(answer, Number(MEANT));
  const answered = async (worker: Worker) => {
    // A worker has no binding: what it reached is asked of it from time to time.
    await worker.evaluate(answer, Number(MEANT));
    for (;;) {
      note(await worker.evaluate(reachedInWorker));
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  };
  // A worker that has ended is asked in vain, which ends it here too.
  context.on('page', (page) =>
    page.on('worker', (worker) => void answered(worker).catch(() => undefined)),
  );
}

/** Runs in a page or a worker. */
function answer(meant: number): void {
  const all = new Set<number>();
  const here = globalThis as unknown as {
    __tavroMutant: (number: number) => boolean;
    __tavroAll: Set<number>;
    __tavroReached?: (number: number) => void;
  };
  here.__tavroAll = all;
  here.__tavroMutant = (number) => {
    if (!all.has(number)) here.__tavroReached?.(number);
    all.add(number);
    return number === meant;
  };
}

/** Runs in a worker. */
function reachedInWorker(): number[] {
  return [...(globalThis as unknown as { __tavroAll: Set<number> }).__tavroAll];
}
