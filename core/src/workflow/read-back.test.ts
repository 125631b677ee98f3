import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { readDesign } from '../catalogue';
import { inspect, recover } from '../inspection';
import { readJobFile } from '../job/file';
import { newJob } from '../job/job';
import { cellAt, tableOf } from '../logic';
import { laidOut, solve } from '../testing/interlock';
import { inverter, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { MAX_MEASURED, readBack } from './read-back';
import { packJob } from './stages';

/** The columns of what a sheet's outputs are, by name. */
function columns(sheet: string): Record<string, string> {
  const { behaviour } = readDesign(sheet).design;
  if (!behaviour) return expect.fail(sheet);
  const table = tableOf(behaviour);
  const cells = (o: number): string => Array.from({ length: table.rows }, (_, row) => cellAt(table, o, row)).join('');
  return Object.fromEntries(behaviour.outputs.map(({ name }, o) => [name, cells(o)]));
}

const lamp = (n: number, from: string, r: number): string[] => [
  'seat led',
  `D${n}.A > ${from}`,
  ...resistor(r, '330', `D${n}.K`, MINUS),
];

describe('a board of transistors, read back', () => {
  it('is the tables of its lamps: the sample is what its sheet says', () => {
    const text = readFileSync(`${import.meta.dirname}/../../../samples/transistor-bell.saddlebag.json`, 'utf8');
    const read = readJobFile(text);
    if (!read.ok) return expect.fail('the sample');
    const { sheet, packing, findings } = readBack(read.job.board);
    expect(findings).toMatchObject([{ code: 'recover/measured', facts: { rows: 4 } }]);
    expect(packing).toBeNull();
    expect(columns(sheet)).toEqual(columns(read.job.sheet));
  });

  it('has names for switches and lamps without labels', () => {
    const board = wired(...switches(1), ...inverter(1, 2, 'S1.2', { base: '10k', load: '330' }), ...lamp(1, 'Q1.3', 4));
    expect(columns(readBack(board).sheet)).toEqual({ D1: '10' });
  });

  it('is held to no pins then, though the sheet that was read may need no chip at all', async () => {
    const board = wired(...switches(1), 'seat diode', 'D1.A > S1.2', ...lamp(2, 'D1.K', 2));
    const { sheet } = readBack(board);
    expect(columns(sheet)).toEqual({ D2: '01' });
    const { packing } = await packJob(newJob('read back', sheet), solve);
    expect(packing?.packages).toEqual([]);
    expect(inspect(board, extractNets(board), packing, 'HC').map((f) => f.code)).toEqual(['built-otherwise']);
  });

  it('that remembers something, or has more switches than are tried, is said not to be', () => {
    const latch = wired(
      ...switches(2),
      ...['seat npn', 'seat npn', `Q1.1 > ${MINUS}`, `Q2.1 > ${MINUS}`],
      ...resistor(3, '1k', 'Q1.3', PLUS),
      ...resistor(4, '1k', 'Q2.3', PLUS),
      ...resistor(5, '10k', 'Q1.3', 'Q2.2'),
      ...resistor(6, '10k', 'Q2.3', 'Q1.2'),
      ...resistor(7, '4k7', 'S1.2', 'Q1.2'),
      ...resistor(8, '4k7', 'S2.2', 'Q2.2'),
      ...lamp(1, 'Q1.3', 9),
    );
    const wide = wired('board', ...switches(MAX_MEASURED + 1), 'seat diode', 'D1.A > S1.2', 'seat led', 'D2.A > D1.K');
    for (const board of [latch, wide]) {
      const { findings } = readBack(board);
      expect(findings.map((f) => f.code)).toContain('recover/switching-device');
      expect(findings.map((f) => f.code)).not.toContain('recover/measured');
    }
  });

  it('without any is what the wiring says, chip by chip', async () => {
    const { job } = await laidOut('in A B\nout Y\nY = ~(A & B)');
    const board: Board = job.board;
    expect(readBack(board)).toEqual(recover(board, extractNets(board)));
  });
});
