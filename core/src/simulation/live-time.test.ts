import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { plainSettings } from '../testing/live';
import { capacitor, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { LiveRun } from './live-run';
import type { LiveSettings, LiveState } from './live-state';

const settings: LiveSettings = { ...plainSettings, start: 'clear', scope: { spanNs: 2e9, endNs: 2e9, columns: 200 } };
const live = (board: Board, change: Partial<LiveSettings> = {}): LiveRun =>
  new LiveRun(board, extractNets(board), { ...settings, ...change });
const never = (): boolean => false;
const finish = (run: LiveRun): LiveState => {
  for (let i = 0; run.state().search.isOn; i++) {
    if (i > 10_000) throw new Error('it does not end');
    run.advance(1, () => true);
  }
  return run.state();
};

/** A 7493 counting a clock module at 10 Hz, cleared by S1; a delayed copy of S2 at a Schmitt inverter. */
const busy = wired(
  ...['seat 74LS93 b1.e20', `U1.5 > ${PLUS}`, `U1.10 > ${MINUS}`, 'U1.12 > U1.1', 'U1.2 > U1.3'],
  ...['seat clock', `X1.1 > ${PLUS}`, `X1.2 > ${MINUS}`, 'value X1 10Hz', 'X1.3 > U1.14'],
  ...[1, 2].flatMap((s) => ['seat switch', `S${s}.1 > ${PLUS}`, ...resistor(s, '220', `S${s}.2`, MINUS)]),
  'S1.2 > U1.2',
  ...['seat 74HC14 b1.e40', `U2.14 > ${PLUS}`, `U2.7 > ${MINUS}`],
  ...resistor(3, '100k', 'S2.2', 'U2.1'),
  ...capacitor(1, '1u', 'U2.1', MINUS),
);
const traced = ['U1.12', 'U1.9', 'U1.8', 'U1.11', 'U2.1', 'U2.2'];

/** What can be told of a run at a moment: levels, volts and the trace. */
const seen = (run: LiveRun) => {
  const { timeNs, levels, volts, trace, hand, supplyMa } = run.state();
  const rows = trace?.rows.map(({ name, from, to, changes }) => ({ name, from, to, changes }));
  return { timeNs, levels, volts, rows, on: hand.on, supplyMa: Math.round(1e6 * supplyMa) };
};

const touches = fc.array(
  fc.record({ afterMs: fc.integer({ min: 0, max: 300 }), name: fc.constantFrom('S1', 'S2'), on: fc.boolean() }),
  { maxLength: 8 },
);

describe('time wound back', () => {
  it('is as it was then, whatever was done, and goes on from there as if nothing had come after', () => {
    fc.assert(
      fc.property(touches, fc.integer({ min: 0, max: 8 }), touches, (first, kept, other) => {
        const [run, plain] = [live(busy, { traced }), live(busy, { traced })];
        const play = (runs: readonly LiveRun[], list: typeof first): void => {
          for (const { afterMs, name, on } of list)
            for (const r of runs) {
              r.advance(afterMs, never);
              r.setSwitches(new Map([[name, on]]));
            }
        };
        play([run, plain], first.slice(0, kept));
        // What follows a touch at once has been worked out: time has come so far.
        for (const r of [run, plain]) r.advance(50, never);
        const then = seen(run);
        play([run], first.slice(kept));
        run.advance(200, never);
        run.inTime({ kind: 'wind', timeNs: then.timeNs });
        expect(run.state().search.isOn).toBe(true);
        finish(run);
        expect(seen(run)).toEqual(then);
        expect(run.isPaused).toBe(true);
        run.setPace(1, false);
        play([run, plain], other);
        expect(seen(run)).toEqual(seen(plain));
      }),
      { numRuns: 40 },
    );
  });

  it('goes back change by change, to the power coming on, and makes lamps whole again', () => {
    const board = wired(
      ...switches(1),
      'seat led b1.c50',
      'label D1 Y',
      'S1.2 > D1.A',
      ...resistor(2, '47', 'D1.K', MINUS),
    );
    const run = live(board, { traced: ['S1.2'] });
    run.advance(100, never);
    run.setSwitches(new Map([['S1', true]]));
    run.state();
    run.advance(1000, never);
    expect([...run.state().destroyed.keys()]).toEqual(['D1']);
    const { serial } = run.state().hand;
    run.inTime({ kind: 'back' });
    const back = finish(run);
    expect(back).toMatchObject({ timeNs: 100e6, hand: { serial: serial + 1, on: ['S1'], isPaused: true } });
    run.inTime({ kind: 'back' });
    expect(finish(run)).toMatchObject({ timeNs: 0, hand: { on: [] } });
    expect(run.state().destroyed.size).toBe(0);
  });
});

describe('time run on', () => {
  it('goes as far as was asked, as fast as it goes, and stands there; how far it is is told', () => {
    const day = live(busy, { traced });
    day.inTime({ kind: 'run-on', forNs: 86_400e9 });
    let [looks, before] = [0, 0];
    while (day.state().search.isOn) {
      day.advance(1, () => true);
      const { share, isOn } = day.state().search;
      if (isOn) expect(share).toBeGreaterThan(before);
      before = share ?? before;
      looks++;
    }
    expect(looks).toBeGreaterThan(20);
    expect(day.state()).toMatchObject({ timeNs: 86_400e9, search: { share: null }, hand: { isPaused: true } });
    // The same as if it had run by itself: 864,000 periods of the clock, counted by four bits.
    const q = traced.map((pin) => day.state().levels[extractNets(busy).ofPin.get(pin) ?? -1] === HIGH);
    const short = live(busy, { traced });
    short.inTime({ kind: 'run-on', forNs: 1.6e9 });
    expect(traced.map((pin) => finish(short).levels[extractNets(busy).ofPin.get(pin) ?? -1] === HIGH)).toEqual(q);
  });

  it('can be stopped on the way: time stands where it has come to', () => {
    const run = live(busy, { traced });
    run.inTime({ kind: 'run-on', forNs: 3600e9 });
    run.advance(1, () => true);
    run.inTime({ kind: 'stop-seeking' });
    const { timeNs, search, hand } = run.state();
    expect([search.isOn, hand.isPaused]).toEqual([false, true]);
    expect(timeNs).toBeGreaterThan(0);
    expect(timeNs).toBeLessThan(3600e9);
  });
});

describe('marks that stood in the trace before', () => {
  it('are set when time reaches them, and measured as if they had been set then', () => {
    const run = live(busy, { traced, marks: { a: 400e6, b: 900e6 } });
    run.advance(300, never);
    expect(run.state().marks).toMatchObject({ a: null, b: null });
    run.advance(300, never);
    expect(run.state().marks).toMatchObject({ a: 400e6, b: null });
    run.advance(600, never);
    const { a, b, between } = run.state().marks;
    expect([a, b]).toEqual([400e6, 900e6]);
    const fresh = live(busy, { traced });
    fresh.advance(1200, never);
    const name = traced[0] ?? '';
    fresh.setMark('a', { name, timeNs: 400e6, withinNs: 0 });
    fresh.setMark('b', { name, timeNs: 900e6, withinNs: 0 });
    expect(between).toEqual(fresh.state().marks.between);
  });

  it('stay away where a person has set or taken away that mark since', () => {
    const run = live(busy, { traced, marks: { a: 400e6, b: null } });
    run.advance(100, never);
    run.setMark('a', null);
    run.advance(900, never);
    expect(run.state().marks.a).toBeNull();
  });
});

describe('what is looked for in time', () => {
  it('is an edge of a signal, the so-manieth, as fast as it goes; then time stands there', () => {
    const run = live(busy, { traced, on: [] });
    run.inTime({ kind: 'seek', sought: { kind: 'edges', name: 'U1.12', to: 1, count: 5 }, stops: true });
    const { timeNs, hand, search, trace } = finish(run);
    // Low at first and counting the falls of the clock: the fifth rise of QA comes with its ninth fall.
    expect(trace?.rows.find((row) => row.name === 'U1.12')?.figures.edges).toBe(9);
    expect(search).toMatchObject({ serial: 1, atNs: timeNs, findings: [] });
    expect(hand.isPaused).toBe(true);
    run.inTime({ kind: 'seek', sought: { kind: 'edges', name: 'U1.12', to: 0, count: 1 }, stops: true });
    expect(finish(run).timeNs - timeNs).toBeCloseTo(100e6, -5);
  });

  it('is pressed where a person gives it: a burst of pulses, counted by the board', () => {
    const board = wired(
      ...['seat 74LS93 b1.e20', `U1.5 > ${PLUS}`, `U1.10 > ${MINUS}`, 'U1.12 > U1.1'],
      ...[`U1.2 > ${MINUS}`, `U1.3 > ${MINUS}`],
      ...['seat switch', 'label S1 CK', `S1.1 > ${PLUS}`, ...resistor(1, '220', 'S1.2', MINUS), 'S1.2 > U1.14'],
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 120 }), fc.constantFrom(0, 1, null), (count, to) => {
        const run = live(board, { traced: ['U1.12', 'U1.9', 'U1.8', 'U1.11'] });
        run.inTime({ kind: 'seek', sought: { kind: 'edges', name: 'CK', to, count }, stops: true });
        const { levels, hand, search } = finish(run);
        const flips = to === null ? count : to === 1 ? 2 * count - 1 : 2 * count;
        const falls = flips >> 1;
        const q = ['U1.12', 'U1.9', 'U1.8', 'U1.11'].map((pin) => levels[extractNets(board).ofPin.get(pin) ?? -1]);
        expect(q.map((level) => (level === HIGH ? 1 : 0))).toEqual([0, 1, 2, 3].map((bit) => (falls >> bit) & 1));
        expect(hand.on).toEqual(flips % 2 === 1 ? ['S1'] : []);
        expect(search.isOn).toBe(false);
      }),
      { numRuns: 20 },
    );
  });

  it('is an expression that becomes true: in the trace, then in what is to come', () => {
    const run = live(busy, { traced });
    // Nine counts: with the fall of the ninth period.
    run.inTime({ kind: 'find', text: 'U1.11 & U1.12', isForward: true });
    const nine = finish(run);
    expect(nine.search).toMatchObject({ serial: 1, findings: [] });
    expect(nine.marks.a).toBe(nine.timeNs);
    expect(nine.timeNs / 1e6).toBeCloseTo(900, 0);
    // Back in the trace: seven was on the way.
    run.inTime({ kind: 'find', text: 'U1.8 & U1.9 & U1.12', isForward: false });
    expect((run.state().marks.a ?? 0) / 1e6).toBeCloseTo(700, 0);
    run.inTime({ kind: 'find', text: 'U1.8 & ~U1.8', isForward: false });
    expect(run.state().search.findings.map((f) => f.code)).toEqual(['trace-never-true']);
    run.inTime({ kind: 'find', text: 'Nobody', isForward: true });
    expect(run.state().search.findings.map((f) => f.code)).toEqual(['trace-no-signal']);
  });

  it('can be waited for while time goes on as it does; then only the mark is set', () => {
    const run = live(busy, { traced });
    run.inTime({ kind: 'seek', sought: { kind: 'true', text: 'U1.8' }, stops: false });
    expect(run.state().search.isWaiting).toBe(true);
    run.advance(350, never);
    expect(run.state().search).toMatchObject({ serial: 0, isOn: false });
    run.advance(350, never);
    const { search, hand, timeNs, marks } = run.state();
    expect([search.serial, search.isWaiting]).toEqual([1, false]);
    expect((marks.a ?? 0) / 1e6).toBeCloseTo(400, 0);
    expect([hand.isPaused, timeNs]).toEqual([false, 700e6]);
  });

  it('is given up where the board rests, or when a person stops it', () => {
    const rest = live(wired('seat 74HC04 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`), { traced: ['U1.2'] });
    rest.inTime({ kind: 'seek', sought: { kind: 'edges', name: 'U1.2', to: 1, count: 1 }, stops: true });
    expect(rest.state().search).toMatchObject({ isOn: false, findings: [{ code: 'trace-rests' }] });
    const run = live(busy, { traced });
    run.inTime({ kind: 'seek', sought: { kind: 'edges', name: 'U2.2', to: 1, count: 1000 }, stops: true });
    run.advance(1, () => true);
    expect(run.state().search.isOn).toBe(true);
    run.inTime({ kind: 'stop-seeking' });
    expect(run.state().search.isOn).toBe(false);
    expect([LOW, UNKNOWN]).toContain(run.state().levels[0] ?? LOW);
  });
});
