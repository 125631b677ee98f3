import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
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

describe('plan', () => {
  it('leaves a part that is fixed in the file where it is, and says how long wires are and how often they cross', async () => {
    const path = changed((job) => {
      const { board } = job as unknown as { board: { parts: { ref: string; at: string; fixed?: true }[] } };
      for (const part of board.parts) if (part.ref === 'U2') part.fixed = true;
    });
    const before = JSON.parse(readFileSync(path, 'utf8')) as { board: { parts: { ref: string; at: string }[] } };
    const made = await cli('plan', path, '--json');
    expect(made.code).toBe(0);
    const { parts, length, crossings } = made.json() as unknown as {
      parts: { ref: string }[];
      length: { laid: number; bound: number };
      crossings: number;
    };
    expect(parts.find((p) => p.ref === 'U2')).toEqual(before.board.parts.find((p) => p.ref === 'U2'));
    expect(length.laid / length.bound).toBeLessThan(1.6);
    expect(crossings).toBeLessThan(60);
    expect((await cli('plan', path)).out).toMatch(
      /mm long, \d+\s% longer than the shortest possible, crossing \d+ times?\./,
    );
  });

  it('refuses a file in which a part is fixed in another word than true', async () => {
    const path = changed((job) => {
      const { board } = job as unknown as { board: { parts: { fixed?: unknown }[] } };
      for (const part of board.parts) part.fixed = 'yes';
    });
    const { code, err } = await cli('plan', path);
    expect(code).toBe(1);
    expect(err).toContain('fixed');
  });
});

