import { applyEdit, extractNets, type Job, measure } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { boardScene } from '../kit/board/scene';
import { interlock } from '../testing/interlock';
import { localBench } from '../testing/local-bench';
import type { PowerBench } from './bench';
import { readBoard } from './job-context';

const job = interlock();
const subject = { key: 'table', inputs: ['K', 'E', 'U', 'L'], outputs: ['G', 'P', 'W'], stores: false, sheet: null };
const lay = (bench: PowerBench, { board }: Job): void => bench.lay(board, extractNets(board), subject);
function benchOf(j: Job): PowerBench {
  const bench = localBench();
  lay(bench, j);
  return bench;
}

describe('the power bench', () => {
  it('shows nothing without power and the lamps with it; switches stay as they stood', () => {
    const bench = benchOf(job);
    bench.flip('S1');
    bench.flip('S2');
    expect(bench.led('D1')).toBe('dark');
    bench.powerOn();
    expect(bench.led('D1')).toBe('lit');
    bench.powerOff();
    expect(bench.led('D1')).toBe('dark');
    expect(bench.isOn('S1')).toBe(true);
  });

  it('pictures the board anew when it looks otherwise, and not while only time passes', () => {
    const bench = benchOf(job);
    bench.powerOn();
    const picture = (): number => bench.snapshot().picture;
    const before = picture();
    bench.setScope({ spanNs: 1e6 });
    bench.setPace({ speed: 10 });
    expect(picture()).toBe(before);
    bench.flip('S1');
    expect(picture()).toBeGreaterThan(before);
    const atRest = picture();
    bench.powerOff();
    bench.powerOn();
    // Off, on, and as it is seen then, though it is as before.
    expect(picture()).toBe(atRest + 3);
    const { walked } = bench.snapshot();
    bench.setScope({ spanNs: 1e7 });
    expect(bench.snapshot().walked).toBe(walked);
  });

  it('a jumper pulled while the power is on shows at once, and what was walked counts no longer', () => {
    const bench = benchOf(job);
    bench.powerOn();
    bench.setSwitches(
      new Map([
        ['S1', true],
        ['S2', true],
      ]),
    );
    bench.addWalked(job.board, [{ row: 2, seen: [0, 0, 1], settled: true }]);
    // Row 0 as it was switched on, row 12 as it was set by hand, and the one that was walked.
    expect([...bench.snapshot().walked.keys()].sort((a, b) => a - b)).toEqual([0, 2, 12]);
    const { nets, ofPin } = extractNets(job.board);
    const [id = ''] = nets[ofPin.get('D1.A') ?? -1]?.jumpers ?? [];
    const pulled = applyEdit(job, { kind: 'pull-jumper', id });
    if (!pulled.ok) return expect.fail('not pulled');
    lay(bench, pulled.job);
    expect(bench.led('D1')).toBe('dark');
    expect([...bench.snapshot().walked]).toMatchObject([[12, { seen: [0, 0, 1] }]]);
    bench.addWalked(job.board, [{ row: 1, seen: [0, 0, 0], settled: true }]);
    expect(bench.snapshot().walked.size).toBe(1);
  });
});

describe('the scene of a board', () => {
  const scene = boardScene(readBoard(job.board, job.packing));

  it('holds every part, jumper and strip, and colours strips by what they carry', () => {
    expect(scene.parts).toHaveLength(Object.keys(job.board.parts).length);
    expect(scene.wires).toHaveLength(Object.keys(job.board.jumpers).length);
    expect(scene.strips).toHaveLength(2 * 63 + 4);
    const u1 = scene.parts.find((p) => p.ref === 'U1');
    const pin = u1?.pins.find((p) => p.id === '1');
    const strip = scene.strips.find(
      (s) => s.net === pin?.net && pin?.net !== null && s.x < (pin?.x ?? 0) && s.x + s.width > (pin?.x ?? 0),
    );
    expect(strip?.signal).toBe('K');
  });

  it('a strip that no source reaches has no signal, whatever is expected of it', () => {
    const { nets, ofPin } = extractNets(job.board);
    const [id = ''] = nets[ofPin.get('D1.A') ?? -1]?.jumpers ?? [];
    const pulled = applyEdit(job, { kind: 'pull-jumper', id });
    const cut = boardScene(readBoard(pulled.ok ? pulled.job.board : job.board, job.packing));
    const anode = cut.parts.find((p) => p.ref === 'D1')?.pins[0];
    expect(cut.strips.find((s) => s.net === anode?.net)?.signal).toBeUndefined();
  });
});

describe('what is measured on the bench', () => {
  it('is what the command line measures, pin by pin and lamp by lamp, with the switches as they stand', () => {
    const nets = extractNets(job.board);
    const bench = benchOf(job);
    expect([bench.probe(0), bench.lamp('D1'), bench.snapshot().seen]).toEqual([null, null, null]);
    bench.powerOn();
    bench.flip('S1');
    const { measured } = measure(job.board, [['S1', true]]);
    if (!measured) return expect.fail('nothing measured');
    expect(bench.snapshot().seen?.supplyMa).toBeCloseTo(measured.supplyMa, 4);
    let known = 0;
    for (const [pin, { volts, level }] of Object.entries(measured.pins)) {
      const net = nets.ofPin.get(pin);
      const probed = net === undefined ? null : bench.probe(net);
      if (!probed || volts === null || probed.volts === null) continue;
      known++;
      expect([pin, probed.level]).toEqual([pin, level]);
      expect(probed.volts, pin).toBeCloseTo(volts, 4);
    }
    expect(known).toBeGreaterThan(40);
    for (const [name, { ma, state }] of Object.entries(measured.lamps)) {
      expect(bench.lamp(name)?.state, name).toBe(state);
      expect(bench.lamp(name)?.ma).toBeCloseTo(ma, 4);
    }
    expect(bench.lamp('D9')).toBeNull();
    bench.powerOff();
    expect([bench.probe(0), bench.lamp('D1'), bench.snapshot().seen]).toEqual([null, null, null]);
  });
});
