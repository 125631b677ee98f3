#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.js', import.meta.url);
if (!existsSync(built)) {
  console.error('saddlebag is not built yet: run `npm start` once, or `npm run build`.');
  process.exit(2);
}
await import(built.href);
