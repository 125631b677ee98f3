// Runs dependency-cruiser and refuses a run that looked at nothing (it passes silently when it can't read TypeScript).
import { spawnSync } from 'node:child_process';

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
const { summary } = JSON.parse(r.stdout);
for (const v of summary.violations) console.error(`${v.rule.severity} ${v.rule.name}: ${v.from} -> ${v.to}`);
console.log(`rooms: ${summary.totalCruised} modules, ${summary.violations.length} violations`);
process.exit(summary.error > 0 || summary.totalCruised < 20 ? 1 : 0);
