import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { timingRequirementsOf } from '../catalogue';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { MINUS, PLUS, resistor, wired } from '../testing/wired';
import { PoweredBoard } from './powered-board';

/** A flip-flop of a 7474 whose data, clock and clear hang on switches: S1, S2 and S3. */
const flipFlop = (part: string, strict = false): PoweredBoard => {
  const board = wired(
    ...[`seat ${part} b1.e20`, `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, `U1.4 > ${PLUS}`],
    ...[1, 2, 3].flatMap((s) => [
      ...['seat switch', `S${s}.1 > ${PLUS}`],
      ...resistor(s, '220', `S${s}.2`, MINUS),
      `S${s}.2 > U1.${[2, 3, 1][s - 1]}`,
    ]),
  );
  return new PoweredBoard(board, extractNets(board), { start: 'clear', strict });
};

type Four<T> = [T, T, T, T];

const [DATA, CLOCK, CLEAR] = [0, 1, 2];

/** Moves switches at moments, in nanoseconds; whichever comes first goes first. */
function play(live: PoweredBoard, moves: readonly (readonly [atNs: number, index: number, on: boolean])[]): void {
  for (const [at, index, on] of [...moves].sort((a, b) => a[0] - b[0])) {
    live.runUntil(at);
    live.setSwitch(index, on);
  }
  live.runUntil(live.timeNs + 1000);
}

const faults = (live: PoweredBoard): string[] =>
  live.timingFaults.map(({ pin, requirement }) => `${pin} ${requirement}`).sort();

describe('what data sheets ask of inputs in time', () => {
  it('is told exactly where it is not kept: widths, set-up and hold of flip-flops of three families', () => {
    const tally = { kept: 0, broken: 0 };
    fc.assert(
      fc.property(
        fc.constantFrom('7474', '74LS74', '74HC74'),
        ...([60, 60, 60, 20].map((most) => fc.oneof(fc.constant(most), fc.integer({ min: 1, max: most }))) as Four<
          fc.Arbitrary<number>
        >),
        (part, ...[clear, setUp, high, hold]) => {
          const family = part === '7474' ? '74' : part === '74LS74' ? 'LS' : 'HC';
          const needs = timingRequirementsOf('7474', family);
          const live = flipFlop(part);
          const rise = 10_000;
          play(live, [
            [1000, CLEAR, true],
            [3000, CLEAR, false],
            [3000 + clear, CLEAR, true],
            [rise - setUp, DATA, true],
            [rise, CLOCK, true],
            [rise + hold, DATA, false],
            [rise + high, CLOCK, false],
          ]);
          const clock = needs?.clocks['*'];
          const expected = [
            ...(clear < (needs?.clearNs ?? 0) ? ['U1.1 pulse'] : []),
            ...(setUp < (needs?.setUpNs ?? 0) ? ['U1.2 set-up'] : []),
            ...(hold < (needs?.holdNs ?? 0) ? ['U1.2 hold'] : []),
            ...(high < (clock?.highNs ?? 0) ? ['U1.3 pulse'] : []),
          ];
          expect(faults(live)).toEqual(expected.sort());
          tally[expected.length > 0 ? 'broken' : 'kept']++;
        },
      ),
      { numRuns: 60 },
    );
    expect(Math.min(tally.broken, tally.kept), JSON.stringify(tally)).toBeGreaterThan(4);
  });

  it('is told of a clock exactly where it is faster than the data sheet promises', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(['7474', '74'] as const, ['74LS74', 'LS'] as const, ['74HC74', 'HC'] as const),
        fc.integer({ min: 30, max: 200 }),
        ([part, family], half) => {
          const clock = timingRequirementsOf('7474', family)?.clocks['*'];
          const live = flipFlop(part);
          const [first, width] = [10_000, half / 2];
          play(live, [
            [1000, CLEAR, true],
            [first, CLOCK, true],
            [first + width, CLOCK, false],
            [first + half / 4 + width, CLOCK, true],
          ]);
          const period = width + half / 4;
          const isFast = period < 1000 / (clock?.mostMhz ?? 1) - 0.05;
          expect(faults(live).includes('U1.3 period'), `${part} at ${period} ns`).toBe(isFast);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is noted and nothing else, unless the run is strict: then what is stored is unknown after it', () => {
    const late = [
      [1000, CLEAR, true],
      [4990, DATA, true],
      [5000, CLOCK, true],
    ] as const;
    const [plain, strict] = [flipFlop('74LS74'), flipFlop('74LS74', true)];
    for (const live of [plain, strict]) play(live, late);
    expect([plain, strict].map(faults)).toEqual([['U1.2 set-up'], ['U1.2 set-up']]);
    expect([plain.levelAt('U1.5'), strict.levelAt('U1.5')]).toEqual([HIGH, UNKNOWN]);
    // A clear that is long enough makes it known again.
    for (const live of [plain, strict]) {
      live.setSwitch(CLEAR, false);
      live.runUntil(live.timeNs + 100);
      expect(live.levelAt('U1.5')).toBe(LOW);
    }
  });
});

describe('the reset of a counter that is cut at ten', () => {
  /** A 7493 whose reset is its own QB and QD, after ten counts. */
  const cut = (part: string): PoweredBoard => {
    const board = wired(
      ...[`seat ${part} b1.e20`, `U1.5 > ${PLUS}`, `U1.10 > ${MINUS}`, 'U1.12 > U1.1', 'U1.9 > U1.2', 'U1.11 > U1.3'],
      ...['seat switch', `S1.1 > ${PLUS}`, ...resistor(1, '220', 'S1.2', MINUS), 'S1.2 > U1.14'],
    );
    const live = new PoweredBoard(board, extractNets(board), { start: 'clear' });
    for (let i = 0; i < 20; i++) {
      live.setSwitch(0, true);
      live.runUntil(live.timeNs + 1000);
      live.setSwitch(0, false);
      live.runUntil(live.timeNs + 1000);
    }
    return live;
  };

  it('is told with its length where it does not reach the least width, and not where it does', () => {
    // Both clear in some 26 ns, after which the reset ends; the one of LS asks for 30, the standard one for 15.
    const [short] = cut('74LS93').timingFaults;
    expect(short).toMatchObject({ requirement: 'pulse', level: HIGH, leastNs: 30, count: 2 });
    expect(short?.ns).toBe(26);
    expect(cut('7493').timingFaults).toEqual([]);
  });
});
