import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  ssr: { target: 'node', noExternal: [/^@saddlebag\//] },
  build: {
    ssr: 'src/main.ts',
    outDir: 'dist',
    target: 'node20',
    sourcemap: true,
    emptyOutDir: true,
    rolldownOptions: { output: { entryFileNames: '[name].js' } },
  },
});
