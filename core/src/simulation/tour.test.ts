import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { readSheet } from '../design';
import { says } from '../finding';
import { type Behaviour, compileMachine, HIGH, LOW, MachineRun, UNKNOWN } from '../logic';
import { faults } from '../testing/faults';
import { laidOut } from '../testing/interlock';
import { MINUS, PLUS, wired } from '../testing/wired';
import { compileCircuit } from './circuit';
import { PoweredBoard } from './powered-board';
import { type Tour, tourBoard } from './tour';
import { lampsOf, panelOf } from './walk';

const behaviourOf = (sheet: string): Behaviour => readSheet(sheet).design.behaviour ?? expect.fail(sheet);

/** Sheets of up to three flip-flops with a clock C, a clear R and an input A. */
const clocked = fc
  .array(
    fc.record({
      data: fc.constantFrom('~Q0', 'Q0 ^ A', '~(Q0 & A)', 'A', 'Q0 | A', '~A & Q0'),
      edge: fc.constantFrom('rise', 'fall'),
      isCleared: fc.boolean(),
    }),
    { minLength: 1, maxLength: 3 },
  )
  .map((bits) => {
    const lines = bits.map(({ data, edge, isCleared }, i) => {
      const own = data.replaceAll('Q0', i === 0 ? 'Q0' : `Q${i - 1}`);
      return `Q${i} = ${own} at ${edge} C${isCleared || i === 0 ? ' clear R' : ''}`;
    });
    return `in A C R\nout ${bits.map((_, i) => `Q${i}`).join(' ')}\n${lines.join('\n')}`;
  });

/** What a machine shows after some presses from power up, written apart from the graph. */
function shownAfter(behaviour: Behaviour, presses: readonly string[], start: 'clear' | 'unknown'): number[] {
  const run = new MachineRun(compileMachine(behaviour));
  const on = behaviour.inputs.map(() => LOW as number);
  const put = (): void => {
    on.forEach((level, i) => {
      run.setInput(i, level);
    });
  };
  put();
  if (start === 'clear') run.restore(behaviour.stored.map(() => LOW));
  run.settle();
  for (const name of presses) {
    const i = behaviour.inputs.indexOf(name);
    on[i] = HIGH + LOW - (on[i] as number);
    put();
    run.settle();
  }
  return behaviour.outputs.map((_, o) => run.outputLevel(o));
}

/** How many transitions the presses of a tour really lead through: states with their inputs, and the input that turned over. */
const distinct = ({ steps }: Tour, stepping: readonly string[]): number =>
  new Set(steps.filter((s) => stepping.includes(s.press)).map((s) => `${s.inputs} ${s.stored} ${s.press}`)).size;

