import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bipolars, junctions, ledJunctions, mosfets } from './devices';
import {
  bipolar,
  bipolarInput,
  bipolarStage,
  type Element,
  junction,
  mosfet,
  omega,
  resistor,
  type Stamps,
} from './elements';
import { currentFrom, solveIsland } from './operating-point';
import { inputElement } from './pin-models';

const nodes = { collector: 0, base: 1, emitter: 2 };
const kinds: Readonly<Record<string, () => Element>> = {
  resistor: () => resistor(0, 1, 470),
  diode: () => junction(0, 1, junctions.diode),
  'red LED': () => junction(0, 1, ledJunctions.red),
  'bipolar stage': () => bipolarStage(0, 1, { dropV: 1.6, ohms: 130 }),
  'TTL input': () => bipolarInput(0, { supply: 1, ground: 2 }, { ohms: 4000, junctionV: 0.7, thresholdV: 1.4 }),
  npn: () => bipolar(nodes, 1, bipolars.npn),
  pnp: () => bipolar(nodes, -1, bipolars.pnp),
  nmos: () => mosfet({ drain: 0, gate: 1, source: 2 }, 1, mosfets.nmos),
};
const anyVolts = fc.array(fc.double({ min: -1, max: 6, noNaN: true }), { minLength: 3, maxLength: 3 });

/** Stamps an element until its limiter lets go, and gives its currents and slopes there. */
function linearised(element: Element, volts: Float64Array) {
  for (let n = 0; ; n++) {
    const amps = new Float64Array(3);
    const slopes = new Float64Array(9);
    let isHeld = false;
    const into: Stamps = {
      current: (node, a) => {
        amps[node] = (amps[node] ?? 0) + a;
      },
      conductance: (node, by, s) => {
        slopes[3 * node + by] = (slopes[3 * node + by] ?? 0) + s;
      },
      limited: () => {
        isHeld = true;
      },
    };
    element.stamp(volts, into);
    if (!isHeld || n > 300) return { amps, slopes };
  }
}

describe.each(Object.entries(kinds))('a %s', (_, make) => {
  it('takes as much current as it gives, whatever the volts', () => {
    fc.assert(
      fc.property(anyVolts, (v) => {
        const { amps } = linearised(make(), Float64Array.from(v));
        const most = Math.max(...[...amps].map(Math.abs));
        expect(Math.abs([...amps].reduce((a, b) => a + b, 0))).toBeLessThanOrEqual(1e-9 * most + 1e-18);
      }),
      { seed: 16, numRuns: 200 },
    );
  });

  it('has the slopes that its currents have', () => {
    fc.assert(
      fc.property(anyVolts, fc.integer({ min: 0, max: 2 }), (v, by) => {
        const step = 1e-6;
        const volts = Float64Array.from(v);
        const { amps, slopes } = linearised(make(), volts);
        const moved = Float64Array.from(v);
        moved[by] = (moved[by] ?? 0) + step;
        const { amps: next } = linearised(make(), moved);
        for (let node = 0; node < 3; node++) {
          const slope = ((next[node] ?? 0) - (amps[node] ?? 0)) / step;
          const told = slopes[3 * node + by] ?? 0;
          const size = Math.max(...[...slopes].map(Math.abs), 1e-9);
          expect(Math.abs(slope - told), `node ${node} by ${by}`).toBeLessThan(2e-3 * size + 1e-8);
        }
      }),
      { seed: 16, numRuns: 200 },
    );
  });
});

describe('the omega function', () => {
  it('solves w + ln w = x', () => {
    fc.assert(
      fc.property(fc.double({ min: -200, max: 1e4, noNaN: true }), (x) => {
        const w = omega(x);
        expect(w).toBeGreaterThan(0);
        expect(Math.abs(w + Math.log(w) - x)).toBeLessThan(1e-9 * (1 + Math.abs(x)));
      }),
      { seed: 16 },
    );
  });
});

