import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  test: {
    env: { TZ: 'UTC' },
    testTimeout: 30_000,
    projects: [
      { extends: true, test: { name: 'unit', include: ['src/**/*.test.ts'] } },
      { extends: true, test: { name: 'conformance', include: ['tests/conformance/**/*.test.ts'], testTimeout: 120_000 } },
      { extends: true, test: { name: 'command line', include: ['tests/cli/**/*.test.ts'] } },
      { extends: true, test: { name: 'server', include: ['tests/server/**/*.test.ts'], fileParallelism: false } },
    ],
  },
});
