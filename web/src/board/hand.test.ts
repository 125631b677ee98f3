import { applyEdit, holeXY, type Job, parseHole, printHole } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { allChosen, type HandEvent, type Hands, idleHands, react, stepped } from './hand';

const job = interlock();
const at = (hole: string) => holeXY(parseHole(hole) ?? expect.fail(hole));
const press = (hole: string, on: string | null = null, stay = false): HandEvent => ({
  kind: 'press',
  ...at(hole),
  on,
  stay,
});
const move = (hole: string): HandEvent => ({ kind: 'move', ...at(hole) });
const release = (hole: string): HandEvent => ({ kind: 'release', ...at(hole) });
const key = (k: string, shift = false): HandEvent => ({ kind: 'key', key: k, shift });

/** The hands and the job after a run of events. */
function run(events: readonly HandEvent[], start: Job = job): { hands: Hands; job: Job; edits: string[] } {
  let hands = idleHands;
  let current = start;
  const edits: string[] = [];
  for (const event of events) {
    const reaction = react(hands, event, current);
    if (!reaction) continue;
    hands = reaction.hands;
    if (!reaction.edit) continue;
    const applied = applyEdit(current, reaction.edit);
    edits.push(`${reaction.edit.kind}${applied.ok ? '' : ' refused'}`);
    if (applied.ok) current = applied.job;
  }
  return { hands, job: current, edits };
}

const jumpersOf = (j: Job) => Object.values(j.board.jumpers).map(({ from, to }) => `${from} > ${to}`);

describe('laying a jumper', () => {
  it.each([
    ['by Enter and a press', [press('b1.a60'), release('b1.a60'), key('Enter'), press('b1.j60'), release('b1.j60')]],
    ['by a drag', [press('b1.a60'), move('b1.c60'), move('b1.j60'), release('b1.j60')]],
    [
      'by keys',
      [press('b1.a60'), key('Escape'), key('Enter'), ...Array.from({ length: 9 }, () => key('ArrowUp')), key('Enter')],
    ],
  ])('%s', (_, events) => {
    const result = run(events);
    expect(result.edits).toEqual(['lay-jumper']);
    expect(jumpersOf(result.job)).toContain('b1.a60 > b1.j60');
    expect(result.hands.laying).toBeNull();
  });

  it('is never begun by looking: presses on one hole after another show their strips', () => {
    const { edits, hands } = run(['b1.a60', 'b1.j60', 'b1.c58'].flatMap((hole) => [press(hole), release(hole)]));
    expect(edits).toEqual([]);
    expect(hands).toMatchObject({ cursor: 'b1.c58', laying: null, drawing: false });
  });

  it('by keys from a pin takes a free hole of the pin’s strip', () => {
    const u1 = job.board.parts.U1?.at ?? '';
    const { edits, job: after } = run([
      press(u1, 'U1'),
      release(u1),
      key('Escape'),
      key('Enter'),
      ...Array.from({ length: 5 }, () => key('ArrowLeft')),
      key('Enter'),
    ]);
    expect(edits).toEqual(['lay-jumper']);
    const added = jumpersOf(after).filter((j) => !jumpersOf(job).includes(j));
    expect(added[0]).toMatch(new RegExp(`^b1\\.[abcd]${u1.slice(4)} > `));
  });

  it('ends without one on Escape, on the same hole again, or when a part is pressed', () => {
    for (const last of [[key('Escape')], [press('b1.a60')], [press('b1.e20', 'U1'), release('b1.e20')]]) {
      const { edits, hands } = run([press('b1.a60'), release('b1.a60'), key('Enter'), ...last]);
      expect(edits).toEqual([]);
      expect(hands.laying).toBeNull();
    }
  });
});

describe('carrying a part', () => {
  const u2 = job.board.parts.U2?.at ?? '';
  const beside = u2.replace(/\d+$/, (n) => String(Number(n) - 1));

  it('seats it where it is let go, its jumpers with it', () => {
    const { job: after, hands } = run([press(u2, 'U2'), move(beside), release(beside)]);
    expect(after.board.parts.U2?.at).toBe(beside);
    expect(jumpersOf(after)).not.toEqual(jumpersOf(job));
    expect(hands).toMatchObject({ carry: null, chosen: 'U2' });
  });

  it('leaves the jumpers where they are with Alt', () => {
    const { job: after } = run([press(u2, 'U2', true), move(beside), release(beside)]);
    expect(after.board.parts.U2?.at).toBe(beside);
    expect(jumpersOf(after)).toEqual(jumpersOf(job));
  });

  it('keeps a chip over the channel wherever the hand strays', () => {
    const { hands } = run([press(u2, 'U2'), move('b1.a40')]);
    expect(hands.carry?.at).toBe('b1.e40');
  });

  it('is refused over another chip, and nothing has changed', () => {
    const u1 = job.board.parts.U1?.at ?? '';
    const { job: after, edits } = run([press(u2, 'U2'), move(u1), release(u1)]);
    expect(edits).toEqual(['move refused']);
    expect(after).toBe(job);
  });
});

