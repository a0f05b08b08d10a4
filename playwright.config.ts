import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/support/chromium';

/** Run by scripts/test.mjs, which starts the built app on a fresh database and says where in TAVRO_URL. */
export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: process.env.TAVRO_URL ?? 'http://127.0.0.1:3000',
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    trace: 'retain-on-failure',
  },
});
