import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
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

  it('agree on every level, lamp and output: on mixed families, resistors, LEDs and transistors, in any position of the switches', () => {
    const ohms = fc.constantFrom('22', '100', '220', '470', '1k', '2k2', '4k7', '10k', '47k');
    const load = fc.tuple(fc.constantFrom('none', 'pull-up', 'pull-down', 'led', 'led sunk'), ohms);
    const parts = fc.record({
      chips: fc.tuple(fc.constantFrom(...chips), fc.constantFrom(...chips)),
      pull: ohms,
      first: load,
      transistor: fc.option(fc.tuple(ohms, ohms), { nil: null }),
      second: load,
    });
    const tally = { unclear: 0, clean: 0, over: 0, bearable: 0 };
    fc.assert(
      fc.property(parts, (of) => {
        const board = mixed(of);
        const nets = extractNets(board);
        const live = new PoweredBoard(board, nets);
        let [unclear, over, shorted] = [false, false, false];
        for (const isOn of [false, true]) {
          live.setSwitch(0, isOn);
          live.settle();
          if (live.shorted) shorted = true;
          for (const pin of ['U1.1', 'U2.1'])
            if (live.point.levelAt(pin) === '?' && live.point.isKnown(pin)) unclear = true;
          if (live.circuit.leds.some((_, i) => live.ledState(i) === 'over')) over = true;
          if (live.overloadedOutputs().length > 0) over = true;
        }
        const found = new Set<string>(inspect(board, nets, null, 'HC').map((f) => f.code));
        const has = (...codes: string[]): boolean => codes.some((code) => found.has(code));
        const tellsOver = has('led-over-maximum', 'output-over-maximum');
        const tellsUnclear = has('levels-do-not-meet', 'level-between', 'pull-too-weak');
        // Of a supply that cannot keep up, and behind an input that reads no level, Power up does not see all that can be.
        if (shorted) expect(found).toContain('supply-current');
        if (shorted || unclear) expect([tellsUnclear || !unclear, tellsOver || !over]).toEqual([true, true]);
        else expect([tellsUnclear, tellsOver]).toEqual([unclear, over]);
        tally[unclear ? 'unclear' : 'clean']++;
        tally[over ? 'over' : 'bearable']++;
      }),
      { numRuns: 300 },
    );
    expect(Math.min(...Object.values(tally)), JSON.stringify(tally)).toBeGreaterThan(10);
  });
});

interface Mixed {
  readonly chips: readonly [string, string];
  readonly pull: string;
  /** What hangs on the first inverter's output, and on the second one's input: by its kind, with its ohms. */
  readonly first: readonly [string, string];
  readonly second: readonly [string, string];
  /** A transistor between the two: the ohms at its base and at its collector. */
  readonly transistor: readonly [string, string] | null;
}

/** A switch, an inverter, perhaps a transistor, and an inverter of another family, with loads on the way. */
function mixed({ chips: [a, b], pull, first, second, transistor }: Mixed): Board {
  let [resistors, leds] = [0, 0];
  const ohms = (value: string, from: string, to: string): string[] => resistor(++resistors, value, from, to);
  const loaded = (at: string, [kind, value]: readonly [string, string]): string[] => {
    if (kind === 'none') return [];
    if (kind.startsWith('pull')) return ohms(value, at, kind === 'pull-up' ? PLUS : MINUS);
    leds++;
    const [near, far, rail] = kind === 'led' ? ['A', 'K', MINUS] : ['K', 'A', PLUS];
    return ['seat led', `D${leds}.${near} > ${at}`, ...ohms(value, `D${leds}.${far}`, rail as string)];
  };
  return wired(
    ...[`seat ${a} b1.e20`, 'U1.14 > b1.top+', 'U1.7 > b1.bottom-'],
    ...[`seat ${b} b1.e30`, 'U2.14 > b1.top+', 'U2.7 > b1.bottom-'],
    ...['seat switch', `S1.1 > ${PLUS}`, 'S1.2 > U1.1', ...ohms(pull, 'S1.2', MINUS)],
    ...loaded('U1.2', first),
    ...(transistor
      ? ['seat npn', `Q1.1 > ${MINUS}`, ...ohms(transistor[0], 'U1.2', 'Q1.2'), ...ohms(transistor[1], PLUS, 'Q1.3')]
      : []),
    `${transistor ? 'Q1.3' : 'U1.2'} > U2.1`,
    ...loaded('U2.1', second),
  );
}