describe('bending a jumper', () => {
  const bare: Job = {
    ...job,
    board: { ...job.board, jumpers: { w1: { id: 'w1', from: 'b1.a50', to: 'b1.a60' } } },
  };
  const path = [at('b1.a50'), at('b1.a60')];
  const on = (x: number, y: number): HandEvent => ({ kind: 'press', x, y, on: 'w1', path, stay: false });
  const { y } = at('b1.a50');

  it('draws the stretch under the hand aside, to rows and half way between', () => {
    const drag = (dy: number): HandEvent[] => [
      on(55.5, y),
      { kind: 'move', x: 56, y: y + dy / 2 },
      { kind: 'move', x: 57, y: y + dy },
      { kind: 'release', x: 57, y: y + dy },
    ];
    const { job: after, edits, hands } = run(drag(-1.6), bare);
    expect(edits).toEqual(['bend']);
    expect(after.board.jumpers.w1?.corners).toEqual([
      { x: 50, y: y - 1.5 },
      { x: 60, y: y - 1.5 },
    ]);
    expect(hands).toMatchObject({ chosen: 'w1', bend: null, laying: null });
    // A hand that only trembles chooses.
    expect(run(drag(0.3), bare).edits).toEqual([]);
    // Drawn back, it is as it was.
    expect(
      run([...drag(-1.6).slice(0, 3), { kind: 'move', x: 55, y }, { kind: 'release', x: 55, y }], bare).edits,
    ).toEqual([]);
    expect(run([...drag(-1.6).slice(0, 3), key('Escape'), { kind: 'release', x: 57, y: y - 1.6 }], bare).edits).toEqual(
      [],
    );
  });

  it('meets the holes below a wire that is not chosen, and the wire once it is', () => {
    const below: HandEvent = on(at('b1.a55').x, y);
    expect(run([below], bare).hands).toMatchObject({ laying: 'b1.a55', bend: null });
    const first: HandEvent[] = [on(55.5, y), { kind: 'release', x: 55.5, y }];
    expect(run([...first, below], bare).hands).toMatchObject({ laying: null, bend: { id: 'w1', stretch: 0 } });
    // Its ends are still there to be plugged elsewhere.
    expect(run([...first, on(50, y)], bare).hands).toMatchObject({ plug: { id: 'w1', end: 'from' }, bend: null });
  });
});

describe('keys', () => {
  it('step through everything on the board and back', () => {
    const forward = run([key('n'), key('n')]).hands.chosen;
    expect(forward).toBe('C2');
    expect(run([key('n'), key('n'), key('N', true)]).hands.chosen).toBe('C1');
  });

  it('nudge, turn and pull what is chosen', () => {
    const chosen = [press('b1.c50', 'D3'), release('b1.c50')];
    const start = { ...job, board: { ...job.board, jumpers: {} } };
    const d3 = job.board.parts.D3?.at ?? '';
    expect(run([...chosen, key('ArrowUp')], start).job.board.parts.D3?.at).not.toBe(d3);
    expect(run([...chosen, key('r')], start).job.board.parts.D3?.rotation).toBe(180);
    expect(run([...chosen, key('Delete')], start).job.board.parts.D3).toBeUndefined();
  });

  it('pull the jumper under the cursor', () => {
    const { from, id } = job.board.jumpers.w10 ?? expect.fail('no w10');
    const hands = { ...idleHands, cursor: from };
    expect(react(hands, { kind: 'key', key: 'Delete', shift: false }, job)?.edit).toEqual({ kind: 'pull-jumper', id });
  });

  it('that the board does not know are left to others', () => {
    expect(react(idleHands, { kind: 'key', key: 'x', shift: false }, job)).toBeNull();
  });

  it('step over the channel, the gaps and missing rail holes, and stop at the edge', () => {
    expect(stepped('b1.e5', 0, -1, job.board)).toBe('b1.f5');
    expect(stepped('b1.j5', 0, -1, job.board)).toBe('b1.top-5');
    expect(stepped('b1.top+7', 1, 0, job.board)).toBe('b1.top+9');
    expect(stepped('b1.a63', 1, 0, job.board)).toBe('b1.a63');
  });
});

