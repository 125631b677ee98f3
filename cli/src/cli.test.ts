import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { run } from './run';

const samples = join(import.meta.dirname, '../../samples');
const folder = mkdtempSync(join(tmpdir(), 'saddlebag-cli-'));
const interlock = join(samples, 'lock-interlock.saddlebag.json');

async function cli(...args: string[]) {
  let out = '';
  let err = '';
  const code = await run(args, { out: (t) => (out += t), err: (t) => (err += t) });
  return { code, out, err, json: () => JSON.parse(out) as Record<string, never> };
}

/** A file made for a test. */
function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

/** The interlock with its file changed. */
function changed(change: (job: { board: { jumpers: unknown[] } }) => void): string {
  const job = JSON.parse(readFileSync(interlock, 'utf8')) as { board: { jumpers: unknown[] } };
  change(job);
  return file('changed.saddlebag.json', JSON.stringify(job));
}

describe('every command', () => {
  const commands = ['table', 'pack', 'plan', 'inspect', 'walk', 'card'];
  it.each(commands)(
    '%s works on each sample, as a sheet and as a job, for people and for programs',
    async (command) => {
      for (const name of ['lock-interlock', 'boat-tally', 'towpath-lamp']) {
        for (const ending of ['.sheet', '.saddlebag.json']) {
          const path = join(samples, name + ending);
          const plain = await cli(command, path);
          expect(plain, `${command} ${name}${ending}`).toMatchObject({ code: 0, err: '' });
          expect(plain.out.length).toBeGreaterThan(10);
          const asJson = await cli(command, path, '--json');
          expect(asJson.code).toBe(0);
          expect(asJson.json()).toBeTypeOf('object');
        }
      }
    },
  );

  it.each(commands)('%s tells a mistake in the sheet with line and column, and gives 1', async (command) => {
    const path = file('wrong.sheet', 'in A\nout Y\nY = A & foo\n');
    const plain = await cli(command, path);
    expect(plain.code).toBe(1);
    expect(plain.err).toContain('line 3, column 9: foo is used but nothing makes it.');
    const asJson = await cli(command, path, '--json');
    expect(asJson.code).toBe(1);
    expect(asJson.json().findings).toMatchObject([{ code: 'sheet/unknown-signal', severity: 'error' }]);
  });

  it.each(commands)('%s gives 1 for a file that is not there, torn, or newer', async (command) => {
    const paths = [
      join(folder, 'none.sheet'),
      file('torn.json', '{'),
      file('newer.json', '{"format":"saddlebag-job","version":9}'),
    ];
    for (const path of paths) {
      const { code, err } = await cli(command, path);
      expect(code).toBe(1);
      expect(err).toMatch(/^error: /);
    }
  });
});

describe('what they say', () => {
  it('table lists the rows, first input most significant', async () => {
    const { out } = await cli('table', interlock);
    expect(out.split('\n')[0]).toBe('K E U L | G P W');
    expect(out).toContain('1 0 1 1 | 0 1 0\n');
    expect(out.trimEnd().split('\n')).toHaveLength(17);
  });

  it('pack counts packages and says how sure it is', async () => {
    const { out } = await cli('pack', interlock);
    expect(out).toContain(
      '2 packages, 4 units used, 2 spare; the fewest that the integer program finds for these gates, proved.',
    );
  });

  it('plan -o writes a job that inspect and walk find in order', async () => {
    const path = join(folder, 'planned.saddlebag.json');
    expect((await cli('plan', join(samples, 'towpath-lamp.sheet'), '-o', path)).code).toBe(0);
    expect((await cli('inspect', path)).out).toBe('Nothing to mend.\n');
    expect((await cli('walk', path)).out).toContain('All 16 rows agree.');
  });

  it('inspect and walk give 1 for a job with a jumper missing, and name what differs', async () => {
    const path = changed((job) => {
      job.board.jumpers = job.board.jumpers.filter((_, i) => i !== 9);
    });
    const inspected = await cli('inspect', path);
    expect(inspected.code).toBe(1);
    expect(inspected.err).toMatch(/^error: U1\.\d+: U1 pin/);
    const walked = await cli('walk', path);
    expect(walked.code).toBe(1);
    expect(walked.out).toMatch(/of 16 rows differ\./);
  });

  it('card names the stages in order and ends with the pins', async () => {
    const { out } = await cli('card', interlock);
    expect(out.indexOf('1. Supply')).toBeLessThan(out.indexOf('U1 74HC21, powered'));
    expect(out).toMatch(/Pins\nU1 74HC21/);
  });
});

describe('wrong use', () => {
  it.each([
    [[]],
    [['frobnicate', 'x']],
    [['table']],
    [['table', 'x', '--colour']],
    [['table', 'x', 'y']],
    [['plan', 'x', '-o']],
  ])('%j gives 2', async (args) => {
    const { code, err, out } = await cli(...args);
    expect(code).toBe(2);
    expect(err + out).not.toBe('');
  });

  it('a folder that cannot be written to gives 2 and says so', async () => {
    const { code, err } = await cli('plan', interlock, '-o', join(folder, 'no/such/folder.json'));
    expect(code).toBe(2);
    expect(err).toContain('cannot be written');
  });

  it('help and version give 0', async () => {
    expect((await cli('--help')).code).toBe(0);
    expect((await cli('--version')).out).toBe('0.1.0\n');
  });
});

describe('samples', () => {
  it.each(['lock-interlock', 'boat-tally', 'towpath-lamp', 'flood-watch'])(
    '%s: the job is what its sheet gives today',
    async (name) => {
      const path = join(folder, `${name}.saddlebag.json`);
      await cli('plan', join(samples, `${name}.sheet`), '-o', path);
      const [made, kept] = [path, join(samples, `${name}.saddlebag.json`)].map((p) => {
        return { ...(JSON.parse(readFileSync(p, 'utf8')) as object), name: '' };
      });
      expect(made).toEqual(kept);
    },
  );
});
