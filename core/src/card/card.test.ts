import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { printSheet } from '../design';
import { HIGH, LOW } from '../logic';
import { compileCircuit, panelOf, Simulator } from '../simulation';
import { interlockSheet, laidOut } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { boardAfter, buildCard } from './card';

describe('the build card', () => {
  it('names every part and jumper once, and lists every part', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { job, packing, netlist } = await laidOut(printSheet(sheet));
        const { stages, parts, pins } = buildCard(job.board, packing, netlist);
        const named = stages.flatMap((s) => [...s.parts, ...s.jumpers]).sort();
        expect(named).toEqual([...Object.keys(job.board.parts), ...Object.keys(job.board.jumpers)].sort());
        const listed = parts.flatMap((line) => line.refs).filter((ref) => !ref.startsWith('b'));
        expect(listed.sort()).toEqual(Object.keys(job.board.parts).sort());
        expect(new Set(pins.map((p) => p.ref))).toEqual(new Set(packing.packages.map((p) => p.ref)));
      }),
      { numRuns: 15 },
    );
  });

  it('can be followed: after each stage, what it says to try is what the board does', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { job, packing, netlist } = await laidOut(printSheet(sheet));
        const { stages } = buildCard(job.board, packing, netlist);
        for (const [i, { trial }] of stages.entries()) {
          if (!trial) continue;
          const board = boardAfter(job.board, stages.slice(0, i + 1));
          const nets = extractNets(board);
          const circuit = compileCircuit(board, nets);
          const { switches } = panelOf(board, circuit, netlist.inputs, []);
          for (const [settings, level] of [
            [trial.high, HIGH],
            [trial.low, LOW],
          ] as const) {
            if (settings === null) continue;
            const simulator = new Simulator(circuit);
            for (const [k, setting] of settings.split(' ').entries())
              simulator.setSwitch(switches[k] as number, setting.endsWith('=1'));
            simulator.settle();
            expect(simulator.levelOf(nets.ofPin.get(trial.pin) ?? -1).level, `${trial.pin} with ${settings}`).toBe(
              level,
            );
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('begins with supply and ground, and puts each lamp right behind its gate', async () => {
    const { job, packing, netlist } = await laidOut(interlockSheet);
    const { stages } = buildCard(job.board, packing, netlist);
    expect(stages.map((s) => s.kind).join(' ')).toBe('supply chip chip switches gate led gate gate led gate led');
    expect(stages[0]?.parts).toEqual(['P1']);
  });
});
