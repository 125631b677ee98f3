import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app';
import { listenProblem, readPort } from './serve';

let server: Server;
let base: string;

beforeAll(async () => {
  const webDir = mkdtempSync(join(tmpdir(), 'saddlebag-web-'));
  mkdirSync(join(webDir, 'assets'));
  writeFileSync(join(webDir, 'index.html'), '<!doctype html><title>Saddlebag</title><div id="root"></div>');
  writeFileSync(join(webDir, 'assets/app.js'), `/* ${'x'.repeat(4000)} */`);
  const samplesDir = join(import.meta.dirname, '../../samples');
  const app = createApp({ webDir, samplesDir, logger: pino({ level: 'silent' }) });
  await new Promise<void>((done) => {
    server = app.listen(0, '127.0.0.1', () => done());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

describe('the server', () => {
  it('tells its health', async () => {
    const answer = await fetch(`${base}/healthz`);
    expect(answer.status).toBe(200);
    expect(await answer.json()).toEqual({ ok: true, samples: 28 });
  });

  it('lists the samples and serves each', async () => {
    const list = (await (await fetch(`${base}/api/samples`)).json()) as { id: string; name: string }[];
    expect(list.map((s) => s.id).sort()).toEqual([
      'apprentice-bench',
      'boat-counter',
      'boat-tally',
      'cmos-gates',
      'diode-gates',
      'dtl-gate',
      'false-alarm',
      'flood-watch',
      'fog-beacon',
      'gate-votes',
      'gauge-selector',
      'keepers-clock',
      'keepers-vote',
      'lamp-relay',
      'level-dial',
      'lock-interlock',
      'nmos-gates',
      'paddle-panel',
      'ropes-by-tens',
      'rtl-gates',
      'seconds-digit',
      'steady-button',
      'stile-lamps',
      'towpath-lamp',
      'transistor-bell',
      'ttl-gate',
      'two-highs',
      'up-and-down',
    ]);
    for (const { id, name } of list) {
      const job = (await (await fetch(`${base}/api/samples/${id}`)).json()) as { name: string };
      expect(job.name).toBe(name);
    }
  });

  it.each(['/api/samples/none', '/api/samples/..%2fpackage', '/api/other', '/assets/none.js'])(
    'answers 404 at %s',
    async (path) => {
      expect((await fetch(base + path)).status).toBe(404);
    },
  );

  it.each([
    '/assets/none.js',
    '/%E0%A4%A',
    '/assets/%00',
    '/api/samples/%E0%A4%A',
    `/assets/${'..%2f'.repeat(9)}etc/passwd`,
  ])('tells nothing of itself at %s', async (path) => {
    const answer = await fetch(base + path);
    const text = await answer.text();
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(text).not.toMatch(/node_modules|\bat \w|Error|\/(home|root|tmp|usr|work)\b/);
  });

  it('gives the page at every other address, each time with a new nonce that its policy names', async () => {
    const nonces = new Set<string>();
    for (const path of ['/', '/index.html', '/job/abc/board']) {
      const answer = await fetch(base + path);
      const [, nonce = ''] = /nonce="([^"]+)"/.exec(await answer.text()) ?? [];
      const policy = answer.headers.get('content-security-policy') ?? '';
      expect(policy).toContain(`style-src 'self' 'nonce-${nonce}'`);
      expect(policy).toContain("default-src 'none'");
      expect(policy).not.toContain('unsafe-inline');
      nonces.add(nonce);
    }
    expect(nonces.size).toBe(3);
  });

  it('compresses, and lets assets be kept for good', async () => {
    const answer = await fetch(`${base}/assets/app.js`, { headers: { 'accept-encoding': 'gzip' } });
    expect(answer.headers.get('content-encoding')).toBe('gzip');
    expect(answer.headers.get('cache-control')).toContain('immutable');
  });
});

describe('ports', () => {
  it.each([
    [undefined, 8074],
    ['', 8074],
    ['0', 0],
    ['3000', 3000],
    ['65536', null],
    ['80a', null],
    ['-1', null],
  ])('PORT=%s gives %s', (text, port) => {
    expect(readPort(text)).toBe(port);
  });

  it('that are busy get a message that says what to type', () => {
    expect(listenProblem(Object.assign(new Error('x'), { code: 'EADDRINUSE' }), 80)).toContain('PORT=81 npm start');
    expect(listenProblem(Object.assign(new Error('x'), { code: 'EACCES' }), 80)).toContain('PORT=8074');
  });
});
