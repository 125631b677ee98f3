import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { PoweredBoard } from '../simulation';
import { MINUS, PLUS, resistor, wired } from '../testing/wired';
import { inspect } from '.';

const chips = ['74', '74LS', '74S', '74F', '74ALS', '74HC', '74HCT', '74AC', '74ACT'].map((family) => `${family}04`);

describe('the inspector and the powered board', () => {
  it('agree on every pull-down: it is too weak exactly where its input reads no low with the switch off', () => {
    let [weak, strong] = [0, 0];
    fc.assert(
      fc.property(
        fc.constantFrom(...chips),
        fc.constantFrom('100', '220', '470', '1k', '2k2', '4k7', '10k', '47k', '1M'),
        fc.integer({ min: 1, max: 3 }),
        (chip, ohms, loads) => {
          const board = wired(
            ...[`seat ${chip} b1.e20`, 'U1.14 > b1.top+', 'U1.7 > b1.bottom-'],
            ...['seat switch', `S1.1 > ${PLUS}`, ...resistor(1, ohms, 'S1.2', MINUS)],
            ...['S1.2 > U1.1', 'U1.1 > U1.3', 'U1.3 > U1.5'].slice(0, loads),
          );
          const nets = extractNets(board);
          const live = new PoweredBoard(board, nets);
          live.settle();
          const isClean = live.point.levelAt('U1.1') === '0';
          const codes = inspect(board, nets, null, 'HC').map((f) => f.code);
          expect([chip, ohms, loads, codes.includes('pull-too-weak')]).toEqual([chip, ohms, loads, !isClean]);
          live.setSwitch(0, true);
          live.settle();
          expect(live.point.levelAt('U1.1')).toBe('1');
          if (isClean) strong++;
          else weak++;
        },
      ),
      { seed: 16, numRuns: 80 },
    );
    expect(Math.min(weak, strong)).toBeGreaterThan(10);
  });

  it('agree on every LED: one that Power up finds past its maximum is an error to the inspector, and a timer is no gate', () => {
    const feeds: Readonly<Record<string, readonly string[]>> = {
      rail: [`D1.A > ${PLUS}`],
      timer: [
        'seat 555 b1.e20',
        'U1.8 > b1.top+',
        'U1.4 > b1.top+',
        'U1.1 > b1.top-',
        'U1.2 > U1.1',
        'U1.6 > U1.2',
        'U1.3 > D1.A',
      ],
      ...Object.fromEntries(
        chips.map((chip) => [
          chip,
          [`seat ${chip} b1.e20`, 'U1.14 > b1.top+', 'U1.7 > b1.top-', 'U1.1 > U1.7', 'U1.2 > D1.A'],
        ]),
      ),
    };
    let over = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(feeds)),
        fc.constantFrom('led', 'led-yellow', 'led-green', 'led-blue', 'led-white'),
        fc.constantFrom(10, 22, 47, 100, 220, 470, 1000),
        (feed, led, ohms) => {
          const board = wired(`seat ${led} b1.c45`, 'seat resistor b1.a46', `value R1 ${ohms}`, ...(feeds[feed] ?? []));
          const nets = extractNets(board);
          const live = new PoweredBoard(board, nets);
          live.settle();
          const found = inspect(board, nets, null, 'HC').map((f) => f.code);
          if (live.ledState(0) === 'over') {
            over++;
            expect(found, `${feed} ${led} ${ohms}`).toContain('led-over-maximum');
          }
          // A timer gives 200 mA at its levels: what a gate could not is nothing to it.
          if (feed === 'timer') expect(found).not.toContain('led-current');
        },
      ),
      { numRuns: 200 },
    );
    expect(over).toBeGreaterThan(10);
  });
});
