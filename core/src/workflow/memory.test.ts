import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { readDesign } from '../catalogue';
import { inspect, recover } from '../inspection';
import { writeJobFile } from '../job';
import { readJobFile } from '../job/file';
import { cellAt, tableOf } from '../logic';
import { walkTable } from '../simulation';
import { laidOut } from '../testing/interlock';
import { broughtUpTo } from './update';

/** Levels of the lock as a number, shown as what a memory holds for them, and one gate beside it. */
const sheetHolding = (words: string): string => `in A B C
out R S FULL
part MAP "bars of the level" of 74288
holds ${words}
end
use MAP as M (A0 = A, A1 = B, A2 = C, A3 = 0, A4 = 0, Gn = 0, Q0 = R, Q1 = S)
FULL = nand(M.Q2, A)
`;
const sheet = sheetHolding('0 1 3 7 2 6 5 4');
const { job, packing, netlist } = await laidOut(sheet);

const tableOfSheet = (text: string) => tableOf(readDesign(text).design.behaviour ?? expect.fail(text));

describe('a job with a memory whose contents the sheet gives', () => {
  it('is packed with the memory under its own number, and gates whose levels meet it', () => {
    const parts = packing.packages.map((p) => p.part).sort();
    expect(parts).toEqual(['74HCT00', '74S288']);
    expect(packing.packages.find((p) => p.part === '74S288')?.own).toContain('holds 0 1 3 7 2 6 5 4');
  });

  it('is laid out clean and walked: every row is what the words say', () => {
    expect(inspect(job.board, extractNets(job.board), packing, 'HC')).toEqual([]);
    const outputs = netlist.outputs.map((o) => o.name);
    const rows = [...walkTable(job.board, extractNets(job.board), { inputs: netlist.inputs, outputs })];
    const table = tableOfSheet(sheet);
    const cells = rows.map(({ seen }) => seen.map(String).join(''));
    expect(cells).toEqual(rows.map((_, row) => outputs.map((_o, o) => cellAt(table, o, row)).join('')));
    expect(cells).toHaveLength(8);
  });

  it('is read back from its wiring as the same functions, with what the memory holds', () => {
    const read = recover(job.board, extractNets(job.board));
    expect(read.sheet).toContain('part MAP "bars of the level" of 74288');
    expect(tableOfSheet(read.sheet)).toEqual(tableOfSheet(sheet));
  });

  it('comes back from its file as it was', () => {
    const read = readJobFile(writeJobFile(job));
    expect(read.ok && read.job).toEqual(job);
  });

  it('is told where the memory on the board holds something else, and programmed anew by bringing the board up to date', async () => {
    const other = await laidOut(sheetHolding('7 1 3 7 2 6 5 4'));
    const foundFor = (board: Board) => inspect(board, extractNets(board), other.packing, 'HC').map((f) => f.code);
    expect(foundFor(job.board)).toEqual(['contents-differ']);
    const { board, taken } = broughtUpTo(job.board, other.packing, other.netlist);
    expect(foundFor(board)).toEqual([]);
    const memory = Object.values(board.parts).find((p) => p.part === '74S288');
    expect(taken).toEqual([memory?.ref]);
    expect(board.jumpers).toEqual(job.board.jumpers);
  });
});
