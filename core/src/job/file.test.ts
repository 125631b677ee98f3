import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { printSheet } from '../design';
import { remedy, says } from '../finding';
import { interlockSheet, laidOut } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { MAX_FILE_BYTES, readJobFile } from './file';
import { newJob } from './job';
import { FILE_VERSION, writeJobFile } from './write';

const { job } = await laidOut(interlockSheet);
const text = writeJobFile(job);

/** The file with one field changed by its path. */
function changed(path: string, value: unknown): string {
  const file = JSON.parse(text) as Record<string, unknown>;
  const steps = path.split('.');
  const last = steps.pop() as string;
  const at = steps.reduce((o, step) => o[step] as Record<string, unknown>, file);
  if (value === undefined) delete at[last];
  else at[last] = value;
  return JSON.stringify(file);
}

const codes = (t: string): string[] => {
  const read = readJobFile(t);
  return read.ok ? [] : read.findings.map((f) => f.code);
};

describe('job files', () => {
  it('give back the job that was written', async () => {
    expect(readJobFile(text)).toEqual({ ok: true, job, findings: [] });
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { job: made } = await laidOut(printSheet(sheet));
        expect(readJobFile(writeJobFile(made))).toEqual({ ok: true, job: made, findings: [] });
      }),
      { numRuns: 10 },
    );
    expect(readJobFile(writeJobFile(newJob('empty', 'any # text "at all')))).toMatchObject({ ok: true });
  });

  it.each([
    ['nothing', '', 'file/not-json'],
    ['a torn file', text.slice(0, -40), 'file/not-json'],
    ['other JSON', '[1, 2]', 'file/not-a-job'],
    ['another format', changed('format', 'other'), 'file/not-a-job'],
    ['a newer version', changed('version', FILE_VERSION + 1), 'file/newer'],
    ['too deep a nesting', '['.repeat(40), 'file/too-deep'],
    ['too large a file', ' '.repeat(MAX_FILE_BYTES + 1), 'file/too-big'],
    ['no version', changed('version', undefined), 'file/bad-field'],
    ['a hole that does not exist', changed('board.jumpers.0.from', 'b1.e99'), 'file/bad-field'],
    ['a rail hole in a gap', changed('board.jumpers.0.from', 'b1.top+8'), 'file/bad-field'],
    ['a board that is not there', changed('board.jumpers.0.from', 'b2.e9'), 'file/bad-field'],
    ['a turn of 45 degrees', changed('board.parts.0.turn', 45), 'file/bad-field'],
    ['no board', changed('board', undefined), 'file/bad-field'],
    ['a board that is a list', changed('board', []), 'file/bad-field'],
    ['parts that are null', changed('board.parts', null), 'file/bad-field'],
    ['a reference twice', changed('board.parts.1.ref', job.board.parts.C1?.ref), 'file/bad-field'],
    [
      'a reference that would be a property of every object',
      changed('board.parts.0.ref', '__proto__'),
      'file/bad-field',
    ],
    ['a field that nobody knows', changed('colour', 'red'), 'file/bad-field'],
    ['a package of no chip', changed('packing.packages.0.part', '74HC99'), 'file/bad-field'],
    ['a unit that the package has not', changed('packing.packages.0.units.0.unit', 7), 'file/bad-field'],
    ['breadboards out of order', changed('board.breadboards.0.id', 'b2'), 'file/bad-field'],
  ])('%s is refused with a finding', (_, bad, code) => {
    expect(codes(bad)).toContain(code);
    const read = readJobFile(bad);
    for (const f of read.ok ? [] : read.findings) expect(`${says(f)} ${remedy(f)}`).not.toMatch(/[{}]|undefined/);
  });

  it('any JSON at all is answered, never thrown at', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 5 }), (value) => {
        expect(readJobFile(JSON.stringify(value)).ok).toBe(false);
        expect(readJobFile(changed('board', value)).ok).toBe(false);
        readJobFile(changed('packing', value));
      }),
    );
  });
});
