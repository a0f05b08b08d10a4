import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/support/chromium';
import { thorough } from './tests/support/thorough';

/** Run by scripts/test.mjs, which prepares the database that each file of tests copies (tests/e2e/workspace.ts). */
export default defineConfig({
  testDir: 'tests/e2e',
  // One more than cores: a page waits for its server, and both for what is drawn.
  workers: 3,
  // Where not everything is tried; see tests/e2e/workspace.ts.
  ...(thorough ? {} : { grepInvert: /@whole/ }),
  // One that fails each time, in a fresh workspace, has failed.
  retries: 2,
  // There to end what hangs; a loaded machine is slow at honest work too.
  timeout: 1_800_000,
  // Most changes of a source that tests are tried with leave something out that is then waited for.
  expect: { timeout: process.env.TAVRO_MUTANT === undefined ? 300_000 : 20_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: process.env.TAVRO_MUTANT === undefined ? 300_000 : 20_000,
    launchOptions: CHROMIUM,
    screenshot: 'only-on-failure',
    // A trace of every test takes a third of the time of all; TAVRO_TRACE=on asks for them.
    trace: process.env.TAVRO_TRACE === 'on' ? 'retain-on-failure' : 'off',
  },
});
