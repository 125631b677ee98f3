import { readFileSync } from 'node:fs';
import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laidOut } from '../testing/interlock';
import { readJobFile } from './file';
import { type Job, newJob } from './job';
import { emptyTable, withMark } from './own-table';
import { writeJobFile } from './write';

const schema = JSON.parse(readFileSync(`${import.meta.dirname}/../../../docs/job-file.schema.json`, 'utf8')) as object;
const valid = new Ajv2020({ allErrors: true }).compile(schema);
/** A job with everything that a file can hold: a part of its own, and a table begun. */
const { job: voting } = await laidOut(
  'in A B\nout Y Z\npart BOTH "both"\npins A B GND Y NC VCC\nY = A & B\nend\nuse BOTH as B1 (A = A, B = B, Y = Y)\nZ = A | B',
);
const job: Job = {
  ...voting,
  board: {
    ...voting.board,
    jumpers: {
      ...voting.board.jumpers,
      w2: { ...(voting.board.jumpers.w2 ?? expect.fail()), corners: [{ x: 12, y: 3.5 }] },
      w1: { ...(voting.board.jumpers.w1 ?? expect.fail()), colour: 'red', route: 'straight' },
    },
    notes: { n1: { id: 'n1', at: 'b1.e17', text: 'look here' } },
  },
  excluded: ['7486'],
  silenced: [{ code: 'no-capacitor', place: 'U1', reason: 'it is on the other side' }],
  trace: {
    pins: ['U1.3'],
    order: ['Z', 'Y'],
    numbers: [{ name: 'A:B', of: ['A', 'B'], form: 'hex' }],
    speed: null,
  },
  locks: {
    pins: [{ net: 'Z', ref: 'U1', part: '7432', unit: 2, inputs: ['A', 'B'] }],
    added: [{ ref: 'U9', part: '7400' }],
  },
  ownTable: withMark(emptyTable(['A', 'B'], ['Y', 'Z']) ?? expect.fail(), 1, 2, '1'),
};

/** Every path to a value of a JSON document. */
function paths(value: unknown, at: readonly (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [[...at]];
  const below = Object.entries(value).flatMap(([k, v]) => paths(v, [...at, Array.isArray(value) ? Number(k) : k]));
  return [[...at], ...below].filter((p) => p.length > 0);
}

describe('the JSON Schema beside docs/job-file.md', () => {
  it('holds for what is written', () => {
    for (const j of [job, newJob('bare')]) {
      expect(valid(JSON.parse(writeJobFile(j))), JSON.stringify(valid.errors)).toBe(true);
    }
  });

  it('holds for whatever the reader takes, also with any one value replaced', () => {
    const all = paths(JSON.parse(writeJobFile(job)));
    const values = fc.constantFrom<unknown>(null, 0, -1, 1.5, '', 'x', 'b1.e17', 'U1', 'LS', [], {}, true, 180, '1');
    fc.assert(
      fc.property(fc.constantFrom(...all), values, (path, value) => {
        const file = JSON.parse(writeJobFile(job)) as Record<string | number, unknown>;
        let at = file;
        for (const step of path.slice(0, -1)) at = at[step] as typeof file;
        at[path[path.length - 1] as string] = value;
        if (readJobFile(JSON.stringify(file)).ok)
          expect(valid(file), `${path.join('.')} ${JSON.stringify(value)}`).toBe(true);
      }),
      { numRuns: 2000 },
    );
  });
});
