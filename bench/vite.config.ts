import { defineConfig } from 'vite';

/** Speeds are measured of code as it is shipped: bundled as the application's own is, one folder below the root. */
export default defineConfig({
  root: import.meta.dirname,
  logLevel: 'warn',
  ssr: { target: 'node', noExternal: [/^@saddlebag\//] },
  build: {
    ssr: 'run.ts',
    outDir: '../.bench',
    target: 'node20',
    emptyOutDir: true,
    rolldownOptions: { output: { entryFileNames: '[name].js' } },
  },
});
