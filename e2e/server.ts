import { type ChildProcess, spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../', import.meta.url));

/** Starts the built server as `npm start` does, on a free port, and waits for the address it prints. */
export async function serve(port = '0'): Promise<{ base: string; child: ChildProcess; output: () => string }> {
  const env = { ...process.env, PORT: port, LOG_LEVEL: 'silent' };
  const child = spawn(process.execPath, ['server/dist/main.js'], { cwd: root, env });
  let text = '';
  child.stdout.on('data', (d) => {
    text += String(d);
  });
  child.stderr.on('data', (d) => {
    text += String(d);
  });
  const base = await new Promise<string>((done) => {
    const look = (): void => {
      const found = /http:\/\/localhost:\d+/.exec(text)?.[0];
      if (found) done(found);
    };
    child.stdout.on('data', look);
    child.once('exit', () => done(''));
  });
  return { base, child, output: () => text };
}
