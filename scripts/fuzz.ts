import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { elementAt } from '@saddlebag/core';
import { readDesign } from '../core/src/catalogue';
import { currentPacking } from '../core/src/job';
import { readJobFile } from '../core/src/job-reader';
import { highsSolver } from '../core/src/solver';
import { everyStage } from '../core/src/testing/every-stage';
import { mutated } from '../core/src/testing/mutate';
import { boardPicture } from '../web/src/picture';

/** `npm run fuzz -- --seconds 60 --seed 1`: sample jobs, changed at random, go through every stage; the first that throws is told with its seed. */
const option = (name: string, otherwise: number): number => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const seconds = option('seconds', 60);
const first = option('seed', Math.floor(Math.random() * 1e9));
const folder = join(import.meta.dirname, '../samples');
const documents = readdirSync(folder)
  .filter((name) => name.endsWith('.saddlebag.json'))
  .map((name) => ({ name, plain: JSON.parse(readFileSync(join(folder, name), 'utf8')) as object }));
const solve = highsSolver();
const counts = new Map<string, number>();
const ends = Date.now() + 1000 * seconds;
for (let seed = first; Date.now() < ends; seed++) {
  const { name, plain } = elementAt(documents, seed % documents.length);
  try {
    const read = readJobFile(JSON.stringify(mutated(plain, seed)));
    const outcome = read.ok ? await everyStage(read.job, solve) : 'refused';
    if (read.ok) {
      const { job } = read;
      const reading = readDesign(job.sheet);
      boardPicture({ job, reading, packing: currentPacking(job, reading.design.netlist, null) });
    }
    counts.set(outcome, (counts.get(outcome) ?? 0) + 1);
  } catch (error) {
    console.error(`${name} changed by seed ${seed} fails:`, error);
    process.exit(1);
  }
}
console.log(`from seed ${first}: ${[...counts].map(([outcome, n]) => `${n} ${outcome}`).join(', ')}; none failed`);