describe('picture', () => {
  const size = (png: Buffer): number[] => [png.readUInt32BE(16), png.readUInt32BE(20)];

  it('draws the board as an SVG true to scale, every part and jumper on it, by day or dim', async () => {
    const { code, out, err } = await cli('picture', interlock);
    expect({ code, err }).toEqual({ code: 0, err: '' });
    // 66.4 and 19.4 holes of 2.54 mm.
    expect(out).toMatch(/^<svg [^>]*width="168\.66mm" height="49\.28mm"/);
    expect(out.match(/data-wire="/g)).toHaveLength(28);
    expect(out).toContain('data-ref="U2"');
    expect((await cli('picture', interlock, '--dim')).out.replaceAll(/#[0-9A-F]{6}/g, '')).toBe(
      out.replaceAll(/#[0-9A-F]{6}/g, ''),
    );
    expect((await cli('picture', interlock, '--dim')).out).not.toBe(out);
  });

  it('paints a PNG of 300 points to the inch, with names in it', async () => {
    const [plain, unnamed] = [join(folder, 'board.png'), join(folder, 'unnamed.png')];
    expect((await cli('picture', interlock, '-o', plain)).code).toBe(0);
    const png = readFileSync(plain);
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    expect(size(png)).toEqual([1992, 582]);
    // Text is painted: another name on a lamp makes another picture.
    const other = changed((job) => {
      const { parts } = job.board as unknown as { parts: { ref: string; signal?: string }[] };
      for (const part of parts) if (part.ref === 'D1') part.signal = 'W';
    });
    await cli('picture', other, '-o', unnamed);
    expect(readFileSync(unnamed).equals(png)).toBe(false);
  });

  it('lays a sheet out first, and says what a program wants to know', async () => {
    const path = join(folder, 'lamp.svg');
    const made = await cli('picture', join(samples, 'towpath-lamp.sheet'), '-o', path, '--json');
    expect(made).toMatchObject({ code: 0, err: '' });
    expect(made.json()).toMatchObject({ file: path, points: { width: 1992 }, findings: [] });
    expect(readFileSync(path, 'utf8')).toContain('data-ref="U1"');
    expect((await cli('picture', file('bad.sheet', 'in A\nout Z\nZ = A &\n'))).code).toBe(1);
    expect((await cli('picture', interlock, '-o', join(folder, 'no/such/folder.png'))).code).toBe(2);
  });
});

describe('a board of transistors', () => {
  const bell = join(samples, 'transistor-bell.saddlebag.json');

  it('is walked, inspected, carded and read back, and never said to match pins that it has not', async () => {
    expect((await cli('walk', bell)).out).toContain('All 4 rows agree.');
    expect((await cli('inspect', bell)).code).toBe(0);
    const card = await cli('card', bell);
    expect(card.out).toContain('Transistors, diodes and lamps');
    expect(card.out).not.toContain('U1');
    const back = await cli('recover', bell);
    expect([back.code, back.out]).toEqual([0, expect.stringContaining('table B of K T : 1110')]);
    const match = await cli('match', bell);
    expect([match.code, match.out]).toEqual([1, '']);
    expect(match.err).toContain('built of transistors, diodes or analogue switches');
  });
});

describe('every command', () => {
  const commands = ['table', 'pack', 'plan', 'inspect', 'walk', 'card', 'picture'];
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

  it.each(commands)('%s gives 1 for a file that is torn, or newer', async (command) => {
    const paths = [file('torn.json', '{'), file('newer.json', '{"format":"saddlebag-job","version":9}')];
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

  it('pack builds in other ways, from a drawer, and says what is missing there', async () => {
    const fewest = JSON.parse(
      (await cli('pack', join(samples, 'level-dial.sheet'), '--way', 'fewest', '--seconds', '3', '--json')).out,
    );
    expect(fewest).toMatchObject({
      strategy: 'fewest',
      packages: 2,
      proof: 'gates',
      bound: 2,
      missing: [],
      findings: [],
    });
    const drawer = join(folder, 'drawer.csv');
    writeFileSync(drawer, 'part,count,price\n74HC00,6,0.4\nSN74HC02N,1\n');
    const built = await cli('pack', interlock, '--way', 'drawer', '--drawer', drawer, '--json');
    expect(built.code).toBe(0);
    expect(
      JSON.parse(built.out)
        .parts.map((p: { part: string }) => p.part)
        .sort(),
    ).toEqual(['74HC00', '74HC02']);
    const short = await cli('pack', interlock, '--drawer', drawer);
    expect([short.code, short.err]).toEqual([1, expect.stringContaining('The drawer has 0 of the 1 74HC21')]);
    writeFileSync(drawer, '74HC00,many\nteapot,1\n');
    const bad = await cli('pack', interlock, '--way', 'drawer', '--drawer', drawer);
    expect(bad.code).toBe(1);
    expect(bad.err).toContain('Line 2: no part is known as teapot.');
    expect((await cli('pack', interlock, '--way', 'cheapest')).code).toBe(2);
    expect((await cli('pack', interlock, '--seconds', 'soon')).code).toBe(2);
  }, 60_000);

  it('inspect leaves unsaid what the job silences at its place, there alone, and says that it does', async () => {
    const silent = (place: string) => {
      const job = JSON.parse(readFileSync(interlock, 'utf8'));
      job.board.parts = job.board.parts.filter((p: { ref: string }) => p.ref !== 'C1');
      return file(
        'silent.saddlebag.json',
        JSON.stringify({ ...job, silenced: [{ code: 'no-capacitor', place, reason: 'x' }] }),
      );
    };
    expect(await cli('inspect', silent('U1'))).toMatchObject({
      code: 0,
      out: expect.stringContaining('1 finding silenced'),
    });
    expect((await cli('inspect', silent('U2'))).code).toBe(1);
  });

  it('lead says what comes next on the board as it stands, and stops at a wrong signal', async () => {
    const bare = join(folder, 'bare.sheet');
    writeFileSync(bare, 'in A B\nout Y\nY = A & B\n');
    const start = await cli('guide', bare);
    expect(start.code).toBe(0);
    expect(start.out).toMatch(/^1 of \d+: Supply\nSeat P1, the supply/);
    const { step, done, total } = JSON.parse((await cli('guide', bare, '--json')).out);
    expect([step.edit.kind, done]).toEqual(['seat', 1]);
    expect(total).toBeGreaterThan(15);
    const whole = await cli('guide', join(samples, 'lock-interlock.saddlebag.json'));
    expect(whole.out).toContain('all is built');
    const file = JSON.parse(readFileSync(join(samples, 'lock-interlock.saddlebag.json'), 'utf8'));
    const other: Record<string, string> = { G: 'P', P: 'G' };
    for (const part of file.board.parts) part.signal = other[part.signal] ?? part.signal;
    const wrong = join(folder, 'wrong.saddlebag.json');
    writeFileSync(wrong, JSON.stringify(file));
    expect((await cli('guide', wrong)).code).toBe(1);
  });

  it('match finds each gate on the unit where it was wired, and what differs', async () => {
    const moved = join(folder, 'moved.saddlebag.json');
    const out = JSON.parse((await cli('pack', interlock, '--json')).out) as {
      packing: { packages: { ref: string; units: ({ output: string } | null)[] }[] };
    };
    const u2 = out.packing.packages.find((p) => p.ref === 'U2');
    const spare = (u2?.units.indexOf(null) ?? -1) + 1;
    await cli('pack', interlock, '--pin', `W=U2.${spare}`, '-o', moved);
    const job = JSON.parse(readFileSync(moved, 'utf8'));
    // The packing as it was, the board as it is now wired.
    job.packing = JSON.parse(readFileSync(interlock, 'utf8')).packing;
    writeFileSync(moved, JSON.stringify({ ...job, locks: undefined }));
    const { code, out: said } = await cli('match', moved);
    expect([code, said]).toEqual([
      0,
      expect.stringMatching(new RegExp(`W on U2\\.${spare}, planned on U2\\.\\d: U L`)),
    ]);
    expect(said).toContain('4 gates found, 1 on another unit than planned; 0 differences.');
    const cut = changed((j) => j.board.jumpers.splice(20, 1));
    expect((await cli('match', cut)).code).toBe(1);
  });

  it('recover reads the design back from the board, and tells what the sheet cannot have', async () => {
    const { code, out } = await cli('recover', interlock);
    expect([code, out]).toEqual([0, expect.stringMatching(/^in K E U L$/m)]);
    const sheet = file('back.sheet', out);
    expect((await cli('same', sheet, interlock)).code).toBe(0);
    const to = join(folder, 'to.sheet');
    await cli('recover', interlock, '-o', to);
    expect(readFileSync(to, 'utf8')).toBe(out);
    expect((await cli('recover', file('bare.sheet', 'in A\nout Y\nY = A'), '--json')).code).toBe(0);
  });

  it('pack puts gates on units by hand, keeps them there in the job, and says why it cannot', async () => {
    const out = join(folder, 'by-hand.saddlebag.json');
    const made = await cli('pack', interlock, '--add', '7402', '--pin', 'W=U3.2', '-o', out, '--json');
    expect([made.code, JSON.parse(made.out).packages]).toEqual([0, 3]);
    const job = JSON.parse(readFileSync(out, 'utf8'));
    expect(job.locks).toMatchObject({ pins: [{ net: 'W', ref: 'U3', unit: 2 }], added: [{ ref: 'U3', part: '7402' }] });
    const again = JSON.parse((await cli('pack', out, '--way', 'fewest', '--seconds', '2', '--json')).out);
    const u3 = again.packing.packages.find((p: { ref: string }) => p.ref === 'U3');
    expect([u3.part, u3.units[1].output]).toEqual(['74HC02', 'W']);
    const wrong = await cli('pack', interlock, '--pin', 'W=U1.1');
    expect([wrong.code, wrong.out + wrong.err]).toEqual([1, expect.stringMatching(/cannot do what W needs: NOR of 2/)]);
    expect((await cli('pack', interlock, '--pin', 'W=nowhere')).code).toBe(1);
    expect((await cli('pack', interlock, '--add', '7447')).code).toBe(1);
  });

  it('pack says the nearest when the drawer does not do, and what that lacks', async () => {
    const drawer = join(folder, 'poor.csv');
    writeFileSync(drawer, 'part,count\n74HC08,9');
    const { code, out, err } = await cli('pack', interlock, '--way', 'drawer', '--drawer', drawer);
    expect(code).toBe(1);
    expect(out + err).toMatch(/this is the nearest, and it lacks 1 × 74HC\d+\./);
  });

  it('pack counts packages and says how sure it is', async () => {
    const { out } = await cli('pack', interlock);
    expect(out).toContain(
      '2 packages, 4 units used, 2 spare; 2 gates deep, 21 ns. Fewest for these gates one to one: proved.',
    );
  });

  it('plan -o writes a job that inspect and walk find in order', async () => {
    const path = join(folder, 'planned.saddlebag.json');
    expect((await cli('plan', join(samples, 'towpath-lamp.sheet'), '-o', path)).code).toBe(0);
    expect((await cli('inspect', path)).out).toBe('No problems found.\n');
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

describe('parts, forms and comparisons', () => {
  it('part tells a chip however its number is written, in its family', async () => {
    const plain = await cli('part', 'SN74LS93N');
    expect(plain.code).toBe(0);
    expect(plain.out).toContain('74LS93: 4-bit binary counter, by 2 and by 8');
    expect(plain.out).toContain('Supply on pin 5, ground on pin 10.');
    const made = (await cli('part', '7493', '--json')).json();
    expect(made).toMatchObject({ id: '7493', number: '74HC93' });
    expect((made.pins as unknown as { pin: string; name: string }[]).find((p) => p.name === 'CKA')?.pin).toBe('14');
  });

  it('part finds by function, and gives 1 for what is no part', async () => {
    const flipFlop = (await cli('part', '7474')).out;
    expect(flipFlop).toMatch(/^1CLK 1CLRn 1D 1PREn \| 1Q +1Qn$/m);
    expect(flipFlop).toMatch(/^no ↑ +H +X +H +\| as before +as before$/m);
    expect((await cli('part', 'three-input', 'nor')).out).toMatch(/^74HC27 /);
    expect(await cli('part', 'teapot')).toMatchObject({ code: 1, out: '' });
    expect((await cli('part', 'teapot', '--json')).json().parts).toEqual([]);
  });

  it('same tells designs apart with the first row, and gives 0 for the same', async () => {
    const a = file('a.sheet', 'in A B C\nout Y\nY = A & B | A & C\n');
    const b = file('b.sheet', 'in A B C\nout Y\nY = A & (B | C)\n');
    const c = file('c.sheet', 'in A B C\nout Y Z\nY = A & B\nZ = C & A\n');
    expect(await cli('same', a, b)).toMatchObject({ code: 0, out: 'The same in all 8 rows.\n' });
    const apart = await cli('same', a, `${c}:Y`);
    expect(apart).toMatchObject({ code: 1, out: 'They differ, first in row 5: A=1 B=0 C=1: Y is 1 and 0.\n' });
    expect((await cli('same', `${c}:Y`, `${c}:Z`, '--json')).json()).toMatchObject({ same: false, first: { row: 5 } });
    expect((await cli('same', a, c)).code).toBe(1);
    expect((await cli('same', a)).code).toBe(2);
  });

  it('restate lists the forms with their size, and writes one', async () => {
    const path = file('maj.sheet', 'in A B C\nout Y\nY = A & B | B & C | A & C & ~B\n');
    const plain = await cli('restate', path);
    expect(plain.code).toBe(0);
    expect(plain.out).toContain(
      'smallest sum of products: 4 gates, 2 levels, 2 chips in all, proved smallest\n  Y = A & B | A & C | B & C\n',
    );
    const to = join(folder, 'nand.sheet');
    expect((await cli('restate', path, '--signal', 'Y', '--form', 'nand', '-o', to)).code).toBe(0);
    expect(await cli('same', path, to)).toMatchObject({ code: 0 });
    expect((await cli('restate', path, '--form', 'teapot')).code).toBe(2);
    expect((await cli('restate', path, '--signal', 'Q')).code).toBe(1);
  });

  it('verilog and sheet carry a design there and back', async () => {
    const from = join(samples, 'boat-tally.sheet');
    const to = join(folder, 'tally.v');
    expect((await cli('verilog', from, '-o', to)).code).toBe(0);
    expect(readFileSync(to, 'utf8')).toContain('module boat_tally(');
    expect(await cli('same', from, to)).toMatchObject({ code: 0 });
    const csv = file('t.csv', 'A,B,,Y\n0,0,,1\n1,1,,1\n');
    expect((await cli('sheet', csv)).out).toContain('table Y of A B\n  00 : 1\n');
    const odd = file('odd.v', 'module m(input a, output y);\n initial y = 1;\n assign y = a;\nendmodule\n');
    expect(await cli('sheet', odd)).toMatchObject({ code: 1 });
  });

  it('table shows don’t-cares, and says of a clocked sheet what it cannot list', async () => {
    const path = file('dc.sheet', 'in A B\nout Y\ntable Y of A B : 01-1\n');
    expect((await cli('table', path)).out).toContain('1 0 | -');
    const clocked = file('ff.sheet', 'in D C\nout Q\nQ = D at rise C\n');
    expect(await cli('table', clocked)).toMatchObject({ code: 1, out: '' });
    expect((await cli('pack', clocked)).out).toContain('U1 74HC74');
  });
});

describe('files', () => {
  const read = (path: string): string => readFileSync(path, 'utf8');
  const sheet = join(samples, 'lock-interlock.sheet');

  it.each([
    ['pack', sheet, '.saddlebag.json'],
    ['plan', sheet, '.saddlebag.json'],
    ['recover', interlock, '.sheet'],
    ['verilog', sheet, '.v'],
    ['sheet', sheet, '.sheet'],
    ['picture', interlock, '.svg'],
  ])(
    '%s writes whole or not at all, never over what it reads, and only what the ending says',
    async (command, from, ending) => {
      const copy = file(`in${/\.saddlebag\.json$|\.sheet$/.exec(from)?.[0]}`, read(from));
      const to = join(folder, `out-${command}${ending}`);
      expect((await cli(command, copy, '-o', to)).code).toBe(0);
      const written = read(to);
      expect(written.length).toBeGreaterThan(50);
      for (const bad of [join(folder, 'no', `way${ending}`), to.replace(ending, '.pdf'), copy]) {
        const { code, out, err } = await cli(command, copy, '-o', bad);
        expect({ code, out }, bad).toEqual({ code: 2, out: '' });
        expect(err).toMatch(/^saddlebag: [^\n]+\.\n$/);
        expect(err).not.toMatch(/\bat \w+ \(|node:/);
      }
      expect(read(copy)).toBe(read(from));
      expect(read(to)).toBe(written);
      expect(readdirSync(folder).filter((name) => name.includes('.part'))).toEqual([]);
    },
  );

  it('that are not there are wrong use, in one line', async () => {
    for (const args of [
      ['table', 'nowhere.sheet'],
      ['pack', sheet, '--drawer', 'nowhere.csv'],
      ['same', sheet, 'nowhere.v'],
    ]) {
      const { code, err } = await cli(...args);
      expect(code).toBe(2);
      expect(err).toMatch(/^saddlebag: nowhere\.\w+ cannot be read: there is no such file or folder\.\n$/);
    }
  });

  it('come from standard input for -, whatever they hold, and are bounded from devices as well', () => {
    const entry = join(import.meta.dirname, '../dist/main.js');
    const of = (input: string, ...args: string[]) =>
      spawnSync(process.execPath, [entry, ...args], { input, encoding: 'utf8' });
    expect(of(read(sheet), 'table', '-').stdout).toBe(of('', 'table', sheet).stdout);
    expect(of(read(interlock), 'inspect', '-')).toMatchObject({ status: 0, stdout: 'No problems found.\n' });
    expect(of('module m(input a, output y); not(y, a); endmodule', 'table', '-').stdout).toContain('a | y');
    const endless = of('', 'table', '/dev/zero');
    expect([endless.status, endless.stderr]).toEqual([1, expect.stringContaining('more than')]);
  });

  it('never make a message longer than 4 kB', async () => {
    const long = 'x'.repeat(20_000);
    const { err } = await cli('table', file('long.sheet', `in ${long}\nout y\ny = ${long}${long}`));
    expect(err.length).toBeGreaterThan(0);
    for (const line of err.split('\n')) expect(line.length).toBeLessThan(4096);
    expect((await cli('table', long)).err.length).toBeLessThan(4096);
    expect((await cli(long)).err.length).toBeLessThan(4096);
  });
});

describe('boards without a design, and designs that store', () => {
  it('walk shows what a board without a sheet does, and compares it with nothing', async () => {
    const path = changed((job) => {
      Object.assign(job, { sheet: '', packing: undefined });
    });
    const { code, out } = await cli('walk', path);
    expect(code).toBe(0);
    expect(out).toContain('16 rows seen. There is no design to compare with');
    expect(out).not.toContain('agree');
    const { rows, differing } = (await cli('walk', path, '--json')).json() as unknown as {
      rows: { wanted: null }[];
      differing: null;
    };
    expect([rows.length, rows[0]?.wanted, differing]).toEqual([16, null, null]);
  });

  it('walk says through which pin a row shows no level', async () => {
    const job = join(samples, 'lock-interlock.saddlebag.json');
    const file = JSON.parse(readFileSync(job, 'utf8')) as {
      board: { jumpers: { id: string; from: string; to: string }[] };
    };
    const cut = file.board.jumpers.findIndex(({ from, to }) => [from, to].some((hole) => hole.endsWith('.j18')));
    const path = changed((j) => j.board.jumpers.splice(cut, 1));
    const { code, out } = await cli('walk', path);
    expect([code, out]).toEqual([1, expect.stringMatching(/\?.* differs {2}U1\.14 has no supply/)]);
    const { rows } = JSON.parse((await cli('walk', path, '--json')).out);
    expect(rows[0].unclear).toEqual({ pin: 'U1.14', why: 'no-supply' });
  });

  it('measure tells volts, levels and currents of every lead and lamp, as the switches are set', async () => {
    const job = join(samples, 'lock-interlock.saddlebag.json');
    const at = async (...set: string[]) => {
      const { code, out } = await cli('measure', job, '--json', ...set);
      expect(code).toBe(0);
      return JSON.parse(out);
    };
    const off = await at();
    const on = await at('--set', 'K=1,E=1', '--at', '3s');
    const file = JSON.parse(readFileSync(job, 'utf8')) as {
      board: { parts: { ref: string; part: string; signal?: string }[] };
    };
    const ofSignal = (signal: string): string => file.board.parts.find((p) => p.signal === signal)?.ref ?? '';
    for (const { ref, part } of file.board.parts)
      if (part === 'led' || part === 'switch' || part === 'resistor')
        expect(Object.keys(on.pins).filter((pin) => pin.startsWith(`${ref}.`)).length, ref).toBe(2);
    expect(on.timeNs).toBe(3e9);
    expect(off.pins['U1.14']).toEqual({ volts: 5, level: '1' });
    expect(off.lamps[ofSignal('G')]).toEqual({ ma: 0, state: 'dark' });
    expect(on.lamps[ofSignal('G')].state).toBe('lit');
    expect(on.lamps[ofSignal('G')].ma).toBeGreaterThan(2.5);
    expect(on.lamps[ofSignal('G')].ma).toBeLessThan(3.5);
    expect(on.supplyMa).toBeGreaterThan(off.supplyMa);
    expect(on.pins[`${ofSignal('K')}.2`]).toEqual({ volts: 4.999975, level: '1' });
    expect((await cli('measure', job, '--set', 'K=1')).out).toMatch(/^U1\.14 +5\.00 V {2}1$/m);
  });

  it('measure says which switch there is not, and refuses what is no setting or time', async () => {
    const job = join(samples, 'lock-interlock.saddlebag.json');
    const none = await cli('measure', job, '--set', 'Q=1');
    expect(await cli('measure', job, '--turn', 'RV9=30')).toMatchObject({
      code: 2,
      err: expect.stringContaining('RV9'),
    });
    expect([none.code, none.err]).toEqual([2, expect.stringContaining('Q')]);
    for (const wrong of [
      ['--set', 'K'],
      ['--set', 'K=2'],
      ['--at', '3'],
      ['--at', 'soon'],
      ['--set', ''],
      ['--turn', 'RV1'],
      ['--turn', 'RV1=101'],
    ])
      expect((await cli('measure', job, ...wrong)).code, wrong.join(' ')).toBe(2);
  });

  it('walk says the same swept and by events', async () => {
    for (const name of ['lock-interlock', 'transistor-bell', 'apprentice-bench']) {
      const job = join(samples, `${name}.saddlebag.json`);
      const [swept, events] = [await cli('walk', job, '--json'), await cli('walk', job, '--json', '--events')];
      expect(events.out.length).toBeGreaterThan(100);
      expect(swept).toEqual({ ...events, json: expect.anything() });
    }
  });

  it('run lets time pass, and tells what each signal did, in words, JSON, a dump and a table', async () => {
    const beacon = join(samples, 'fog-beacon.saddlebag.json');
    const [vcd, csv] = [join(folder, 'beacon.vcd'), join(folder, 'beacon.csv')];
    const { code, out } = await cli('run', beacon, '--for', '20s', '--json', '--vcd', vcd, '--csv', csv);
    expect(code).toBe(0);
    const { untilNs, events, signals } = JSON.parse(out);
    expect([untilNs, Object.keys(signals)]).toEqual([20e9, ['Q0', 'Q1', 'Q2', 'Q3']]);
    expect(events).toBeGreaterThan(100);
    expect(events).toBeLessThan(2000);
    // Q0 halves the timer: 1.44 / ((10 kΩ + 2 × 68 kΩ) 4.7 µF) = 2.1 Hz.
    expect(signals.Q0.periodNs / (2 * Math.LN2 * 146e3 * 4.7e-6 * 1e9)).toBeCloseTo(1, 1);
    expect(Object.keys(signals.Q3).sort()).toEqual(['edges', 'highShare', 'periodNs', 'shortestPulseNs']);
    expect(signals.Q3.edges).toBeGreaterThan(2);
    expect(readFileSync(vcd, 'utf8')).toMatch(/^\$timescale 100 ps \$end\n/);
    expect(readFileSync(csv, 'utf8')).toMatch(/^time_ns,Q0,Q0_volts/);
    const plain = await cli('run', beacon, '--for', '2s', '--watch', 'U1.3,U1.6');
    expect(plain.out).toMatch(/^U1\.3 +\d+ edges {2}2\.0\d+ Hz, high 53\.\d %, shortest pulse 223\.\d ms$/m);
  });

  it('run moves switches when it is told to, starts as it is told to, and refuses what it cannot read', async () => {
    const counter = join(samples, 'boat-counter.saddlebag.json');
    const presses = Array.from({ length: 5 }, (_, i) => `B=1@${2 * i + 1}us,B=0@${2 * i + 2}us`).join();
    const q0 = async (...more: string[]) => {
      const { out } = await cli('run', counter, '--for', '20us', '--json', '--set', presses, ...more);
      return JSON.parse(out).signals.Q0.edges;
    };
    expect([await q0('--start', 'clear'), await q0()]).toEqual([5, 0]);
    expect([4, 5]).toContain(await q0('--start', 'chance:7'));
    const job = ['run', counter, '--for'];
    for (const wrong of [
      ['run', counter],
      [...job, 'soon'],
      [...job, '1ms', '--set', 'B'],
      [...job, '1ms', '--set', 'B=1@later'],
      [...job, '1ms', '--set', 'NONE=1@0'],
      [...job, '1ms', '--watch', 'NONE'],
      [...job, '1ms', '--start', 'luckily'],
      [...job, '1ms', '--bounce', 'much'],
      [...job, '1ms', '--vcd', join(folder, 'x.csv')],
    ])
      expect((await cli(...wrong)).code, wrong.join(' ')).toBe(2);
  });

  it('several files are done one after the other, each under its name, as one list in JSON; the worst decides', async () => {
    const bench = join(samples, 'apprentice-bench.saddlebag.json');
    const two = await cli('walk', join(samples, 'lock-interlock.sheet'), join(samples, 'towpath-lamp.sheet'));
    expect([two.code, two.out.match(/^== .*$/gm)?.length, two.out.match(/rows agree/g)?.length]).toEqual([0, 2, 2]);
    const mixed = await cli('inspect', interlock, bench, '--json');
    expect(mixed.code).toBe(1);
    expect(mixed.json()).toMatchObject([
      { file: interlock, code: 0 },
      { file: bench, code: 1 },
    ]);
    expect((await cli('inspect', interlock, join(folder, 'none.json'))).code).toBe(2);
    expect((await cli('sheet', interlock, bench, '-o', join(folder, 'both.sheet'))).code).toBe(2);
    expect((await cli('table', '-', '-')).code).toBe(2);
  });

  it('completion makes a shell complete commands, their options and files', async () => {
    const { code, out } = await cli('completion', 'bash');
    expect(code).toBe(0);
    const asked = (...words: string[]): string[] => {
      const script = `${out}\nCOMP_WORDS=(${words.map((w) => `'${w}'`).join(' ')}); COMP_CWORD=${words.length - 1}; _saddlebag; printf '%s\\n' "\${COMPREPLY[@]}"`;
      return execFileSync('bash', ['-c', script], { cwd: samples, encoding: 'utf8' }).trim().split('\n');
    };
    expect(asked('saddlebag', 'wa')).toEqual(['walk']);
    expect(asked('saddlebag', 'r').sort()).toEqual(['recover', 'resistors', 'restate', 'run']);
    expect(asked('saddlebag', 'pack', '--str')).toEqual(['--strategy']);
    expect(asked('saddlebag', 'walk', 'lock-interlock.sh')).toEqual(['lock-interlock.sheet']);
    // Every command that help lists is completed, by every shell.
    const help = await cli('--help');
    const commands = [...help.out.matchAll(/^ {2}([a-z]+) (?:\[options\] )?</gm)].map((m) => m[1] ?? '');
    expect(commands.length).toBeGreaterThan(20);
    for (const shell of ['bash', 'zsh', 'fish'])
      for (const command of commands)
        expect((await cli('completion', shell)).out).toMatch(new RegExp(`\\b${command}\\b`));
    expect((await cli('completion', 'sh')).code).toBe(2);
  });

  it('family takes a job to what the drawer has, whatever families that are, and says what is missing there', async () => {
    const [csv, to] = ['lab.csv', 'lab.saddlebag.json'].map((name) => join(folder, name)) as [string, string];
    writeFileSync(csv, 'part,count\n74LS21,1\n74HCT02,4\n74HC02,1\n74LS00,3\n');
    const { code, out, err } = await cli('family', interlock, '--drawer', csv, '-o', to);
    expect(code).toBe(0);
    expect(out).toMatch(
      /^U1: 74HC21 becomes 74LS21\nU2: 74HC02 becomes 74HCT02\n(R\d: 10 kΩ becomes .*\n)+2 chips changed on the board.\n$/,
    );
    expect(err).toBe('');
    expect((await cli('inspect', to)).code).toBe(0);
    const high = await cli('family', interlock, 'HC', '--drawer', csv, '--json');
    expect(high.json()).toMatchObject({ family: 'HC', findings: [{ code: 'family-not-in-drawer' }] });
    expect((await cli('family', interlock)).code).toBe(2);
  });

  it('memory writes what a file holds as a part of a sheet, alone or put into a job', async () => {
    const hex = join(samples, 'gauge-digit.hex');
    const made = await cli('memory', hex, '--of', '74288', '--name', 'DIGIT', '--title', 'gauge');
    expect(made).toMatchObject({
      code: 0,
      out: 'part DIGIT "gauge" of 74288\n  holds 3F 06 5B 4F 66 6D 7D 07 7F 6F\nend\n',
    });
    const to = join(folder, 'digit.saddlebag.json');
    expect((await cli('memory', hex, '--of', '74288', '--name', 'DIGIT', '--in', interlock, '-o', to)).code).toBe(0);
    expect((await cli('part', 'DIGIT', '--in', to)).out).toContain('74S288');
    const csv = join(folder, 'wrong.csv');
    writeFileSync(csv, '0,1\n1,900\n');
    const wrong = await cli('memory', csv, '--of', '74288', '--name', 'DIGIT', '--json');
    expect(wrong.code).toBe(1);
    expect(wrong.json()).toMatchObject({ findings: [{ code: 'sheet/wide-word' }] });
    expect((await cli('memory', hex, '--of', '74288', '--name', 'DIGIT', '-o', to)).code).toBe(2);
    expect((await cli('memory', hex)).code).toBe(2);
  });

  it('family takes a job to another, says what changes and what is not made, and writes it', async () => {
    const to = join(folder, 'ls.saddlebag.json');
    const { code, out } = await cli('family', interlock, 'ls', '-o', to);
    expect(code).toBe(0);
    expect(out.split('\n')).toEqual([
      'U1: 74HC21 becomes 74LS21',
      'U2: 74HC02 becomes 74LS02',
      ...[
        'R1: 10 kΩ becomes 820 Ω',
        'R2: 10 kΩ becomes 330 Ω',
        'R3: 10 kΩ becomes 820 Ω',
        'R4: 10 kΩ becomes 820 Ω',
      ].map((line) => `${line}, the pull-down of an input`),
      '2 chips changed on the board.',
      '',
    ]);
    expect((await cli('walk', to)).code).toBe(0);
    expect((await cli('inspect', to)).code).toBe(0);
    const standard = await cli('family', interlock, '74', '--json');
    expect(standard.json()).toMatchObject({ family: '74', findings: [{ code: 'family-not-made' }] });
    for (const wrong of [
      ['family', interlock, 'XY'],
      ['family', interlock],
      ['family', interlock, 'LS', '-o', interlock],
    ])
      expect((await cli(...wrong)).code, wrong.join(' ')).toBe(2);
    const job = join(folder, 'sheet-ls.saddlebag.json');
    expect((await cli('family', join(samples, 'boat-tally.sheet'), 'LS', '-o', job)).code).toBe(0);
    const packed = await cli('pack', job);
    expect(packed.out).toContain('74LS86');
  });

  it('run draws the timing diagram as the screen does', async () => {
    const svg = join(folder, 'beacon.svg');
    const beacon = join(samples, 'fog-beacon.saddlebag.json');
    expect((await cli('run', beacon, '--for', '5s', '--svg', svg)).code).toBe(0);
    const text = readFileSync(svg, 'utf8');
    expect(text).toMatch(/^<svg /);
    for (const words of ['Fog beacon', 'Q0', 'Q3', '5 s']) expect(text).toContain(`>${words}</text>`);
    expect((await cli('run', beacon, '--for', '5s', '--svg', join(folder, 'beacon.pdf'))).code).toBe(2);
  });

  it('resistors tells what each is for and may be, and takes what an LED is to get', async () => {
    const { code, out } = await cli('resistors', interlock);
    expect([code, out]).toEqual([
      0,
      expect.stringContaining('R5: 1 kΩ, before D1, up to 3.1 mA; 750 Ω to 6.2 kΩ will do'),
    ]);
    expect(out).toContain('R1: 10 kΩ, pull-down at U1.1; 200 Ω to 100 kΩ will do, 10 kΩ suits best\n');
    const { resistors } = (await cli('resistors', interlock, '--ma', '1.5', '--json')).json() as unknown as {
      resistors: { ref: string; suggestedOhms: number }[];
    };
    expect(resistors.find((r) => r.ref === 'R5')?.suggestedOhms).toBe(2200);
    for (const wrong of ['much', '0', '-3']) expect((await cli('resistors', interlock, '--ma', wrong)).code).toBe(2);
  });

  it('timers tells what each comes to, with its spread; a board without one has none', async () => {
    const beacon = join(samples, 'fog-beacon.saddlebag.json');
    const { code, out } = await cli('timers', beacon);
    expect(code).toBe(0);
    expect(out).toBe('U1.3: 2.102 Hz (1.82 Hz to 2.459 Hz), high 53 %, by R1 R2 C1\n1 timer.\n');
    const { timers } = (await cli('timers', beacon, '--json')).json() as unknown as { timers: object[] };
    expect(timers).toMatchObject([{ pin: 'U1.3', kind: 'astable', resistors: ['R1', 'R2'], capacitor: 'C1' }]);
    expect((await cli('timers', interlock)).out).toBe('0 timers.\n');
    const target = join(folder, 'switched.saddlebag.json');
    const wired = await cli('timers', beacon, '--fast-switch', 'U1.3', '-o', target);
    expect([wired.code, wired.out]).toEqual([
      0,
      'U1.3: 210.2 Hz (182 Hz to 245.9 Hz), high 53 %, by R1 R2 C1; 2.082 Hz while S1 is closed\n1 timer.\n',
    ]);
    expect((await cli('timers', target)).out).toBe(wired.out);
    expect((await cli('timers', beacon, '--fast-switch', 'U9.9')).code).toBe(2);
    // Parts for what is wanted: those of the drawer before those of the series.
    const drawer = join(folder, 'loose.csv');
    writeFileSync(drawer, 'part,count\n10k,50\nresistor 33k,12\n100nF,9\n4.7u,3\n470 k,0\n');
    const offered = (await cli('timers', beacon, '--hertz', '4', '--drawer', drawer)).out.split('\n');
    expect(offered[1]).toBe('  R1 10 kΩ, R2 33 kΩ, C1 4.7 µF: 4.039 Hz, high 57 %, all in the drawer');
    expect(offered[2]).not.toContain('drawer');
    expect((await cli('timers', beacon, '--hertz', '-4')).code).toBe(2);
    expect((await cli('timers', beacon, '--high', '40')).code).toBe(2);
    // A pull-down and a resistor before an LED of what there is.
    const plain = (await cli('resistors', interlock, '--json')).json() as unknown as {
      resistors: { suggestedOhms: number }[];
    };
    writeFileSync(drawer, '8k2,9\n680,100\n');
    const own = (await cli('resistors', interlock, '--json', '--drawer', drawer)).json() as unknown as typeof plain;
    expect(new Set(plain.resistors.map((r) => r.suggestedOhms)).size).toBeGreaterThan(1);
    expect(new Set(own.resistors.map((r) => r.suggestedOhms))).toEqual(new Set([8200, 1000]));
    expect((await cli('timers', 'nowhere.saddlebag.json')).code).toBe(2);
  });

  it('walk and table say in a line what a clocked design needs, and states lists what they point to', async () => {
    const counter = join(samples, 'boat-counter.sheet');
    for (const args of [
      ['walk', counter],
      ['walk', join(samples, 'boat-counter.saddlebag.json')],
      ['table', counter],
    ]) {
      const { code, err } = await cli(...args);
      expect(code).toBe(1);
      expect(err).toContain('saddlebag states FILE');
      expect(err.trim().split('\n')).toHaveLength(1);
    }
    const { code, out } = await cli('states', counter);
    expect(code).toBe(0);
    expect(out).toMatch(/\d+ states/);
    expect((await cli('states', counter, '--clock', 'teapot')).code).toBe(1);
    expect((await cli('states', counter, '--json')).json()).toMatchObject({
      clock: expect.any(String),
      transitions: expect.any(Array),
    });
  });
});
