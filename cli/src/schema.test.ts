import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import Ajv2020 from 'ajv/dist/2020';
import { describe, expect, it } from 'vitest';
import { showsColours } from './colours';
import { run } from './run';
import { invocations } from './testing/invocations';

const samples = join(import.meta.dirname, '../../samples');
const scratch = mkdtempSync(join(tmpdir(), 'saddlebag-schema-'));

async function printed(...args: string[]) {
  let [out, err] = ['', ''];
  const code = await run(args, {
    out: (t) => (out += t),
    err: (t) => (err += t),
    hasColours: args.includes('coloured'),
  });
  return { code, out, err };
}

/** Other samples than those that the shapes were worked out from. */
const others: Readonly<Record<string, readonly string[]>> = {
  table: ['@/stile-lamps.sheet'],
  guide: ['@/boat-tally.saddlebag.json'],
  inspect: ['@/boat-counter.saddlebag.json'],
  match: ['@/towpath-lamp.saddlebag.json'],
  recover: ['@/boat-tally.saddlebag.json'],
  card: ['@/boat-tally.saddlebag.json'],
  sheet: ['@/boat-tally.saddlebag.json'],
  verilog: ['@/towpath-lamp.sheet'],
  walk: ['@/boat-tally.saddlebag.json'],
  measure: ['@/boat-tally.saddlebag.json', '--set', 'A=1'],
  run: ['@/boat-counter.saddlebag.json', '--for', '1ms'],
  pack: ['@/towpath-lamp.sheet'],
  plan: ['@/towpath-lamp.sheet'],
  picture: ['@/towpath-lamp.saddlebag.json'],
  part: ['74161'],
  same: ['@/towpath-lamp.sheet', '@/lock-interlock.sheet'],
  restate: ['@/lock-interlock.sheet', '--signal', 'W'],
  states: ['@/boat-counter.saddlebag.json'],
  tour: ['@/boat-counter.saddlebag.json'],
  hazards: ['@/lock-interlock.saddlebag.json'],
  timers: ['@/keepers-clock.saddlebag.json'],
  resistors: ['@/boat-tally.saddlebag.json'],
  family: ['@/boat-tally.saddlebag.json', 'HCT'],
  diff: ['@/boat-tally.saddlebag.json', '@/lock-interlock.saddlebag.json'],
  memory: ['@/gauge-digit.hex', '--of', '28C16', '--name', 'BYTES'],
};

describe('what commands print with --json', () => {
  it('has a shape for each command that prints any', async () => {
    const { out } = await printed('--help');
    const commands = [...out.matchAll(/^ {2}([a-z]+) \[options\]/gm)].map((m) => m[1]);
    const { $defs } = JSON.parse((await printed('schema')).out);
    expect(
      Object.keys($defs)
        .filter((name) => name !== 'finding')
        .sort(),
    ).toEqual([...commands].sort());
    expect(Object.keys(invocations).sort()).toEqual([...commands].sort());
  });

  it.each(Object.entries(others))(
    '%s fits its shape, for samples that the shape was not worked out from',
    async (command, args) => {
      const named = args.map((arg) => arg.replaceAll('@', samples));
      const { out } = await printed(command, ...named, '--json');
      const fits = new Ajv2020({ strict: false }).compile(JSON.parse((await printed('schema', command)).out));
      fits(JSON.parse(out));
      expect(fits.errors).toBeNull();
      // A shape that everything fits would say nothing.
      expect(fits({ nothing: true })).toBe(false);
    },
  );

  it('says so of a command that prints none', async () => {
    expect((await printed('schema', 'completion')).code).toBe(2);
    expect((await printed('schema', 'finding')).code).toBe(2);
    expect((await printed('schema', 'constructor')).code).toBe(2);
  });
});

describe('what a terminal shows', () => {
  it('has colours where it can, and none where somebody or something asks for none', () => {
    expect(showsColours(true, {})).toBe(true);
    expect(showsColours(false, {})).toBe(false);
    expect(showsColours(true, { NO_COLOR: '1' })).toBe(false);
    expect(showsColours(true, { TERM: 'dumb' })).toBe(false);
    expect(showsColours(false, { FORCE_COLOR: '1' })).toBe(true);
    expect(showsColours(true, { FORCE_COLOR: '0' })).toBe(false);
  });

  it('has the severity of a finding in colour, and the same words without', async () => {
    const path = join(scratch, 'bad.sheet');
    writeFileSync(path, 'in A\nout Y\nY = B\n');
    let coloured = '';
    await run(['table', path], { out: () => {}, err: (t) => (coloured += t), hasColours: true });
    const { err } = await printed('table', path);
    expect(coloured).toContain('\u001b[');
    expect(stripVTControlCharacters(coloured)).toBe(err);
  });
});

describe('patterns where no shell has put files in', () => {
  it('stand for the files that they fit, in order; one that fits none is wrong use', async () => {
    for (const name of ['b', 'a']) writeFileSync(join(scratch, `${name}.tick.sheet`), 'in A\nout Y\nY = A\n');
    const { out, code } = await printed('table', join(scratch, '*.tick.sheet'));
    expect(code).toBe(0);
    expect([...out.matchAll(/== .*?(\w)\.tick\.sheet/g)].map((m) => m[1])).toEqual(['a', 'b']);
    expect((await printed('table', join(scratch, '*.nothing'))).code).toBe(2);
    // A file that is called so is that file.
    writeFileSync(join(scratch, 'odd[1].sheet'), readFileSync(join(scratch, 'a.tick.sheet')));
    expect((await printed('table', join(scratch, 'odd[1].sheet'))).code).toBe(0);
  });
});