describe('operating points', () => {
  /** Node 0 is ground and node 1 supply; the others are to be found. */
  const solved = (nodesInAll: number, elements: readonly Element[], start: readonly number[] = []) => {
    const volts = new Float64Array(nodesInAll);
    volts[1] = 5;
    start.forEach((v, i) => {
      volts[2 + i] = v;
    });
    const free = Array.from({ length: nodesInAll - 2 }, (_, i) => i + 2);
    const solution = solveIsland({ free, elements }, volts);
    return { ...solution, volts, ampsFrom: (node: number) => currentFrom(new Set([node]), elements, volts) };
  };

  it('a divider is one', () => {
    const { found, volts } = solved(3, [resistor(1, 2, 1000), resistor(2, 0, 4000)]);
    expect(found).toBe(true);
    expect(volts[2]).toBeCloseTo(4, 6);
  });

  it('networks of resistors obey both of Kirchhoff’s laws, and are linear in their supply', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(7), fc.nat(7), fc.double({ min: 1, max: 1e6, noNaN: true })), { maxLength: 25 }),
        (all) => {
          const elements = all.flatMap(([a, b, ohms]) => (a === b ? [] : [resistor(a, b, ohms)]));
          const { found, volts, ampsFrom, isStable } = solved(8, elements);
          expect([found, isStable]).toEqual([true, true]);
          for (let node = 2; node < 8; node++) expect(Math.abs(ampsFrom(node))).toBeLessThan(1e-9);
          for (const v of volts) expect(v).toBeGreaterThan(-1e-6);
          for (const v of volts) expect(v).toBeLessThan(5 + 1e-6);
        },
      ),
      { seed: 16, numRuns: 150 },
    );
  });

  it('an LED behind a resistor has the current that both agree on', () => {
    for (const ohms of [100, 330, 1000, 10_000]) {
      const led = junction(2, 0, ledJunctions.red);
      const { volts } = solved(3, [resistor(1, 2, ohms), led]);
      const drop = volts[2] ?? 0;
      expect(drop).toBeGreaterThan(1.6);
      expect(drop).toBeLessThan(2.3);
      expect(led.amps(volts)).toBeCloseTo((5 - drop) / ohms, 8);
    }
  });

  it('a transistor with a resistor at its base inverts, and a base straight across the rails still has a solution', () => {
    const inverter = (input: number, output: number, base: number): Element[] => [
      resistor(input, base, 10_000),
      resistor(1, output, 1000),
      bipolar({ collector: output, base, emitter: 0 }, 1, bipolars.npn),
    ];
    const on = solved(4, inverter(1, 2, 3));
    expect(on.volts[2]).toBeLessThan(0.2);
    expect(on.volts[3]).toBeGreaterThan(0.6);
    expect(on.volts[3]).toBeLessThan(0.85);
    const off = solved(4, inverter(0, 2, 3));
    expect(off.volts[2]).toBeGreaterThan(4.99);
    const burning = solved(3, [resistor(1, 2, 1000), bipolar({ collector: 2, base: 1, emitter: 0 }, 1, bipolars.npn)]);
    expect(burning.found).toBe(true);
  });

  it('a latch of two transistors is unstable in the middle, and keeps the side it is put to', () => {
    const latch = [
      resistor(1, 2, 1000),
      resistor(1, 3, 1000),
      resistor(2, 5, 10_000),
      resistor(3, 4, 10_000),
      bipolar({ collector: 2, base: 4, emitter: 0 }, 1, bipolars.npn),
      bipolar({ collector: 3, base: 5, emitter: 0 }, 1, bipolars.npn),
    ];
    const cold = solved(6, latch);
    expect([cold.found, cold.isStable]).toEqual([true, false]);
    for (const [start, low, high] of [
      [[0.1, 4, 0.7, 0.1], 2, 3],
      [[4, 0.1, 0.1, 0.7], 3, 2],
    ] as const) {
      const { found, isStable, volts } = solved(6, latch, start);
      expect([found, isStable]).toEqual([true, true]);
      expect(volts[low]).toBeLessThan(0.3);
      expect(volts[high]).toBeGreaterThan(3);
    }
  });

  it('an input of any bipolar family has one behind any resistor, to either rail, alone or with a second node', () => {
    for (const family of ['74', 'LS', 'ALS', 'AS', 'F', 'S'] as const)
      for (let ohms = 10; ohms < 1e7; ohms *= 1.13)
        for (const rail of [0, 1]) {
          const input = inputElement(family, 1, { pin: 2, supply: 1, ground: 0 }) as Element;
          const alone = solved(3, [input, resistor(2, rail, ohms)]);
          const behind = solved(4, [input, resistor(2, 3, ohms / 2), resistor(3, rail, ohms / 2)]);
          expect([family, ohms, rail, alone.found, behind.found]).toEqual([family, ohms, rail, true, true]);
          expect(behind.volts[2]).toBeCloseTo(alone.volts[2] ?? 0, 4);
        }
  });

  it('rings of three, five and seven inverters have no stable point', () => {
    const ring = (n: number): Element[] =>
      Array.from({ length: n }, (_, i) => [2 + 2 * i, 3 + 2 * i, 2 + 2 * ((i + 1) % n)] as const).flatMap(
        ([input, base, output]) => [
          resistor(input, base, 10_000),
          resistor(1, output, 1000),
          bipolar({ collector: output, base, emitter: 0 }, 1, bipolars.npn),
        ],
      );
    for (const n of [3, 5, 7]) expect(solved(2 + 2 * n, ring(n)).isStable, `${n}`).toBe(false);
  });

  it('a chain of forty transistor gates is found from cold, each a good high or low', () => {
    const n = 40;
    const chain = Array.from({ length: n }, (_, i) => [i === 0 ? 0 : 2 * i, 3 + 2 * i, 2 + 2 * i] as const).flatMap(
      ([input, base, output]) => [
        resistor(input, base, 10_000),
        resistor(1, output, 1000),
        bipolar({ collector: output, base, emitter: 0 }, 1, bipolars.npn),
      ],
    );
    const { found, isStable, volts } = solved(2 + 2 * n, chain);
    expect([found, isStable]).toEqual([true, true]);
    for (let i = 0; i < n; i++) {
      const v = volts[2 + 2 * i] ?? 0;
      expect(i % 2 === 0 ? v > 4 : v < 0.3, `gate ${i} ${v}`).toBe(true);
    }
  });
});
