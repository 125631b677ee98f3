// Indexing is checked (`elementAt`, `entryOf`) or done by iteration; a cast that drops `undefined` stands in kernels alone, whose bounds are
// checked at their door (docs/architecture.md). Exits with 1 where one stands elsewhere.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The inner loops: what they hold are typed arrays that they made themselves. */
const KERNELS = [
  'board/(route|wire-grid)',
  'electrical/(charge|elements|island|operating-point|sparse|stepping)',
  'logic/(compiled-sweep|cover|hazards|primes|program)',
  'packing/(block-kinds|block-moves|boolean-chain|function-search|narrow-vectors|net-search|package-count|resubstitution|signature-rows|target-pruning|unit-net|unit-vectors)',
  'planning/arrange',
  'simulation/(board-sweep|event-heap|event-simulator|index-ring|input-pins|island-watches|live-islands|live-units|net-readings|output-pins|trace|trace-window|undecided|unit-states)',
  'element-at',
];
const kernel = new RegExp(`^core/src/(${KERNELS.join('|')})\\.ts$`);
/** An element read by index or key, then cast; an empty list that is given its type is none. */
const cast = /[^[]\] as (?!const\b)\w/;

const found = [];
let inKernels = 0;
for (const room of ['core/src', 'web/src', 'cli/src', 'server/src'])
  for (const name of readdirSync(room, { recursive: true })) {
    const path = join(room, name).replaceAll('\\', '/');
    if (!/\.tsx?$/.test(path) || /\.test\.tsx?$/.test(path)) continue;
    readFileSync(path, 'utf8')
      .split('\n')
      .forEach((line, i) => {
        if (!cast.test(line) || line.includes('cast:')) return;
        if (kernel.test(path)) inKernels++;
        else found.push(`${path}:${i + 1} ${line.trim()}`);
      });
  }
console.log(`casts on indexed access: ${inKernels} in kernels, ${found.length} elsewhere`);
for (const line of found) console.log(line);
process.exitCode = found.length > 0 ? 1 : 0;
