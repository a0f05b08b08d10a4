import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  test: {
    env: { TZ: 'UTC' },
    // There to end what hangs; a loaded machine is slow at honest work too.
    testTimeout: 1_200_000,
    hookTimeout: 1_200_000,
    // All cores: left to itself Vitest keeps one back, which is half of a machine with two.
    maxWorkers: '100%',
    projects: [
      // Nothing is kept from one test to the next, so that files share what they load. Those that need a document are a
      // project of their own: a process has one or none, and would be ended wherever one follows the other.
      {
        extends: true,
        test: { name: 'unit', include: ['src/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: {
          name: 'pages',
          include: ['src/**/*.test.tsx'],
          environment: 'jsdom',
          setupFiles: ['tests/support/leftovers.ts'],
          isolate: false,
        },
      },
      {
        extends: true,
        test: { name: 'conformance', include: ['tests/conformance/**/*.test.ts'], isolate: false },
      },
      { extends: true, test: { name: 'command line', include: ['tests/cli/**/*.test.ts'] } },
      // Against the app as it runs; see scripts/attack.mjs.
      {
        extends: true,
        test: { name: 'attack', include: ['tests/attack/**/*.test.ts'], fileParallelism: false },
      },
      // Each file has a database of its own.
      {
        extends: true,
        test: { name: 'server', include: ['tests/server/**/*.test.ts'], isolate: false },
      },
    ],
  },
});
