import { spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { describe, expect, it } from 'vitest';
import { root, serve } from './server';

describe('the server as a process', () => {
  it('prints its address, and stops cleanly on SIGTERM with a request open', async () => {
    const { base, child } = await serve();
    expect((await fetch(`${base}/healthz`)).status).toBe(200);
    child.kill('SIGTERM');
    const [code] = (await once(child, 'exit')) as [number];
    expect(code).toBe(0);
  });

  it('says so when the port is busy, and what to type', async () => {
    const first = await serve();
    const port = new URL(first.base).port;
    const second = await serve(port);
    expect(second.base).toBe('');
    expect(second.output()).toContain(`Port ${port} is busy. Choose another one: PORT=${Number(port) + 1} npm start`);
    first.child.kill();
  });

  it('says so when PORT is no port', async () => {
    const { output } = await serve('lots');
    expect(output()).toContain('PORT must be a whole number');
  });
});

describe('the command line as a person calls it', () => {
  const saddlebag = (...args: string[]) => spawnSync('npx', ['saddlebag', ...args], { cwd: root, encoding: 'utf8' });

  it('npx saddlebag walks the interlock: 0; a job with findings: 1; wrong use, or a file that is not there: 2', () => {
    const good = saddlebag('walk', 'samples/lock-interlock.sheet');
    expect(good.status).toBe(0);
    expect(good.stdout).toContain('All 16 rows agree.');
    expect(saddlebag('inspect', 'samples/apprentice-bench.saddlebag.json').status).toBe(1);
    expect(saddlebag('walk', 'samples/none.sheet').status).toBe(2);
    expect(saddlebag('dance').status).toBe(2);
  });
});
