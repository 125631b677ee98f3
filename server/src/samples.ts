import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A sample job: its id, the name of the job, and the text of its file. */
export interface Sample {
  readonly id: string;
  readonly name: string;
  readonly text: string;
}

const ENDING = '.saddlebag.json';

/** Reads the sample jobs of a folder once, at the start. */
export function readSamples(folder: string): ReadonlyMap<string, Sample> {
  const samples = readdirSync(folder)
    .filter((file) => file.endsWith(ENDING))
    .map((file) => {
      const text = readFileSync(join(folder, file), 'utf8');
      const { name } = JSON.parse(text) as { name: string };
      return { id: file.slice(0, -ENDING.length), name, text };
    });
  return new Map(samples.map((sample) => [sample.id, sample]));
}
