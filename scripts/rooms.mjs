// Runs dependency-cruiser and refuses a run that looked at nothing (it passes silently when it can't read TypeScript). Holds the
// list of arrows in docs/architecture.md to the imports of the code; `--write` writes it anew.
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';

const r = spawnSync(
  process.execPath,
  [
    'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
    ...['core/src', 'web/src', 'server/src', 'cli/src'],
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'json',
  ],
  { encoding: 'utf8', maxBuffer: 1 << 28 },
);
if (!r.stdout.startsWith('{')) {
  console.error(r.stderr || r.stdout);
  process.exit(1);
}
const { summary, modules } = JSON.parse(r.stdout);
for (const v of summary.violations) console.error(`${v.rule.severity} ${v.rule.name}: ${v.from} -> ${v.to}`);
console.log(`rooms: ${summary.totalCruised} modules, ${summary.violations.length} violations`);

/** The rooms of core and of web, each with the rooms that it imports. */
function arrows() {
  const roomOf = (path) => /^(core|web)\/src\/(\w+)\//.exec(path)?.slice(1).join('/') ?? null;
  const found = new Map();
  for (const { source, dependencies } of modules) {
    const from = roomOf(source);
    if (!from || /\.test\.tsx?$/.test(source) || from.endsWith('/testing')) continue;
    const to = found.get(from) ?? new Set();
    found.set(from, to);
    for (const { resolved } of dependencies) {
      const room = roomOf(resolved);
      if (room && room !== from) to.add(room.replace(`${from.split('/')[0]}/`, ''));
    }
  }
  const line = ([room, to]) => `${room.padEnd(18)} → ${[...to].sort().join(' ') || 'nothing'}`;
  return [...found]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(line)
    .join('\n');
}

const page = 'docs/architecture.md';
const before = readFileSync(page, 'utf8');
const after = before.replace(/(<!-- arrows -->\n```\n)[\s\S]*?(\n```)/, (_, head, foot) => head + arrows() + foot);
const isWritten = process.argv.includes('--write');
if (isWritten) writeFileSync(page, after);
const stale = !isWritten && before !== after;
if (stale) console.error(`rooms: the arrows in ${page} are not those of the code; run node scripts/rooms.mjs --write`);
process.exit(stale || summary.error > 0 || summary.totalCruised < 20 ? 1 : 0);
