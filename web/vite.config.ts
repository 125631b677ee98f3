import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin } from 'vite';

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

/** What the service worker keeps: every file of the application, the page itself, and the samples as the server gives them. */
function precached(): { url: string; revision: string | null }[] {
  const dist = join(import.meta.dirname, 'dist');
  const hash = (...texts: (string | Buffer)[]): string => {
    const sum = createHash('sha256');
    for (const text of texts) sum.update(text);
    return sum.digest('hex').slice(0, 16);
  };
  // The hash of an asset is in its name.
  const assets = readdirSync(join(dist, 'assets'))
    .filter((f) => !/\.(map|gz)$/.test(f))
    .map((f) => ({ url: `/assets/${f}`, revision: null }));
  const others = readdirSync(dist)
    .filter((f) => /\.(html|svg|png|webmanifest)$/.test(f))
    .map((f) => ({ url: `/${f}`, revision: hash(readFileSync(join(dist, f))) }));
  const folder = join(import.meta.dirname, '../samples');
  const files = readdirSync(folder).filter((f) => f.endsWith('.saddlebag.json'));
  const texts = files.map((f) => readFileSync(join(folder, f)));
  const samples = files.map((f, i) => ({
    url: `/api/samples/${f.slice(0, -'.saddlebag.json'.length)}`,
    revision: hash(texts[i] ?? ''),
  }));
  return [...assets, ...others, ...samples, { url: '/api/samples', revision: hash(...texts) }];
}

/** Builds the service worker by itself, when it is known what there is to keep. */
const serviceWorker: Plugin = {
  name: 'service-worker',
  apply: 'build',
  async closeBundle() {
    await build({
      root: import.meta.dirname,
      configFile: false,
      logLevel: 'warn',
      publicDir: false,
      define: { PRECACHED: JSON.stringify(precached()), 'process.env.NODE_ENV': '"production"' },
      build: {
        target: 'es2022',
        outDir: 'dist',
        emptyOutDir: false,
        lib: { entry: 'src/shell/service-worker.ts', formats: ['iife'], name: 'keeper', fileName: () => 'sw.js' },
      },
    });
  },
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), compressed, serviceWorker],
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
