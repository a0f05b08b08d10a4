/**
 * What a file of tests leaves waiting, such as a bench that would save in a second, ends with it, and what it leaves on the
 * page goes: files share a page.
 */
import { afterAll, beforeAll } from 'vitest';

const { setTimeout } = globalThis;
const begun: unknown[] = [];

beforeAll(() => {
  globalThis.setTimeout = ((...given: Parameters<typeof setTimeout>) => {
    const timer = setTimeout(...given);
    begun.push(timer);
    return timer;
  }) as typeof setTimeout;
});
afterAll(() => {
  globalThis.setTimeout = setTimeout;
  for (const timer of begun) clearTimeout(timer as NodeJS.Timeout);
  document.body.replaceChildren();
});
