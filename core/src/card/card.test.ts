import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { printSheet, readSheet } from '../design';
import { elementAt } from '../element-at';
import { HIGH, LOW } from '../logic';
import { compileCircuit, PoweredBoard, panelOf, tourBoard } from '../simulation';
import { interlockSheet, laidOut } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
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
          const circuit = compileCircuit(board);
          const { switches } = panelOf(board, circuit, netlist.inputs, []);
          for (const [settings, level] of [
            [trial.high, HIGH],
            [trial.low, LOW],
          ] as const) {
            if (settings === null) continue;
            const simulator = new PoweredBoard(board, nets, { circuit });
            for (const [k, setting] of settings.split(' ').entries())
              simulator.setSwitch(elementAt(switches, k), setting.endsWith('=1'));
            simulator.settle();
            expect(simulator.levelOf(nets.ofPin.get(trial.pin) ?? -1), `${trial.pin} with ${settings}`).toBe(level);
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('of a board of transistors in place of its chips names no pins of theirs', async () => {
    const { packing, netlist } = await laidOut('in A\nout Y\nY = ~A');
    const board = wired(
      ...[...switches(1), 'label S1 A', 'seat npn', `Q1.1 > ${MINUS}`, 'seat led', 'label D1 Y', 'Q1.3 > D1.A'],
      ...resistor(2, '10k', 'S1.2', 'Q1.2'),
      ...resistor(3, '330', 'Q1.3', PLUS),
      ...resistor(4, '330', 'D1.K', MINUS),
    );
    const { stages } = buildCard(board, packing, netlist);
    expect(stages.map((s) => s.title)).toEqual(['Supply', expect.any(String), 'Transistors, diodes and lamps']);
    expect(stages.flatMap((s) => [...s.parts, ...s.jumpers]).sort()).toEqual(
      [...Object.keys(board.parts), ...Object.keys(board.jumpers)].sort(),
    );
    expect(JSON.stringify(stages)).not.toContain('U1');
  });

  it('begins with supply and ground, and puts each lamp right behind its gate', async () => {
    const { job, packing, netlist } = await laidOut(interlockSheet);
    const { stages } = buildCard(job.board, packing, netlist);
    expect(stages.map((s) => s.kind).join(' ')).toBe('supply chip chip switches gate led gate gate led gate led');
    expect(stages[0]?.parts).toEqual(['P1']);
  });

  it('has the tour of a clocked design on it: the very presses that the board is toured by, with what must be seen', async () => {
    const sheet = 'in C R\nout Q0 Q1\nQ0 = ~Q0 at rise C clear R\nQ1 = Q0 ^ Q1 at rise C clear R';
    const { job, packing } = await laidOut(sheet);
    const { netlist, behaviour } = readSheet(sheet).design;
    const { tour } = buildCard(job.board, packing, netlist ?? expect.fail(), behaviour);
    const made = tourBoard(job.board, behaviour ?? expect.fail());
    expect(made.differing).toBe(0);
    expect(tour?.more).toBe(Math.max(0, made.steps.length - (tour?.steps.length ?? 0)));
    expect(tour?.steps).toEqual(made.steps.slice(0, tour?.steps.length));
    expect(tour?.steps.length).toBeGreaterThan(8);
    expect(buildCard(job.board, packing, netlist ?? expect.fail()).tour).toBeNull();
  });
});