describe('a tour of the states', () => {
  it('covers what it claims on any board as it is laid out, and nothing differs', async () => {
    await fc.assert(
      fc.asyncProperty(clocked, async (sheet) => {
        const { job } = await laidOut(sheet);
        const behaviour = behaviourOf(sheet);
        const tour = tourBoard(job.board, behaviour);
        expect([tour.differing, tour.first, tour.covered], sheet).toEqual([0, null, tour.transitions]);
        // Two transitions may begin in states that differ in how the clock stood last alone.
        expect(distinct(tour, ['C', 'R'])).toBeLessThanOrEqual(tour.covered);
        expect(distinct(tour, ['C', 'R'])).toBeGreaterThan(0);
        const start = tour.findings.some((f) => f.code === 'tour-no-reset') ? 'clear' : 'unknown';
        // The presses that were made lead where the tour says, by a machine of its own.
        if (start === 'clear') {
          const shown = shownAfter(
            behaviour,
            tour.steps.map((s) => s.press),
            start,
          );
          const { wanted } = tour.steps.at(-1) ?? expect.fail('no steps');
          expect(wanted).toEqual(shown.map((level) => (level === UNKNOWN ? null : level)));
        }
      }),
      { numRuns: 12 },
    );
  });

  it('finds what a fault changes, with presses that show it again from power up', async () => {
    const sheet = 'in A C R\nout Q0 Q1 Y\nQ0 = ~Q0 at rise C clear R\nQ1 = Q0 ^ Q1 at rise C clear R\nY = Q1 & A';
    const { job } = await laidOut(sheet);
    const behaviour = behaviourOf(sheet);
    let found = 0;
    for (const fault of Object.values(faults))
      for (let n = 0; n < 4; n++) {
        const board = fault(job.board, 31 * n + 7);
        if (!board) continue;
        const { first, differing } = tourBoard(board, behaviour);
        expect(first === null).toBe(differing === 0);
        if (!first) continue;
        found++;
        const circuit = compileCircuit(board);
        const panel = panelOf(board, circuit, behaviour.inputs, ['Q0', 'Q1', 'Y']);
        const live = new PoweredBoard(board, extractNets(board), { circuit });
        live.settle();
        for (const name of first.presses) {
          const s = panel.switches[behaviour.inputs.indexOf(name)] ?? -1;
          if (s >= 0) live.setSwitch(s, !live.isOn(s));
          live.settle();
        }
        expect(lampsOf(live, panel)).toEqual(first.seen);
        expect(first.wanted.some((w, o) => w !== null && w !== first.seen[o])).toBe(true);
        expect(shownAfter(behaviour, first.presses, 'unknown')).toEqual(first.wanted);
      }
    expect(found).toBeGreaterThan(8);
  });

  it('starts by chance where there is no reset: a board whose states agree, however it starts, is told as right', async () => {
    const unreset = fc
      .array(
        fc.record({
          data: fc.constantFrom('~Q0', 'Q0 ^ A', '~(Q0 & A)', 'Q1', 'Q0 & Q1', 'Q0 ^ Q1'),
          edge: fc.constantFrom('rise', 'fall'),
        }),
        { minLength: 2, maxLength: 2 },
      )
      .map(
        (bits) => `in A C\nout Q0 Q1\n${bits.map(({ data, edge }, i) => `Q${i} = ${data} at ${edge} C`).join('\n')}`,
      );
    await fc.assert(
      fc.asyncProperty(unreset, async (sheet) => {
        const { job } = await laidOut(sheet);
        const tour = tourBoard(job.board, behaviourOf(sheet));
        expect([tour.differing, tour.first], sheet).toEqual([0, null]);
        if (tour.findings.some((f) => f.code === 'tour-no-reset')) expect(tour.starts?.tried).toBe(32);
      }),
      { numRuns: 6 },
    );
  });

  it('finds by chance what no press from a cleared start shows, and the start that shows it shows it again', async () => {
    // Two flip-flops that hand their bits over; from 00 they stay there, with the fault as without it.
    const behaviour = behaviourOf('in C\nout A B\nA = B at rise C\nB = A at rise C');
    const { job } = await laidOut('in C Z\nout A B\nA = B at rise C\nB = A & Z at rise C');
    const { first, differing, starts, covered, transitions } = tourBoard(job.board, behaviour);
    expect(covered).toBe(transitions);
    expect(starts).toEqual({ tried: 32, differing });
    expect(differing).toBeGreaterThan(4);
    const { presses, seen, wanted, start } = first ?? expect.fail('nothing differs');
    expect(typeof start).toBe('object');
    const circuit = compileCircuit(job.board);
    const panel = panelOf(job.board, circuit, ['C'], ['A', 'B']);
    const live = new PoweredBoard(job.board, extractNets(job.board), { circuit, start });
    live.settle();
    for (const _ of presses) {
      live.setSwitch(panel.switches[0] ?? -1, !live.isOn(panel.switches[0] ?? -1));
      live.settle();
    }
    expect(lampsOf(live, panel)).toEqual(seen);
    expect(wanted.some((w, o) => w !== null && w !== seen[o])).toBe(true);
  });

  it('says where it had to begin cleared, and where it was cut', async () => {
    const { job } = await laidOut('in C\nout Q\nQ = ~Q at rise C');
    const behaviour = behaviourOf('in C\nout Q\nQ = ~Q at rise C');
    const whole = tourBoard(job.board, behaviour);
    expect(whole.findings.map((f) => f.code)).toEqual(['tour-no-reset']);
    expect(whole.starts).toEqual({ tried: 32, differing: 0 });
    expect([whole.transitions, whole.covered]).toEqual([4, 4]);
    const cut = tourBoard(job.board, behaviour, { mostStates: 2 });
    expect(cut.findings.map((f) => f.code)).toContain('tour-cut');
    const stopped = tourBoard(job.board, behaviour, { mostPresses: 1 });
    expect([stopped.steps.length, stopped.findings.at(-1)?.code]).toEqual([1, 'tour-incomplete']);
  });

  it('is not made of boards whose one-shots end by themselves, and says so', () => {
    const board = wired('seat 74HC123 b1.e20', `U1.16 > ${PLUS}`, `U1.8 > ${MINUS}`, 'seat 74HC74 b1.e40');
    const { steps, differing, covered, findings } = tourBoard(board, behaviourOf('in D CK\nout Q\nQ = D at rise CK'));
    expect([steps, differing, covered]).toEqual([[], 0, 0]);
    expect(findings.map(says)).toEqual([expect.stringContaining('pulses of U1 end by themselves')]);
  });
});
