import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './app';
import { serve } from './serve';

const root = fileURLToPath(new URL('../../', import.meta.url));
const webDir = join(root, 'web/dist');
const logger = pino({ level: process.env.LOG_LEVEL ?? 'info' });

if (!existsSync(join(webDir, 'index.html'))) {
  console.error('The application is not built yet: run `npm start` in the project folder.');
  process.exit(1);
}
const app = createApp({ webDir, samplesDir: join(root, 'samples'), logger });
serve(app, process.env.PORT, logger);
