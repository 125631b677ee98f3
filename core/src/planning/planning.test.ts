import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byNumber, checkJumper, coveredEnds, extractNets, isRailStrip, leadsOf, outlinesOf, parseHole } from '../board';
import { partType } from '../catalogue';
import { printSheet, readSheet } from '../design';
import { type Packing, pack } from '../packing';
import { interlockSheet, laidOut, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { expectationOf, nameNets, shownSignal, sourcesOf } from './expectation';
import { pullDownFor } from './placement';
import { jumpersToLay, plan } from './plan';

const { job, packing } = await laidOut(interlockSheet);
const { board } = job;
const rests = new Set<number>();
const ofKind = (kind: string) => Object.values(board.parts).filter((p) => partType(p.part)?.kind === kind);

async function packed(sheet: string): Promise<Packing> {
  const { netlist } = readSheet(sheet).design;
  const { packing: made } = await pack(netlist ?? expect.fail('no gates'), 'HC', solve);
  return made ?? expect.fail('no packing');
}

/** A sheet of so many inverters, each with its own lamp. */
const inverters = (n: number): string => {
  const outs = Array.from({ length: n }, (_, i) => `Y${i}`);
  return `in A B\nout ${outs.join(' ')}\n${outs.map((y, i) => `${y} = nand(A, B${' & A'.repeat(i % 3)}) ^ ${i % 2 ? 'A' : 'B'}`).join('\n')}`;
};

describe('a planned board', () => {
  it('has chips over the channel, notch to the left', () => {
    for (const chip of ofKind('chip')) {
      expect(chip.rotation).toBe(0);
      expect(parseHole(chip.at)?.row).toBe('e');
    }
  });

  it('has a switch with a pull-down for each input and an LED with its resistor for each output', () => {
    expect(ofKind('switch').map((p) => p.signal)).toEqual(['K', 'E', 'U', 'L']);
    expect(ofKind('led').map((p) => p.signal)).toEqual(['G', 'P', 'W']);
    const values = ofKind('resistor').map((p) => p.value);
    expect(values).toEqual([10_000, 10_000, 10_000, 10_000, 1000, 1000, 1000]);
  });

  it('has 100 nF at each chip, within three columns of its supply pin', () => {
    const capacitors = ofKind('capacitor');
    expect(capacitors).toHaveLength(ofKind('chip').length);
    for (const [i, chip] of ofKind('chip').entries()) {
      const [a, b] = [parseHole(chip.at), parseHole(capacitors[i]?.at ?? '')];
      expect(Math.abs((a?.column ?? 0) - (b?.column ?? 99))).toBeLessThanOrEqual(3);
      expect(capacitors[i]?.value).toBe(100);
    }
  });

  it('has its jumpers numbered in the order of laying: rails, supplies, feeds, then signals', () => {
    const extracted = extractNets(board);
    const { nets } = extracted;
    const names = nameNets(extracted, sourcesOf(packing, board));
    const order = Object.keys(board.jumpers).sort(byNumber);
    const isRail = order.map((id) => {
      const net = nets.find((n) => n.jumpers.includes(id));
      return ['0', '1'].includes(names.get(net?.index ?? -1) ?? '');
    });
    const firstSignal = isRail.indexOf(false);
    expect(isRail.slice(0, firstSignal).every(Boolean)).toBe(true);
    expect(firstSignal).toBe(1 + 2 * ofKind('chip').length + ofKind('switch').length);
  });

  it('keeps its parts apart: no body lies over another', () => {
    const outlines = outlinesOf(board);
    for (const [i, a] of outlines.entries())
      for (const b of outlines.slice(i + 1)) {
        const apart = a.x >= b.x + b.width || b.x >= a.x + a.width || a.y >= b.y + b.height || b.y >= a.y + a.height;
        expect(apart, `${a.ref} ${b.ref}`).toBe(true);
      }
  });

  it('goes on to a further board when one is full, its rails linked to the last', async () => {
    const { board: large, findings } = plan(await packed(inverters(16)));
    expect(findings).toEqual([]);
    expect(large?.breadboards.length).toBeGreaterThan(1);
    const { ofStrip } = extractNets(large ?? expect.fail());
    for (const { id } of large?.breadboards ?? []) {
      expect(ofStrip.get(`${id}.top+`)).toBe(ofStrip.get('b1.top+'));
      expect(ofStrip.get(`${id}.bottom-`)).toBe(ofStrip.get('b1.top-'));
    }
    for (const part of Object.values(large?.parts ?? {}))
      for (const lead of leadsOf(part)) expect(lead.hole, lead.pin).not.toBeNull();
  });

  it.each(['split', 'half'] as const)(
    'lies on %s boards too, every rail fed and every lead in a hole',
    async (kind) => {
      const { board: laid, findings } = plan(await packed(inverters(12)), { kind });
      expect(findings).toEqual([]);
      expect(new Set(laid?.breadboards.map((b) => b.type))).toEqual(new Set([kind]));
      const { ofPin, nets } = extractNets(laid ?? expect.fail());
      const feeds = [ofPin.get('P1.+'), ofPin.get('P1.-')];
      for (const net of nets) if (net.strips.some(isRailStrip)) expect(feeds, net.strips.join()).toContain(net.index);
      for (const part of Object.values(laid?.parts ?? {}))
        for (const lead of leadsOf(part)) expect(lead.hole, lead.pin).not.toBeNull();
      expect(coveredEnds(laid ?? expect.fail())).toEqual([]);
      expect(Object.values(laid?.jumpers ?? {}).flatMap((j) => checkJumper(laid ?? expect.fail(), j))).toEqual([]);
    },
  );

  it('says so when forty boards are not enough', async () => {
    const one = await packed('in A B\nout Y\nY = A & B');
    const [chip] = one.packages;
    if (!chip) return expect.fail('no chip');
    const many = { ...one, packages: Array.from({ length: 400 }, (_, i) => ({ ...chip, ref: `U${i + 1}` })) };
    expect(plan(many).findings.map((f) => f.code)).toEqual(['plan/no-room']);
  });

  it('shows constants and inputs on lamps without any gate', async () => {
    const { board: plain } = plan(await packed('in A\nout Y H L\nY = A\nH = 1\nL = 0'));
    const { ofPin } = extractNets(plain ?? expect.fail());
    expect(ofPin.get('D1.A')).toBe(ofPin.get('S1.2'));
    expect(ofPin.get('D2.A')).toBe(ofPin.get('P1.+'));
    expect(ofPin.get('D3.A')).toBe(ofPin.get('P1.-'));
  });
});

it('takes as many jumpers as the packing says, those that link the rails of its boards included', async () => {
  await fc.assert(
    fc.asyncProperty(arbitrarySheet, async (sheet) => {
      const { netlist } = readSheet(printSheet(sheet)).design;
      if (!netlist || netlist.gates.length === 0 || netlist.gates.length > 8) return;
      const { packing: made } = await pack(netlist, 'HC', solve);
      const { board: planned } = plan(made ?? expect.fail('no packing'));
      if (!planned) return;
      // Where pins are tied to supply, a board whose lower half has several of them gets one link more.
      if (made?.packages.some((p) => p.units.some((u) => u?.inputs.includes('1')))) return;
      rests.add(Object.keys(planned.jumpers).length - jumpersToLay(made ?? expect.fail()));
    }),
    { numRuns: 60 },
  );
  expect([...rests]).toEqual([0]);
});

it('pulls switches down as strongly as their inputs need, with values of the E12 series', async () => {
  const of = (part: string, inputs: string[][]): number =>
    pullDownFor(
      {
        ...packing,
        packages: [
          {
            ref: 'U1',
            part,
            units: inputs.map((i, k) => ({ gate: `g${k}`, part: 'whole', inputs: i, output: `g${k}` })),
          },
        ],
      },
      'A',
    );
  expect(
    of('74HC00', [
      ['A', 'B'],
      ['A', 'A'],
    ]),
  ).toBe(10_000);
  expect(of('7400', [['A', 'B']])).toBe(390);
  expect(
    of('7400', [
      ['A', 'A'],
      ['A', 'A'],
    ]),
  ).toBe(100);
  expect(of('74LS00', [['A', 'B']])).toBe(1800);
  expect(of('7400', [['B', 'B']])).toBe(10_000);
});

describe('what pins should carry', () => {
  const expected = expectationOf(packing, board);

  it('is told for every pin of a unit in use, every switch and every LED, and for no spare pin', () => {
    const used = packing.packages.flatMap((p) =>
      p.units.flatMap((u, i) => (u ? (partType(p.part)?.units[i]?.inputs.length ?? 0) + 1 : 0)),
    );
    expect(expected.size).toBe(used.reduce((a, b) => a + b, 0) + 4 + 3);
    expect(expected.get('U2.8')).toBeUndefined();
    expect(expected.get('D2.A')).toBe('P');
  });

  it('has one source for each signal, which carries it', () => {
    for (const [signal, pin] of sourcesOf(packing, board)) expect(expected.get(pin)).toBe(signal);
  });

  it('names rails as people do', () => {
    expect(['1', '0', 'K'].map(shownSignal)).toEqual(['+5 V', '0 V', 'K']);
  });
});
