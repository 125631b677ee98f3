import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { readDesign } from '../catalogue';
import { compareDesigns, printSheet } from '../design';
import { isError, says } from '../finding';
import { readJobFile } from '../job/file';
import { anySupplies, blockNumbers, choosable, pack, packByStrategy } from '../packing';
import { plan } from '../planning';
import { laidOut, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { inspect } from './inspect';
import { matched } from './matched';
import { recover } from './recover';

const read = (board: Board) => recover(board, extractNets(board));
const side = (sheet: string) => {
  const { design, findings } = readDesign(sheet);
  expect(findings.filter(isError).map(says), sheet).toEqual([]);
  return design.behaviour ?? expect.fail(`no behaviour: ${sheet}`);
};

/** The comparison of two sheets that the Design step makes: the first row in which they differ, and how many do. */
const compared = (a: string, b: string) => compareDesigns({ behaviour: side(a) }, { behaviour: side(b) }).comparison;

describe('a design read back from its wiring', () => {
  it('does what the sheet says from which the board was planned', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const text = printSheet(sheet);
        const { netlist } = readDesign(text).design;
        if (!netlist || netlist.gates.length > 14) return;
        const { packing } = await pack(netlist, 'HC', solve);
        const { board } = plan(packing ?? expect.fail('not packed'));
        if (!board) return;
        const { sheet: back, packing: made, findings } = read(board);
        expect(findings.filter((f) => f.code !== 'recover/idle-switch').map(says)).toEqual([]);
        expect(compared(text, back), back).toMatchObject({ first: null });
        // The board is a packing of what was read: nothing about its wiring is wrong then.
        const nets = extractNets(board);
        expect(inspect(board, nets, made ?? expect.fail(back), 'HC').filter(isError)).toEqual([]);
        expect(matched(made ?? expect.fail(), board, nets)).toBe(made);
      }),
      { numRuns: 80 },
    );
  }, 120_000);

  it('is the design of every sample of chips', () => {
    const folder = join(import.meta.dirname, '../../../samples');
    for (const file of readdirSync(folder).filter((f) => f.endsWith('.json') && !f.startsWith('apprentice'))) {
      const made = readJobFile(readFileSync(join(folder, file), 'utf8'));
      if (!made.ok) expect.fail(file);
      if (!made.job.packing) continue;
      const { sheet, packing, findings } = read(made.job.board);
      expect(findings.map(says), file).toEqual([]);
      const { design, findings: wrong } = readDesign(sheet);
      expect(wrong.filter(isError).map(says), `${file}\n${sheet}`).toEqual([]);
      const nets = extractNets(made.job.board);
      const found = inspect(made.job.board, nets, packing ?? expect.fail(`${file}\n${sheet}`), 'HC');
      expect(found.filter(isError).map(says), `${file}\n${sheet}`).toEqual([]);
      expect(design.outputs.map((o) => o.name).sort()).toEqual(
        readDesign(made.job.sheet)
          .design.outputs.map((o) => o.name)
          .sort(),
      );
    }
  });

  it('has AND-OR-inverts as equations, and stands on the very units of the board', async () => {
    const { netlist } = readDesign('in A B C D\nout S T\nS = A ^ B ^ C\nT = (A & B | C) & ~D').design;
    const excluded = [...choosable, ...blockNumbers].filter((n) => !['7404', '7451', '7486'].includes(n));
    const supplies = { ...anySupplies, excluded };
    const { packing } = await packByStrategy(
      netlist ?? expect.fail(),
      { family: 'HC', strategy: 'fewest', supplies },
      solve,
      { limits: { effort: 3 } },
    );
    const { board } = plan(packing ?? expect.fail());
    const back = read(board ?? expect.fail());
    expect(back.sheet).toMatch(/= ~\(/);
    expect(back.sheet).not.toContain('use');
    expect(back.packing?.packages.map((p) => [p.ref, p.part])).toEqual(packing?.packages.map((p) => [p.ref, p.part]));
  });

  const text = 'in A B\nout Y\nY = nand(A, B)';
  const without = (board: Board, pin: string): Board => {
    const nets = extractNets(board);
    const id = nets.nets[nets.ofPin.get(pin) ?? -1]?.jumpers.find((j) => {
      const { [j]: _, ...jumpers } = board.jumpers;
      const cut = extractNets({ ...board, jumpers });
      return (cut.nets[cut.ofPin.get(pin) ?? -1]?.pins.length ?? 0) === 1;
    });
    const { [id ?? '']: _, ...jumpers } = board.jumpers;
    return { ...board, jumpers };
  };

  it('has outputs that share a wire, three-state or open-collector, on one chip or several', async () => {
    const drivers = fc.array(fc.constantFrom('A & B', 'A', '~B', 'nand(A, B)'), { minLength: 2, maxLength: 5 });
    await fc.assert(
      fc.asyncProperty(drivers, fc.boolean(), async (exprs, isOpen) => {
        const lines = exprs.map((expr, i) => `Y = ${expr} ${isOpen ? 'open' : `when E${i}`}`);
        const enables = isOpen ? '' : exprs.map((_, i) => `E${i}`).join(' ');
        const sheet = `in A B ${enables}\nout Y Z\n${lines.join('\n')}\nZ = ~Y`;
        const { board } = (await laidOut(sheet)).job;
        const { sheet: back, packing, findings } = read(board);
        expect(findings.map(says), `${sheet}\n${back}`).toEqual([]);
        expect(compared(sheet, back), back).toMatchObject({ first: null });
        expect(packing, back).not.toBeNull();
      }),
      { numRuns: 25 },
    );
  });

  it('says what the board has and the sheet cannot: open inputs, dark lamps, idle switches, outputs joined', async () => {
    const { board } = (await laidOut(text)).job;
    expect(read(board).sheet).toBe('# read back from the wiring\nin A B\nout Y\nY = nand(A, B)\n');
    const open = read(without(board, 'U1.1'));
    expect(open.findings.map((f) => f.code)).toContain('recover/open-input');
    expect(open.sheet).toContain('Y = nand(open_U1_1, B)');
    const dark = read(without(board, 'U1.3'));
    expect(dark.findings.map((f) => f.code)).toContain('recover/dark-lamp');
    expect(dark.sheet).toMatch(/\nY = 0\n/);
    const { P1: _, ...parts } = board.parts;
    expect(read({ ...board, parts }).findings.map((f) => f.code)).toContain('recover/idle-switch');
    const free = { ...board, jumpers: { ...board.jumpers, w999: { id: 'w999', from: 'b1.a1', to: 'b1.a2' } } };
    expect(read(free).sheet).toBe(read(board).sheet);
  });

  it('keeps labels as names where the sheet can have them, and makes others of the references', async () => {
    const { board } = (await laidOut(text)).job;
    const parts = Object.fromEntries(
      Object.entries(board.parts).map(([ref, p]) => [ref, p.signal === 'A' ? { ...p, signal: 'no name!' } : p]),
    );
    const { sheet } = read({ ...board, parts });
    expect(sheet).toMatch(/^in S\d "switch S\d" B$/m);
    expect(sheet).toMatch(/^Y = nand\(S\d, B\)$/m);
    expect(read({ breadboards: board.breadboards, parts: {}, jumpers: {} }).sheet).toBe(
      '# read back from the wiring\n',
    );
  });
});
