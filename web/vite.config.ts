import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Puts a compressed copy beside each asset, so that the server does not compress at every first load. */
const compressed: Plugin = {
  name: 'compressed-assets',
  apply: 'build',
  closeBundle() {
    const folder = join(import.meta.dirname, 'dist/assets');
    for (const file of readdirSync(folder).filter((f) => /\.(js|css|wasm)$/.test(f)))
      writeFileSync(join(folder, `${file}.gz`), gzipSync(readFileSync(join(folder, file)), { level: 9 }));
  },
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), compressed],
  worker: { format: 'es' },
  optimizeDeps: { include: ['elkjs/lib/elk-api.js', 'highs', 'comlink'] },
  server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:8074' } },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    sourcemap: true,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // Drawing without a page is for pictures alone: it stays out of what every start loads.
            {
              name: 'react',
              test: /node_modules[\\/](react|react-dom|scheduler|react-router)[\\/](?!.*server)/,
              priority: 30,
            },
            {
              name: 'chakra',
              test: /node_modules[\\/](@chakra-ui|@ark-ui|@zag-js|@emotion|@floating-ui|@internationalized)[\\/]/,
              priority: 20,
            },
            {
              name: 'codemirror',
              test: /node_modules[\\/](@codemirror|@lezer|style-mod|w3c-keyname|crelt)[\\/]/,
              priority: 20,
            },
          ],
        },
      },
    },
  },
});
