import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { rhythmOf, timersOf } from '../electrical';
import { HIGH } from '../logic';
import { PoweredBoard } from '../simulation';
import { capacitor, MINUS, PLUS, resistor, wired } from '../testing/wired';
import { chargeCurve, spreadOf, suggested } from './timer-values';

const astable = wired(
  ...['seat 555 b1.e20', `U1.8 > ${PLUS}`, `U1.1 > ${MINUS}`, `U1.4 > ${PLUS}`, 'U1.2 > U1.6'],
  ...resistor(1, '10k', 'U1.7', PLUS),
  ...resistor(2, '100k', 'U1.7', 'U1.6'),
  ...capacitor(1, '100n', 'U1.6', MINUS),
);
const single = wired(
  ...['seat 555 b1.e20', `U1.8 > ${PLUS}`, `U1.1 > ${MINUS}`, `U1.4 > ${PLUS}`, 'U1.6 > U1.7'],
  ...resistor(1, '100k', 'U1.7', PLUS),
  ...['seat switch', `S1.1 > ${MINUS}`, 'S1.2 > U1.2', ...resistor(2, '10k', 'U1.2', PLUS)],
  ...capacitor(1, '100n', 'U1.6', MINUS),
);
const schmitt = wired(
  ...['seat 74HC14 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`],
  ...resistor(1, '100k', 'U1.1', 'U1.2'),
  ...capacitor(1, '100n', 'U1.1', MINUS),
);
const oneShot = (part: string): Board =>
  wired(
    ...[`seat ${part} b1.e20`, `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`],
    ...resistor(1, '22k', 'U1.11', PLUS),
    ...capacitor(1, '100n', 'U1.10', 'U1.11'),
  );
const [only] = timersOf(astable);
const found = only ?? expect.fail('no timer is found');

/** Rises and falls of a pin of a board that runs by itself. */
function rhythmSeen(
  board: Board,
  pin: string,
  seconds: number,
): { readonly hertz: number; readonly highShare: number } {
  const nets = extractNets(board);
  const live = new PoweredBoard(board, nets, { start: 'clear' });
  const net = nets.ofPin.get(pin) ?? expect.fail(pin);
  const edges: { ns: number; level: number }[] = [];
  live.observe(() => {
    const level = live.levelOf(net);
    if (edges[edges.length - 1]?.level !== level) edges.push({ ns: live.timeNs, level });
  });
  live.runUntil(seconds * 1e9);
  const rises = edges.filter((e) => e.level === HIGH).slice(1);
  const [first, last] = [rises[0]?.ns ?? expect.fail('it does not run'), rises.at(-1)?.ns ?? 0];
  const inside = edges.filter(({ ns }) => ns >= first && ns < last);
  const high = inside.reduce((sum, e, i) => sum + (e.level === HIGH ? (inside[i + 1]?.ns ?? last) - e.ns : 0), 0);
  return { hertz: ((rises.length - 1) * 1e9) / (last - first), highShare: high / (last - first) };
}

const withParts = (board: Board, ohms: readonly number[], farads: number): Board => {
  const { R1, R2, C1 } = board.parts;
  const valued = {
    ...(R1 && { R1: { ...R1, value: ohms[0] ?? 1000 } }),
    ...(R2 && { R2: { ...R2, value: ohms[1] ?? 1000 } }),
    ...(C1 && { C1: { ...C1, value: farads * 1e9 } }),
  };
  return { ...board, parts: { ...board.parts, ...valued } };
};

describe('timers worked out', () => {
  it('are found with the parts that set them, whichever they are', () => {
    expect(timersOf(astable)).toMatchObject([
      { pin: 'U1.3', kind: 'astable', resistors: ['R1', 'R2'], capacitor: 'C1', values: { ohms: [1e4, 1e5] } },
    ]);
    expect(timersOf(single)).toMatchObject([{ pin: 'U1.3', kind: 'pulse', resistors: ['R1'], capacitor: 'C1' }]);
    expect(timersOf(schmitt)).toMatchObject([{ pin: 'U1.2', kind: 'schmitt', resistors: ['R1'], capacitor: 'C1' }]);
    expect(timersOf(oneShot('74121'))).toMatchObject([{ kind: 'pulse', resistors: ['R1'], capacitor: 'C1' }]);
    const pulse = (part: string): number => {
      const [t] = timersOf(oneShot(part));
      return t ? rhythmOf(t.law, t.values).highS : expect.fail(part);
    };
    // 0.7 R C, the SN74121's own formula.
    expect(pulse('74121')).toBeCloseTo(0.7 * 22e3 * 1e-7, 5);
    // Without a part, with two where one should be, or with its control pin pulled, no formula holds.
    for (const more of [
      { ...astable, parts: Object.fromEntries(Object.entries(astable.parts).filter(([ref]) => ref !== 'C1')) },
      wired('seat 555 b1.e20', `U1.8 > ${PLUS}`, `U1.1 > ${MINUS}`),
    ])
      expect(timersOf(more)).toEqual([]);
  });

  it('run on the board as the formula says: an astable over its decades, a Schmitt oscillator', () => {
    const value = fc.constantFrom(1, 1.5, 2.2, 3.3, 4.7, 6.8);
    const decade = fc.constantFrom(1e3, 1e4, 1e5);
    fc.assert(
      fc.property(
        fc.tuple(value, decade),
        fc.tuple(value, decade),
        fc.constantFrom(1e-8, 1e-7, 1e-6),
        ([a, da], [b, db], farads) => {
          const ohms = [a * da, b * db];
          const { highS, lowS } = rhythmOf(found.law, { ohms, farads });
          const seen = rhythmSeen(withParts(astable, ohms, farads), 'U1.3', 8 * (highS + (lowS ?? 0)));
          expect(Math.abs(seen.hertz * (highS + (lowS ?? 0)) - 1)).toBeLessThan(0.03);
          expect(Math.abs(seen.highShare - highS / (highS + (lowS ?? 0)))).toBeLessThan(0.03);
        },
      ),
      { numRuns: 25 },
    );
    const [one] = timersOf(schmitt);
    const { highS, lowS } = one ? rhythmOf(one.law, one.values) : expect.fail('no oscillator');
    const seen = rhythmSeen(schmitt, 'U1.2', 10 * (highS + (lowS ?? 0)));
    expect(Math.abs(seen.hertz * (highS + (lowS ?? 0)) - 1)).toBeLessThan(0.02);
  });

  it('have a capacitor that goes to and fro as the board shows it', () => {
    for (const [board, pin, node] of [
      [astable, 'U1.3', 'U1.6'],
      [schmitt, 'U1.2', 'U1.1'],
    ] as const) {
      const [t] = timersOf(board);
      const curve = t ? chargeCurve(t) : [];
      const nets = extractNets(board);
      const live = new PoweredBoard(board, nets, { start: 'clear' });
      const netOf = (name: string): number => nets.ofPin.get(name) ?? -1;
      // To the beginning of its second time high, when it no longer comes from nothing.
      let [rises, last] = [0, live.levelOf(netOf(pin))];
      while (rises < 2) {
        live.runUntil(live.nextNs);
        const level = live.levelOf(netOf(pin));
        if (level === HIGH && last !== HIGH) rises++;
        last = level;
      }
      const begun = live.timeNs;
      for (const { s, v } of curve.slice(0, 60)) {
        live.runUntil(begun + s * 1e9);
        expect(Math.abs((live.voltsOf(netOf(node)) ?? 0) - v), `${pin} at ${s} s`).toBeLessThan(0.12);
      }
    }
  });

  it('lie between what their parts may be at least and at most', () => {
    const [least, most] = spreadOf(found, astable);
    const { highS, lowS } = rhythmOf(found.law, found.values);
    // 5 % of the resistors and 10 % of the capacitor.
    expect(least.highS / highS).toBeCloseTo(0.95 * 0.9, 9);
    expect((most.lowS ?? 0) / (lowS ?? 1)).toBeCloseTo(1.05 * 1.1, 9);
  });

  it('give parts of the series for what is wanted: none of all combinations comes nearer with that capacitor', () => {
    const steps = [
      1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1,
    ];
    const all = [1e3, 1e4, 1e5, 1e6]
      .flatMap((d) => steps.map((s) => Number((s * d).toPrecision(3))))
      .filter((r) => r <= 2e6);
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 4, noNaN: true }),
        fc.double({ min: 0.55, max: 0.95, noNaN: true }),
        (log, highShare) => {
          const hertz = 10 ** log;
          const [best] = suggested(found, { hertz, highShare });
          if (!best) return expect.fail(`${hertz} Hz`);
          expect(best.error).toBeLessThan(0.06);
          for (const ohm of best.values.ohms) expect(all).toContain(ohm);
          const { highS, lowS } = best.rhythm;
          const period = highS + (lowS ?? 0);
          expect(Math.abs(period * hertz - 1)).toBeLessThan(0.06);
          expect(Math.abs(highS / period - highShare)).toBeLessThan(0.06);
        },
      ),
    );
    const [pulse] = timersOf(single);
    fc.assert(
      fc.property(fc.double({ min: -4, max: 1.5, noNaN: true }), (log) => {
        const [best] = pulse ? suggested(pulse, { pulseS: 10 ** log }) : [];
        expect(best?.error ?? 1).toBeLessThan(0.05);
      }),
    );
  });

  it('keep the capacitor that is there where it does, and give nothing where nothing comes near', () => {
    expect(suggested(found, { hertz: 100, highShare: 0.6 })[0]?.values.farads).toBe(1e-7);
    expect(suggested(found, { hertz: 1e9, highShare: 0.6 })).toEqual([]);
    // An astable 555 is never high for less than half of the time.
    for (const { rhythm } of suggested(found, { hertz: 100, highShare: 0.5 }))
      expect(rhythm.highS).toBeGreaterThan(rhythm.lowS ?? 0);
  });
});