describe('several things', () => {
  const add = (hole: string, on: string | null): HandEvent => ({ ...press(hole, on), add: true }) as HandEvent;
  const { S1, S2 } = job.board.parts;
  const both = [add(S1?.at ?? '', 'S1'), add(S2?.at ?? '', 'S2')];

  it('are chosen one by one with Shift, and left out again the same way', () => {
    expect(allChosen(run(both).hands)).toEqual(['S1', 'S2']);
    expect(allChosen(run([...both, ...both.slice(0, 1)]).hands)).toEqual(['S2']);
  });

  it('are chosen by a frame that holds them whole', () => {
    const frame: HandEvent[] = [
      { kind: 'press', x: 0, y: 6, on: null, stay: false, add: true },
      { kind: 'move', x: 8, y: 20 },
      { kind: 'release', x: 8, y: 20 },
    ];
    const chosen = allChosen(run(frame).hands);
    expect(chosen).toEqual(expect.arrayContaining(['S1', 'S2', 'R1', 'R2']));
    expect(chosen).not.toContain('U1');
  });

  it('move together by a drag or by arrows, and are pulled out in one step', () => {
    const at = S1?.at ?? '';
    const all = [
      add(at, 'S1'),
      ...['R1', 'S2', 'R2', 'S3', 'R3', 'S4', 'R4'].map((r) => add(job.board.parts[r]?.at ?? '', r)),
    ];
    const pulled = run([...all, key('Delete')]);
    expect(pulled.edits).toEqual(['all']);
    expect(pulled.job.board.parts.R4).toBeUndefined();
    const nudge = run([...both, key('ArrowLeft')]);
    expect(nudge.edits).toEqual(['shift']);
    const to = parseHole(at.replace(/\d+$/, (c) => String(Number(c) - 1))) ?? expect.fail();
    const drag = run([...both, press(at, 'S1'), move(printHole(to)), release(printHole(to))]);
    expect(drag.edits).toEqual(['shift']);
    expect(drag.job).toEqual(nudge.job);
  });

  it('are copied and pasted, the copies chosen', () => {
    const taken = run(both);
    const { clip } = react(taken.hands, { kind: 'copy' }, job) ?? {};
    const pasted = react(taken.hands, { kind: 'paste', clip: clip ?? expect.fail() }, job);
    expect(allChosen(pasted?.hands ?? expect.fail())).toEqual(['S5', 'S6']);
    expect(pasted?.edit && applyEdit(job, pasted.edit).ok).toBe(true);
    const nothing = react(idleHands, { kind: 'paste', clip: { parts: [], jumpers: [] } }, job);
    expect(nothing?.refusal?.code).toBe('hand/nothing-copied');
    expect(allChosen(react(idleHands, { kind: 'choose-all' }, job)?.hands ?? idleHands)).toContain('w28');
  });
});

describe('an end of the chosen jumper', () => {
  it('is plugged elsewhere by a press on it and another on a free hole', () => {
    const [id = '', jumper] = Object.entries(job.board.jumpers)[5] ?? [];
    const end = jumper?.to ?? '';
    const half = at(end);
    const { edits, job: after } = run([
      { kind: 'press', x: half.x + 0.45, y: half.y, on: id, stay: false },
      press(end, id),
      release(end),
      press('b1.a60'),
    ]);
    expect(edits).toEqual(['re-plug']);
    expect(after.board.jumpers[id]).toEqual({ ...jumper, to: 'b1.a60' });
  });
});

describe('Shift and an arrow', () => {
  it('goes from pin to pin', () => {
    const u1 = job.board.parts.U1?.at ?? '';
    const { hands } = run([press(u1, 'U1'), release(u1), key('Escape'), key('ArrowRight', true)]);
    expect(hands.cursor).toBe(u1.replace(/\d+$/, (c) => String(Number(c) + 1)));
    expect(run([key('ArrowLeft', true)]).hands.cursor).toBe('b1.e1');
  });
});
