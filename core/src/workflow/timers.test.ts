import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { type FamilyId, readDesign, readValue, typeOf } from '../catalogue';
import { rhythmOf, timersOf } from '../electrical';
import { says } from '../finding';
import { recover } from '../inspection';
import { applyEdit, type Job, newJob } from '../job';
import { PoweredBoard, runBoard, subjectOf, tourBoard } from '../simulation';
import { solve } from '../testing/interlock';
import { layOutJob } from './lay-out';
import { inspectJob, packJob } from './stages';
import { broughtUpTo } from './update';

async function laidOut(sheet: string, family: FamilyId = 'HC') {
  const job: Job = { ...newJob('test', sheet), family };
  const { reading, packing } = await packJob(job, solve);
  const { netlist } = reading.design;
  if (!netlist || !packing) return expect.fail(sheet);
  const { edit, findings } = layOutJob(job, packing, netlist);
  const applied = applyEdit(job, edit ?? expect.fail(findings.map(says).join()));
  return { job: applied.ok ? applied.job : expect.fail(sheet), packing, netlist };
}

/** A counter of two stages behind a timer. */
const counting = (hertz: string): string =>
  `in C from timer ${hertz}\nin R\nout Q[1:0]\nQ[0] = ~Q[0] at rise C clear R\nQ[1] = Q[1] ^ Q[0] at rise C clear R`;

/** The rates of the timers of a board, in hertz, by the law of their data sheet. */
const ratesOf = (board: Board): number[] =>
  timersOf(board).map(({ law, values }) => {
    const { highS, lowS } = rhythmOf(law, values);
    return 1 / (highS + (lowS ?? 0));
  });

