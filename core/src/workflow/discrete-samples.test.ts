import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { readSheet } from '../design';
import { inspect } from '../inspection';
import type { Job } from '../job';
import { readJobFile } from '../job-reader';
import { tableOf, wantedAt } from '../logic';
import { measure, walkTable } from '../simulation';
import { verdictOf } from './verdict';

function sample(name: string): Job {
  const read = readJobFile(readFileSync(`${import.meta.dirname}/../../../samples/${name}.saddlebag.json`, 'utf8'));
  return read.ok ? read.job : expect.fail(name);
}

/** The volts at pins and the supply current, with A and B as they stand in `row`. */
function at(board: Board, row: string) {
  const { measured } = measure(
    board,
    [...row].map((level, i) => [['A', 'B'][i] as string, level === '1'] as const),
  );
  if (!measured) return expect.fail(row);
  return { volts: (pin: string) => measured.pins[pin]?.volts ?? Number.NaN, supplyMa: measured.supplyMa };
}

const between = (low: number, high: number) => (v: number) => v >= low && v <= high;
/** Node by node, in one state of the switches, the least and the most volts there; and what the supply gives, in milliamperes. */
interface State {
  readonly row: string;
  readonly ma: readonly [number, number];
  readonly nodes: Readonly<Record<string, readonly [number, number]>>;
}

const boards: Readonly<Record<string, readonly State[]>> = {
  'diode-gates': [
    // The AND's low is a junction above what the switch's pull-down makes of its current.
    { row: '00', ma: [1.5, 2.3], nodes: { 'S1.2': [0.1, 0.3], 'D5.A': [0.7, 1], 'D2.K': [0, 0.3] } },
    // The OR's high is a junction below the supply; the AND's what its lamp leaves of it.
    { row: '11', ma: [47, 51], nodes: { 'D2.K': [4.2, 4.5], 'D5.A': [2.5, 3] } },
  ],
  'rtl-gates': [
    { row: '00', ma: [3, 3.5], nodes: { 'Q1.2': [0, 0.05], 'Q1.3': [3.2, 3.6], 'Q3.3': [3.2, 3.6] } },
    { row: '11', ma: [11.5, 12.8], nodes: { 'Q1.2': [0.65, 0.8], 'Q1.3': [0, 0.2], 'Q3.3': [0, 0.2] } },
  ],
  'two-highs': [
    // Nothing hangs on the first collector, the base of another transistor on the second: both are high, and differ by two volts.
    { row: '0', ma: [4.8, 5.5], nodes: { 'Q1.3': [4.95, 5], 'Q2.3': [2.7, 3], 'Q3.2': [0.65, 0.8], 'Q3.3': [0, 0.2] } },
    { row: '1', ma: [3.5, 4.4], nodes: { 'Q1.3': [0, 0.1], 'Q2.3': [0, 0.1], 'Q3.3': [3.2, 3.6] } },
  ],
  'dtl-gate': [
    { row: '00', ma: [2, 3], nodes: { 'D1.A': [0.5, 0.9], 'Q1.2': [0, 0.3], 'Q1.3': [3.2, 3.6] } },
    // Three junctions in a row hold the node of the diodes.
    {
      row: '11',
      ma: [49, 53],
      nodes: { 'D1.A': [1.7, 2.2], 'D3.K': [1.2, 1.5], 'Q1.2': [0.65, 0.8], 'Q1.3': [0, 0.2] },
    },
  ],
  'ttl-gate': [
    // The splitter is off, the upper transistor gives the high: two junctions under its base.
    {
      row: '00',
      ma: [2.3, 3.3],
      nodes: { 'Q1.2': [0.7, 0.9], 'Q3.2': [0, 0.3], 'Q4.2': [4.8, 5], 'Q5.3': [3.4, 3.9] },
    },
    // The input transistors work backwards: three junctions at their base. The totem pole's diode keeps its upper transistor off.
    { row: '11', ma: [49, 53], nodes: { 'Q1.2': [2, 2.3], 'Q3.2': [1.4, 1.6], 'Q4.2': [0.6, 0.9], 'Q5.3': [0, 0.2] } },
  ],
  'nmos-gates': [
    { row: '00', ma: [4.5, 5.2], nodes: { 'Q1.3': [3.2, 3.6], 'Q3.3': [3.2, 3.6], 'Q5.3': [3.2, 3.6] } },
    { row: '11', ma: [15.5, 16.5], nodes: { 'Q1.3': [0, 0.1], 'Q3.3': [0, 0.1], 'Q5.3': [0, 0.1] } },
  ],
  'gauge-selector': [
    // The lamp hangs on a float that is down, by its pull-down.
    { row: '00', ma: [0, 0.01], nodes: { 'U1.3': [0, 0.01] } },
    { row: '11', ma: [0.95, 1.05], nodes: { 'U1.3': [0, 0.01], 'U1.12': [0, 0.01] } },
  ],
  'cmos-gates': [
    // What flows goes to the lamps.
    { row: '00', ma: [9, 9.6], nodes: { 'Q1.3': [4.8, 5], 'Q4.3': [4.8, 5], 'Q8.3': [4.7, 5] } },
    // Nothing flows but through the switches' own pull-downs, a milliampere in all.
    { row: '11', ma: [0.95, 1.05], nodes: { 'Q1.3': [0, 0.05], 'Q4.3': [0, 0.05], 'Q8.3': [0, 0.05] } },
  ],
};

describe.each(Object.entries(boards))('%s, as a board at Barrowmere', (name, states) => {
  const { board, sheet } = sample(name);

  it('does what its sheet says in every row, and the inspector finds no fault', () => {
    const behaviour = readSheet(sheet).design.behaviour ?? expect.fail('no behaviour');
    const wanted = tableOf(behaviour);
    const subject = { inputs: behaviour.inputs, outputs: behaviour.outputs.map((o) => o.name) };
    const verdict = verdictOf(walkTable(board, extractNets(board), subject), (row) =>
      subject.outputs.map((_, o) => wantedAt(wanted, o, row)),
    );
    expect(verdict).toEqual({ seen: 2 ** subject.inputs.length, differing: [] });
    expect(inspect(board, extractNets(board), null, 'HC').filter((f) => f.severity !== 'note')).toEqual([]);
  });

  it.each(states)(
    'with A and B at $row every node has its volts, and the supply gives its current',
    ({ row, ma, nodes }) => {
      const { volts, supplyMa } = at(board, row);
      for (const [pin, [low, high]] of Object.entries(nodes)) expect(volts(pin), pin).toSatisfy(between(low, high));
      expect(supplyMa).toSatisfy(between(...ma));
    },
  );
});
