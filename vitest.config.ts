import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // Both cores: left to itself it keeps one free.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'unit',
          isolate: false,
          include: ['src/core/**/*.test.ts', 'src/contract/**/*.test.ts', 'src/web/**/*.test.ts', 'demo/**/*.test.ts'],
          environment: 'node',
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'components',
          isolate: false,
          include: ['src/web/**/*.test.tsx'],
          environment: 'jsdom',
          setupFiles: ['src/web/testing/browser.ts'],
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'api',
          // A server each, and a database each; only what is loaded is shared, which takes two seconds a file to load.
          isolate: false,
          include: ['src/server/**/*.test.ts', 'scripts/**/*.test.mjs'],
          environment: 'node',
          pool: 'forks',
          globalSetup: ['src/server/testing/global-setup.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
