#!/usr/bin/env node
// Dependency-free. Usage: node scripts/ensure.mjs [deps] [build] [chromium]
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const workspaces = ['core', 'web', 'server', 'cli'];

const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) fail(`Node >= 20.19 is needed, this is ${process.version}`);

function fail(message) {
  console.error(`ensure: ${message}`);
  process.exit(1);
}
/** Runs a command; null when it went well, else what did not. */
function tryToRun(cmd, args, opts = {}) {
  console.error(`ensure: ${[cmd, ...args].join(' ')}`);
  const r = spawnSync(cmd, args, { cwd: root, stdio: ['ignore', 2, 2], ...opts }); // stdout stays clean
  if (r.error) return `${cmd}: ${r.error.message}`;
  return r.status === 0 ? null : `${cmd} ${args[0]} exited ${r.status ?? r.signal}`;
}
function run(cmd, args, opts) {
  const problem = tryToRun(cmd, args, opts);
  if (problem) fail(problem);
}
function npm(args) {
  const cli = process.env.npm_execpath;
  const env = { ...process.env };
  delete env.NODE_ENV; // production would drop the dev dependencies that the build needs
  if (cli && /\.[cm]?js$/.test(cli)) run(process.execPath, [cli, ...args], { env });
  else run('npm', args, { env });
}
function* walk(path) {
  if (!existsSync(path)) return;
  if (statSync(path).isFile()) {
    yield path;
    return;
  }
  for (const e of readdirSync(path).sort()) yield* walk(join(path, e));
}
function hash(paths) {
  const h = createHash('sha256').update(process.versions.node.split('.')[0]);
  for (const p of paths)
    for (const f of walk(join(root, p))) h.update(relative(root, f)).update('\0').update(readFileSync(f)).update('\0');
  return h.digest('hex');
}
const read = (p) => (existsSync(p) ? readFileSync(p, 'utf8') : '');
const manifests = ['package-lock.json', 'package.json', ...workspaces.map((w) => join(w, 'package.json'))];

const steps = {
  deps() {
    const stamp = join(root, 'node_modules', '.ensure-deps');
    const want = hash(manifests);
    if (read(stamp) === want) return;
    npm(['ci', '--include=dev', '--no-audit', '--no-fund']);
    writeFileSync(stamp, want);
  },
  build() {
    const stamp = join(root, '.cache', 'ensure-build');
    const want = hash([
      ...manifests,
      'tsconfig.base.json',
      ...workspaces.flatMap((w) =>
        ['src', 'public', 'index.html', 'vite.config.ts', 'tsconfig.json'].map((f) => join(w, f)),
      ),
    ]);
    const outputs = ['web/dist/index.html', 'server/dist/main.js', 'cli/dist/main.js'];
    if (read(stamp) === want && outputs.every((f) => existsSync(join(root, f)))) return;
    npm(['run', 'build']);
    mkdirSync(dirname(stamp), { recursive: true });
    writeFileSync(stamp, want);
  },
  // Debian's Chromium without a window: it draws and runs pages as the other does, with a fifth less of the processor. Where it cannot be had, the other serves (e2e/browser.ts).
  chromium() {
    const own = process.env.CHROMIUM;
    if (existsSync(own ?? '/usr/bin/chromium-headless-shell')) return;
    const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const apt = (...args) => {
      const [cmd, ...rest] = [...sudo, 'apt-get', ...args];
      return tryToRun(cmd, rest, { env });
    };
    const install = (name) => apt('install', '-y', '-qq', '--no-install-recommends', name);
    if ((apt('update', '-qq') ?? install('chromium-headless-shell')) === null) return;
    const problem = existsSync('/usr/bin/chromium') ? null : install('chromium');
    if (problem) fail(problem);
  },
};
for (const s of process.argv.slice(2)) {
  if (!Object.hasOwn(steps, s)) fail(`unknown step ${s}`);
  steps[s]();
}
