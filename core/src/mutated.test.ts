import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { benchParts } from './catalogue';
import { remedy, says } from './finding';
import { newJob, writeJobFile } from './job';
import { readJobFile } from './job-reader';
import { everyStage } from './testing/every-stage';
import { laidOut, solve } from './testing/interlock';
import { mutated } from './testing/mutate';

const folder = join(import.meta.dirname, '../../samples');
const sample = (name: string): unknown => JSON.parse(readFileSync(join(folder, `${name}.saddlebag.json`), 'utf8'));
const names = ['lock-interlock', 'keepers-vote', 'lamp-relay', 'boat-counter', 'transistor-bell', 'apprentice-bench'];
const documents = names.map((name) => sample(name) as object);

describe('files that something has changed', () => {
  it('are refused with findings, or opened, and then no later stage throws', async () => {
    const outcomes = new Map<string, number>();
    await fc.assert(
      fc.asyncProperty(fc.nat({ max: documents.length - 1 }), fc.nat(), async (d, seed) => {
        const read = readJobFile(JSON.stringify(mutated(documents[d] ?? expect.fail(), seed)));
        const outcome = read.ok ? await everyStage(read.job, solve) : 'refused';
        outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
        for (const f of read.findings) expect(`${says(f)} ${remedy(f)}`).not.toMatch(/[{}]|undefined/);
      }),
      { numRuns: 2500 },
    );
    expect([...outcomes.keys()].sort()).toEqual(expect.arrayContaining(['all', 'refused', 'written']));
  });

  it('lose a packing with a package that is called as another part: a plan would seat both by one name', async () => {
    for (const prefix of new Set(benchParts.map((part) => part.prefix))) {
      const file = sample('boat-counter') as { packing: { packages: { ref: string }[] } };
      for (const [i, pack] of file.packing.packages.entries()) if (i === 2) pack.ref = `${prefix}4`;
      const read = readJobFile(JSON.stringify(file));
      if (!read.ok) return expect.fail(prefix);
      expect([prefix, read.findings.map((f) => f.code)]).toEqual([prefix, ['file/packing-left-out']]);
      expect(await everyStage(read.job, solve)).toBe('all');
    }
  });

  it('lose their packing, and nothing else, when it does not compute the sheet that it carries', async () => {
    const { job } = await laidOut('in A B C\nout Y Z\nY = nand(A, B)\nZ = nand(Y, C)');
    const file = () => JSON.parse(writeJobFile(job)) as { packing: { packages: { units: { inputs: string[] }[] }[] } };
    const units = (f: ReturnType<typeof file>) => f.packing.packages[0]?.units ?? expect.fail();
    const loop = file();
    for (const unit of units(loop)) unit.inputs = ['Y', 'Z'];
    const other = file();
    (units(other)[0] ?? expect.fail()).inputs = ['A', 'C'];
    for (const changed of [loop, other]) {
      const read = readJobFile(JSON.stringify(changed));
      if (!read.ok) return expect.fail(read.findings.map(says).join());
      expect(read.findings.map((f) => f.code)).toEqual(['file/packing-left-out']);
      expect(read.job).toEqual({ ...job, packing: null });
    }
  });

  it.each(['__proto__', 'constructor', 'prototype'])(
    'are refused where a field is named %s, wherever it stands',
    (key) => {
      const text = writeJobFile({ ...newJob('odd'), sheet: 'HERE' });
      for (const odd of [`{"${key}":1}`, text.replace('"HERE"', `{"${key}":{}}`), text.replace('{', `{"${key}":{},`)]) {
        const read = readJobFile(odd);
        expect(
          read.findings.map((f) => f.code),
          odd,
        ).toEqual(['file/bad-field']);
      }
    },
  );
});
