import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { printSheet } from '../design';
import { readJobFile } from '../job-reader';
import { faults } from '../testing/faults';
import { laidOut } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { inverter, MINUS, PLUS, switches, wired } from '../testing/wired';
import { compileSweep } from './board-sweep';
import { compileCircuit } from './circuit';
import { panelOf, subjectOf, type TableSubject, walkTable } from './walk';

/** Currents to nine digits: the last ones depend on where the search for an operating point began. */
const rounded = (rows: readonly object[]): unknown =>
  JSON.parse(JSON.stringify(rows, (key, value) => (key === 'ma' ? Number(value.toPrecision(9)) : value)));

/** Whether a board is swept; then every row must be what the events say. */
function isHeld(board: Board, subject: TableSubject, what: string): boolean {
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const panel = panelOf(board, circuit, subject.inputs, subject.outputs);
  if (!compileSweep(board, nets, { circuit, panel })) return false;
  const [swept, run] = [false, true].map((byEvents) => rounded([...walkTable(board, nets, subject, byEvents)]));
  expect(swept, what).toEqual(run);
  return true;
}

const folder = `${import.meta.dirname}/../../../samples`;
const boards = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .map((name) => {
    const read = readJobFile(readFileSync(`${folder}/${name}`, 'utf8'));
    return [name.replace('.saddlebag.json', ''), read.ok ? read.job.board : expect.fail(name)] as const;
  });
/** A subject of few rows. */
const narrow = (board: Board): TableSubject => {
  const { inputs, outputs } = subjectOf(board, extractNets(board));
  return { inputs: inputs.slice(0, 6), outputs };
};

const leftToEvents = [
  ...['boat-counter', 'lamp-relay', 'fog-beacon', 'apprentice-bench'],
  ...['keepers-clock', 'ropes-by-tens', 'false-alarm', 'steady-button', 'up-and-down', 'seconds-digit'],
  ...['transistor-bell', 'rtl-gates', 'two-highs', 'ttl-gate', 'nmos-gates', 'cmos-gates', 'paddle-panel'],
];

describe('sweeping a board', () => {
  it.each(boards)('%s: every row is what the events say, whatever fault is put in', (name, board) => {
    const subject = narrow(board);
    // What stores, a decoder whose blanking pin is input and output, a pair of transistors that might, and a gate that was wired to itself are left to the events.
    const isLeft = leftToEvents.includes(name);
    expect(isHeld(board, subject, name)).toBe(!isLeft);
    let swept = 0;
    for (const [kind, fault] of Object.entries(faults))
      for (const n of [3, 41, 97]) {
        const faulty = fault(board, n);
        if (faulty && isHeld(faulty, subject, `${kind} ${n}`)) swept++;
      }
    if (!isLeft) expect(swept).toBeGreaterThan(10);
  });

  it('any sheet that is laid out is swept, and every row is what the events say', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { job, packing } = await laidOut(printSheet(sheet));
        const subject = { inputs: packing.inputs, outputs: packing.outputs.map((o) => o.name) };
        if (subject.inputs.length > 7) return;
        expect(isHeld(job.board, subject, 'as laid out')).toBe(true);
      }),
      { numRuns: 15 },
    );
  });

  it('leaves to the events what reads itself, remembers, or hangs on a supply that does not hold', () => {
    const gates = ['seat 74HC00 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`];
    const refused: readonly (readonly string[])[] = [
      [...gates, ...switches(1), 'S1.2 > U1.1', 'U1.3 > U1.2'],
      [...switches(1), ...inverter(1, 2, 'S1.2'), ...inverter(2, 4, 'Q1.3'), 'Q2.3 > Q1.2'],
      ['seat 74HC00 b1.e20', ...switches(1), 'S1.2 > U1.14', `U1.7 > ${MINUS}`],
      ['seat 7474 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, ...switches(1), 'S1.2 > U1.3'],
    ];
    for (const lines of refused) {
      const board = wired(...lines, 'seat led b1.c50', 'label D1 Y');
      expect(isHeld(board, { inputs: ['S1'], outputs: ['Y'] }, lines.join())).toBe(false);
    }
  });
});
