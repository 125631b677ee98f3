import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { defineConfig } from 'vitest/config';

/** How Node runs the tests. */
const v8 = [
  // A large nursery spares a tenth of the time: what tests make is forgotten with them.
  '--max-semi-space-size=256',
  // Most of what tests call is called too seldom for compiling it twice to be worth while: a seventh of the time.
  '--interrupt-budget=1056000',
  '--max-optimized-bytecode-size=20000',
  '--max-inlined-bytecode-size-cumulative=300',
];

/**
 * The modules of core are loaded by Node itself, their types taken out (scripts/load-core.mjs), not by the runner's own
 * loader: there each use of an imported name is a call, and half of what the tests of core take goes
 * into those. The tests themselves are loaded as ever.
 */
const native = {
  execArgv: ['--import', pathToFileURL(join(import.meta.dirname, 'scripts/load-core.mjs')).href, ...v8],
  server: { deps: { external: [/\/core\/src\/(?!.*\.test\.ts)/] } },
};

export default defineConfig({
  test: {
    reporters: ['default', './scripts/summary-reporter.ts'],
    projects: [
      {
        test: {
          ...native,
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
          ...native,
          name: 'web',
          root: 'web',
          environment: 'jsdom',
          include: ['src/**/*.test.{ts,tsx}'],
          // What takes the place of a module does so in all of them: files share their modules.
          setupFiles: ['./src/testing/setup.ts', '../scripts/seed.ts'],
          testTimeout: 30_000,
          isolate: false,
        },
      },
      { test: { name: 'server', root: 'server', environment: 'node', include: ['src/**/*.test.ts'] } },
      {
        test: {
          ...native,
          name: 'cli',
          root: 'cli',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'e2e',
          root: 'e2e',
          environment: 'node',
          include: ['**/*.e2e.ts'],
          testTimeout: 90_000,
          hookTimeout: 90_000,
          fileParallelism: false,
          globalSetup: './global-setup.ts',
        },
      },
    ],
  },
});
