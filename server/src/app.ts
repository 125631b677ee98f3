import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { nonce, policy } from './csp';
import { readSamples } from './samples';

/** Folders with the built application and the sample jobs, and where requests are logged. */
export interface AppOptions {
  readonly webDir: string;
  readonly samplesDir: string;
  readonly logger: Logger;
}

/** The server: the built application, its health, and the sample jobs. No logic of its own. */
export function createApp({ webDir, samplesDir, logger }: AppOptions): Express {
  const app = express();
  const samples = readSamples(samplesDir);
  app.disable('x-powered-by');
  app.set('env', 'production');
  app.use(pinoHttp({ logger, autoLogging: { ignore: (req) => req.url === '/healthz' } }));
  app.use(nonce(), policy(), compression());
  app.get('/healthz', (_req, res) => {
    res.json({ ok: true, samples: samples.size });
  });
  app.get('/api/samples', (_req, res) => {
    res.json([...samples.values()].map(({ id, name }) => ({ id, name })));
  });
  app.get('/api/samples/:id', (req, res) => {
    const sample = samples.get(req.params.id);
    if (sample) res.type('json').send(sample.text);
    else res.status(404).json({ error: `There is no sample ${req.params.id}.` });
  });
  app.all('/api/{*rest}', (_req, res) => {
    res.status(404).json({ error: 'Nothing is served here.' });
  });
  app.use(pages(webDir));
  app.use(quietly);
  return app;
}

/** Answers a request that failed with its status alone: no path and no stack leaves the server. */
const quietly: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) return next(error);
  const { status = 500 } = error as { status?: number };
  if (status >= 500) req.log.error({ err: error }, 'failed');
  res
    .status(status)
    .json({ error: status === 404 ? 'Nothing is served here.' : 'That request could not be answered.' });
};

/** Static files, and the page itself, with its nonce, for every other address. */
function pages(webDir: string): express.Router {
  const router = express.Router();
  const html = readFileSync(join(webDir, 'index.html'), 'utf8');
  const sendPage: RequestHandler = (_req, res) => {
    const meta = `</title>\n    <meta property="csp-nonce" nonce="${String(res.locals.nonce)}" />`;
    res.set('Cache-Control', 'no-cache').type('html').send(html.replace('</title>', meta));
  };
  router.get('/index.html', sendPage);
  const kept = { immutable: true, maxAge: '1y', fallthrough: false } as const;
  router.use('/assets', expressStaticGzip(join(webDir, 'assets'), { serveStatic: kept, index: false }));
  router.use(express.static(webDir, { index: false, maxAge: 0 }));
  router.get('/{*path}', sendPage);
  return router;
}
