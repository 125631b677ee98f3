import { defineConfig } from 'vite';

/**
 * Speeds are measured of code as it is shipped: bundled as the application's own is, one folder below the root. So are job files fuzzed (`--mode fuzz`): pictures bring their
 * fonts with them, which only a bundler can read.
 */
export default defineConfig(({ mode }) => ({
  root: import.meta.dirname,
  logLevel: 'warn',
  ssr: { target: 'node', noExternal: [/^@saddlebag\//] },
  build: {
    ssr: mode === 'fuzz' ? '../scripts/fuzz.ts' : 'run.ts',
    outDir: '../.bench',
    target: 'node20',
    emptyOutDir: true,
    rolldownOptions: { output: { entryFileNames: '[name].js' } },
  },
}));
