import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { readSheet } from '../design';
import { UNKNOWN } from '../logic';
import { nameNets, sourcesOf } from '../planning';
import { faults } from '../testing/faults';
import { laidOut } from '../testing/interlock';
import { LiveRun } from './live-run';
import { liveFindings } from './live-state';
import { tourBoard } from './tour';

const sheet = 'in A C R\nout Q0 Q1 Y\nQ0 = ~Q0 at rise C clear R\nQ1 = Q0 ^ Q1 at rise C clear R\nY = Q1 & A | ~A & Q0';

/** A live board held to its sheet, and what presses it: each switch turned over by the name of its input. */
function held(
  board: Awaited<ReturnType<typeof laidOut>>['job']['board'],
  packing: Awaited<ReturnType<typeof laidOut>>['packing'],
) {
  const behaviour = readSheet(sheet).design.behaviour ?? expect.fail();
  const nets = extractNets(board);
  const sources = sourcesOf(packing, board);
  const names = nameNets(nets, sources);
  const pins = [...names].flatMap(([net, signal]) => {
    const pin = nets.nets[net]?.pins.find((p) => nets.leads.get(p)?.type.role === 'output');
    return pin === undefined ? [] : [{ signal, pin }];
  });
  const run = new LiveRun(board, nets, {
    subject: null,
    on: [],
    dials: new Map(),
    start: 'unknown',
    bounce: null,
    speed: Number.POSITIVE_INFINITY,
    isPaused: false,
    scope: null,
    traced: [],
    sheet: { behaviour, pins },
    destroyed: new Map(),
  });
  const refs = new Map(
    Object.values(board.parts).flatMap((p) => (p.signal && p.part === 'switch' ? [[p.signal, p.ref] as const] : [])),
  );
  const on = new Set<string>();
  const press = (name: string): void => {
    if (on.has(name)) on.delete(name);
    else on.add(name);
    run.setSwitches(new Map([[refs.get(name) ?? '', on.has(name)]]));
    run.advance(1000, () => false);
    run.state();
  };
  return { run, press, behaviour, isWhole: ['A', 'C', 'R'].every((name) => refs.has(name)) };
}

describe('a live board held to its sheet', () => {
  it('never parts from it as it was laid out, whatever is pressed', async () => {
    const { job, packing } = await laidOut(sheet);
    const { run, press } = held(job.board, packing);
    let x = 7;
    for (let n = 0; n < 300; n++) {
      x = (Math.imul(x, 1_664_525) + 1_013_904_223) >>> 0;
      press(['A', 'C', 'R'][(x >>> 10) % 3] as string);
    }
    expect(run.state().parting).toBeNull();
  });

  it('parts where a tour parts, with the presses, what should be shown, and a pin that is at another level', async () => {
    const { job, packing } = await laidOut(sheet);
    let [parted, pinned] = [0, 0];
    for (const fault of Object.values(faults))
      for (let n = 0; n < 16; n++) {
        const board = fault(job.board, 29 * n + 3);
        if (!board) continue;
        const { run, press, behaviour, isWhole } = held(board, packing);
        // Only who presses a switch hears of it.
        if (!isWhole) continue;
        const { first } = tourBoard(board, behaviour);
        for (const name of first?.presses ?? ['R', 'C', 'C', 'R', 'A']) press(name);
        run.setScope({ spanNs: 10, endNs: null, columns: 4 });
        const state = run.state();
        // Both are there to be drawn from the parting on, and not before.
        expect(state.wanted.map((row) => row.name)).toEqual(state.parting ? ['Q0', 'Q1', 'Y'] : []);
        for (const { name, wanted } of state.parting?.presses.length === first?.presses.length
          ? (state.parting?.outputs ?? [])
          : [])
          expect(state.wanted.find((row) => row.name === name)?.to[3]).toBe(wanted);
        if (!first) expect(state.parting).toBeNull();
        // A lamp that is gone shows nothing: only a tour misses it.
        const isShown = first?.wanted.some((w, o) => w !== null && w !== first.seen[o] && first.seen[o] !== UNKNOWN);
        if (!first || !isShown) continue;
        parted++;
        expect(state.parting?.outputs.length).toBeGreaterThan(0);
        expect(state.parting?.presses.join()).toBe(first.presses.slice(0, state.parting?.presses.length).join());
        if (state.parting?.pin) pinned++;
        expect(liveFindings(state).map((f) => f.code)).toContain('sheet-parted');
      }
    expect(Math.min(parted, pinned)).toBeGreaterThan(4);
  });
});
