import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
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
            { name: 'react', test: /node_modules[\\/](react|react-dom|scheduler|react-router)[\\/]/, priority: 30 },
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
