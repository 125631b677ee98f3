import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    reporters: ['default', './scripts/summary-reporter.ts'],
    projects: [
      {
        test: {
          name: 'core',
          root: 'core',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          setupFiles: ['../scripts/seed.ts'],
          testTimeout: 120_000,
          // Core keeps no state between tests: its files share their modules, which halves what loading them costs.
          isolate: false,
        },
      },
      {
        test: {
          name: 'web',
          root: 'web',
          environment: 'jsdom',
          include: ['src/**/*.test.{ts,tsx}'],
          setupFiles: ['./src/testing/setup.ts', '../scripts/seed.ts'],
          testTimeout: 30_000,
        },
      },
      { test: { name: 'server', root: 'server', environment: 'node', include: ['src/**/*.test.ts'] } },
      { test: { name: 'cli', root: 'cli', environment: 'node', include: ['src/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'e2e',
          root: 'e2e',
          environment: 'node',
          include: ['**/*.e2e.ts'],
          testTimeout: 90_000,
          hookTimeout: 90_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
