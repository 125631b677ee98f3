import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { defineConfig } from 'vitest/config';

/** Tests of screens that put something in the place of a module: they need their modules for themselves. The others share theirs. */
const mocking = readdirSync('web/src', { recursive: true, encoding: 'utf8' })
  .map((file) => `src/${file.replaceAll('\\', '/')}`)
  .filter((file) => /\.test\.tsx?$/.test(file) && readFileSync(join('web', file), 'utf8').includes('vi.mock('));

/**
 * The modules of core are loaded by Node itself, their types stripped by tsx, not by the runner's own
 * loader: there each use of an imported name is a call, and half of what the tests of core take goes
 * into those. The tests themselves are loaded as ever. A large nursery spares a tenth of the time: what tests make
 * is forgotten with them.
 */
process.env.TSX_TSCONFIG_PATH = join(import.meta.dirname, 'tsconfig.base.json');
const native = {
  execArgv: ['--import', 'tsx', '--max-semi-space-size=256'],
  server: { deps: { external: [/\/core\/src\/(?!.*\.test\.ts)/] } },
};

const web = {
  ...native,
  root: 'web',
  environment: 'jsdom' as const,
  setupFiles: ['./src/testing/setup.ts', '../scripts/seed.ts'],
  testTimeout: 30_000,
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
      { test: { ...web, name: 'web', include: ['src/**/*.test.{ts,tsx}'], exclude: mocking, isolate: false } },
      { test: { ...web, name: 'web, mocking', include: mocking } },
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
        },
      },
    ],
  },
});
