import { describe, expect, it } from 'vitest';
import { type Board, extractNets, nextFree } from '../board';
import { rhythmOf, timersOf } from '../electrical';
import { isError } from '../finding';
import { applyEdit, freeSeat, newJob } from '../job';
import { HIGH } from '../logic';
import { PoweredBoard } from '../simulation';
import { capacitor, MINUS, PLUS, resistor, wired as wiredBoard } from '../testing/wired';
import { fastSwitch, TIMES_FASTER } from './fast-switch';
import { inspectJob } from './stages';
import { rhythmSwitched } from './timer-values';

const astable = (...timing: string[]) =>
  wiredBoard(
    ...['seat 555 b1.e20', `U1.8 > ${PLUS}`, `U1.1 > ${MINUS}`, `U1.4 > ${PLUS}`, 'U1.2 > U1.6'],
    ...resistor(1, '10k', 'U1.7', PLUS),
    ...resistor(2, '100k', 'U1.7', 'U1.6'),
    ...timing,
  );
const slow = astable(...capacitor(1, '4.7u', 'U1.6', MINUS));

/** The board with its first timer given a fast switch; the findings where it cannot be. */
function given(board: Board) {
  const job = { ...newJob('timer'), board };
  const [timer] = timersOf(board);
  const wired = fastSwitch(board, timer ?? expect.fail('no timer'));
  if ('finding' in wired) return { job, refused: wired.finding.code };
  const applied = applyEdit(job, wired.edit);
  return applied.ok ? { job: applied.job, refused: null } : expect.fail(applied.findings.map((f) => f.code).join());
}

/** How many times a second the timer's output rises, its switch open or closed. */
function hertz(board: Board, isClosed: boolean, seconds: number): number {
  const nets = extractNets(board);
  const live = new PoweredBoard(board, nets, { start: 'clear' });
  if (isClosed) live.setSwitch(0, true);
  const out = nets.ofPin.get('U1.3') ?? expect.fail();
  const rises: number[] = [];
  let before = live.levelOf(out);
  live.observe(() => {
    const level = live.levelOf(out);
    if (level === HIGH && before !== HIGH) rises.push(live.timeNs);
    before = level;
  });
  live.runUntil(seconds * 1e9);
  return ((rises.length - 2) * 1e9) / ((rises.at(-1) ?? 0) - (rises[1] ?? 0));
}

describe('a fast switch', () => {
  it('lets a timer run a hundred times as fast while it is open, and as before while it is closed', () => {
    const { job } = given(slow);
    const [before, after] = [timersOf(slow)[0], timersOf(job.board)[0]];
    if (!before || !after) return expect.fail('no timer is found');
    expect(after.switched).toEqual([{ ref: 'C2', by: 'S1', farads: 4.7e-6 }]);
    const period = ({ highS, lowS }: { highS: number; lowS: number | null }) => highS + (lowS ?? 0);
    const was = period(rhythmOf(before.law, before.values));
    expect(period(rhythmOf(after.law, after.values))).toBeCloseTo(was / TIMES_FASTER, 6);
    expect(period(rhythmSwitched(after) ?? expect.fail()) / was).toBeCloseTo(1.01, 3);
    // And so it does on the board.
    expect(hertz(job.board, false, 0.2) * was).toBeCloseTo(TIMES_FASTER, -1);
    expect(hertz(job.board, true, 8) * was).toBeCloseTo(1 / 1.01, 1);
  });

  it('is wired as the inspector wants it, and goes with one undo', () => {
    const { job } = given(slow);
    const found = (board: Board) =>
      inspectJob({ ...job, board }, null)
        .filter(isError)
        .map((f) => f.code);
    expect(found(job.board)).toEqual(found(slow));
    expect(Object.keys(job.board.parts).sort()).toEqual([...Object.keys(slow.parts), 'C2', 'S1'].sort());
  });

  it('puts a ceramic capacitor in the holes of an electrolytic one, which goes behind the switch the right way round', () => {
    const board = astable('seat electrolytic b1.c40', 'value C1 10u', 'C1.1 > U1.6', `C1.2 > ${MINUS}`);
    const { job } = given(board);
    expect([job.board.parts.C1, job.board.parts.C2].map((part) => [part?.part, part?.value])).toEqual([
      ['capacitor', 100],
      ['electrolytic', 10_000],
    ]);
    expect(inspectJob(job, null).map((f) => f.code)).not.toContain('capacitor-reversed');
  });

  it('is refused where a hundredth is too small, and where no room is left', () => {
    expect(given(astable(...capacitor(1, '10n', 'U1.6', MINUS))).refused).toBe('timer/too-fast');
    let full: Board = slow;
    for (const part of ['dip-switch', 'switch']) {
      const next = () => freeSeat(full, { ref: nextFree('S', full.parts), part, at: '', rotation: 0 });
      for (let seat = next(); seat; seat = next()) full = { ...full, parts: { ...full.parts, [seat.ref]: seat } };
    }
    expect(given(full).refused).toBe('timer/no-room');
  });
});
