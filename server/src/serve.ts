import type { Server } from 'node:http';
import type { Express } from 'express';
import type { Logger } from 'pino';

const DEFAULT_PORT = 8074;
/** How long open requests may take to end after SIGTERM. */
const GRACE_MS = 5000;

/** Reads a port from the environment: a whole number from 0 to 65535, 8074 when absent, null when wrong. */
export function readPort(text: string | undefined): number | null {
  if (text === undefined || text === '') return DEFAULT_PORT;
  const port = Number(text);
  return /^\d+$/.test(text) && port <= 65_535 ? port : null;
}

/** What to tell when listening fails. */
export function listenProblem(error: NodeJS.ErrnoException, port: number): string {
  if (error.code === 'EADDRINUSE') return `Port ${port} is busy. Choose another one: PORT=${port + 1} npm start`;
  if (error.code === 'EACCES')
    return `Port ${port} may not be used by this account. Choose one above 1023: PORT=8074 npm start`;
  return `Port ${port} cannot be used: ${error.message}`;
}

/** Listens, prints the address, and stops cleanly on SIGTERM or SIGINT. Exits with 1 when it cannot listen. */
export function serve(app: Express, portText: string | undefined, logger: Logger): Server | null {
  const port = readPort(portText);
  if (port === null) {
    console.error(`PORT must be a whole number from 0 to 65535, not ${portText}.`);
    process.exitCode = 1;
    return null;
  }
  const server = app.listen(port, '127.0.0.1', (error?: Error) => {
    if (error) {
      console.error(listenProblem(error, port));
      process.exitCode = 1;
      return;
    }
    const address = server.address();
    const actual = typeof address === 'object' && address ? address.port : port;
    console.log(`Saddlebag is served at http://localhost:${actual}`);
  });
  const stop = (signal: string): void => {
    logger.info({ signal }, 'stopping');
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref();
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  return server;
}