describe('a timer that a sheet has a signal come from', () => {
  it('runs at its rate on the powered board, and clocks what hangs on it, in every family', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom<FamilyId>('HC', 'HCT', 'LS', '74', 'AC'),
        fc.constantFrom([1, '1 Hz'], [7, '7 Hz'], [150, '150 Hz'], [2000, '2 kHz'], [60_000, '60 kHz']),
        async (family, [hertz, rate]) => {
          const { job } = await laidOut(counting(String(rate)), family);
          const found = inspectJob(job, job.packing).filter((f) => f.severity !== 'note');
          expect(found.map(says), `${rate} ${family}`).toEqual([]);
          const periods = 40;
          const { run } = runBoard(job.board, { untilNs: (periods / Number(hertz)) * 1e9, start: 'clear' });
          const { C, Q0, Q1 } = run?.signals ?? {};
          // The first time the capacitor begins empty.
          expect(Math.abs((C?.edges ?? 0) - 2 * periods), `${rate} ${family}`).toBeLessThanOrEqual(3);
          expect(Math.abs((Q0?.edges ?? 0) - periods)).toBeLessThanOrEqual(2);
          expect(Math.abs((Q1?.edges ?? 0) - periods / 2)).toBeLessThanOrEqual(2);
          expect(C?.highShare).toBeGreaterThan(0.48);
          expect(C?.highShare).toBeLessThan(0.58);
        },
      ),
      { numRuns: 8 },
    );
  });

  it('is held in a tour of the states, and every one of them is as the sheet says', async () => {
    const sheet = counting('5 Hz');
    const { job } = await laidOut(sheet);
    const tour = tourBoard(job.board, readDesign(sheet).design.behaviour ?? expect.fail());
    expect([tour.differing, tour.first, tour.covered]).toEqual([0, null, tour.transitions]);
    expect(tour.transitions).toBeGreaterThan(8);
  });

  it('stands high or low as it is put while clocks do not run, for as long as one likes', async () => {
    const { job } = await laidOut('in C from timer 50 Hz\nout Y\nY = ~C');
    const nets = extractNets(job.board);
    const live = new PoweredBoard(job.board, nets);
    const [at, net] = [live.circuit.switches.findIndex((s) => s.timer !== null), nets.ofPin.get('X1.3') ?? -1];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 400 })), { maxLength: 8 }), (puts) => {
        for (const [isHigh, ms] of puts) {
          live.setSwitch(at, isHigh);
          live.runUntil(live.timeNs + ms * 1e6);
          expect(live.levelOf(net)).toBe(isHigh ? 1 : 0);
        }
        expect(live.settle().settled).toBe(true);
      }),
    );
  });

  it('is brought to another rate by exchanging its parts alone', async () => {
    const { job } = await laidOut(counting('1 Hz'));
    const { packing, netlist } = await laidOut(counting('40 Hz'));
    const { board, taken, stopped } = broughtUpTo(job.board, packing, netlist);
    expect(stopped).toBeNull();
    expect(Math.abs((ratesOf(board)[0] ?? 0) / 40 - 1)).toBeLessThan(0.02);
    expect(board.parts.X1).toEqual(job.board.parts.X1);
    expect(taken.filter((id) => !id.startsWith('w')).sort()).toEqual(['C2', 'R1', 'R2']);
    // And stays as it is where the rate is right.
    expect(broughtUpTo(board, packing, netlist).taken).toEqual([]);
  });

  it('is an input of a board that is read back, labelled or not; one that is no input of its own is none', async () => {
    const { job } = await laidOut(counting('9 Hz'));
    const { X1, ...others } = job.board.parts;
    const { signal, ...unlabelled } = X1 ?? expect.fail();
    expect(signal).toBe('C');
    const bare = { ...job.board, parts: { ...others, X1: unlabelled } };
    const lines = (board: Board): string[] =>
      recover(board, extractNets(board))
        .sheet.split('\n')
        .filter((line) => line.includes('timer'));
    expect(lines(job.board)).toEqual(['in C from timer 9 Hz']);
    expect(lines(bare)).toEqual(['in X1 "timer X1" from timer 9 Hz']);
    expect(subjectOf(job.board, extractNets(job.board)).inputs).toEqual(['R', 'C']);
    expect(subjectOf(bare, extractNets(bare)).inputs).toEqual(['R']);
  });

  it('is told where parts give another time than is wanted, with those that would do, and no longer with these', async () => {
    const pulse =
      'in S from button\nout Y Z\nuse 74123 as P (1A = 0, 1B = S, 1CLRn = 1, 1Q = Y, 2A = 0, 2B = Y, 2CLRn = 1, 2Q = Z) for 20 ms, 3 s';
    const one = 'in S\nout Y\nB = ~S\nuse 555 as P (TRIG = B, RESETn = 1, THRES = X, DISCH = X, OUT = Y) for 40 ms';
    const jobs = await Promise.all([counting('6 Hz'), pulse, one].map(async (sheet) => (await laidOut(sheet)).job));
    const told = (job: Job): string[] =>
      inspectJob(job, job.packing)
        .filter((f) => f.code === 'timer-rate' || f.code === 'pulse-length')
        .map((f) => String(f.facts.parts));
    const lengthsOf = (job: Job): number[] =>
      timersOf(job.board).map(({ law, values }) => rhythmOf(law, values).highS + (rhythmOf(law, values).lowS ?? 0));
    const exchanged = (job: Job, ref: string, value: number): Job => {
      const applied = applyEdit(job, { kind: 'set-value', ref, value });
      return applied.ok ? applied.job : expect.fail(applied.findings.map(says).join());
    };
    fc.assert(
      fc.property(fc.constantFrom(...jobs), fc.nat(), fc.double({ min: 0.3, max: 3, noNaN: true }), (job, n, by) => {
        expect(told(job)).toEqual([]);
        const refs = timersOf(job.board).flatMap((t) => [...t.resistors, t.capacitor]);
        const ref = refs[n % refs.length] ?? '';
        const value = Number(((job.board.parts[ref]?.value ?? 0) * by).toPrecision(3));
        const other = exchanged(job, ref, value);
        const before = lengthsOf(job);
        const off = lengthsOf(other).map((length, i) => Math.abs(length / (before[i] ?? 0) - 1));
        // What is nearly at the bound is not asked.
        if (off.some((o) => o > 0.095 && o < 0.105)) return;
        expect(told(other)).toHaveLength(off.filter((o) => o > 0.1).length);
        // Notes of the board, such as that of the timer's supply pins, stand behind it.
        const severities = inspectJob(other, other.packing).map((f) => f.severity);
        expect(severities.lastIndexOf('warning')).toBeLessThan(severities.concat('note').indexOf('note'));
        for (const parts of told(other)) {
          const [, text = ''] = new RegExp(`${ref} ([^,]+)`).exec(parts) ?? [];
          const again = readValue(
            typeOf(job.board.parts[ref] ?? { part: '' })?.kind ?? 'resistor',
            text.replace(/ (?=[kµn])/, ''),
          );
          expect(told(exchanged(other, ref, again ?? 0)), parts).toEqual([]);
        }
      }),
    );
  });
});
